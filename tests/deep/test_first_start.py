"""A first start interrupted at each of its steps, and the start after it."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from tests.app.test_server import ROOT, Program
from tests.conftest import let_others_in
from tests.kills import answers, imported
from tidy_trunk.store import PrivateCluster

EACH_S = 0.1
LONGEST_S = 30


def first_start(home: Path, number: int) -> subprocess.Popen:
    """As from a shell that listens: one in the background lets its children ignore some of these signals."""

    def listen() -> None:
        if number != signal.SIGKILL:
            signal.signal(number, signal.SIG_DFL if number != signal.SIGINT else signal.default_int_handler)

    return subprocess.Popen(
        [sys.executable, "-m", "tidy_trunk", "serve", "--port", "0"],
        cwd=ROOT,
        env={**os.environ, "TIDY_TRUNK_HOME": str(home)},
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        preexec_fn=listen,
    )


@pytest.mark.parametrize("number", [signal.SIGKILL, signal.SIGTERM, signal.SIGINT, signal.SIGHUP])
def test_the_start_after_it_works(tmp_path, number):
    """Killed a tenth of a second later each time, until it is up before that: its steps take longer than that."""
    after_s, times = 0.0, 0
    while True:
        home = tmp_path / f"home {times}"
        home.mkdir()
        let_others_in(home)
        process = first_start(home, number)
        time.sleep(after_s)
        is_up = after_s > LONGEST_S or _has_said_where(process)
        process.send_signal(number)
        process.communicate(timeout=60)
        program = Program(home)
        try:
            job = imported(program)
            assert answers(program, f"/api/jobs/{job}").status_code == 200
        finally:
            program.kill(signal.SIGTERM)
            PrivateCluster(home)._end_leftover()
        times += 1
        after_s += EACH_S
        if is_up:
            break
    print({"killed": times, "up after": round(after_s, 1)})
    assert times > 5 and after_s < LONGEST_S


def _has_said_where(process: subprocess.Popen) -> bool:
    os.set_blocking(process.stdout.fileno(), False)
    return " at http" in (process.stdout.readline() or "")
