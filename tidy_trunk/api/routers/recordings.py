"""Recordings that are measured, and what they say of knobs and meters."""

from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from fastapi.responses import FileResponse
from pydantic import FiniteFloat

from tidy_trunk.api.dependencies import LineUps, OwnId, PieceOf, Recordings
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.line_up import LawIn, MeterIn, ReadingOut
from tidy_trunk.api.schemas.recordings import ReceivedOut, RecordingOut
from tidy_trunk.core.plan import Scale
from tidy_trunk.tasks.requests import Measure

router = APIRouter(prefix="/jobs/{job_id}/recordings", tags=["line-up"], responses=PROBLEMS)

RECORDING_BODY = {
    "requestBody": {
        "required": True,
        "content": {
            "application/octet-stream": {"schema": {"type": "string", "format": "binary"}, "example": "RIFF…WAVE…"}
        },
    }
}

PIECE: dict[int | str, dict[str, Any]] = {202: {"model": ReceivedOut, "description": "A piece was taken"}}


@router.get("")
def list_recordings(job_id: UUID, recordings: Recordings) -> list[RecordingOut]:
    """The recordings of a job, the newest first, without what was found in them."""
    return [RecordingOut.from_record(record) for record in recordings.all(job_id)]


@router.post("", status_code=201, openapi_extra=RECORDING_BODY, responses=PIECE)
async def receive_recording(
    job_id: UUID,
    recording_id: OwnId,
    piece: PieceOf,
    request: Request,
    response: Response,
    recordings: Recordings,
    name: Annotated[str, Query(max_length=400, description="Name of the file")] = "recording",
    track: Annotated[str, Query(max_length=120, description="Track that it was made on")] = "",
    settings: Annotated[
        list[FiniteFloat] | None, Query(max_length=200, description="Of a step recording, in order")
    ] = None,
    target_dbfs: Annotated[float | None, Query(ge=-120, le=0, allow_inf_nan=False)] = None,
    keep: Annotated[bool, Query(description="Keep the sound too, as long as it is listed")] = False,
    test: Annotated[str, Query(max_length=240, description="Test of one's own gear that it answers")] = "",
) -> RecordingOut | ReceivedOut:
    """Take a recording in as it lies on the disk, and begin to measure it; ask for it again to see how far it is.

    Under an id of its sender it may come in pieces, each with its Content-Range, from the first to the last.
    """
    asked = Measure(track=track, settings=tuple(settings or ()), target_dbfs=target_dbfs, keep=keep, test=test)
    taken = await recordings.receive(job_id, recording_id, name, piece, asked, request.stream())
    if isinstance(taken, int):
        response.status_code = 202
        return ReceivedOut(received=taken)
    return RecordingOut.from_record(taken)


@router.get("/{recording_id}")
def read_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> RecordingOut:
    """How far a recording is, and what was found in it."""
    return RecordingOut.from_record(recordings.get(job_id, recording_id))


@router.get("/{recording_id}/sound", response_class=FileResponse, responses={200: {"content": {"audio/wav": {}}}})
def read_kept_sound(job_id: UUID, recording_id: UUID, recordings: Recordings) -> FileResponse:
    """The sound of a recording that was kept, as it was dropped in."""
    record, path = recordings.sound(job_id, recording_id)
    return FileResponse(path, filename=record.name, content_disposition_type="attachment")


@router.post("/{recording_id}/cancel")
def cancel_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> RecordingOut:
    """Stop measuring it; one that is done stays as it is."""
    return RecordingOut.from_record(recordings.cancel(job_id, recording_id))


@router.delete("/{recording_id}", status_code=204)
def delete_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> None:
    """Take a recording off the list, with what was found in it."""
    recordings.delete(job_id, recording_id)


@router.post("/{recording_id}/law")
def take_law(job_id: UUID, recording_id: UUID, body: LawIn, line_up: LineUps) -> ReadingOut:
    """The edits that take over what a knob gave in a recording of steps; nothing is kept."""
    scale = None if body.scale is None else Scale(*body.scale)
    return ReadingOut.from_core(line_up.law(job_id, recording_id, body.device, body.control, scale))


@router.post("/{recording_id}/meter")
def take_meter(job_id: UUID, recording_id: UUID, body: MeterIn, line_up: LineUps) -> ReadingOut:
    """The edits that take over how a meter reads beside what was recorded; nothing is kept."""
    return ReadingOut.from_core(line_up.meter(job_id, recording_id, body.track, body.shown_dbfs))
