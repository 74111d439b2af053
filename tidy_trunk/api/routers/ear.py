"""Ear training: pairs of sounds, and the difference that is just heard."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Path, Response

from tidy_trunk.api.dependencies import Ear
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.drills import EarAnswerIn, EarIn
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.ear import EarOut, EarTaskOut

router = APIRouter(prefix="/ear", tags=["drill"], responses=PROBLEMS)


@router.get("")
def read_ear_tasks(ear: Ear) -> list[EarTaskOut]:
    """What can be listened for, and what was just heard so far."""
    return ear.tasks()


@router.post("", status_code=201)
def begin_ear_session(body: EarIn, ear: Ear) -> EarOut:
    """Begin a session: pairs of sounds, of which one has more."""
    return ear.begin(body.id, body.task, body.who)


@router.get("/{session_id}")
def read_ear_session(session_id: UUID, ear: Ear) -> EarOut:
    """A session as far as it has come."""
    return ear.read(session_id)


@router.post("/{session_id}/answer")
def answer_ear_session(session_id: UUID, body: EarAnswerIn, ear: Ear) -> EarOut:
    """Which of the two has more."""
    return ear.answer(session_id, body.which, body.number)


@router.get(
    "/{session_id}/pairs/{trial}/{which}.wav",
    response_class=Response,
    responses={200: {"content": {"audio/wav": {}}}},
)
@heavy
def read_ear_sound(
    session_id: UUID,
    trial: Annotated[int, Path(ge=0, le=1000, description="Number of the pair, from 0")],
    which: Annotated[int, Path(ge=0, le=1, description="Of the two")],
    ear: Ear,
) -> Response:
    """One sound of a pair."""
    return Response(ear.sound(session_id, trial, which), media_type="audio/wav")
