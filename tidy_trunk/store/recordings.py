"""Recordings of a job and what was found in them."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any
from uuid import UUID

import peewee

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database
from tidy_trunk.store.news import ChangedPart


class RecordingState(StrEnum):
    """How far a recording is."""

    WAITING = "waiting"
    READING = "reading"
    DONE = "done"
    FAILED = "failed"
    CANCELLED = "cancelled"

    @property
    def is_over(self) -> bool:
        return self in (RecordingState.DONE, RecordingState.FAILED, RecordingState.CANCELLED)


@dataclass(frozen=True, slots=True, kw_only=True)
class RecordingRecord:
    """A recording. asked: what it was dropped for; progress: 0 to 1; message: why it failed; result: None until it is done, and in lists."""

    id: UUID
    job: UUID
    name: str
    size: int
    asked: dict[str, Any]
    state: RecordingState
    progress: float
    message: str
    result: dict[str, Any] | None
    created: datetime


class RecordingStore:
    """Every method is one transaction. Recordings that are not there raise NotFoundError."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def add(self, record: RecordingRecord, begin: Callable[[Any], int] | None = None) -> bool:
        """Whether it is new: one that has been added already stays as it is.

        `begin`: puts it into the queue on the connection of this very transaction, so that there is neither without the
        other; its number there.

        Raises NotFoundError where the job is not there.
        """
        with self._database.unit_of_work():
            self._check_job(record.job)
            added = self._tables.Recording.insert(
                id=record.id,
                job=record.job,
                name=record.name,
                size=record.size,
                asked=record.asked,
                state=record.state,
                created=record.created,
            ).on_conflict_ignore()
            is_new = bool(added.returning(self._tables.Recording.id).execute())
            # From here on its file is this recording's, and no upload's that may be given up.
            self._tables.Upload.delete().where(self._tables.Upload.id == record.id).execute()
            if is_new and begin is not None:
                table = self._tables.Recording
                table.update(task=begin(self._database.pool.connection())).where(table.id == record.id).execute()
            self._database.tell(record.job, ChangedPart.RECORDINGS)
            return is_new

    def find(self, job_id: UUID, recording_id: UUID) -> RecordingRecord | None:
        """Raises NotFoundError where the job is not there."""
        table = self._tables.Recording
        with self._database.unit_of_work():
            self._check_job(job_id)
            row = table.get_or_none((table.id == recording_id) & (table.job == job_id))
            return None if row is None else _record(row)

    def _check_job(self, job_id: UUID) -> None:
        if not self._tables.Job.select().where(self._tables.Job.id == job_id).exists():
            raise NotFoundError(f"there is no job {job_id}")

    def all(self, job_id: UUID, *, with_result: bool = False) -> list[RecordingRecord]:
        """The recordings of a job, the newest first."""
        table = self._tables.Recording
        columns = [field for name, field in table._meta.fields.items() if with_result or name != "result"]
        with self._database.unit_of_work():
            rows = table.select(*columns).where(table.job == job_id).order_by(table.created.desc(), table.id)
            return [_record(row, with_result=with_result) for row in rows]

    def get(self, job_id: UUID, recording_id: UUID) -> RecordingRecord:
        table = self._tables.Recording
        with self._database.unit_of_work():
            row = table.get_or_none((table.id == recording_id) & (table.job == job_id))
            if row is None:
                raise NotFoundError(f"the job has no recording {recording_id}")
            return _record(row)

    def begin(self, recording_id: UUID) -> RecordingRecord | None:
        """Somebody reads it from now on; None where it is over, or gone."""
        if not self.progress(recording_id, 0.0):
            return None
        with self._database.unit_of_work():
            row = self._tables.Recording.get_or_none(self._tables.Recording.id == recording_id)
            return None if row is None else _record(row)

    def progress(self, recording_id: UUID, share: float) -> bool:
        """How much has been read; whether anybody still wants it. What is over stays as it is."""
        return self._move(recording_id, {"state": RecordingState.READING, "progress": share}) is not None

    def finish(
        self,
        recording_id: UUID,
        state: RecordingState,
        message: str = "",
        result: dict[str, Any] | None = None,
        asked: dict[str, Any] | None = None,
    ) -> None:
        """The end of it, whichever comes first. `asked`: in the place of what was asked, where that is known better now."""
        values: dict[str, Any] = {"state": state, "message": message, "result": result}
        if state is RecordingState.DONE:
            values["progress"] = 1.0
        if asked is not None:
            values["asked"] = asked
        self._move(recording_id, values)

    def cancel(self, recording_id: UUID) -> int | None:
        """Its end, where nobody wants it any more; its number in the queue, None where it was over or has none."""
        return self._move(recording_id, {"state": RecordingState.CANCELLED}) or None

    def amend(self, job_id: UUID, recording_id: UUID, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
        """Change the result of one that is done. Of several at once each sees what the one before it has left."""
        table = self._tables.Recording
        with self._database.unit_of_work():
            wanted = (table.id == recording_id) & (table.job == job_id) & (table.state == RecordingState.DONE)
            row = table.select().where(wanted).for_update().first()
            if row is None:
                raise NotFoundError(f"the job has no recording {recording_id} that is done")
            table.update(result=change(row.result)).where(table.id == recording_id).execute()
            self._database.tell(job_id, ChangedPart.RECORDINGS)

    def _move(self, recording_id: UUID, values: dict[str, Any]) -> int | None:
        """The number in the queue of what was moved, 0 where it has none; None where there is none that is not over."""
        table = self._tables.Recording
        open_states = [state for state in RecordingState if not state.is_over]
        with self._database.unit_of_work():
            moved = table.update(values).where((table.id == recording_id) & table.state.in_(open_states))
            rows = list(moved.returning(table.job, table.task).execute())
            for row in rows:
                self._database.tell(row.job_id, ChangedPart.RECORDINGS)
            return next((row.task or 0 for row in rows), None)

    def delete(self, job_id: UUID, recording_id: UUID) -> None:
        table = self._tables.Recording
        with self._database.unit_of_work():
            if not table.delete().where((table.id == recording_id) & (table.job == job_id)).execute():
                raise NotFoundError(f"the job has no recording {recording_id}")
            self._database.tell(job_id, ChangedPart.RECORDINGS)


def _record(row: peewee.Model, *, with_result: bool = True) -> RecordingRecord:
    values: Any = row
    return RecordingRecord(
        id=values.id,
        job=values.job_id,
        name=values.name,
        size=values.size,
        asked=values.asked,
        state=RecordingState(values.state),
        progress=values.progress,
        message=values.message,
        result=values.result if with_result else None,
        created=values.created,
    )
