"""Files of recorders and cameras, laid over each other."""

from collections.abc import Iterator
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from fastapi.responses import StreamingResponse

from tidy_trunk.api.dependencies import ItemId, OwnId, PieceOf, Sync
from tidy_trunk.api.routers.recordings import PIECE, RECORDING_BODY
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.recordings import ReceivedOut
from tidy_trunk.api.schemas.sync import NudgeIn, PlaceIn, SideIn, SyncFileOut, SyncMatchOut, SyncOut, WavesOut
from tidy_trunk.services.sync_files import sides_of

router = APIRouter(prefix="/jobs/{job_id}/sync", tags=["sync"], responses=PROBLEMS)

FromSeconds = Annotated[float, Query(ge=-86_400, le=86_400, allow_inf_nan=False)]
SpanSeconds = Annotated[float, Query(gt=0, le=86_400, allow_inf_nan=False)]
Frame = Annotated[int, Query(ge=0, le=10**7)]
JPEG: dict[int | str, dict[str, Any]] = {200: {"content": {"image/jpeg": {}}}}
WAV: dict[int | str, dict[str, Any]] = {200: {"content": {"audio/wav": {}}}}
PIECE_BYTES = 1 << 20


@router.get("")
def read_sync(job_id: UUID, sync: Sync) -> SyncOut:
    """All files that were dropped in, and where they lie."""
    return SyncOut.from_core(sync.view(job_id))


@router.post("/files", status_code=201, openapi_extra=RECORDING_BODY, responses=PIECE)
async def receive_file(
    job_id: UUID,
    file_id: OwnId,
    piece: PieceOf,
    request: Request,
    response: Response,
    sync: Sync,
    name: Annotated[str, Query(max_length=400, description="Name of the file")] = "recording",
    side: Annotated[
        str, Query(max_length=20, description="recorder or camera; nothing where it is to be told from the file")
    ] = "",
) -> SyncFileOut | ReceivedOut:
    """Take a file in as it lies on the disk, whole or piece by piece like a recording, and begin to look at it."""
    taken = await sync.receive(job_id, file_id, name, piece, side, request.stream())
    if isinstance(taken, int):
        response.status_code = 202
        return ReceivedOut(received=taken)
    return SyncFileOut.from_record(taken, sides_of([taken])[taken.id])


@router.put("/files/{file_id}/side")
def set_side(job_id: UUID, file_id: UUID, body: SideIn, sync: Sync) -> SyncOut:
    """Say of which side a file is, where it was told wrongly."""
    sync.set_side(job_id, file_id, body.side)
    return SyncOut.from_core(sync.view(job_id))


@router.delete("/files/{file_id}", status_code=204)
def remove_file(job_id: UUID, file_id: UUID, sync: Sync) -> None:
    """Take a file off the list, with what was kept of it."""
    sync.remove(job_id, file_id)


@router.get("/files/{file_id}/still.jpg", response_class=Response, responses=JPEG)
def read_still(job_id: UUID, file_id: ItemId, sync: Sync, frame: Frame) -> Response:
    """A picture of a camera file, by its number from 0 on."""
    kept = {"Cache-Control": "private, max-age=3600"}
    return Response(sync.still(job_id, file_id, frame), media_type="image/jpeg", headers=kept)


@router.post("/match", status_code=202)
def match_files(job_id: UUID, sync: Sync) -> SyncMatchOut:
    """Begin to lay all files over each other; ask again to see how far that is."""
    return SyncMatchOut.from_record(sync.match(job_id))


@router.post("/match/cancel")
def cancel_match(job_id: UUID, sync: Sync) -> SyncOut:
    """Stop looking; one that is done stays as it is."""
    return SyncOut.from_core(sync.cancel(job_id))


@router.put("/clips/{file_id}/nudge")
def nudge_clip(job_id: UUID, file_id: ItemId, body: NudgeIn, sync: Sync) -> SyncOut:
    """Move a camera file from where it was found."""
    sync.nudge(job_id, file_id, body.samples, body.request)
    return SyncOut.from_core(sync.view(job_id))


@router.put("/clips/{file_id}/place")
def place_clip(job_id: UUID, file_id: ItemId, body: PlaceIn, sync: Sync) -> SyncOut:
    """Say which moments of two files are the same, as where hands close in a picture and where that is heard."""
    sync.place(job_id, str(body.reference), file_id, body.reference_s, body.other_s, body.frame, body.request)
    return SyncOut.from_core(sync.view(job_id))


@router.get("/clips/{file_id}/waves")
def read_waves(job_id: UUID, file_id: ItemId, sync: Sync, at_s: FromSeconds, span_s: SpanSeconds) -> WavesOut:
    """A camera file and its recorder file over a stretch of the recorder's time."""
    return WavesOut.from_core(sync.waves(job_id, file_id, at_s, span_s))


@router.get("/clips/{file_id}/heard.wav", response_class=Response, responses=WAV)
def hear_clip(job_id: UUID, file_id: ItemId, sync: Sync, at_s: FromSeconds, span_s: SpanSeconds) -> Response:
    """The recorder on the left, the camera on the right, equally loud."""
    return Response(sync.heard(job_id, file_id, at_s, span_s), media_type="audio/wav")


@router.get("/clips/{file_id}/aligned.wav", response_class=StreamingResponse, responses=WAV)
def read_aligned(
    job_id: UUID,
    file_id: ItemId,
    sync: Sync,
    stretch: Annotated[bool, Query(description="Take its drift out")] = False,
) -> StreamingResponse:
    """A copy of a camera file's sound as Broadcast WAV that says where it begins on the recorder's clock."""
    with sync.aligned(job_id, file_id, stretch=stretch) as (name, path):
        file = path.open("rb")  # read on when its name is gone, and closed when all of it was sent
        size = path.stat().st_size

    def pieces() -> Iterator[bytes]:
        with file:
            while piece := file.read(PIECE_BYTES):
                yield piece

    plain = name.encode("ascii", errors="replace").decode().replace('"', "'")
    headers = {"Content-Length": str(size), "Content-Disposition": f'attachment; filename="{plain}"'}
    return StreamingResponse(pieces(), media_type="audio/wav", headers=headers)


@router.get("/timelines/{line}/export.{kind}", response_class=Response)
def export_timeline(job_id: UUID, line: int, kind: ItemId, sync: Sync) -> Response:
    """A timeline as csv, edl or otio."""
    name, data = sync.export(job_id, kind, line)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(data, media_type="application/octet-stream", headers=headers)
