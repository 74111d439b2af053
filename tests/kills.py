"""The program killed at random moments while it is worked with, and what must be true after each start."""

import json
import os
import signal
import threading
import time
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from random import Random
from uuid import uuid4

import httpx2

from tests.app.test_server import Program
from tests.plans import line_into_camera
from tests.sounds import sine, wav
from tidy_trunk.document import write_plan
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.upkeep.backup import back_up, restore

KINDS = ("server", "PostgreSQL", "both", "PostgreSQL twice")
SOUND = wav(sine(1000, -20, 0.3))
SETTINGS = EnvironmentSettings(database_url=None)


@dataclass
class Acknowledged:
    """What the program has said is done: edits by revision, taps of the log, kept sounds, deleted jobs, how many backups."""

    edits: dict[int, str] = field(default_factory=dict)
    taps: list[str] = field(default_factory=list)
    sounds: set[str] = field(default_factory=set)
    gone: set[str] = field(default_factory=set)
    archives: int = 0

    def counted(self) -> dict[str, int]:
        return {
            "edits": len(self.edits),
            "taps": len(self.taps),
            "sounds": len(self.sounds),
            "deleted": len(self.gone),
            "archives": self.archives,
        }


class Work:
    """What somebody does at a program until it is killed. Each line of work on a thread; what was acknowledged is noted."""

    def __init__(self, program: Program, home: Path, job: str, folder: Path, told: Acknowledged) -> None:
        self.home, self.job, self.folder, self.told = home, job, folder, told
        self.at = str(program.client.base_url)
        self._done = threading.Event()
        lines = (self._edit, self._log, self._upload, self._delete, self._back_up)
        self._threads = [threading.Thread(target=self._until_done, args=(line,), daemon=True) for line in lines]
        for thread in self._threads:
            thread.start()

    def end(self) -> None:
        self._done.set()
        for thread in self._threads:
            thread.join()

    def _until_done(self, line) -> None:
        with httpx2.Client(base_url=self.at, timeout=10) as client:
            while not self._done.is_set():
                try:
                    line(client)
                except (httpx2.HTTPError, TidyTrunkError, OSError, KeyError, ValueError):
                    time.sleep(0.05)  # nobody answered, or said that it could not be done: nothing was acknowledged

    def _edit(self, client: httpx2.Client) -> None:
        base = client.get(f"/api/jobs/{self.job}").json()["revision"]
        label = f"Bag {uuid4().hex[:8]}"
        body = {"base_revision": base, "edits": [{"kind": "rename-device", "device": "bag", "label": label}]}
        answer = client.post(f"/api/jobs/{self.job}/edits", json=body)
        if answer.status_code == 200:
            self.told.edits[answer.json()["revision"]] = label

    def _log(self, client: httpx2.Client) -> None:
        tap = {"id": str(uuid4()), "made": datetime.now(UTC).isoformat(), "take": "t", "slate": "1A", "number": 1}
        note = uuid4().hex
        entries = [{**tap, "act": "roll"}, {**tap, "id": str(uuid4()), "act": "note", "text": note}]
        if client.post(f"/api/jobs/{self.job}/log", json={"entries": entries}).status_code == 200:
            self.told.taps.append(note)
        time.sleep(0.05)

    def _upload(self, client: httpx2.Client) -> None:
        answer = client.post(f"/api/jobs/{self.job}/recordings", params={"keep": "true"}, content=SOUND)
        if answer.status_code == 201:
            self.told.sounds.add(answer.json()["id"])
        time.sleep(0.1)

    def _delete(self, client: httpx2.Client) -> None:
        other = client.post("/api/jobs", json={"name": "To go"}).json()["job"]
        client.post(f"/api/jobs/{other}/recordings", params={"keep": "true"}, content=SOUND)
        if client.delete(f"/api/jobs/{other}").status_code == 204:
            self.told.gone.add(other)
        time.sleep(0.1)

    def _back_up(self, client: httpx2.Client) -> None:
        path = self.folder / f"{uuid4().hex}.backup"
        back_up(self.home, SETTINGS, path)
        self.told.archives += 1
        path.unlink()
        time.sleep(0.3)


