"""Time on a set: clocks, sync, delay."""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import Clock
from tidy_trunk.api.schemas.clock import ClockOut
from tidy_trunk.api.schemas.jobs import PROBLEMS

router = APIRouter(prefix="/jobs/{job_id}/clock", tags=["clock"], responses=PROBLEMS)


@router.get("")
def read_clock(job_id: UUID, clock: Clock) -> ClockOut:
    """Who gives time to whom over the job's day, by what picture and sound will meet, and how late both are."""
    return ClockOut.from_core(clock.view(job_id))
