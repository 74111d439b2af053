"""Time on a set: clocks, sync, delay."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from tidy_trunk.api.dependencies import Clock
from tidy_trunk.api.schemas.clock import ClockOut
from tidy_trunk.api.schemas.jobs import PROBLEMS

router = APIRouter(prefix="/jobs/{job_id}/clock", tags=["clock"], responses=PROBLEMS)


@router.get("")
def read_clock(
    job_id: UUID, clock: Clock, hours: Annotated[float, Query(gt=0, le=48, allow_inf_nan=False)] = 10.0
) -> ClockOut:
    """Who gives time to whom, by what picture and sound will meet, and how late pictures are, over a day of so many hours."""
    return ClockOut.from_core(clock.view(job_id, hours))
