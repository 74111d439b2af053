"""Know your own gear: tests of a job's devices."""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import GearTests, OwnId, SimulationRecordings
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.gear_tests import GearAnswerIn, GearFoundOut, GearTestOut, SimulatedTestIn
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.recordings import RecordingOut
from tidy_trunk.core.plan import Scale

router = APIRouter(prefix="/jobs/{job_id}/gear-tests", tags=["equipment"], responses=PROBLEMS)


@router.get("")
@heavy
def list_gear_tests(job_id: UUID, gear_tests: GearTests) -> list[GearTestOut]:
    """What can be found out of the devices of a job as they are connected, by device, in the order of the work."""
    report, tests = gear_tests.all(job_id)
    return [GearTestOut.from_core(report, test) for test in tests]


@router.post("/answer")
def answer_gear_test(job_id: UUID, body: GearAnswerIn, gear_tests: GearTests) -> GearFoundOut:
    """What an answer says of a device, and the edits that keep it; nothing is kept."""
    scale = None if body.scale is None else Scale(*body.scale)
    found = gear_tests.answer(
        job_id, body.test, yes=body.yes, value=body.value, recording_id=body.recording, scale=scale
    )
    return GearFoundOut.from_service(found)


@router.post("/simulate", status_code=201)
@heavy
def simulate_gear_test(
    job_id: UUID, body: SimulatedTestIn, own_id: OwnId, simulation: SimulationRecordings
) -> RecordingOut:
    """The recording that a test wants, made by simulated devices; measured as one that is dropped in, it is ready after some seconds."""
    return RecordingOut.from_record(simulation.gear_test(job_id, own_id, body.test))
