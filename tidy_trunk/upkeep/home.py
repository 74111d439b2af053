"""The data folder: one program at a time, and none on what is only half there."""

import fcntl
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

from tidy_trunk.errors import SetupError

RESTORING: Final = "restoring"
"""ASSUMED_ name of the file that stands in a data folder while a backup is restored into it."""


@contextmanager
def alone(home: Path) -> Iterator[None]:
    """One program for one data folder; the lock goes with its process, so that a crash leaves none behind.

    Raises SetupError: another has it, it cannot be written in, or it is half restored.
    """
    try:
        home.mkdir(parents=True, exist_ok=True)
        handle = (home / "lock").open("a+")
    except OSError as error:
        raise SetupError(
            f"cannot write in {home}: {error.strerror}. Set TIDY_TRUNK_HOME to a folder of your own."
        ) from error
    with handle:
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            raise SetupError(f"Tidy Trunk is running already on {home}: use that one, or end it first") from error
        if (home / RESTORING).exists():
            raise SetupError(
                f"a backup was restored into {home} and did not come to its end: remove that folder, and do it again"
            )
        yield