def kill(program: Program, kind: str) -> bool:
    """Whether the program itself is dead and has to be started."""
    server = program.cluster._server_pid()
    if server is not None and kind != "server":
        os.kill(server, signal.SIGKILL)
    if kind == "PostgreSQL twice":
        deadline = time.monotonic() + 20
        while (again := program.cluster._server_pid()) in (None, server) and time.monotonic() < deadline:
            time.sleep(0.01)
        if again not in (None, server):
            os.kill(again, signal.SIGKILL)
    if kind in ("server", "both"):
        program.kill()
        return True
    return False


def answers(program: Program, path: str) -> httpx2.Response:
    """An answer, waited for while PostgreSQL comes back."""
    deadline = time.monotonic() + 60
    while True:
        try:
            answer = program.client.get(path)
            if answer.status_code != 503:
                return answer
        except httpx2.HTTPError:
            pass
        assert time.monotonic() < deadline, f"{path} is not answered any more"
        time.sleep(0.1)


def holds(program: Program, job: str, told: Acknowledged) -> None:
    """Nothing that was acknowledged is lost, nothing that was deleted is back, and no file is without its recording."""
    history = answers(program, f"/api/jobs/{job}/revisions").json()
    assert [entry["number"] for entry in history] == list(range(len(history), 0, -1)), "a gap"
    said = {entry["number"]: entry["sentence"] for entry in history}
    lost = {number: label for number, label in told.edits.items() if label not in said.get(number, "")}
    assert not lost
    (take,) = answers(program, f"/api/jobs/{job}/log").json()["takes"] or [{"notes": []}]
    noted = [note["text"] for note in take["notes"]]
    assert len(set(noted)) == len(noted) and set(told.taps) <= set(noted)
    listed = {entry["id"]: entry["state"] for entry in answers(program, f"/api/jobs/{job}/recordings").json()}
    assert told.sounds <= set(listed)
    for recording, state in listed.items():
        if state == "done":
            assert answers(program, f"/api/jobs/{job}/recordings/{recording}/sound").content == SOUND
    assert not told.gone & {entry["id"] for entry in answers(program, "/api/jobs").json()}


def sweeps(program: Program, home: Path) -> Program:
    """Started once more: kept sounds are those of the recordings that are listed."""
    program.kill(signal.SIGTERM)
    program = Program(home)
    known = set()
    for entry in answers(program, "/api/jobs").json():
        known |= {item["id"] for item in answers(program, f"/api/jobs/{entry['id']}/recordings").json()}
    kept = {path.name.partition(".")[0] for path in (home / "recordings").glob("*/kept/*")}
    assert kept <= known, "a sound without its recording"
    assert not list((home / "recordings").glob("*/set-aside/*"))
    return program


def imported(program: Program) -> str:
    """A job to work at."""
    return program.client.post("/api/jobs/import", json=json.loads(write_plan(line_into_camera()))).json()["job"]


def rounds(home: Path, folder: Path, count: int, seed: int) -> dict[str, int]:
    """So many kills; returns how often each kind, and how much was acknowledged meanwhile."""
    by = Random(seed)
    program = Program(home)
    job = imported(program)
    told, kinds = Acknowledged(), dict.fromkeys(KINDS, 0)
    for _ in range(count):
        done, work = len(told.edits), Work(program, home, job, folder, told)
        deadline = time.monotonic() + 20
        while len(told.edits) == done and time.monotonic() < deadline:
            time.sleep(0.02)
        time.sleep(by.uniform(0, 0.4))
        kind = by.choice(KINDS)
        kinds[kind] += 1
        is_dead = kill(program, kind)
        if not is_dead:
            time.sleep(by.uniform(0, 0.5))
        work.end()
        if is_dead:
            program = Program(home)
        holds(program, job, told)
    last = folder / "last.backup"
    back_up(home, SETTINGS, last)
    sweeps(program, home).kill(signal.SIGTERM)
    assert restore(home / "restored", SETTINGS, last).jobs >= 1
    return {**kinds, **told.counted()}
