"""Jobs and the revisions of their plans. Documents go in and out as plain JSON values."""

import contextlib
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

import peewee

from tidy_trunk.errors import NotFoundError, NothingToUndoError, RevisionConflictError
from tidy_trunk.store.database import Database
from tidy_trunk.store.news import ChangedPart

Document = dict[str, Any]


@dataclass(frozen=True, slots=True, kw_only=True)
class JobRecord:
    """A job as it is listed."""

    id: UUID
    name: str
    head: int
    created: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class HistoryRecord:
    """A state as the history lists it; `who` is empty where nobody said."""

    number: int
    sentence: str
    who: str
    created: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class RevisionRecord:
    """One state of a job's plan."""

    job: UUID
    number: int
    sentence: str
    who: str
    content: int
    can_undo: bool
    can_redo: bool
    created: datetime
    document: Document


class JobStore:
    """Every method is one transaction. Jobs that are not there raise NotFoundError.

    `request`: the id that the sender gave a change. One that has been made already is not made again: its revision is the
    answer, as it was the first time.
    """

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def all(self) -> list[JobRecord]:
        """All jobs, the newest first."""
        with self._database.unit_of_work():
            return [
                _job(row)
                for row in self._tables.Job.select().order_by(self._tables.Job.created.desc(), self._tables.Job.id)
            ]

    def create(self, job_id: UUID, name: str, document: Document, sentence: str, now: datetime) -> RevisionRecord:
        """A job with its first revision; one that is there already as it stands."""
        with contextlib.suppress(peewee.IntegrityError), self._database.unit_of_work():
            self._tables.Job.create(id=job_id, name=name, head=1, created=now)
            row = self._tables.Revision.create(
                job=job_id,
                number=1,
                sentence=sentence,
                who="",
                content=1,
                before=None,
                redo=[],
                document=document,
                created=now,
            )
            return _revision(row, document)
        return self.newest(job_id)

    def delete(self, job_id: UUID) -> None:
        """Take a job and its history away."""
        with self._database.unit_of_work():
            if not self._tables.Job.delete().where(self._tables.Job.id == job_id).execute():
                raise NotFoundError(f"there is no job {job_id}")
            self._database.tell(job_id, ChangedPart.PLAN)

    def newest(self, job_id: UUID) -> RevisionRecord:
        with self._database.unit_of_work():
            return self._at(job_id, self._job(job_id).head)

    def head(self, job_id: UUID) -> int:
        """The number of the newest revision."""
        with self._database.unit_of_work():
            return int(self._job(job_id).head)

    def revision(self, job_id: UUID, number: int) -> RevisionRecord:
        """Raises NotFoundError where there is no such number."""
        with self._database.unit_of_work():
            return self._at(job_id, number)

    def history(self, job_id: UUID) -> list[HistoryRecord]:
        """Every revision without its document, newest first."""
        revision = self._tables.Revision
        with self._database.unit_of_work():
            self._job(job_id)
            rows = (
                revision.select(revision.number, revision.sentence, revision.who, revision.created)
                .where(revision.job == job_id)
                .order_by(revision.number.desc())
            )
            return [
                HistoryRecord(number=row.number, sentence=row.sentence, who=row.who, created=row.created)
                for row in rows
            ]

    def edit(
        self,
        job_id: UUID,
        base: int,
        change: Callable[[Document], tuple[Document, str, str]],
        now: datetime,
        who: str = "",
        request: UUID | None = None,
    ) -> RevisionRecord:
        """A new revision, made by `change` from the newest document; it gives document, job name and sentence.

        `change` may take its time: nothing is locked and no connection is held meanwhile. Where the document stays as it
        was, the newest revision is the answer.

        Raises:
            RevisionConflictError: `base` is not the newest revision, or was not any more when the change was made.
        """
        with self._database.unit_of_work():
            job, done = self._begin(job_id, base, request)
            if done is not None:
                return done
            head = self._at(job_id, job.head)
        document, name, sentence = change(head.document)
        if document == head.document:
            return head  # what changes nothing is no step that could be undone
        with self._database.unit_of_work():
            job, done = self._begin(job_id, base, request)
            if done is not None:
                return done
            return self._append(job, name, sentence, now, who, request, document=document, before=head.content)

    def bring_back(
        self, job_id: UUID, base: int, number: int, now: datetime, who: str = "", request: UUID | None = None
    ) -> RevisionRecord:
        """An earlier state as the newest one; it can be undone like any edit."""
        with self._database.unit_of_work():
            job, done = self._begin(job_id, base, request)
            if done is not None:
                return done
            head, earlier = self._at(job_id, job.head), self._at(job_id, number)
            name = str(earlier.document["name"])
            return self._append(
                job,
                name,
                f"Restore revision {number}",
                now,
                who,
                request,
                document=earlier.document,
                before=head.content,
            )

    def undo(
        self, job_id: UUID, base: int, now: datetime, who: str = "", request: UUID | None = None
    ) -> RevisionRecord:
        """The state before the last edit. Raises NothingToUndoError at the first."""
        with self._database.unit_of_work():
            job, done = self._begin(job_id, base, request)
            if done is not None:
                return done
            head = self._row(job_id, job.head)
            content = self._row(job_id, head.content)
            if content.before is None:
                raise NothingToUndoError("there is nothing to undo: this is the first state of the job")
            redo = [*head.redo, head.content]
            return self._append(
                job, "", f"Undo: {content.sentence}", now, who, request, content=content.before, redo=redo
            )

    def redo(
        self, job_id: UUID, base: int, now: datetime, who: str = "", request: UUID | None = None
    ) -> RevisionRecord:
        """The edit that was undone last. Raises NothingToUndoError where none was."""
        with self._database.unit_of_work():
            job, done = self._begin(job_id, base, request)
            if done is not None:
                return done
            head = self._row(job_id, job.head)
            if not head.redo:
                raise NothingToUndoError("there is nothing to redo: nothing was undone since the last edit")
            *rest, content = head.redo
            sentence = self._row(job_id, content).sentence
            return self._append(job, "", f"Redo: {sentence}", now, who, request, content=content, redo=rest)

    def _job(self, job_id: UUID) -> Any:
        job = self._tables.Job.get_or_none(self._tables.Job.id == job_id)
        if job is None:
            raise NotFoundError(f"there is no job {job_id}")
        return job

    def _begin(self, job_id: UUID, base: int, request: UUID | None) -> tuple[Any, RevisionRecord | None]:
        """The job's row, held until the transaction ends, so that two edits at once are one after the other; and the revision
        of this very request, where it has been made."""
        job = self._tables.Job.select().where(self._tables.Job.id == job_id).for_update().first()
        if job is None:
            raise NotFoundError(f"there is no job {job_id}")
        if request is not None:
            revision = self._tables.Revision
            made = revision.get_or_none((revision.job == job_id) & (revision.request == request))
            if made is not None:
                return job, self._at(job_id, made.number)
        if job.head != base:
            raise RevisionConflictError(
                f"somebody changed the job meanwhile: it is at state {job.head}, this change was made on state {base}. "
                "Look at the newer state, then do it again or leave it.",
                details={"newest_revision": job.head},
            )
        return job, None

    def _row(self, job_id: UUID, number: int) -> Any:
        row = self._tables.Revision.get_or_none(
            (self._tables.Revision.job == job_id) & (self._tables.Revision.number == number)
        )
        if row is None:
            raise NotFoundError(f"job {job_id} has no state {number}")
        return row

    def _at(self, job_id: UUID, number: int) -> RevisionRecord:
        row = self._row(job_id, number)
        content = row if row.content == row.number else self._row(job_id, row.content)
        return _revision(row, content.document, can_undo=content.before is not None)

    def _append(
        self,
        job: Any,
        name: str,
        sentence: str,
        now: datetime,
        who: str,
        request: UUID | None,
        *,
        document: Document | None = None,
        before: int | None = None,
        content: int | None = None,
        redo: list[int] | None = None,
    ) -> RevisionRecord:
        number = job.head + 1
        row = self._tables.Revision.create(
            job=job.id,
            number=number,
            sentence=sentence,
            who=who,
            content=number if content is None else content,
            before=before,
            redo=redo or [],
            document=document,
            request=request,
            created=now,
        )
        shown = self._row(job.id, content) if content is not None else row
        self._tables.Job.update(head=number, name=name or str(shown.document["name"])).where(
            self._tables.Job.id == job.id
        ).execute()
        self._database.tell(job.id, ChangedPart.PLAN, number)
        return _revision(row, shown.document, can_undo=shown.before is not None)


def _job(row: Any) -> JobRecord:
    return JobRecord(id=row.id, name=row.name, head=row.head, created=row.created)


def _revision(row: Any, document: Document, *, can_undo: bool = False) -> RevisionRecord:
    return RevisionRecord(
        job=row.job_id,
        number=row.number,
        sentence=row.sentence,
        who=row.who,
        content=row.content,
        can_undo=can_undo,
        can_redo=bool(row.redo),
        created=row.created,
        document=document,
    )
