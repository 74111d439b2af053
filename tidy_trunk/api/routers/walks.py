"""Signal walks: begun, marked by several people at once, looked back at."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from tidy_trunk.api.dependencies import OwnId, Walks
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.walks import MarksIn, WalkOut

router = APIRouter(prefix="/jobs/{job_id}/walks", tags=["walks"], responses=PROBLEMS)


@router.get("")
def list_walks(job_id: UUID, walks: Walks) -> list[WalkOut]:
    """The walks of a job, the newest first."""
    return [WalkOut.from_record(record) for record in walks.all(job_id)]


@router.post("", status_code=201)
def begin_walk(
    job_id: UUID,
    walk_id: OwnId,
    walks: Walks,
    short: Annotated[bool, Query(description="Only the lines that ruin takes, at most fifteen")] = False,
) -> WalkOut:
    """A new walk along the chain as it is planned now."""
    return WalkOut.from_record(walks.begin(job_id, walk_id, short=short))


@router.get("/{walk_id}")
def read_walk(job_id: UUID, walk_id: UUID, walks: Walks) -> WalkOut:
    """A walk as far as it is."""
    return WalkOut.from_record(walks.get(job_id, walk_id))


@router.put("/{walk_id}/marks")
def mark_walk(job_id: UUID, walk_id: UUID, body: MarksIn, walks: Walks) -> WalkOut:
    """Marks in any order, late ones too: of two on one item the one that was made later counts."""
    return WalkOut.from_record(walks.mark(job_id, walk_id, [mark.to_core() for mark in body.marks]))


@router.delete("/{walk_id}", status_code=204)
def delete_walk(job_id: UUID, walk_id: UUID, walks: Walks) -> None:
    """Take a walk off the list."""
    walks.delete(job_id, walk_id)
