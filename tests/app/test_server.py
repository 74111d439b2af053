"""The whole program as a process: started, killed in the middle of edits, started again (Shows 5)."""

import asyncio
import json
import os
import signal
import socket
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from uuid import NAMESPACE_URL, uuid5

import httpx2
import pytest

from scripts.made_plan import recorders_in_a_row
from tests.few import few
from tests.plans import line_into_camera
from tidy_trunk.app import server
from tidy_trunk.document import write_plan
from tidy_trunk.store import PrivateCluster

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture(autouse=True)
def no_leftovers(home):
    yield
    PrivateCluster(home)._end_leftover()


class Program:
    """`serve` as a user starts it."""

    def __init__(self, home: Path, **environment: str) -> None:
        self.cluster = PrivateCluster(home)
        self.process = subprocess.Popen(
            [sys.executable, "-m", "tidy_trunk", "serve", "--port", "0"],
            cwd=ROOT,
            env={**os.environ, "TIDY_TRUNK_HOME": str(home), **environment},
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        line = self.process.stdout.readline()
        if " at http" not in line:
            raise AssertionError(self.process.communicate()[1])
        self.client = httpx2.Client(base_url=line.split(" at ")[1].split(" ")[0], timeout=10)

    def kill(self, number: int = signal.SIGKILL) -> int:
        self.client.close()
        self.process.send_signal(number)
        self.said = self.process.communicate(timeout=60)[1]
        return self.process.returncode


def edit(program: Program, job: str, base: int) -> int | None:
    """The number of the new revision where it was acknowledged; sent again it is the same edit."""
    request = str(uuid5(NAMESPACE_URL, f"{job} {base}"))
    edits = [{"kind": "rename-device", "device": "bag", "label": f"Bag {base}"}]
    body = {"base_revision": base, "request": request, "edits": edits}
    try:
        answer = program.client.post(f"/api/jobs/{job}/edits", json=body)
    except httpx2.HTTPError:
        return None
    return answer.json()["revision"] if answer.status_code == 200 else None


def newest(program: Program, job: str) -> int:
    return program.client.get(f"/api/jobs/{job}").json()["revision"]


@pytest.mark.deep
def test_no_acknowledged_edit_is_lost(home):
    program = Program(home)
    job = program.client.post("/api/jobs/import", json=json.loads(write_plan(line_into_camera()))).json()["job"]
    acknowledged = 1
    for _ in range(5):
        acknowledged = edit(program, job, acknowledged) or acknowledged

    # PostgreSQL dies: edits are refused, not swallowed, until it is back by itself.
    died, deadline = program.cluster._server_pid(), time.monotonic() + 30
    os.kill(died, signal.SIGKILL)
    while time.monotonic() < deadline:
        number = edit(program, job, acknowledged)
        if number:
            acknowledged = number
            break
        time.sleep(0.1)
    assert number, "it did not come back"
    assert program.cluster._server_pid() != died and newest(program, job) == acknowledged

    # The server dies, its PostgreSQL lives on: the next start ends it in good order.
    program.kill()
    assert program.cluster.is_running()
    program = Program(home)
    assert newest(program, job) == acknowledged
    acknowledged = edit(program, job, acknowledged)

    # Both die at once.
    os.kill(program.cluster._server_pid(), signal.SIGKILL)
    program.kill()
    program = Program(home)
    assert newest(program, job) == acknowledged

    # A polite end takes PostgreSQL along.
    program.kill(signal.SIGTERM)
    assert not program.cluster.is_running()


@pytest.mark.deep
def test_the_end_of_the_terminal_ends_all_of_it_whatever_stalls(home):
    """Said before: PostgreSQL ran on; and an upload that had stalled kept the server for ever."""
    program = Program(home)
    job = program.client.post("/api/jobs", json={"name": "Stalled"}).json()["job"]
    at = program.client.base_url
    with socket.create_connection((at.host, at.port)) as stalled:
        head = f"POST /api/jobs/{job}/recordings?size=1000000 HTTP/1.1\r\nHost: {at.host}:{at.port}\r\nContent-Length: 1000000\r\n"
        stalled.sendall(f"{head}\r\nRIFF".encode())
        time.sleep(0.3)
        program.kill(signal.SIGHUP)
    assert not program.cluster.is_running()
    assert "cut short by the end of the program: POST /jobs/{job_id}/recordings" in program.said


@pytest.mark.deep
def test_the_end_waits_for_nothing_that_computes(home):
    """The fixes of a job with many findings take many times longer."""
    program = Program(home)
    plan = json.loads(write_plan(recorders_in_a_row()))
    job = program.client.post("/api/jobs/import", json=plan).json()["job"]
    at = program.client.base_url
    with socket.create_connection((at.host, at.port)) as asker:
        asker.sendall(f"GET /api/jobs/{job}/advice HTTP/1.1\r\nHost: {at.host}:{at.port}\r\n\r\n".encode())
        time.sleep(1)
        program.kill(signal.SIGTERM)
    assert not program.cluster.is_running()
    assert "cut short by the end of the program: GET /jobs/{job_id}/advice" in program.said


@pytest.mark.deep
def test_a_second_server_on_the_same_data_says_so(home):
    first = Program(home)
    second = subprocess.run(
        [sys.executable, "-m", "tidy_trunk", "serve", "--port", "0"],
        cwd=ROOT,
        env={**os.environ, "TIDY_TRUNK_HOME": str(home)},
        capture_output=True,
        text=True,
        timeout=30,
    )
    assert second.returncode == 2
    assert "running already" in second.stderr and second.stderr.count("\n") == 1
    first.kill(signal.SIGINT)
    assert not first.cluster.is_running()


@pytest.mark.deep
def test_a_database_of_ones_own_is_used_and_left_running(home, database_url):
    program = Program(home, TIDY_TRUNK_DATABASE_URL=database_url)
    job = program.client.post("/api/jobs", json={"name": "Elsewhere"}).json()["job"]
    assert not program.cluster.is_running(), "no server of ours is started"
    program.kill(signal.SIGINT)
    again = Program(home, TIDY_TRUNK_DATABASE_URL=database_url)
    assert newest(again, job) == 1
    again.kill(signal.SIGINT)


@pytest.mark.parametrize(
    ("change", "says"),
    few(
        [
            ({"TIDY_TRUNK_HOME": "/proc/nowhere"}, "TIDY_TRUNK_HOME"),
            ({"TIDY_TRUNK_WEB": "/nowhere"}, "not built"),
            ({"TIDY_TRUNK_DATABASE_URL": "postgresql://nobody@127.0.0.1:1/nothing"}, "does not answer"),
        ],
        1,
    ),
)
@pytest.mark.deep
def test_what_keeps_it_from_starting_is_said_in_one_line(home, change, says):
    done = subprocess.run(
        [sys.executable, "-m", "tidy_trunk", "serve", "--port", "0"],
        cwd=ROOT,
        env={**os.environ, "TIDY_TRUNK_HOME": str(home), **change},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.returncode == 2
    assert done.stderr.startswith("tidy: ") and says in done.stderr and done.stderr.count("\n") == 1


def test_an_answer_is_sent_at_once():
    """Without TCP_NODELAY each answer on a kept connection waits 40 ms for the other end's acknowledgement (RFC 896, 1122)."""

    async def accepted() -> int:
        found: asyncio.Future[int] = asyncio.get_running_loop().create_future()

        def see(_, writer) -> None:
            found.set_result(writer.get_extra_info("socket").getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY))
            writer.close()

        listener = server._listen(0)
        async with await asyncio.start_server(see, sock=listener):
            _, writer = await asyncio.open_connection(*listener.getsockname())
            nodelay = await found
            writer.close()
            return nodelay

    # On a thread of its own: the browser's tests may keep a loop running on this one.
    with ThreadPoolExecutor(1) as pool:
        assert pool.submit(asyncio.run, accepted()).result()
