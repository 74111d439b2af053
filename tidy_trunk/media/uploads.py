"""Recordings on their way in, piece by piece: what has arrived stays when the connection breaks."""

import shutil
import time
from collections.abc import AsyncIterable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Final
from uuid import UUID

from tidy_trunk.errors import InputError

LARGEST_UPLOAD_BYTES: Final = 4 * 1024**3
"""Largest recording that is taken in: where a plain WAV ends. [EBU3306]"""

SPARE_BYTES: Final = 500_000_000
"""ASSUMED_ room that is left on the disk for everything else."""

FORGOTTEN_S: Final = 3600.0
"""ASSUMED_ time after which nobody comes back to a recording of which a part arrived."""


@dataclass(frozen=True, slots=True)
class Piece:
    """`size` bytes from byte `at` on, of a recording of `total`."""

    at: int
    size: int
    total: int


@dataclass(slots=True)
class _Upload:
    total: int
    received: int = 0
    touched: float = field(default_factory=time.monotonic)


class Uploads:
    """What has arrived so far, by the id that its sender gave it."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._open: dict[UUID, _Upload] = {}

    def path(self, upload_id: UUID) -> Path:
        return self._folder / str(upload_id)

    async def take(self, upload_id: UUID, piece: Piece, chunks: AsyncIterable[bytes]) -> int:
        """Write a piece where it belongs; returns how much of the recording is there, from its beginning on.

        A piece that came before changes nothing, and one that comes too early is not taken: send on from what is there.

        Raises:
            InputError: Empty, too large for this machine, another total than before, or a piece of another length than it
                said; what did arrive of it stays.
        """
        upload = self._begin(upload_id, piece)
        if piece.at > upload.received:
            return upload.received
        path = self.path(upload_id)
        path.touch()
        written = 0
        with path.open("r+b") as file:
            file.seek(piece.at)
            async for chunk in chunks:
                if written + len(chunk) > piece.size:
                    raise InputError("more arrived than was announced: send the recording again")
                file.write(chunk)
                written += len(chunk)
                upload.received = max(upload.received, piece.at + written)
                upload.touched = time.monotonic()
        if written < piece.size:
            raise InputError("the recording did not arrive whole: send it again")
        return upload.received

    def forget(self, upload_id: UUID) -> None:
        """It has arrived, or is not wanted any more; its file is somebody else's now."""
        self._open.pop(upload_id, None)

    def _begin(self, upload_id: UUID, piece: Piece) -> _Upload:
        if piece.total <= 0 or piece.at + piece.size > piece.total:
            raise InputError("the recording is empty, or larger than it said: send it again")
        if piece.total > LARGEST_UPLOAD_BYTES:
            raise InputError(f"a recording may hold at most {LARGEST_UPLOAD_BYTES / 1e9:.1f} GB: give a part of it")
        upload = self._open.get(upload_id)
        if upload is not None and upload.total == piece.total:
            return upload
        self._drop_forgotten()
        promised = sum(other.total - other.received for other in self._open.values())
        if piece.total + promised > shutil.disk_usage(self._folder).free - SPARE_BYTES:
            raise InputError("there is no room on the disk for this recording: give a part of it, or make room")
        self._open[upload_id] = _Upload(piece.total)
        return self._open[upload_id]

    def _drop_forgotten(self) -> None:
        now = time.monotonic()
        for upload_id, upload in list(self._open.items()):
            if now - upload.touched > FORGOTTEN_S:
                self.forget(upload_id)
                self.path(upload_id).unlink(missing_ok=True)
