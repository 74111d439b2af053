"""Two servers and two workers on one database: whoever asks sees the same, and a worker that dies loses nothing."""

import os
import signal
import subprocess
import sys
import time
from contextlib import ExitStack
from uuid import uuid4

import httpx2
import numpy as np
import pytest

from tests.sounds import wav
from tests.waiting import wait

RATE = 48_000
LONG = wav(np.tile(np.random.default_rng(1).normal(0, 0.1, 20 * RATE), 3), rate=RATE)


@pytest.fixture
def start(database_url, tmp_path):
    """Starts a command of the program on one database and one folder; it ends with the test."""
    with ExitStack() as stack:

        def begin(*command: str, **settings: str) -> subprocess.Popen[str]:
            environment = {
                **os.environ,
                "TIDY_TRUNK_DATABASE_URL": database_url,
                "TIDY_TRUNK_MEDIA": str(tmp_path / "shared"),
                "TIDY_TRUNK_HOME": str(tmp_path / uuid4().hex),
                **settings,
            }
            process = stack.enter_context(
                subprocess.Popen(
                    [sys.executable, "-m", "tidy_trunk", *command], env=environment, stdout=subprocess.PIPE, text=True
                )
            )
            stack.callback(process.kill)
            return process

        yield begin


@pytest.mark.deep
def test_two_servers_and_two_workers_serve_one_set_of_users(start):
    servers = [start("serve", "--port", "0", TIDY_TRUNK_AT_ONCE="0") for _ in range(2)]
    addresses = [f"{server.stdout.readline().split(' at ')[1].split(' ')[0]}/api" for server in servers]
    with httpx2.Client(base_url=addresses[0]) as one, httpx2.Client(base_url=addresses[1]) as other:
        use_both(one, other, start)


def use_both(one, other, start):
    workers = [start("worker") for _ in range(2)]
    assert all("Working on what is dropped in" in worker.stdout.readline() for worker in workers)
    job = one.post("/jobs", json={"name": "Two of us"}).json()
    address, base = f"/jobs/{job['job']}", job["revision"]
    edit = {"kind": "add-device", "id": "bag", "class_id": "bag-recorder"}
    edited = other.post(f"{address}/edits", json={"base_revision": base, "edits": [edit]})
    assert edited.status_code == 200 and one.get(address).json()["revision"] == base + 1

    ids = [str(uuid4()) for _ in range(3)]
    for server, recording in zip([one, other, one], ids, strict=True):
        assert server.post(f"{address}/recordings", params={"id": recording}, content=LONG).status_code == 201

    def found():
        return {item["id"]: item["state"] for item in other.get(f"{address}/recordings").json()}

    wait(lambda: "reading" in found().values())
    os.kill(workers[0].pid, signal.SIGKILL)
    deadline = time.monotonic() + 60
    while set(found().values()) != {"done"}:
        assert time.monotonic() < deadline, found()
        time.sleep(0.2)
    assert sorted(found()) == sorted(ids), "nothing lost, nothing twice"

    # What arrived of a recording at one server goes on at the other.
    split, upload = len(LONG) // 2, str(uuid4())
    for server, (first, last) in ((one, (0, split)), (other, (split, len(LONG)))):
        headers = {"Content-Range": f"bytes {first}-{last - 1}/{len(LONG)}"}
        sent = server.post(f"{address}/recordings", params={"id": upload}, content=LONG[first:last], headers=headers)
    assert sent.status_code == 201


@pytest.mark.deep
def test_a_worker_says_what_it_lacks(start, tmp_path):
    worker = start("worker", TIDY_TRUNK_DATABASE_URL="")
    assert worker.wait(20) == 2
    server = start("serve", "--port", "0")
    assert "Tidy Trunk is at" in server.stdout.readline()
    stranger = start("worker", TIDY_TRUNK_MEDIA=str(tmp_path / "elsewhere"))
    assert stranger.wait(20) == 2
