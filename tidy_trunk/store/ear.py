"""Ear training, as far as each session has come."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final
from uuid import UUID

from tidy_trunk.core.drill import EarTask
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.store.database import Database

MOST_SESSIONS: Final = 2_000
"""ASSUMED_ sessions that are kept: one a day for five years."""


@dataclass(frozen=True, slots=True, kw_only=True)
class EarRecord:
    """answers: which of the two had more, 0 or 1; threshold_db: once it is over."""

    id: UUID
    task: EarTask
    seed: int
    who: str = ""
    answers: tuple[int, ...] = ()
    threshold_db: float | None = None
    begun: datetime


class EarStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._table = database.tables.EarSession

    def begin(self, record: EarRecord) -> EarRecord:
        """One that has been begun under that id stays as it is. Raises InputError: more than are kept."""
        with self._database.unit_of_work():
            if self._table.select().count() >= MOST_SESSIONS:
                raise InputError(f"{MOST_SESSIONS} sessions are kept at most")
            row = {
                **{name: getattr(record, name) for name in ("id", "task", "seed", "who", "begun")},
                "answers": list(record.answers),
            }
            self._table.insert(row).on_conflict_ignore().execute()
            return _record(self._row(record.id))

    def get(self, session_id: UUID) -> EarRecord:
        """Raises NotFoundError."""
        with self._database.unit_of_work():
            return _record(self._row(session_id))

    def change(self, session_id: UUID, answered: Callable[[EarRecord], EarRecord]) -> EarRecord:
        """Go on in it, one at a time. Raises NotFoundError, and as `answered`."""
        with self._database.unit_of_work():
            row = self._table.select().where(self._table.id == session_id).for_update().first()
            if row is None:
                raise NotFoundError(f"there is no session {session_id}")
            record = answered(_record(row))
            update = self._table.update(answers=list(record.answers), threshold_db=record.threshold_db)
            update.where(self._table.id == session_id).execute()
            return record

    def all(self) -> list[EarRecord]:
        """The oldest first."""
        with self._database.unit_of_work():
            return [_record(row) for row in self._table.select().order_by(self._table.seq)]

    def _row(self, session_id: UUID) -> Any:
        row = self._table.get_or_none(self._table.id == session_id)
        if row is None:
            raise NotFoundError(f"there is no session {session_id}")
        return row


def _record(row: Any) -> EarRecord:
    return EarRecord(
        id=row.id,
        task=EarTask(row.task),
        seed=row.seed,
        who=row.who,
        answers=tuple(row.answers),
        threshold_db=row.threshold_db,
        begun=row.begun,
    )
