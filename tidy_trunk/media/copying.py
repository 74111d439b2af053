"""A day's files copied, with the labels of their takes where those are wrong, and read again before any copy is called good.

Originals are only read. A copy takes its name when all of it is on the disk and has been read back with the checksum that it was
written with; the list of checksums names good copies alone.
"""

import errno
import os
import shutil
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from pathlib import Path, PurePosixPath
from typing import Any, BinaryIO, Final, cast

import xxhash

from tidy_trunk.errors import FormatError, InputError, TidyTrunkError
from tidy_trunk.formats import TakeLabels, write_relabelled
from tidy_trunk.media.files import size_of
from tidy_trunk.media.manifests import MANIFEST, PIECE_BYTES, Digest, digest, read_manifest, write_list
from tidy_trunk.media.movie_channels import write_movie_channel

LEFT_FREE_BYTES: Final = 500_000_000
"""ASSUMED_ room that copies leave on a disk: the system wants some of it."""

MORE_BYTES: Final = 100_000
"""ASSUMED_ by how much labels make a file longer at most."""


class CopyVerdict(StrEnum):
    """What became of a file."""

    COPIED = "copied"
    ALREADY_THERE = "already-there"  # the same file, from an earlier try
    UNREADABLE = "unreadable"  # the card gives it no more
    NAME_TAKEN = "name-taken"  # another file bears its name
    BADLY_WRITTEN = "badly-written"  # it came back otherwise than it was written


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyOrder:
    """One file. path, name: below the folder that it is in, and below the one that it goes to; labels: None leaves it as it is.

    date: for its head, `2026-12-01`; "" leaves that alone. channel: of labelled sound, the one that is copied, from 1; 0 for all.
    out_of_movie_bytes: of a channel of a movie, about how large it will be; 0 of what is copied.
    """

    path: str
    name: str
    labels: TakeLabels | None = None
    date: str = ""
    channel: int = 0
    out_of_movie_bytes: int = 0

    def size(self, folder: Path) -> int:
        """About how large it will be."""
        return self.out_of_movie_bytes or size_of(folder / self.path)


@dataclass(frozen=True, slots=True, kw_only=True)
class CopiedFile:
    """problem: what the disk or the card said, "" of a good copy. again: whether the second copy is as good; None: there is none."""

    path: str
    name: str
    verdict: CopyVerdict
    size: int = 0
    sha256: str = ""
    problem: str = ""
    again: bool | None = None

    @property
    def is_good(self) -> bool:
        return self.verdict in (CopyVerdict.COPIED, CopyVerdict.ALREADY_THERE) and self.again is not False


def copy_files(
    folder: Path,
    orders: Sequence[CopyOrder],
    into: Path,
    second: Path | None = None,
    tell: Callable[[float], None] = lambda share: None,
) -> list[CopiedFile]:
    """Copies of files, each with what became of it; a second copy is made from the first one and compared with it.

    Done again after it was cut off, it goes on: what is there already and the same is left.

    Raises:
        InputError: Folders that cannot be used, two files of one name, or too little room.
        FormatError: A list that cannot be written.
    """
    targets = [into, *([second] if second is not None else [])]
    _check(folder, orders, targets)
    sizes = {order.name: order.size(folder) for order in orders}
    done, whole = 0, max(sum(sizes.values()), 1) * len(targets)
    good: dict[Path, dict[str, Digest]] = {target: _listed(target) for target in targets}
    found = []
    for order in orders:
        tell(done / whole)
        copied, one = _copied(folder / order.path, into / order.name, order)
        done += sizes[order.name]
        if one is not None:
            good[into][order.name] = one
            if second is not None:
                tell(done / whole)
                plain = CopyOrder(path=order.name, name=order.name)
                beside, other = _copied(into / order.name, second / order.name, plain)
                is_same = other is not None and other == one
                if is_same and other is not None:
                    good[second][order.name] = other
                copied = _with_second(copied, is_same, beside.problem)
        done += sizes[order.name] if second is not None else 0
        found.append(copied)
        if not folder.is_dir():
            raise InputError(f"{folder}: the card is gone after {len(found)} of {len(orders)} files: put it in, go on")
    for target in targets:
        write_list(target, dict(sorted(good[target].items())))
    tell(1.0)
    return found


def _with_second(copied: CopiedFile, is_same: bool, problem: str) -> CopiedFile:
    return CopiedFile(
        path=copied.path,
        name=copied.name,
        verdict=copied.verdict,
        size=copied.size,
        sha256=copied.sha256,
        problem=copied.problem if is_same else f"second copy: {problem or 'it is not the same as the first'}",
        again=is_same,
    )


