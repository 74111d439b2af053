"""How much of each recording has arrived, known to every server on one database; and room on the disk, promised once."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final
from uuid import UUID

import peewee

from tidy_trunk.store.database import Database

ROOM_KEY: Final = 7_466_002
"""ASSUMED_ number of the advisory lock under which room is promised: any that nobody else on this server takes."""


@dataclass(frozen=True, slots=True)
class UploadRecord:
    """A recording of `total` bytes on its way in, of which the first `received` are here."""

    id: UUID
    total: int
    received: int


class UploadStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._upload = database.tables.Upload

    def begin(self, upload_id: UUID, total: int, now: datetime, has_room: Callable[[int], bool]) -> UploadRecord | None:
        """One that is let in, or has been before under this id and of this size; None where there is no room for it.

        `has_room`: for so many bytes, which are those still to come of all uploads together. Two that ask at once are
        answered one after the other.
        """
        table = self._upload
        with self._database.unit_of_work():
            self._database.pool.execute_sql("select pg_advisory_xact_lock(%s)", (ROOM_KEY,))
            row = table.get_or_none(table.id == upload_id)
            if row is not None and row.total == total:
                return _record(row)
            promised = table.select(peewee.fn.sum(table.total - table.received)).where(table.id != upload_id).scalar()
            if not has_room(int(promised or 0) + total):
                return None
            fresh = {"total": total, "received": 0, "touched": now}
            made = table.insert(id=upload_id, **fresh).on_conflict(conflict_target=[table.id], update=fresh)
            return _record(made.returning(table).execute()[0])

    def arrived(self, upload_id: UUID, up_to: int, now: datetime) -> int:
        """Everything before byte `up_to` is here; how much is, from the beginning on."""
        table = self._upload
        with self._database.unit_of_work():
            told = table.update(received=peewee.fn.greatest(table.received, up_to), touched=now)
            rows = told.where(table.id == upload_id).returning(table.received).execute()
            return next((int(row.received) for row in rows), 0)

    def forget(self, upload_id: UUID) -> None:
        """It is all here, or not wanted any more."""
        with self._database.unit_of_work():
            self._upload.delete().where(self._upload.id == upload_id).execute()

    def left_since(self, before: datetime) -> Sequence[UUID]:
        """Those of which nothing came since: forgotten from now on."""
        with self._database.unit_of_work():
            gone = self._upload.delete().where(self._upload.touched < before).returning(self._upload.id)
            return [row.id for row in gone.execute()]


def _record(row: Any) -> UploadRecord:
    return UploadRecord(row.id, row.total, row.received)
