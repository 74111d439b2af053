"""The log of a job: entries that are only added, by however many people at once."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from tidy_trunk.core.log import MOST_ENTRIES, MOST_PHOTOS, Act, LogEntry, TakeStatus
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.store.database import Database
from tidy_trunk.store.news import ChangedPart


class LogStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def add(self, job_id: UUID, entries: Sequence[LogEntry], now: datetime) -> None:
        """Entries, all or none; one that is there already stays as it is, so that it may be sent again.

        Raises:
            NotFoundError: No such job.
            InputError: More entries than a log holds.
        """
        with self._database.unit_of_work():
            self._add(job_id, entries, now)

    def _add(self, job_id: UUID, entries: Sequence[LogEntry], now: datetime) -> None:
        table = self._tables.LogEntry
        # Its row is locked: entries get their numbers in the order in which they can be read.
        if not self._tables.Job.select().where(self._tables.Job.id == job_id).for_update().exists():
            raise NotFoundError(f"there is no job {job_id}")
        if table.select().where(table.job == job_id).count() + len(entries) > MOST_ENTRIES:
            raise InputError(f"a log holds at most {MOST_ENTRIES} entries: go on in a new job")
        for entry in entries:
            table.insert(_row(job_id, entry, now)).on_conflict_ignore().execute()
        self._database.tell(job_id, ChangedPart.LOG)

    def add_photo(self, job_id: UUID, entry: LogEntry, jpeg: bytes, now: datetime) -> None:
        """A photograph with its entry, both or neither; one that is there already stays as it is.

        Raises:
            NotFoundError: No such job.
            InputError: More photographs than a log holds.
        """
        table = self._tables.LogPhoto
        with self._database.unit_of_work():
            self._add(job_id, [entry], now)
            if table.select().where(table.job == job_id).count() >= MOST_PHOTOS:
                raise InputError(f"a log holds at most {MOST_PHOTOS} photographs: remove some, or go on in a new job")
            row = {"id": UUID(entry.id), "job": job_id, "jpeg": jpeg}
            table.insert(row).on_conflict_ignore().execute()

    def photos(self, job_id: UUID) -> frozenset[str]:
        """Ids of the photographs that there are."""
        table = self._tables.LogPhoto
        with self._database.unit_of_work():
            return frozenset(str(row.id) for row in table.select(table.id).where(table.job == job_id))

    def photo(self, job_id: UUID, photo_id: UUID) -> bytes:
        """Raises NotFoundError."""
        table = self._tables.LogPhoto
        with self._database.unit_of_work():
            row = table.get_or_none((table.job == job_id) & (table.id == photo_id))
            if row is None:
                raise NotFoundError(f"the log has no photograph {photo_id}")
            return bytes(row.jpeg)

    def remove_photo(self, job_id: UUID, photo_id: UUID) -> None:
        """Its entry stays: that there was one. Raises NotFoundError."""
        table = self._tables.LogPhoto
        with self._database.unit_of_work():
            if not table.delete().where((table.job == job_id) & (table.id == photo_id)).execute():
                raise NotFoundError(f"the log has no photograph {photo_id}")
            self._database.tell(job_id, ChangedPart.LOG)

    def all(self, job_id: UUID) -> tuple[list[LogEntry], int]:
        """The entries of a job in the order in which they came, and the number of the last one; 0 where there is none.

        Raises NotFoundError: no such job.
        """
        table = self._tables.LogEntry
        with self._database.unit_of_work():
            if not self._tables.Job.select().where(self._tables.Job.id == job_id).exists():
                raise NotFoundError(f"there is no job {job_id}")
            rows = list(table.select().where(table.job == job_id).order_by(table.seq))
            return [_entry(row) for row in rows], rows[-1].seq if rows else 0

    def last(self, job_id: UUID) -> int:
        """The number of the last entry of a job; 0 where there is none."""
        table = self._tables.LogEntry
        with self._database.unit_of_work():
            row = table.select(table.seq).where(table.job == job_id).order_by(table.seq.desc()).first()
            return int(row.seq) if row else 0


_BODY = ("slate", "number", "status", "text", "track", "kind", "device", "left", "timecode", "ends", "level_dbfs")


def _row(job_id: UUID, entry: LogEntry, now: datetime) -> dict[str, Any]:
    return {
        "id": UUID(entry.id),
        "job": job_id,
        "act": entry.act,
        "take": entry.take,
        "who": entry.who,
        "made": entry.made,
        "received": now,
        "body": {name: getattr(entry, name) for name in _BODY},
    }


def _entry(row: Any) -> LogEntry:
    body = {**row.body, "status": TakeStatus(row.body["status"])}
    return LogEntry(id=str(row.id), made=row.made, act=Act(row.act), who=row.who, take=row.take, **body)
