"""A disk that fills up at random moments while the program is worked with, on a small file system of the test's own."""

import os
import subprocess
import time
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from random import Random

import pytest

from tests.app.test_server import Program, no_leftovers  # noqa: F401, a fixture
from tests.conftest import let_others_in
from tests.kills import KINDS, Acknowledged, Work, holds, imported, kill, sweeps

SIZE = "900m"
TIMES = 20


@pytest.fixture
def small_disk(tmp_path: Path) -> Iterator[Path]:
    """Needs the right to mount, as root has it."""
    place = tmp_path / "disk"
    place.mkdir()
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={SIZE},mode=755", "tidy-trunk-test", place], check=True)
    try:
        yield let_others_in(place)
    finally:
        subprocess.run(["umount", "--lazy", place], check=True)


def filled(place: Path, spare: int) -> Path:
    """A file that takes all room but `spare` bytes, however much others take of it meanwhile."""
    ballast = place / "ballast"
    with ballast.open("wb") as file, suppress(OSError):
        while (room := os.statvfs(place).f_bavail * os.statvfs(place).f_frsize) > spare:
            file.write(bytes(min(room - spare, 1_000_000)))
            file.flush()
    return ballast


def test_what_was_acknowledged_outlives_a_full_disk(small_disk, tmp_path):
    by, told, killed = Random(7), Acknowledged(), 0
    home = small_disk / "home"
    home.mkdir(mode=0o755)
    program = Program(home)
    job = imported(program)
    for _ in range(TIMES):
        work = Work(program, home, job, tmp_path, told)
        time.sleep(by.uniform(0.1, 1.0))
        ballast = filled(small_disk, by.choice([0, 8_192, 100_000, 1_000_000]))
        time.sleep(by.uniform(0.2, 2.0))
        is_dead = by.random() < 0.3 and kill(program, by.choice(KINDS[:3]))
        killed += is_dead
        work.end()
        ballast.unlink()
        if is_dead:
            program = Program(home)
        holds(program, job, told)
    sweeps(program, home).kill()
    print({"filled": TIMES, "killed": killed, **told.counted()})
    assert len(told.edits) > TIMES and killed
