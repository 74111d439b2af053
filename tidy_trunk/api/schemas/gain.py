"""What is asked of a gain plan, and one that is being made."""

from typing import Annotated, Any
from uuid import UUID

from pydantic import Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.results.advice import GainPlanOut
from tidy_trunk.results.numbers import Out
from tidy_trunk.store import RecordingRecord, RecordingState

_Name = Annotated[str, Field(min_length=1, max_length=120)]


class PinIn(In):
    device: _Name
    control: _Name


class GainIn(In):
    """Controls that are to be left as they are."""

    pins: Annotated[
        tuple[PinIn, ...],
        Field(max_length=2000, examples=[[{"device": "bag", "control": "in1.mic.gain_db"}]]),
    ] = ()


class GainTaskOut(Out):
    """A gain plan that a worker makes. message: why there is none; plan: once it is done."""

    task: UUID
    state: RecordingState
    message: str
    plan: GainPlanOut | None

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "GainTaskOut":
        plan = None if record.result is None else GainPlanOut.model_validate(record.result)
        return cls(task=record.id, state=record.state, message=record.message, plan=plan)


LATER: dict[int | str, dict[str, Any]] = {202: {"model": GainTaskOut, "description": "A worker makes it"}}
