"""Taps of the log, as they arrive."""

from typing import Annotated, Any
from uuid import UUID

from pydantic import AfterValidator, ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In, Who
from tidy_trunk.api.schemas.reported_times import Moment
from tidy_trunk.core.base.text import is_plain
from tidy_trunk.core.log import LONGEST_SLATE, LONGEST_TEXT, Act, LogEntry, TakeStatus


def _plain(text: str) -> str:
    if not all(is_plain(letter) or letter in "\n\t" for letter in text):
        raise ValueError("there are characters in it that cannot be printed: leave them out")
    return text.strip()


LogText = Annotated[str, Field(max_length=LONGEST_TEXT), AfterValidator(_plain)]
ShortText = Annotated[str, Field(max_length=120), AfterValidator(_plain)]
SlateText = Annotated[str, Field(max_length=LONGEST_SLATE), AfterValidator(_plain)]
TimecodeLabel = Annotated[str, Field(max_length=11, pattern=r"^(\d{2}:\d{2}:\d{2}[:;]\d{2})?$")]


TakeId = Annotated[str, Field(max_length=60, pattern=r"^[A-Za-z0-9-]*$")]


class LogEntryIn(In):
    """One tap. id: of its sender's own, so that it may be sent again; made: when, which may be long before it is sent.

    take: id of the take that it is about, of the sender's own. Of a roll: slate and number; of a correction: what is to stand
    there; of what was done in the day: kind and device, and in `text` the id of the task; left: share that a battery or card
    still holds. Of a mark from rehearsal: the scene in `slate`, the part in `text`, the track, and the peaks that its meter showed.
    """

    id: UUID
    made: Moment
    act: Act
    who: Who = ""
    take: TakeId = ""
    slate: SlateText = ""
    number: Annotated[int, Field(ge=0, le=9999)] = 0
    status: TakeStatus = TakeStatus.OPEN
    text: LogText = ""
    track: ShortText = ""
    kind: ShortText = ""
    device: ShortText = ""
    left: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 1.0
    timecode: TimecodeLabel = ""
    ends: Moment | None = None
    level_dbfs: Annotated[float, Field(ge=-100, le=0, allow_inf_nan=False)] = 0.0

    def to_core(self) -> LogEntry:
        values = self.model_dump(exclude={"id", "ends"})
        return LogEntry(id=str(self.id), ends="" if self.ends is None else self.ends.isoformat(), **values)


class PhotoIn(In):
    """What a photograph shows, and when it was taken. id: of its sender's own, so that it may be sent again."""

    id: UUID
    made: Moment
    take: TakeId = ""
    device: ShortText = ""
    text: LogText = ""
    who: Who = ""

    def to_core(self) -> LogEntry:
        return LogEntry(act=Act.PHOTO, **{**self.model_dump(), "id": str(self.id)})


PHOTO_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}, "example": "…JFIF…"}},
    }
}
"""How a photograph is described."""


class LogEntriesIn(In):
    """sent: what the sender's clock says now: by that its moments are put right."""

    entries: Annotated[tuple[LogEntryIn, ...], Field(min_length=1, max_length=500)]
    sent: Moment | None = None

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [
                {
                    "entries": [
                        {
                            "id": "5f0c2b9e-3a53-4a8e-9f3e-6f1f0c7b1a10",
                            "made": "2026-11-28T10:57:44+01:00",
                            "act": "roll",
                            "take": "b7a1",
                            "slate": "12C",
                            "number": 4,
                        }
                    ]
                }
            ]
        },
    )
