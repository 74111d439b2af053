"""What is wrong?"""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import FaultSearch
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.fault_search import SearchIn
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.fault_search import SearchOut

router = APIRouter(prefix="/jobs/{job_id}", tags=["fault search"], responses=PROBLEMS)


@router.post("/fault-search")
@heavy
def search_fault(job_id: UUID, body: SearchIn, fault_search: FaultSearch) -> SearchOut:
    """What could cause a symptom in this job, what to try next, and what is left; nothing is kept."""
    answers = [answer.to_core() for answer in body.answers]
    return SearchOut.from_core(*fault_search.search(job_id, body.symptom, body.text, body.track, answers))
