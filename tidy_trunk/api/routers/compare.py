"""Ways to match a run, recorded and beside each other."""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import Compare, ItemId, OwnId, SimulationRecordings
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.compare import ComparedOut, CompareIn, OptionNameOut, OptionsIn
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.recordings import RecordingOut
from tidy_trunk.words import worded

router = APIRouter(prefix="/jobs/{job_id}/runs/{run_id}/compare", tags=["line-up"], responses=PROBLEMS)


@router.get("/options")
@heavy
def list_options(job_id: UUID, run_id: ItemId, compare: Compare) -> list[OptionNameOut]:
    """The options by which a run can be recorded, the one it is matched by now first."""
    return [OptionNameOut(id=option.id, label=worded(option.does)) for option in compare.options(job_id, run_id)]


@router.post("/simulation", status_code=201)
@heavy
def simulate_options(
    job_id: UUID, run_id: ItemId, own_id: OwnId, body: OptionsIn, simulation: SimulationRecordings
) -> list[RecordingOut]:
    """Tone and silence through simulated devices, one recording for each option; ready after some seconds."""
    return [RecordingOut.from_record(record) for record in simulation.options(job_id, own_id, run_id, body.options)]


@router.post("")
def compare_options(job_id: UUID, run_id: ItemId, body: CompareIn, compare: Compare) -> list[ComparedOut]:
    """Recordings by the option that each was made in: what they hold beside what was predicted, the quietest first."""
    return [ComparedOut.from_core(item) for item in compare.compare(job_id, run_id, body.recordings)]
