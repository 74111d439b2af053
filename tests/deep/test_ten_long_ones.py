"""The server is killed while ten long recordings wait or are read: all of them finish after the next start."""

import os
import signal
import subprocess
import sys
import time
from uuid import uuid4

import httpx2
import numpy as np

from tests.sounds import wav

RATE = 48_000
LONG = wav(np.tile(np.random.default_rng(1).normal(0, 0.1, 60 * RATE), 10), rate=RATE)


def started(home):
    process = subprocess.Popen(
        [sys.executable, "-m", "tidy_trunk", "serve", "--port", "0"],
        env={**os.environ, "TIDY_TRUNK_HOME": str(home)},
        stdout=subprocess.PIPE,
        text=True,
    )
    return process, process.stdout.readline().split(" at ")[1].split(" ")[0]


def test_all_finish_after_the_next_start(home):
    process, address = started(home)
    with httpx2.Client(base_url=address, timeout=60) as client:
        recordings = f"/api/jobs/{client.post('/api/jobs', json={'name': 'Long'}).json()['job']}/recordings"
        for _ in range(10):
            assert client.post(recordings, params={"id": str(uuid4())}, content=LONG).status_code == 201
        while "reading" not in {item["state"] for item in client.get(recordings).json()}:
            time.sleep(0.1)
    process.send_signal(signal.SIGKILL)
    process.communicate()
    process, address = started(home)
    deadline = time.monotonic() + 300
    with httpx2.Client(base_url=address, timeout=60) as client:
        while {item["state"] for item in client.get(recordings).json()} != {"done"}:
            assert time.monotonic() < deadline
            time.sleep(0.5)
        assert len(client.get(recordings).json()) == 10
    process.send_signal(signal.SIGTERM)
    process.communicate()
