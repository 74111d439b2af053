"""What a folder held, file by file: a plain list of sizes and checksums, written once and compared ever after.

The list is UTF-8 text, a line for each file: SHA-256, XXH3 of 128 bits, size in bytes, and the path with `/`, parted by spaces.
Lines that begin with `#` say what it is. `sha256sum -c` reads the list beside it, which has the SHA-256 alone.
"""

import hashlib
import os
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from pathlib import Path, PurePosixPath
from typing import Final

import xxhash

from tidy_trunk.core.base.text import is_plain
from tidy_trunk.errors import FormatError, InputError
from tidy_trunk.media.files import new_file, size_of

MANIFEST: Final = "tidy-manifest.txt"
SHA256_LIST: Final = "sha256sum.txt"
HEAD: Final = "# Tidy Trunk manifest 1: sha256 xxh3-128 bytes path"

PIECE_BYTES: Final = 1 << 22
"""ASSUMED_ piece in which a file is read."""

MOST_FILES: Final = 10_000
"""ASSUMED_ most files of one folder: a week of six cameras has a fifth of it."""

DEEPEST: Final = 32
"""ASSUMED_ deepest folder in a folder: what goes deeper leads in a circle."""

LONGEST_LIST_BYTES: Final = 20_000_000
"""ASSUMED_ longest list that is read."""


@dataclass(frozen=True, slots=True)
class Digest:
    """A file as it was read. Both checksums in hexadecimal."""

    sha256: str
    xxh3: str
    size: int


class Verdict(StrEnum):
    """What became of a file since its list was written."""

    SAME = "same"
    MISSING = "missing"
    CUT_SHORT = "cut-short"
    DIFFERS = "differs"
    UNREADABLE = "unreadable"
    NEW = "new"


@dataclass(frozen=True, slots=True)
class VerifiedFile:
    """path: below the folder, with `/`."""

    path: str
    verdict: Verdict


def files_below(folder: Path) -> list[str]:
    """Paths of all files of a folder, sorted, without the lists themselves; what links elsewhere is left out.

    Raises:
        InputError: No such folder, too many files or folders too deep in it, or a name that cannot be written in a line.
    """
    if not folder.is_dir():
        raise InputError(f"{folder}: there is no such folder")
    found: list[str] = []
    for at, folders, names in os.walk(folder):
        here = Path(at).relative_to(folder)
        if len(here.parts) > DEEPEST:
            raise InputError(f"{Path(at)}: folders are more than {DEEPEST} deep here: name the one with the recordings")
        folders[:] = sorted(name for name in folders if not (Path(at) / name).is_symlink())
        for name in sorted(names):
            path = Path(at) / name
            if path.is_symlink() or not path.is_file() or (not here.parts and name in (MANIFEST, SHA256_LIST)):
                continue
            found.append((here / name).as_posix())
            if len(found) > MOST_FILES:
                raise InputError(f"{folder}: there are more than {MOST_FILES} files in it: name a smaller folder")
            if not all(is_plain(letter) for letter in found[-1]):
                raise InputError(f"{folder}: {found[-1]!r} cannot be written in a list: rename it")
    return sorted(found)


def digest(path: Path) -> Digest:
    """Both checksums of a file, read once. Raises OSError."""
    fast, sure, size = xxhash.xxh3_128(), hashlib.sha256(), 0
    with path.open("rb") as stream:
        while piece := stream.read(PIECE_BYTES):
            fast.update(piece)
            sure.update(piece)
            size += len(piece)
    return Digest(sure.hexdigest(), fast.hexdigest(), size)


def write_manifest(folder: Path, tell: Callable[[float], None] = lambda share: None) -> Mapping[str, Digest]:
    """The list of a folder, beside it one for `sha256sum -c`; both take their names only when they are whole.

    Raises:
        InputError: As `files_below`, or a file that cannot be read.
        FormatError: It cannot be written there.
    """
    found = {}
    for path, _ in _told(folder, files_below(folder), tell):
        try:
            found[path] = digest(folder / path)
        except OSError as error:
            raise InputError(f"{folder / path}: cannot be read: {error.strerror or error}") from error
    write_list(folder, found)
    return found


def write_list(folder: Path, found: Mapping[str, Digest]) -> None:
    """The list of files whose checksums are known, and the one for `sha256sum -c`. Raises FormatError: as `write_manifest`."""
    lines = [HEAD, *(f"{one.sha256} {one.xxh3} {one.size} {path}" for path, one in found.items())]
    _write(folder / MANIFEST, lines)
    _write(folder / SHA256_LIST, [f"{one.sha256}  {path}" for path, one in found.items()])


def read_manifest(path: Path) -> Mapping[str, Digest]:
    """What a list says. Raises FormatError: it is none, or lies outside of its folder."""
    try:
        data = path.read_bytes() if path.stat().st_size <= LONGEST_LIST_BYTES else b""
    except OSError as error:
        raise FormatError(f"{path}: cannot be read: {error.strerror or error}") from error
    lines = data.decode("utf-8", errors="replace").splitlines()
    if not lines or lines[0] != HEAD:
        raise FormatError(f"{path}: this is no list of checksums: its first line must be '{HEAD}'")
    found = {}
    for number, line in enumerate(lines[1:], start=2):
        parts = line.split(" ", 3)
        if len(parts) != 4 or len(parts[0]) != 64 or len(parts[1]) != 32 or not parts[2].isdigit():
            raise FormatError(f"{path}: line {number} is not sha256, xxh3-128, bytes and path")
        inside = PurePosixPath(parts[3])
        if inside.is_absolute() or ".." in inside.parts or parts[3] in found:
            raise FormatError(
                f"{path}: line {number} names {parts[3][:80]!r}, which cannot be in a folder twice or beside it"
            )
        found[parts[3]] = Digest(parts[0], parts[1], int(parts[2]))
    return found


def verify(
    folder: Path, manifest: Mapping[str, Digest], tell: Callable[[float], None] = lambda share: None
) -> list[VerifiedFile]:
    """Every file that is listed or there: the same, or what became of it. A file counts as good only once all of it was read.

    Raises InputError: as `files_below`.
    """
    there = files_below(folder)
    found = [VerifiedFile(path, Verdict.NEW) for path in there if path not in manifest]
    for path, _ in _told(folder, list(manifest), tell):
        found.append(VerifiedFile(path, _verdict(folder / path, manifest[path])))
    return sorted(found, key=lambda item: item.path)


def _verdict(path: Path, listed: Digest) -> Verdict:
    try:
        if path.is_symlink() or not path.is_file():
            return Verdict.MISSING
        if path.stat().st_size < listed.size:
            return Verdict.CUT_SHORT
        return Verdict.SAME if digest(path) == listed else Verdict.DIFFERS
    except OSError:
        return Verdict.UNREADABLE


def _told(folder: Path, paths: list[str], tell: Callable[[float], None]) -> Iterator[tuple[str, int]]:
    """Paths, one after the other, with how far it is told before each."""
    sizes = {path: size_of(folder / path) for path in paths}
    whole, done = max(sum(sizes.values()), 1), 0
    for path in paths:
        tell(done / whole)
        yield path, sizes[path]
        done += sizes[path]
    tell(1.0)


def _write(path: Path, lines: list[str]) -> None:
    with new_file(path) as stream:
        stream.write("".join(f"{line}\n" for line in lines).encode())
