"""Lining up: what to send where, readings, recordings that are measured, and simulated devices."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from pydantic import FiniteFloat

from tidy_trunk.api.dependencies import ItemId, LineUp, Recordings
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.line_up import BenchStepsIn, LawIn, LineUpStepOut, MeterIn, ReadingIn, ReadingOut
from tidy_trunk.api.schemas.recordings import RecordingOut
from tidy_trunk.core.plan import Scale

router = APIRouter(prefix="/jobs/{job_id}", tags=["line-up"], responses=PROBLEMS)

RECORDING_BODY = {
    "requestBody": {
        "required": True,
        "content": {
            "application/octet-stream": {"schema": {"type": "string", "format": "binary"}, "example": "RIFF…WAVE…"}
        },
    }
}


@router.get("/line-up")
def read_steps(job_id: UUID, line_up: LineUp) -> list[LineUpStepOut]:
    """What to send where and what must be read there, in the order of the work."""
    report, steps = line_up.steps(job_id)
    return [LineUpStepOut.from_core(report, step) for step in steps]


@router.post("/line-up/{track_id}/reading")
def take_reading(job_id: UUID, track_id: ItemId, body: ReadingIn, line_up: LineUp) -> ReadingOut:
    """The edits that take over what a track showed; nothing is kept."""
    return ReadingOut.from_core(line_up.reading(job_id, track_id, body.read_dbfs, body.read_from, body.sent_dbfs))


@router.post("/line-up/{track_id}/bench", status_code=201)
def measure_on_bench(job_id: UUID, track_id: ItemId, line_up: LineUp) -> RecordingOut:
    """Tone through simulated devices, measured on a track as a recording is."""
    return RecordingOut.from_record(line_up.on_the_bench(job_id, track_id))


@router.post("/line-up/{track_id}/bench-steps", status_code=201)
def step_on_bench(job_id: UUID, track_id: ItemId, body: BenchStepsIn, line_up: LineUp) -> RecordingOut:
    """Tone through simulated devices while a knob is turned, measured on a track as a recording is."""
    record = line_up.steps_on_the_bench(job_id, track_id, body.device, body.control, body.positions, body.target_dbfs)
    return RecordingOut.from_record(record)


@router.post("/recordings/{recording_id}/law")
def take_law(job_id: UUID, recording_id: UUID, body: LawIn, line_up: LineUp) -> ReadingOut:
    """The edits that take over what a knob gave in a recording of steps; nothing is kept."""
    scale = None if body.scale is None else Scale(*body.scale)
    return ReadingOut.from_core(line_up.law(job_id, recording_id, body.device, body.control, scale))


@router.post("/recordings/{recording_id}/meter")
def take_meter(job_id: UUID, recording_id: UUID, body: MeterIn, line_up: LineUp) -> ReadingOut:
    """The edits that take over how a meter reads beside what was recorded; nothing is kept."""
    return ReadingOut.from_core(line_up.meter(job_id, recording_id, body.track, body.shown_dbfs))


@router.get("/tone.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
def read_tone(
    job_id: UUID, line_up: LineUp, seconds: Annotated[float, Query(gt=0, le=600, allow_inf_nan=False)] = 30.0
) -> Response:
    """The job's line-up tone, two channels, the left one marked by interruptions."""
    headers = {"Content-Disposition": 'attachment; filename="tone.wav"'}
    return Response(line_up.tone(job_id, seconds), media_type="audio/wav", headers=headers)


@router.get("/recordings")
def list_recordings(job_id: UUID, recordings: Recordings) -> list[RecordingOut]:
    """The recordings of a job, the newest first, without what was found in them."""
    return [RecordingOut.from_record(record) for record in recordings.all(job_id)]


@router.post("/recordings", status_code=201, openapi_extra=RECORDING_BODY)
async def receive_recording(
    job_id: UUID,
    request: Request,
    recordings: Recordings,
    name: Annotated[str, Query(max_length=400, description="Name of the file")] = "recording",
    track: Annotated[str, Query(max_length=120, description="Track that it was made on")] = "",
    settings: Annotated[
        list[FiniteFloat] | None, Query(max_length=200, description="Of a step recording, in order")
    ] = None,
    target_dbfs: Annotated[float | None, Query(ge=-120, le=0, allow_inf_nan=False)] = None,
) -> RecordingOut:
    """Take a recording in as it lies on the disk, and begin to measure it; ask for it again to see how far it is."""
    asked = {"track": track, "settings": settings or [], "target_dbfs": target_dbfs}
    size = int(request.headers["content-length"])  # the guard lets nothing in that does not say it
    return RecordingOut.from_record(await recordings.receive(job_id, name, size, asked, request.stream()))


@router.get("/recordings/{recording_id}")
def read_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> RecordingOut:
    """How far a recording is, and what was found in it."""
    return RecordingOut.from_record(recordings.get(job_id, recording_id))


@router.post("/recordings/{recording_id}/cancel")
def cancel_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> RecordingOut:
    """Stop measuring it; one that is done stays as it is."""
    return RecordingOut.from_record(recordings.cancel(job_id, recording_id))


@router.delete("/recordings/{recording_id}", status_code=204)
def delete_recording(job_id: UUID, recording_id: UUID, recordings: Recordings) -> None:
    """Take a recording off the list, with what was found in it."""
    recordings.delete(job_id, recording_id)
