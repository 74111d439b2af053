"""Lining up: what to send where, readings, recordings that are measured, and simulated devices."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.dependencies import ItemId, LineUps
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.line_up import LineUpStepOut, ReadingIn, ReadingOut, VoiceStepOut

router = APIRouter(prefix="/jobs/{job_id}", tags=["line-up"], responses=PROBLEMS)


@router.get("/line-up")
def read_steps(job_id: UUID, line_up: LineUps) -> list[LineUpStepOut]:
    """What to send where and what must be read there, in the order of the work."""
    report, steps = line_up.steps(job_id)
    earlier = line_up.earlier(report, steps)
    return [LineUpStepOut.from_core(report, step, earlier.get(step.track)) for step in steps]


@router.get("/line-up/voices")
def read_voices(job_id: UUID, line_up: LineUps) -> list[VoiceStepOut]:
    """Behind the tone: whose voice each track must hold, and how loud."""
    report, steps = line_up.voices(job_id)
    return [VoiceStepOut.from_core(report, step) for step in steps]


@router.post("/line-up/{track_id}/reading")
def take_reading(job_id: UUID, track_id: ItemId, body: ReadingIn, line_up: LineUps) -> ReadingOut:
    """The edits that take over what a track showed; nothing is kept."""
    return ReadingOut.from_core(line_up.reading(job_id, track_id, body.read_dbfs, body.read_from, body.sent_dbfs))


@router.post("/line-up/{track_id}/earlier")
def take_earlier(job_id: UUID, track_id: ItemId, line_up: LineUps) -> ReadingOut:
    """The edits that set a pair as it was found in another job, to be verified by tone; nothing is kept."""
    return ReadingOut.from_core(line_up.as_earlier(job_id, track_id))


@router.get("/tone.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
def read_tone(
    job_id: UUID, line_up: LineUps, seconds: Annotated[float, Query(gt=0, le=600, allow_inf_nan=False)] = 30.0
) -> Response:
    """The job's line-up tone, two channels, the left one marked by interruptions."""
    headers = {"Content-Disposition": 'attachment; filename="tone.wav"'}
    return Response(line_up.tone(job_id, seconds), media_type="audio/wav", headers=headers)
