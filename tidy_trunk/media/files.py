"""Files that a user names: told by that name where something is wrong, and written whole or not at all."""

import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import BinaryIO

from tidy_trunk.errors import FormatError, InputError, PlanError


@contextmanager
def at_file(path: Path) -> Iterator[None]:
    """What goes wrong inside is told with the file's name before it. Raises FormatError where the file cannot be read."""
    try:
        yield
    except OSError as error:
        raise FormatError(f"{path}: cannot be read: {error.strerror or error}") from error
    except (FormatError, PlanError, InputError) as error:
        raise type(error)(f"{path}: {error.message}", code=error.code, details=error.details) from error


@contextmanager
def reading(path: Path) -> Iterator[BinaryIO]:
    """A file to read from. Raises FormatError where it cannot be read."""
    with at_file(path):
        stream = path.open("rb")
    with stream:
        yield stream


@contextmanager
def new_file(path: Path, mode: int = 0o666) -> Iterator[BinaryIO]:
    """A file to write; it takes its name only when it is whole and on the disk, so that nothing half-written is left.

    `mode`: who may use it, less what the umask takes away.

    Raises:
        FormatError: It cannot be written there.
    """
    try:
        handle, name = tempfile.mkstemp(dir=path.parent, prefix=f".{path.name}.")
        part = Path(name)
        try:
            with os.fdopen(handle, "w+b") as stream:
                yield stream
                stream.flush()
                os.fsync(stream.fileno())
            part.chmod(mode & ~_umask())
            part.replace(path)
        except BaseException:
            part.unlink(missing_ok=True)
            raise
    except OSError as error:
        raise FormatError(f"{path}: cannot be written: {error.strerror or error}") from error


def size_of(path: Path) -> int:
    """Bytes of a file; 0 where there is none that can be asked."""
    try:
        return path.stat().st_size
    except OSError:
        return 0


def _umask() -> int:
    """What new files are kept from others by; it can only be read by setting it."""
    mask = os.umask(0)
    os.umask(mask)
    return mask
