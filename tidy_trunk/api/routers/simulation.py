"""The simulation: devices, set as the job says, to be heard and seen at every point."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Path, Query, Response

from tidy_trunk.api.dependencies import ItemId, OwnId, Simulation, SimulationRecordings
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.line_up import SimulatedStepsIn
from tidy_trunk.api.schemas.recordings import RecordingOut
from tidy_trunk.api.schemas.simulation import PointOut, SeenOut
from tidy_trunk.core.sound.simulation import Play
from tidy_trunk.services.simulation import SimulationRequest

router = APIRouter(prefix="/jobs/{job_id}/simulation/{track_id}", tags=["simulation"], responses=PROBLEMS)
PointNumber = Annotated[int, Path(ge=0, le=1000)]


def _asked(
    play: Play = Play.VOICE,
    tone: Annotated[bool, Query(description="The device before the track sends the job's tone")] = False,
    loose: Annotated[str, Query(max_length=120, description="Run on the way whose plug is loose")] = "",
) -> SimulationRequest:
    return SimulationRequest(play=play, from_sender=tone, loose=loose)


AskedDep = Annotated[SimulationRequest, Depends(_asked)]


@router.get("/points")
@heavy
def read_points(job_id: UUID, track_id: ItemId, simulation: Simulation) -> list[PointOut]:
    """Where one can listen on the way to a track, from the microphone on."""
    index, points = simulation.points(job_id, track_id)
    return [PointOut.from_core(index, number, point) for number, point in enumerate(points)]


@router.get("/points/{number}")
@heavy
def read_point(job_id: UUID, track_id: ItemId, number: PointNumber, simulation: Simulation, asked: AskedDep) -> SeenOut:
    """Level, spectrum and waveform at a point."""
    return SeenOut.from_core(simulation.seen(job_id, track_id, number, asked))


@router.get("/points/{number}/sound.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
@heavy
def read_sound(
    job_id: UUID, track_id: ItemId, number: PointNumber, simulation: Simulation, asked: AskedDep
) -> Response:
    """What is heard at a point, a loop without a seam."""
    sound = simulation.sound(job_id, track_id, number, asked)
    return Response(sound, media_type="audio/wav", headers={"Content-Disposition": 'inline; filename="simulation.wav"'})


@router.post("/tone", status_code=201)
@heavy
def simulate_tone(job_id: UUID, track_id: ItemId, own_id: OwnId, simulation: SimulationRecordings) -> RecordingOut:
    """Tone through simulated devices, measured on a track as a recording is; ready after some seconds."""
    return RecordingOut.from_record(simulation.tone(job_id, own_id, track_id))


@router.post("/steps", status_code=201)
@heavy
def simulate_steps(
    job_id: UUID, track_id: ItemId, own_id: OwnId, body: SimulatedStepsIn, simulation: SimulationRecordings
) -> RecordingOut:
    """Tone through simulated devices while a knob is turned, measured on a track as a recording is."""
    record = simulation.steps(job_id, own_id, track_id, body.device, body.control, body.positions, body.target_dbfs)
    return RecordingOut.from_record(record)
