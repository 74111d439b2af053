"""The trunk: what the user owns, beside all jobs; and what a job takes out of it."""

from typing import Annotated, Literal
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Query, Request, Response

from tidy_trunk.api.dependencies import PieceOf, Recordings, Trunk
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.log import PHOTO_BODY
from tidy_trunk.api.schemas.trunk import (
    CableTestIn,
    ChosenIn,
    PieceChangeIn,
    PiecesIn,
    StandInTestIn,
    TicksIn,
    TrunkLineIn,
    TrunkTableIn,
    UsedIn,
)
from tidy_trunk.results.trunk import CableTestOut, ContactPairOut, DescribedOut, StockOut, TestedOut, TrunkOut

router = APIRouter(prefix="/trunk", tags=["trunk"], responses=PROBLEMS)
of_jobs = APIRouter(prefix="/jobs/{job_id}/trunk", tags=["trunk"], responses=PROBLEMS)


@router.get("")
def read_stock(trunk: Trunk) -> StockOut:
    """Everything that lies in the trunk."""
    return trunk.stock()


@router.post("/preview")
def preview_line(body: TrunkLineIn, trunk: Trunk) -> list[DescribedOut]:
    """What a line would add; nothing is kept."""
    return trunk.would_add(body.line)


@router.post("")
def add_line(body: TrunkLineIn, trunk: Trunk) -> StockOut:
    """Put what a line says into the trunk."""
    return trunk.add(body.line)


@router.get("/table.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def read_table(trunk: Trunk) -> Response:
    """The trunk as a table; no cell of it is a formula."""
    headers = {"Content-Disposition": 'attachment; filename="trunk.csv"'}
    return Response(trunk.table(), media_type="text/csv", headers=headers)


@router.post("/table/preview")
def preview_table(body: TrunkTableIn, trunk: Trunk) -> list[DescribedOut]:
    """What a table would add; nothing is kept. What is wrong with it is said with line and column."""
    return trunk.would_read(body.text.encode())


@router.post("/table")
def add_table(body: TrunkTableIn, trunk: Trunk) -> StockOut:
    """Put what a table says into the trunk, all of it or nothing."""
    return trunk.read(body.text.encode())


@router.post("/remove")
def remove_pieces(body: PiecesIn, trunk: Trunk) -> StockOut:
    """Take pieces out for good, with what jobs have claimed of them."""
    return trunk.remove(body.pieces)


@router.put("/pieces/{piece_id}")
def change_piece(piece_id: UUID, body: PieceChangeIn, trunk: Trunk) -> StockOut:
    """Number, case, length, a fault, when it was tested."""
    return trunk.change(piece_id, body.values())


@router.post("/pieces/{piece_id}/photo", openapi_extra=PHOTO_BODY)
async def add_piece_photo(
    piece_id: UUID, part: PieceOf, request: Request, trunk: Trunk, recordings: Recordings
) -> StockOut:
    """A photograph of a piece (JPEG, PNG or WebP), in place of the one before: kept small, without where it was taken."""
    jpeg = await recordings.shrunk(part, request.stream())
    return await to_thread.run_sync(trunk.put_photo, piece_id, jpeg)


@router.get("/pieces/{piece_id}/photo", response_class=Response, responses={200: {"content": {"image/jpeg": {}}}})
def read_piece_photo(piece_id: UUID, trunk: Trunk) -> Response:
    """The photograph of a piece."""
    return Response(trunk.photo(piece_id), media_type="image/jpeg")


@router.delete("/pieces/{piece_id}/photo")
def remove_piece_photo(piece_id: UUID, trunk: Trunk) -> StockOut:
    """Remove the photograph of a piece."""
    return trunk.remove_photo(piece_id)


@router.post("/pieces/{piece_id}/used")
def use_piece(piece_id: UUID, body: UsedIn, trunk: Trunk) -> StockOut:
    """One of several that are alike is used up: cells, tape."""
    return trunk.use(piece_id, body.count)


@router.get("/pieces/{piece_id}/test")
def read_test(piece_id: UUID, trunk: Trunk) -> CableTestOut:
    """What a tester shows on a whole cable of that class."""
    return trunk.tester(piece_id)


@router.post("/pieces/{piece_id}/test")
def test_piece(piece_id: UUID, body: CableTestIn, trunk: Trunk) -> TestedOut:
    """Enter what a tester showed: the cable is tested, or its fault keeps it out of every run."""
    return trunk.tested(piece_id, [(pair.near, pair.far) for pair in body.pairs])


@router.post("/pieces/{piece_id}/stand-in")
def stand_in_test(piece_id: UUID, body: StandInTestIn, trunk: Trunk) -> list[ContactPairOut]:
    """What a tester would show on this cable with a fault, where there is no tester at hand; nothing is kept."""
    return trunk.stand_in(piece_id, body.fault, body.seed)


@of_jobs.get("")
@heavy
def read_trunk(job_id: UUID, trunk: Trunk) -> TrunkOut:
    """What a job needs, which piece serves what, what is short, what is packed."""
    return trunk.for_job(job_id)


@of_jobs.get("/packing.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
@heavy
def read_packing(
    job_id: UUID, trunk: Trunk, paper: Annotated[Literal["a4", "letter"], Query(description="Its size")] = "a4"
) -> Response:
    """The packing list on paper."""
    return Response(trunk.packing_paper(job_id, paper), media_type="application/pdf")


@of_jobs.post("")
@heavy
def read_trunk_with_choice(job_id: UUID, body: ChosenIn, trunk: Trunk) -> TrunkOut:
    """The same with pieces chosen by hand: what that costs elsewhere."""
    return trunk.for_job(job_id, body.chosen)


@of_jobs.post("/claim")
@heavy
def claim_pieces(job_id: UUID, body: ChosenIn, trunk: Trunk) -> TrunkOut:
    """Hold these pieces for the job's day: no other job of that day is promised them."""
    return trunk.claim(job_id, body.chosen)


@of_jobs.delete("/claim")
@heavy
def release_pieces(job_id: UUID, trunk: Trunk) -> TrunkOut:
    """Hold nothing for this job any more."""
    return trunk.release(job_id)


@of_jobs.put("/ticks")
@heavy
def tick_lines(job_id: UUID, body: TicksIn, trunk: Trunk) -> TrunkOut:
    """What was packed, came back or is missing; in any order, late ones too."""
    return trunk.tick(job_id, [tick.to_core() for tick in body.ticks])
