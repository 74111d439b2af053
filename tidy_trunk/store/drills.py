"""Drills, as far as each was played."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final
from uuid import UUID

from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.store.database import Database

MOST_DRILLS: Final = 2_000
"""ASSUMED_ drills that are kept: one a day for five years."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DrillRecord:
    """plan: of the rig, as a document; truth: ids of its faults, "" for none; most: faults that there may be; done: ids of what was
    looked at, and of faults that were put right; wrong: ids of wrong answers; answer: the last one, None while it is open; score: once
    it was judged; who: played it."""

    id: UUID
    seed: int
    title: str
    plan: dict[str, Any]
    truth: str
    most: int = 1
    done: tuple[str, ...] = ()
    wrong: tuple[str, ...] = ()
    answer: str | None = None
    score: int | None = None
    who: str = ""
    begun: datetime
    ended: datetime | None = None


_BODY = ("title", "plan", "truth", "most", "answer", "score", "who")


class DrillStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._table = database.tables.Drill

    def begin(self, record: DrillRecord) -> DrillRecord:
        """One that has been begun under that id stays as it is. Raises InputError: more than are kept."""
        with self._database.unit_of_work():
            if self._table.select().count() >= MOST_DRILLS:
                raise InputError(f"{MOST_DRILLS} drills are kept at most: remove some")
            row = {"id": record.id, "seed": record.seed, "body": _body(record), "begun": record.begun}
            self._table.insert(row).on_conflict_ignore().execute()
            return self._get(record.id)

    def get(self, drill_id: UUID) -> DrillRecord:
        """Raises NotFoundError."""
        with self._database.unit_of_work():
            return self._get(drill_id)

    def change(self, drill_id: UUID, played: Callable[[DrillRecord], DrillRecord]) -> DrillRecord:
        """Go on in it, one at a time. Raises NotFoundError, and as `played`."""
        with self._database.unit_of_work():
            row = self._table.select().where(self._table.id == drill_id).for_update().first()
            if row is None:
                raise NotFoundError(f"there is no drill {drill_id}")
            record = played(_record(row))
            self._table.update(body=_body(record), ended=record.ended).where(self._table.id == drill_id).execute()
            return record

    def all(self) -> list[DrillRecord]:
        """The newest first."""
        with self._database.unit_of_work():
            return [_record(row) for row in self._table.select().order_by(self._table.seq.desc())]

    def remove(self, drill_id: UUID) -> None:
        with self._database.unit_of_work():
            self._table.delete().where(self._table.id == drill_id).execute()

    def _get(self, drill_id: UUID) -> DrillRecord:
        row = self._table.get_or_none(self._table.id == drill_id)
        if row is None:
            raise NotFoundError(f"there is no drill {drill_id}")
        return _record(row)


def _body(record: DrillRecord) -> dict[str, Any]:
    return {
        **{name: getattr(record, name) for name in _BODY},
        "done": list(record.done),
        "wrong": list(record.wrong),
    }


def _record(row: Any) -> DrillRecord:
    body = row.body
    return DrillRecord(
        id=row.id,
        seed=row.seed,
        begun=row.begun,
        ended=row.ended,
        done=tuple(body["done"]),
        wrong=tuple(body["wrong"]),
        **{name: body[name] for name in _BODY if name in body},
    )
