"""Recordings that are dropped in: read by a worker, and thrown away then unless they are to be kept."""

from base64 import b64decode
from collections.abc import AsyncIterable, Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import Any, Final
from uuid import UUID, uuid4

from anyio import CancelScope, to_thread

from tidy_trunk.core.base.text import is_plain
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.media.sounds import Media
from tidy_trunk.media.uploads import UploadChunk, Uploads
from tidy_trunk.store import RecordingRecord, RecordingState, RecordingStore, UploadStore
from tidy_trunk.tasks.queue import TaskQueue
from tidy_trunk.tasks.quick import QuickReader
from tidy_trunk.tasks.requests import (
    LookAt,
    Match,
    Measure,
    PlayTogether,
    Request,
    Shrink,
    request_document,
    request_of,
)

LONGEST_NAME: Final = 200
"""ASSUMED_ characters of a file's name that are kept."""


class RecordingService:
    """One method for one thing that a user does with a recording."""

    def __init__(
        self,
        store: RecordingStore,
        uploads: UploadStore,
        media: Media,
        queue: TaskQueue,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._store = store
        self._media = media
        self._now = now
        self._uploads = Uploads(media.incoming, uploads)
        self._queue = queue
        self._quick = QuickReader()

    async def receive(
        self,
        job_id: UUID,
        recording_id: UUID,
        name: str,
        piece: UploadChunk,
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
        known = await to_thread.run_sync(self._store.find, job_id, recording_id)
        if known is not None:
            async for _ in chunks:
                pass  # its sender reads no answer before he has been heard
            return known
        received = await self._uploads.take(recording_id, piece, chunks)
        if received < piece.total:
            return received
        return await to_thread.run_sync(self._add, self._new(job_id, name, piece.total, request, recording_id))

    async def look(self, piece: UploadChunk, request: Request, chunks: AsyncIterable[bytes]) -> dict[str, Any]:
        """What a file says that comes whole and is not kept. Raises as `Uploads.take` and `QuickReader.ask`."""
        own_id = uuid4()
        try:
            await self._uploads.take(own_id, piece, chunks)
            return await to_thread.run_sync(self._quick.ask, request, self._uploads.path(own_id))
        finally:
            with CancelScope(shield=True):
                await to_thread.run_sync(self._drop, own_id)

    async def shrunk(self, piece: UploadChunk, chunks: AsyncIterable[bytes]) -> bytes:
        """A photograph that comes whole, small, as JPEG. Raises as `look`."""
        return b64decode((await self.look(piece, Shrink(), chunks))["jpeg"])

    def _drop(self, upload_id: UUID) -> None:
        self._media.throw_away(upload_id)
        self._uploads.forget(upload_id)

    def look_into(self, request: Request, path: Path) -> dict[str, Any]:
        """What a file says that is kept. Raises as `QuickReader.ask`."""
        return self._quick.ask(request, path)

    def play_together(self, request: PlayTogether) -> bytes:
        """A stretch of two files that lie elsewhere on this machine, as a WAV. Raises as `QuickReader.ask`."""
        return b64decode(self._quick.ask(request, self._media.incoming)["wav"])

    @contextmanager
    def aside(self) -> Iterator[Path]:
        """A file below the folder of recordings, to be written by a reader; it goes when this ends."""
        path = self._media.incoming / str(uuid4())
        try:
            yield path
        finally:
            path.unlink(missing_ok=True)

    @property
    def folder(self) -> Path:
        """Of all files, those that are kept and others."""
        return self._media.kept.parent

    def _add(self, record: RecordingRecord) -> RecordingRecord:
        """List what has arrived, and have it read."""
        try:
            self._store.add(record, partial(self._queue.put, record.id))
        except NotFoundError:
            self._drop(record.id)
            raise
        return record

    def work_out(self, job_id: UUID, name: str, request: Request, own_id: UUID | None = None) -> RecordingRecord:
        """Something that takes a while without a file that was dropped in; looked after like a recording.

        `own_id`: that its sender gave it; sent again it is the same one. Raises NotFoundError: no such job.
        """
        record = self._new(job_id, name, 0, request, own_id or uuid4())
        self._store.add(record, partial(self._queue.put, record.id))
        return self._store.get(job_id, record.id)

    def amend(self, job_id: UUID, recording_id: UUID, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
        """Change a result; several at once come one after the other. Raises NotFoundError."""
        self._store.amend(job_id, recording_id, change)

    def kept_at(self, recording_id: UUID) -> Path:
        """Where the sound of a recording is kept, or was."""
        return self._media.kept / str(recording_id)

    def sound(self, job_id: UUID, recording_id: UUID) -> tuple[RecordingRecord, Path]:
        """The sound of a recording that was kept. Raises NotFoundError: no such recording, or it was not kept."""
        record = self._store.get(job_id, recording_id)
        path = self.kept_at(recording_id)
        if not path.exists():
            raise NotFoundError(f"the sound of '{record.name}' was not kept: drop it in again, with that ticked")
        return record, path

    def all(self, job_id: UUID) -> list[RecordingRecord]:
        """The recordings of a job that are measured, the newest first, without what was found."""
        return self.of_kind(job_id, Measure)

    def to_sync(self, job_id: UUID) -> list[RecordingRecord]:
        """The recordings of a job that are laid over each other, and where they lie, the newest first."""
        records = self._store.all(job_id, with_result=True)
        return [record for record in records if isinstance(request_of(record.asked), LookAt | Match)]

    def of_kind(self, job_id: UUID, kind: type[Request]) -> list[RecordingRecord]:
        """What a job has of one kind of request, the newest first, without results."""
        return [record for record in self._store.all(job_id) if isinstance(request_of(record.asked), kind)]

    def get(self, job_id: UUID, recording_id: UUID) -> RecordingRecord:
        """One with what was found. Raises NotFoundError."""
        return self._store.get(job_id, recording_id)

    def cancel(self, job_id: UUID, recording_id: UUID) -> RecordingRecord:
        """Stop measuring it; what is over stays as it is."""
        record = self._store.get(job_id, recording_id)
        # Told before whoever reads it stops: nobody is to call it failed.
        task = self._store.cancel(recording_id)
        if task is not None:
            self._queue.cancel(task)
            self._media.throw_away(recording_id)
        return self._store.get(job_id, record.id)

    def delete(self, job_id: UUID, recording_id: UUID) -> None:
        """Take it off the list, whatever it is doing."""
        self.cancel(job_id, recording_id)
        self._store.delete(job_id, recording_id)
        self._media.sweep()

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
