"""The day of a job: what is done when, and what cannot be kept."""

from typing import Annotated, Final, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.dependencies import Day
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.day import DaySheetIn
from tidy_trunk.api.schemas.edits import EditsOut
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.day import DayOut

router = APIRouter(prefix="/jobs/{job_id}/day", tags=["day"], responses=PROBLEMS)

TYPES: Final = {"pdf": "application/pdf", "csv": "text/csv", "ics": "text/calendar"}
"""Kinds of files of a day. [RFC9110]"""


@router.get("")
@heavy
def read_day(
    job_id: UUID,
    day: Day,
    rest: Annotated[bool, Query(description="From now on, by what was logged, once the day is on")] = False,
    first: Annotated[bool, Query(description="At once, and nearly as good")] = False,
) -> DayOut:
    """What the sound crew does when, so that nothing runs out in a take and the set is held least often."""
    return day.plan(job_id, from_now=rest, is_first=first)[1]


@router.post("/sheet")
def read_day_sheet(job_id: UUID, body: DaySheetIn, day: Day) -> EditsOut:
    """The edits that bring a calendar or a table of the day into the job; nothing is kept."""
    return EditsOut.from_core(day.sheet(job_id, body.text.encode()))


@router.get("/day.{kind}", response_class=Response, responses={200: {"content": {kind: {} for kind in TYPES.values()}}})
@heavy
def read_day_file(
    job_id: UUID,
    kind: Literal["pdf", "csv", "ics"],
    day: Day,
    paper: Annotated[Literal["a4", "letter"], Query(description="Of the PDF")] = "a4",
) -> Response:
    """The whole day as a sheet, a table or a calendar."""
    name, data = day.file(job_id, kind, paper)
    return Response(data, media_type=TYPES[kind], headers={"Content-Disposition": f'attachment; filename="{name}"'})
