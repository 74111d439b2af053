"""One set-up step: done once, done again when what it is made from changes, and explained when it fails."""

import contextlib
import fcntl
import hashlib
import os
import shutil
import sys
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


class StepFailed(Exception):
    """A set-up step that failed; the text says which step, why, and what to do."""


def say(text: str) -> None:
    print(f"tidy: {text}", file=sys.stderr, flush=True)


def fingerprint(paths: Iterable[Path], *words: str) -> str:
    """Hash of the contents of files, of all files below folders, and of further words."""
    digest = hashlib.sha256()
    for path in paths:
        files = sorted(p for p in path.rglob("*") if p.is_file()) if path.is_dir() else [path]
        for file in files:
            digest.update(str(file.relative_to(ROOT)).encode() + b"\0" + file.read_bytes())
    digest.update("\0".join(words).encode())
    return digest.hexdigest()


def is_current(stamp: Path, mark: str) -> bool:
    try:
        return stamp.read_text() == mark
    except OSError:
        return False


@contextlib.contextmanager
def built_beside(folder: Path) -> Iterator[Path]:
    """A name to build under; what is there then takes the place of `folder`. What was there before stays until then, and
    where the building fails or is cut off."""
    fresh, former = (folder.with_name(folder.name + end) for end in (".new", ".former"))
    put_back(folder)
    shutil.rmtree(fresh, ignore_errors=True)
    try:
        yield fresh
        shutil.rmtree(former, ignore_errors=True)
        if folder.exists():
            folder.rename(former)
        fresh.rename(folder)
    except OSError as error:
        raise StepFailed(f"cannot put {folder.name} in its place: {error.strerror}") from error
    finally:
        put_back(folder)
        for left in (fresh, former):
            shutil.rmtree(left, ignore_errors=True)


def put_back(folder: Path) -> None:
    """What was there before, where a new one was cut off in the moment of taking its place."""
    former = folder.with_name(folder.name + ".former")
    if former.exists() and not folder.exists():
        former.rename(folder)


def or_as_it_is(stamp: Path, build: Callable[[], None]) -> None:
    """Bring a part up to date; where that fails and a former one is whole, go on with that, and say so.

    Raises:
        StepFailed: There is none to go on with.
    """
    try:
        build()
    except StepFailed as failure:
        if not stamp.exists():
            raise
        say(f"{failure}")
        say("could not bring it up to date (is there a network?): going on with what is there")


@contextlib.contextmanager
def one_at_a_time() -> Iterator[None]:
    """Two launchers at once do not build into each other's folder; the lock goes with its process."""
    try:
        handle = (ROOT / ".setup.lock").open("w")
    except OSError as error:
        raise StepFailed(f"cannot write in {ROOT}: {error.strerror}. Run from a checkout of your own.") from error
    with handle:
        fcntl.flock(handle, fcntl.LOCK_EX)
        yield


def run(step: str, command: Sequence[str], *, cwd: Path = ROOT, env: Mapping[str, str] | None = None) -> None:
    """Run one command of a step quietly; its output is shown only when it fails.

    Raises:
        StepFailed: The command is missing or ended with an error.
    """
    import subprocess  # a tenth of what a small command takes, and only set-up needs it

    try:
        done = subprocess.run(
            command, cwd=cwd, env={**os.environ, **(env or {})}, stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, errors="replace",
        )  # fmt: skip
    except OSError as error:
        raise StepFailed(f"step '{step}' failed: cannot run {command[0]}: {error.strerror}") from error
    if done.returncode:
        tail = "\n".join(done.stdout.strip().splitlines()[-25:])
        raise StepFailed(f"step '{step}' failed: `{' '.join(map(str, command))}` ended with {done.returncode}\n{tail}")
