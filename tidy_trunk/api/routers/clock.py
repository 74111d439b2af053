"""Time on a set: clocks, sync, delay."""

from typing import Annotated
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Query, Request

from tidy_trunk.api.dependencies import Clock, ItemId, PieceOf, Recordings
from tidy_trunk.api.schemas.clock import ClockOut, MeasuredDelayOut
from tidy_trunk.api.schemas.edits import EditsOut
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.recordings import SOUND_BODY
from tidy_trunk.tasks.requests import FindClaps

router = APIRouter(prefix="/jobs/{job_id}/clock", tags=["clock"], responses=PROBLEMS)


@router.get("")
def read_clock(job_id: UUID, clock: Clock) -> ClockOut:
    """Timecode sources over the job's day, sync methods in post, and picture delays."""
    return ClockOut.from_core(clock.view(job_id))


@router.get("/pictures/{device}")
def read_picture_delay(
    job_id: UUID,
    device: ItemId,
    clock: Clock,
    delay: Annotated[str, Query(max_length=40, description="`5` or `5 frames`, or `200 ms`")],
    by_sdi: Annotated[bool, Query(description="At its SDI output; else at HDMI")] = False,
) -> EditsOut:
    """The edits that say how late a device's picture was measured to come out; nothing is kept."""
    return EditsOut.from_core(clock.picture_delay(job_id, device, delay, by_sdi=by_sdi))


@router.post("/screens/{device}/clap", openapi_extra=SOUND_BODY)
async def read_clap(
    job_id: UUID,
    device: ItemId,
    piece: PieceOf,
    request: Request,
    clock: Clock,
    recordings: Recordings,
    camera: Annotated[str, Query(max_length=120, description="Whose picture was on")],
    frame: Annotated[float, Query(ge=0, le=10**6, allow_inf_nan=False, description="In which the hands close, from 0")],
) -> MeasuredDelayOut:
    """How late a camera's picture is, by a clap in a recording of a switcher's programme; nothing is kept."""
    await to_thread.run_sync(clock.view, job_id)
    found = await recordings.look(piece, FindClaps(), request.stream())
    return MeasuredDelayOut.from_core(await to_thread.run_sync(clock.clap, job_id, device, camera, frame, found))
