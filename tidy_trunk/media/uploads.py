"""Recordings on their way in, piece by piece: what has arrived stays when the connection or the server breaks."""

import shutil
from collections.abc import AsyncIterable, Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import BinaryIO, Final
from uuid import UUID

from anyio import CancelScope, to_thread

from tidy_trunk.errors import InputError, NoRoomError
from tidy_trunk.store import UploadRecord, UploadStore

LARGEST_UPLOAD_BYTES: Final = 4 * 1024**3
"""Largest recording that is taken in: where a plain WAV ends. [EBU3306]"""

SPARE_BYTES: Final = 500_000_000
"""ASSUMED_ room that is left on the disk for everything else."""

FORGOTTEN: Final = timedelta(hours=1)
"""ASSUMED_ time after which nobody comes back to a recording of which a part arrived."""

WRITTEN_BYTES: Final = 1 << 20
"""ASSUMED_ how much is written at once: a slow disk then holds up nobody else."""


@dataclass(frozen=True, slots=True)
class UploadChunk:
    """`size` bytes from byte `at` on, of a recording of `total`."""

    at: int
    size: int
    total: int


class Uploads:
    """What has arrived so far, by the id that its sender gave it. Several servers may take pieces of one recording."""

    def __init__(
        self, folder: Path, store: UploadStore, now: Callable[[], datetime] = lambda: datetime.now(UTC)
    ) -> None:
        self._folder = folder
        self._store = store
        self._now = now

    def path(self, upload_id: UUID) -> Path:
        return self._folder / str(upload_id)

    async def take(self, upload_id: UUID, piece: UploadChunk, chunks: AsyncIterable[bytes]) -> int:
        """Write a piece where it belongs; returns how much of the recording is there, from its beginning on.

        A piece that came before changes nothing, and one that comes too early is not taken: send on from what is there.

        Raises:
            InputError: Empty, too large for this machine, another total than before, or a piece of another length than it
                said; what did arrive of it stays.
            NoRoomError: There is no room on the disk, counting what is still to come of all others.
        """
        upload = await to_thread.run_sync(self._begin, upload_id, piece)
        if piece.at > upload.received:
            return upload.received
        written, waiting = 0, bytearray()
        with self.path(upload_id).open("r+b") as file:
            file.seek(piece.at)
            try:
                async for chunk in chunks:
                    if written + len(waiting) + len(chunk) > piece.size:
                        raise InputError("more arrived than was announced: send the recording again")
                    waiting += chunk
                    if len(waiting) >= WRITTEN_BYTES:
                        await to_thread.run_sync(file.write, bytes(waiting))
                        written += len(waiting)
                        waiting.clear()
            finally:
                # Also of a piece that breaks off: its sender goes on from here.
                with CancelScope(shield=True):
                    written += len(waiting)
                    received = await to_thread.run_sync(
                        self._arrived, upload_id, piece.at + written, file, bytes(waiting)
                    )
        if written < piece.size:
            raise InputError("the recording did not arrive whole: send it again")
        return received

    def forget(self, upload_id: UUID) -> None:
        """It has arrived, or is not wanted any more; its file is somebody else's now."""
        self._store.forget(upload_id)

    def _arrived(self, upload_id: UUID, up_to: int, file: BinaryIO, last: bytes) -> int:
        file.write(last)
        file.flush()
        return self._store.arrived(upload_id, up_to, self._now())

    def _begin(self, upload_id: UUID, piece: UploadChunk) -> UploadRecord:
        if piece.total <= 0 or piece.at + piece.size > piece.total:
            raise InputError("the recording is empty, or larger than it said: send it again")
        if piece.total > LARGEST_UPLOAD_BYTES:
            raise InputError(f"a recording may hold at most {LARGEST_UPLOAD_BYTES / 1e9:.1f} GB: give a part of it")
        for left in self._store.left_since(self._now() - FORGOTTEN):
            self.path(left).unlink(missing_ok=True)
        upload = self._store.begin(upload_id, piece.total, self._now(), self._has_room)
        if upload is None:
            raise NoRoomError("there is no room on the disk for this recording: give a part of it, or make room")
        self.path(upload_id).touch()
        return upload

    def _has_room(self, wanted: int) -> bool:
        return wanted <= shutil.disk_usage(self._folder).free - SPARE_BYTES
