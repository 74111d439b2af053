"""Signal walks of a job, and the marks that were made on them, by however many people at once."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any
from uuid import UUID

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database


class WalkMark(StrEnum):
    """What was seen of an item."""

    OPEN = "open"
    GOOD = "good"
    FAULT = "fault"


@dataclass(frozen=True, slots=True, kw_only=True)
class MarkRecord:
    """A mark; made: when somebody saw it, which may be long before it arrived here."""

    item: str
    mark: WalkMark
    who: str
    made: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class WalkRecord:
    """A walk. items: as plain values, in order; marks: those that were made, at most one an item."""

    id: UUID
    job: UUID
    revision: int
    items: list[dict[str, str]]
    marks: tuple[MarkRecord, ...]
    created: datetime


class WalkStore:
    """Every method is one transaction. Walks that are not there raise NotFoundError."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def begin(
        self, walk_id: UUID, job_id: UUID, revision: int, items: list[dict[str, str]], now: datetime
    ) -> WalkRecord:
        """A walk without marks; one that has been begun already as it stands."""
        with self._database.unit_of_work():
            if not self._tables.Job.select().where(self._tables.Job.id == job_id).exists():
                raise NotFoundError(f"there is no job {job_id}")
            values = {"id": walk_id, "job": job_id, "revision": revision, "items": items, "created": now}
            self._tables.Walk.insert(values).on_conflict_ignore().execute()
            return self._get(job_id, walk_id)

    def all(self, job_id: UUID) -> list[WalkRecord]:
        """The walks of a job with their marks, the newest first."""
        with self._database.unit_of_work():
            rows = self._tables.Walk.select().where(self._tables.Walk.job == job_id)
            found = list(rows.order_by(self._tables.Walk.created.desc(), self._tables.Walk.id))
            marks = self._tables.WalkMark.select().where(self._tables.WalkMark.walk.in_([row.id for row in found]))
            by_walk: dict[Any, list[Any]] = {}
            for mark in marks:
                by_walk.setdefault(mark.walk_id, []).append(mark)
            return [_walk(row, by_walk.get(row.id, ())) for row in found]

    def get(self, job_id: UUID, walk_id: UUID) -> WalkRecord:
        with self._database.unit_of_work():
            return self._get(job_id, walk_id)

    def mark(self, job_id: UUID, walk_id: UUID, marks: Sequence[MarkRecord]) -> WalkRecord:
        """Marks, each of which counts if it was made after the one that stands there: so they may arrive in any order.

        Raises:
            NotFoundError: No such walk, or an item that is none of its.
        """
        table = self._tables.WalkMark
        with self._database.unit_of_work():
            walk = self._get(job_id, walk_id)
            known = {item["id"] for item in walk.items}
            for mark in marks:
                if mark.item not in known:
                    raise NotFoundError(f"the walk has no item '{mark.item[:120]}'")
                values = {"mark": mark.mark, "who": mark.who, "made": mark.made}
                insert = table.insert(walk=walk_id, item=mark.item, **values)
                newer = table.made <= mark.made
                insert.on_conflict(conflict_target=[table.walk, table.item], update=values, where=newer).execute()
            return self._get(job_id, walk_id)

    def delete(self, job_id: UUID, walk_id: UUID) -> None:
        table = self._tables.Walk
        with self._database.unit_of_work():
            if not table.delete().where((table.id == walk_id) & (table.job == job_id)).execute():
                raise NotFoundError(f"the job has no walk {walk_id}")

    def _get(self, job_id: UUID, walk_id: UUID) -> WalkRecord:
        table = self._tables.Walk
        row = table.get_or_none((table.id == walk_id) & (table.job == job_id))
        if row is None:
            raise NotFoundError(f"the job has no walk {walk_id}")
        return _walk(row, self._tables.WalkMark.select().where(self._tables.WalkMark.walk == walk_id))


def _walk(row: Any, marks: Any) -> WalkRecord:
    return WalkRecord(
        id=row.id,
        job=row.job_id,
        revision=row.revision,
        items=row.items,
        marks=tuple(
            MarkRecord(item=mark.item, mark=WalkMark(mark.mark), who=mark.who, made=mark.made) for mark in marks
        ),
        created=row.created,
    )
