"""Signal walks."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In, Who
from tidy_trunk.api.schemas.reported_times import Moment
from tidy_trunk.results.numbers import Out
from tidy_trunk.store import MarkRecord, WalkMark, WalkRecord


class MarkIn(In):
    """What was seen of an item; `made`: when, which may be long before it is sent."""

    item: Annotated[str, Field(min_length=1, max_length=200)]
    mark: WalkMark
    who: Who = ""
    made: Moment

    def to_core(self) -> MarkRecord:
        return MarkRecord(item=self.item, mark=self.mark, who=self.who, made=self.made)


class MarksIn(In):
    marks: Annotated[tuple[MarkIn, ...], Field(min_length=1, max_length=1000)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [{"marks": [{"item": "bag.power", "mark": "good", "made": "2026-11-25T08:10:00+01:00"}]}]
        },
    )


class WalkItemOut(Out):
    """One thing to look at, and what was seen."""

    id: str
    text: str
    why: str
    mark: WalkMark
    who: str
    made: datetime | None


class WalkGroupOut(Out):
    """What is looked at on one device."""

    label: str
    items: list[WalkItemOut]


class WalkOut(Out):
    """A walk; `revision`: the state of the plan that it was made from."""

    id: UUID
    revision: int
    created: datetime
    good: int
    faults: int
    count: int
    groups: list[WalkGroupOut]

    @classmethod
    def from_record(cls, record: WalkRecord) -> "WalkOut":
        marks = {mark.item: mark for mark in record.marks}
        groups: dict[str, list[WalkItemOut]] = {}
        for item in record.items:
            found = marks.get(item["id"])
            groups.setdefault(item["group"], []).append(
                WalkItemOut(
                    id=item["id"],
                    text=item["text"],
                    why=item["why"],
                    mark=found.mark if found else WalkMark.OPEN,
                    who=found.who if found else "",
                    made=found.made if found else None,
                )
            )
        told = [mark.mark for mark in record.marks]
        return cls(
            id=record.id,
            revision=record.revision,
            created=record.created,
            good=told.count(WalkMark.GOOD),
            faults=told.count(WalkMark.FAULT),
            count=len(record.items),
            groups=[WalkGroupOut(label=label, items=items) for label, items in groups.items()],
        )