def _copied(source: Path, target: Path, order: CopyOrder) -> tuple[CopiedFile, Digest | None]:
    """One file, and its checksums where the copy is good."""

    def said(verdict: CopyVerdict, problem: str) -> tuple[CopiedFile, None]:
        return CopiedFile(path=order.path, name=order.name, verdict=verdict, problem=problem), None

    try:
        card = _Card(source)
    except OSError as error:
        return said(CopyVerdict.UNREADABLE, error.strerror or str(error))
    with card:
        part = target.with_name(f".{target.name}.part")
        try:
            target.parent.mkdir(parents=True, exist_ok=True)
            written = _write(card, part, order)
            one = digest(part)
            if one.xxh3 != written:
                return said(CopyVerdict.BADLY_WRITTEN, "what was read back is not what was written")
            if target.exists():
                if digest(target) != one:
                    return said(CopyVerdict.NAME_TAKEN, f"another file is called {order.name} there")
                return _good(order, CopyVerdict.ALREADY_THERE, one), one
            part.replace(target)
            return _good(order, CopyVerdict.COPIED, one), one
        except OSError as error:
            if card.problem:
                return said(CopyVerdict.UNREADABLE, card.problem)
            if error.errno in (errno.ENOSPC, errno.EDQUOT, errno.EFBIG):
                raise InputError(
                    f"{target.parent}: the disk is full at {order.name}: make room, then copy again"
                ) from error
            return said(CopyVerdict.BADLY_WRITTEN, error.strerror or str(error))
        except TidyTrunkError as error:
            return said(CopyVerdict.UNREADABLE, card.problem or error.message)
        finally:
            part.unlink(missing_ok=True)


def _good(order: CopyOrder, verdict: CopyVerdict, one: Digest) -> CopiedFile:
    return CopiedFile(path=order.path, name=order.name, verdict=verdict, size=one.size, sha256=one.sha256)


def _write(card: "_Card", part: Path, order: CopyOrder) -> str:
    """Writes a copy; the checksum of what was written, before the disk has had a say in it."""
    with part.open("wb") as out:
        told = _Told(out)
        stream, source, original = cast(BinaryIO, told), cast(BinaryIO, card), PurePosixPath(order.path).name
        if order.labels is not None and order.out_of_movie_bytes:
            write_movie_channel(source, stream, order.labels, channel=order.channel, name=original, date=order.date)
        elif order.labels is not None:
            write_relabelled(source, stream, order.labels, original=original, date=order.date, channel=order.channel)
        else:
            while piece := card.read(PIECE_BYTES):
                told.write(piece)
        out.flush()
        os.fsync(out.fileno())
        # Read back from the disk, and not from what the system still has of it in memory.
        if hasattr(os, "posix_fadvise"):
            os.posix_fadvise(out.fileno(), 0, 0, os.POSIX_FADV_DONTNEED)
    return told.sum.hexdigest()


class _Card:
    """A file that is read, which remembers whether it was reading that failed."""

    def __init__(self, path: Path) -> None:
        self._stream = path.open("rb")
        self.problem = ""

    def read(self, count: int = -1) -> bytes:
        try:
            return self._stream.read(count)
        except OSError as error:
            self.problem = f"the card gives nothing more after {self._stream.tell()} bytes: {error.strerror or error}"
            raise

    def seek(self, offset: int, whence: int = 0) -> int:
        return self._stream.seek(offset, whence)

    def tell(self) -> int:
        return self._stream.tell()

    def fileno(self) -> int:
        """For libraries that read by themselves: what goes wrong there is theirs to tell."""
        return self._stream.fileno()

    def __enter__(self) -> "_Card":
        return self

    def __exit__(self, *_: object) -> None:
        self._stream.close()


class _Told:
    """What is written, with its checksum."""

    def __init__(self, out: BinaryIO) -> None:
        self._out = out
        self.sum = xxhash.xxh3_128()

    def write(self, piece: Any) -> int:
        self.sum.update(piece)
        return self._out.write(piece)


def _check(folder: Path, orders: Sequence[CopyOrder], targets: Sequence[Path]) -> None:
    if not folder.is_dir():
        raise InputError(f"{folder}: there is no such folder")
    names = [order.name.casefold() for order in orders]
    twice = next((name for name in names if names.count(name) > 1), None) if len(set(names)) < len(names) else None
    if twice is not None:
        raise InputError(f"two files would be called {twice}: correct the log first")
    for order in orders:
        inside = PurePosixPath(order.name)
        if inside.is_absolute() or ".." in inside.parts or order.name in ("", MANIFEST):
            raise InputError(f"{order.name!r} is no name for a copy")
    homes = [folder.resolve(), *(target.resolve() for target in targets)]
    for number, target in enumerate(targets, start=1):
        place = homes[number]
        if any(
            place == other or place.is_relative_to(other) or other.is_relative_to(place) for other in homes[:number]
        ):
            raise InputError(f"{target}: copies cannot go into the folder that they come from, nor both into one")
        if place.exists() and not place.is_dir():
            raise InputError(f"{target}: is a file: name a folder")
        wanted = sum(order.size(folder) + MORE_BYTES for order in orders) + LEFT_FREE_BYTES
        try:
            place.mkdir(parents=True, exist_ok=True)
            free = shutil.disk_usage(place).free
        except OSError as error:
            raise InputError(f"{target}: cannot be written: {error.strerror or error}") from error
        there = sum(size_of(place / order.name) for order in orders)
        if free + there < wanted:
            raise InputError(
                f"{target}: {wanted / 1e9:.1f} GB are wanted there and {free / 1e9:.1f} are free: name another disk"
            )


def _listed(target: Path) -> dict[str, Digest]:
    """What a list of an earlier copy names, and is still there."""
    try:
        found: Mapping[str, Digest] = read_manifest(target / MANIFEST)
    except FormatError:
        return {}
    return {path: one for path, one in found.items() if size_of(target / path) == one.size}
