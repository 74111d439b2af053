"""Attenuator design: attenuators designed, for a run or free."""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import ItemId, Jobs
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.pads import PadIn, PadOut, WantedPadOut
from tidy_trunk.core.advice.options import FREE
from tidy_trunk.services.pads import design_pad

router = APIRouter(tags=["pads"], responses=PROBLEMS)


@router.post("/pads")
def design(body: PadIn) -> PadOut:
    """A pad with its parts, how sure its loss is, what else it meets, and the lead that it makes."""
    return PadOut.from_core(design_pad(body.to_core()))


@router.get("/pads/usual")
def read_usual() -> WantedPadOut:
    """A pad to begin with: line into a camera's microphone socket."""
    return WantedPadOut.from_core(FREE)


@router.get("/jobs/{job_id}/runs/{run_id}/pad")
def read_wanted(job_id: UUID, run_id: ItemId, jobs: Jobs) -> WantedPadOut:
    """The pad that a run wants, and why."""
    return WantedPadOut.from_core(jobs.wanted_pad(job_id, run_id))
