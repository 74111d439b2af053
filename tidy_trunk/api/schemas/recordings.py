"""Recordings and what was found in them."""

from datetime import datetime
from typing import Any
from uuid import UUID

from pydantic import Field

from tidy_trunk.results.measurement import MeasurementOut
from tidy_trunk.results.numbers import Out
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.tasks.requests import request_of

SOUND_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"audio/wav": {"schema": {"type": "string", "format": "binary"}, "example": "RIFF…WAVE…"}},
    }
}
"""How a recording that is looked at and not kept is described."""


class AskedOut(Out):
    """What a recording was dropped for. shown: what the meter of a device in the simulation showed beside it."""

    track: str = ""
    simulated: bool = False
    settings: list[float] = Field(default_factory=list)
    target_dbfs: float | None = None
    device: str = ""
    control: str = ""
    run: str = ""
    option: str = ""
    test: str = ""
    keep: bool = False
    shown: list[float] = Field(default_factory=list)


class ReceivedOut(Out):
    """A recording of which a part is here: received is how many bytes, from its beginning on."""

    received: int


class RecordingOut(Out):
    """A recording. progress: 0 to 1; result: once it is done, and not in lists."""

    id: UUID
    name: str
    size: int
    asked: AskedOut
    state: RecordingState
    progress: float
    message: str
    created: datetime
    result: MeasurementOut | None

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "RecordingOut":
        result = None if record.result is None else MeasurementOut(**record.result)
        return cls(
            id=record.id,
            name=record.name,
            size=record.size,
            asked=AskedOut.model_validate(request_of(record.asked)),
            state=record.state,
            progress=record.progress,
            message=record.message,
            created=record.created,
            result=result,
        )
