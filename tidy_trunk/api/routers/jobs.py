"""Jobs, edits and history."""

from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Body, Path, Query, Response

from tidy_trunk.api.dependencies import Jobs, OwnId
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.jobs import (
    PROBLEMS,
    AdviceOut,
    BaseIn,
    ChangesOut,
    CountsOut,
    EditsIn,
    HistoryOut,
    JobOut,
    JobStateOut,
    NewJobIn,
    ReplaceIn,
)
from tidy_trunk.core.plan import Plan
from tidy_trunk.services.jobs import JobState

router = APIRouter(prefix="/jobs", tags=["jobs"], responses=PROBLEMS)
RevisionNumber = Annotated[int, Path(ge=1, le=2_000_000_000)]
"""ASSUMED_ largest number of a revision: what the database's integer holds."""


def _answer(state: JobState, status: int = 200) -> Response:
    """A state as it leaves; built once, and not taken apart again to be checked against its own model."""
    return Response(JobStateOut.from_core(state).model_dump_json(), status_code=status, media_type="application/json")


@router.get("")
def list_jobs(jobs: Jobs) -> list[JobOut]:
    """All jobs, the newest first."""
    return [JobOut.model_validate(job) for job in jobs.all()]


@router.post("", status_code=201, response_model=JobStateOut)
def create_job(body: NewJobIn, jobs: Jobs) -> Response:
    """An empty job."""
    return _answer(jobs.create(Plan(name=body.name), job_id=body.id), 201)


@router.post("/import", status_code=201, response_model=JobStateOut)
def import_job(
    body: Annotated[Any, Body(examples=[{"schema_version": 1, "name": "Casting day"}])],
    own_id: OwnId,
    jobs: Jobs,
) -> Response:
    """A job from a plan file."""
    return _answer(jobs.import_plan(body, own_id), 201)


@router.get("/{job_id}", response_model=JobStateOut)
def read_job(job_id: UUID, jobs: Jobs) -> Response:
    """The newest state of a job."""
    return _answer(jobs.newest(job_id))


@router.delete("/{job_id}", status_code=204)
def delete_job(job_id: UUID, jobs: Jobs) -> None:
    """Take a job and its history away."""
    jobs.delete(job_id)


@router.post("/{job_id}/edits", response_model=JobStateOut)
def edit_job(job_id: UUID, body: EditsIn, jobs: Jobs) -> Response:
    """Apply edits as one revision; the answer is the new state with its traces, levels and findings."""
    return _answer(
        jobs.edit(job_id, body.base_revision, [edit.to_core() for edit in body.edits], body.who, body.request)
    )


@router.post("/{job_id}/undo", response_model=JobStateOut)
def undo(job_id: UUID, body: BaseIn, jobs: Jobs) -> Response:
    """Back to the state before the last edit."""
    return _answer(jobs.undo(job_id, body.base_revision, body.who, body.request))


@router.post("/{job_id}/redo", response_model=JobStateOut)
def redo(job_id: UUID, body: BaseIn, jobs: Jobs) -> Response:
    """The edit that was undone last, again."""
    return _answer(jobs.redo(job_id, body.base_revision, body.who, body.request))


@router.get("/{job_id}/advice", response_model=AdviceOut)
@heavy
def read_advice(job_id: UUID, jobs: Jobs) -> AdviceOut:
    """What mends the findings of the newest state. It takes longer than the findings themselves: each fix is tried."""
    return AdviceOut.from_core(jobs.advice(job_id))


@router.get("/{job_id}/revisions")
def read_history(job_id: UUID, jobs: Jobs) -> list[HistoryOut]:
    """Every state of a job as a sentence, the newest first."""
    return [HistoryOut.model_validate(record) for record in jobs.history(job_id)]


@router.get("/{job_id}/differences")
def read_differences(
    job_id: UUID,
    before: Annotated[int, Query(ge=1, le=2_000_000_000)],
    after: Annotated[int, Query(ge=1, le=2_000_000_000)],
    jobs: Jobs,
) -> list[str]:
    """What changes from one state to another, in words."""
    return list(jobs.differences(job_id, before, after))


@router.post("/{job_id}/plan/preview")
def preview_plan(
    job_id: UUID, body: Annotated[Any, Body(examples=[{"schema_version": 2, "name": "Casting day"}])], jobs: Jobs
) -> ChangesOut:
    """What a plan file would change in this job; nothing is kept."""
    evaluation, changes = jobs.would_change(job_id, body)
    return ChangesOut(changes=list(changes), counts=CountsOut.from_core(evaluation))


@router.put("/{job_id}/plan", response_model=JobStateOut)
def replace_plan(job_id: UUID, body: ReplaceIn, jobs: Jobs) -> Response:
    """A plan file in the place of the job's plan; it can be undone like any edit."""
    return _answer(jobs.replace(job_id, body.base_revision, body.plan, body.who, body.request))


@router.get("/{job_id}/revisions/{number}", response_model=JobStateOut)
def read_revision(job_id: UUID, number: RevisionNumber, jobs: Jobs) -> Response:
    """An earlier state, to look at."""
    return _answer(jobs.at(job_id, number))


@router.post("/{job_id}/revisions/{number}/bring-back", response_model=JobStateOut)
def bring_back(job_id: UUID, number: RevisionNumber, body: BaseIn, jobs: Jobs) -> Response:
    """Make an earlier state the newest one."""
    return _answer(jobs.bring_back(job_id, body.base_revision, number, body.who, body.request))


@router.get("/{job_id}/plan", response_class=Response, responses={200: {"content": {"application/json": {}}}})
def export_plan(job_id: UUID, jobs: Jobs) -> Response:
    """The plan as a file, as `./tidy check` reads it."""
    headers = {"Content-Disposition": 'attachment; filename="plan.json"'}
    return Response(jobs.export(job_id), media_type="application/json", headers=headers)
