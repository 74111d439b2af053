"""The doors of the first page: they need no job, and may make one."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.dependencies import FrontDoor, Jobs, OwnId
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.front_door import EndsIn, ExampleOut, TakeJoinedIn, TakeRigIn
from tidy_trunk.api.schemas.jobs import PROBLEMS, JobStateOut
from tidy_trunk.core.rigs import LONGEST
from tidy_trunk.results.rigs import RigsOut
from tidy_trunk.results.two_things import TwoThingsOut
from tidy_trunk.services.examples import EXAMPLES, example_plan
from tidy_trunk.services.jobs import JobState

router = APIRouter(tags=["front door"], responses=PROBLEMS)


@router.get("/rigs")
@heavy
def read_rigs(
    front_door: FrontDoor,
    text: Annotated[str, Query(max_length=LONGEST, description="The job, in everyday words")] = "",
    first: Annotated[bool, Query(description="One rig alone, sooner")] = False,
) -> RigsOut:
    """Whole rigs for a job that is said in a line or two; the gaps of the question alone where nothing is asked."""
    found = front_door.rigs(text, first_alone=first)
    return RigsOut.from_core(found.reading, found.rigs, found.own)


@router.post("/rigs/job", status_code=201, response_model=JobStateOut)
@heavy
def take_rig(body: TakeRigIn, front_door: FrontDoor) -> Response:
    """A job that begins with one of the rigs."""
    return _answer(front_door.take_rig(body.text, body.approach, body.id))


@router.post("/two-things")
@heavy
def join_two_things(body: EndsIn, front_door: FrontDoor) -> TwoThingsOut:
    """What joins two things, what is set at both ends, and what could go wrong; nothing is kept."""
    return TwoThingsOut.from_core(front_door.join(body.to_core()))


@router.post("/two-things/job", status_code=201, response_model=JobStateOut)
def take_joined(body: TakeJoinedIn, front_door: FrontDoor) -> Response:
    """A job that begins with two things, joined in one of the ways."""
    return _answer(front_door.take_joined(body.to_core(), body.number, body.id))


@router.get("/examples")
def list_examples() -> list[ExampleOut]:
    """Small jobs to learn on, each with one typical mistake in it."""
    return [ExampleOut.model_validate(item) for item in EXAMPLES]


@router.post("/examples/{example_id}", status_code=201, response_model=JobStateOut)
def open_example(example_id: str, own_id: OwnId, jobs: Jobs) -> Response:
    """A job of one's own that begins as an example."""
    return _answer(jobs.create(example_plan(example_id), "Example", own_id))


@router.post("/loose-files", response_model=JobStateOut)
def open_loose_files(jobs: Jobs) -> Response:
    """Where files lie that belong to no job: they are checked and synced as in one, under its id."""
    return _answer(jobs.loose_files(), 200)


def _answer(state: JobState, status: int = 201) -> Response:
    return Response(JobStateOut.from_core(state).model_dump_json(), status_code=status, media_type="application/json")
