"""Recordings that are dropped in: read in a process each, and thrown away then unless they are to be kept."""

from collections.abc import AsyncIterable, Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Final
from uuid import UUID, uuid4

from tidy_trunk.core.base.text import is_plain
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.media.sounds import Media
from tidy_trunk.media.uploads import Piece, Uploads
from tidy_trunk.store import RecordingRecord, RecordingState, RecordingStore
from tidy_trunk.tasks.queue import WorkerQueue
from tidy_trunk.tasks.requests import Measure, Request, request_document, request_of

LONGEST_NAME: Final = 200
"""ASSUMED_ characters of a file's name that are kept."""


class RecordingService:
    """One method for one thing that a user does with a recording."""

    def __init__(
        self,
        store: RecordingStore,
        media: Media,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._store = store
        self._media = media
        self._now = now
        self._uploads = Uploads(media.incoming)
        self._queue = WorkerQueue()
        store.interrupt("the program was ended while it was read: drop the file in again")

    async def receive(
        self,
        job_id: UUID,
        recording_id: UUID,
        name: str,
        piece: Piece,
        request: Request,
        chunks: AsyncIterable[bytes],
    ) -> RecordingRecord | int:
        """Take a piece of a recording in; it is listed and measured once all of it is here.

        Returns how much is there until then. What has arrived before under this id is the same recording.

        Raises:
            InputError: As `Uploads.take`, or steps without a target.
            NotFoundError: No such job.
        """
        if isinstance(request, Measure) and request.settings and request.target_dbfs is None:
            raise InputError("steps want a target: say at how many dBFS the tone ought to stand")
        known = self._store.find(job_id, recording_id)
        if known is not None:
            async for _ in chunks:
                pass  # its sender reads no answer before he has been heard
            return known
        received = await self._uploads.take(recording_id, piece, chunks)
        if received < piece.total:
            return received
        record = self._new(job_id, name, piece.total, request, recording_id)
        path = self._uploads.path(recording_id)
        self._uploads.forget(recording_id)
        try:
            is_new = self._store.add(record)
        except BaseException:
            path.unlink(missing_ok=True)
            raise
        if is_new:
            self._submit(record, path)
        return record

    def work_out(self, job_id: UUID, name: str, request: Request) -> RecordingRecord:
        """Something that takes a while and is worked out of recordings that are kept; looked after like them.

        Raises NotFoundError: no such job.
        """
        record = self._new(job_id, name, 0, request, uuid4())
        self._store.add(record)
        self._submit(record, self._media.incoming / str(record.id))
        return record

    def amend(self, job_id: UUID, recording_id: UUID, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
        """Change a result; several at once come one after the other. Raises NotFoundError."""
        self._store.amend(job_id, recording_id, change)

    def kept_at(self, recording_id: UUID) -> Path:
        """Where the sound of a recording is kept, or was."""
        return self._media.kept / str(recording_id)

    def keep(
        self, job_id: UUID, recording_id: UUID, name: str, request: Request, result: dict[str, Any]
    ) -> RecordingRecord:
        """What was measured without a file, as on the bench, listed with the others. Raises NotFoundError: no such job."""
        record = self._new(job_id, name, 0, request, recording_id)
        self._store.add(record)
        self._store.finish(record.id, RecordingState.DONE, result=result)
        return self._store.get(job_id, record.id)

    def sound(self, job_id: UUID, recording_id: UUID) -> tuple[RecordingRecord, Path]:
        """The sound of a recording that was kept. Raises NotFoundError: no such recording, or it was not kept."""
        record = self._store.get(job_id, recording_id)
        path = self.kept_at(recording_id)
        if not path.exists():
            raise NotFoundError(f"the sound of '{record.name}' was not kept: drop it in again, with that ticked")
        return record, path

    def all(self, job_id: UUID) -> list[RecordingRecord]:
        """The recordings of a job that are measured, the newest first, without what was found."""
        return [record for record in self._store.all(job_id) if isinstance(request_of(record.asked), Measure)]

    def to_sync(self, job_id: UUID) -> list[RecordingRecord]:
        """The recordings of a job that are laid over each other, and where they lie, the newest first."""
        records = self._store.all(job_id, with_result=True)
        return [record for record in records if not isinstance(request_of(record.asked), Measure)]

    def get(self, job_id: UUID, recording_id: UUID) -> RecordingRecord:
        """One with what was found. Raises NotFoundError."""
        return self._store.get(job_id, recording_id)

    def cancel(self, job_id: UUID, recording_id: UUID) -> RecordingRecord:
        """Stop measuring it; what is over stays as it is."""
        record = self._store.get(job_id, recording_id)
        # Told before its process is ended: whoever listens to that would call it failed.
        self._store.finish(recording_id, RecordingState.CANCELLED)
        self._queue.cancel(recording_id)
        return self._store.get(job_id, record.id)

    def delete(self, job_id: UUID, recording_id: UUID) -> None:
        """Take it off the list, whatever it is doing."""
        self.cancel(job_id, recording_id)
        self._store.delete(job_id, recording_id)
        self._media.sweep()

    def close(self) -> None:
        """End all that is under way: the next start tells it."""
        self._queue.close()
        self._media.close()

    def _new(self, job_id: UUID, name: str, size: int, request: Request, recording_id: UUID) -> RecordingRecord:
        return RecordingRecord(
            id=recording_id,
            job=job_id,
            name=" ".join("".join(letter if is_plain(letter) else " " for letter in name).split())[:LONGEST_NAME]
            or "recording",
            size=size,
            asked=request_document(request),
            state=RecordingState.WAITING,
            progress=0.0,
            message="",
            result=None,
            created=self._now(),
        )

    def _submit(self, record: RecordingRecord, path: Path) -> None:
        self._queue.submit(record.id, request_of(record.asked), path, _Reading(record, self._store, self._media))


class _Reading:
    """What becomes of a recording that is read."""

    def __init__(self, record: RecordingRecord, store: RecordingStore, media: Media) -> None:
        self._record = record
        self._store = store
        self._media = media

    def progress(self, share: float) -> None:
        self._store.progress(self._record.id, share)

    def done(self, result: dict[str, Any]) -> None:
        # Before anybody is told that it is over.
        if request_of(self._record.asked).keep:
            self._media.keep(self._record.id)
        self._media.throw_away(self._record.id)
        self._store.finish(self._record.id, RecordingState.DONE, result=result)

    def failed(self, problem: str) -> None:
        self._media.throw_away(self._record.id)
        self._store.finish(self._record.id, RecordingState.FAILED, problem)

    def ended(self) -> None:
        self._media.throw_away(self._record.id)
