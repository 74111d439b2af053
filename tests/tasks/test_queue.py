"""The queue: each request is worked on in a process of its own and told of to its end."""

import threading
from typing import Any
from uuid import uuid4

import numpy as np
import pytest

from tests.sounds import wav
from tidy_trunk.tasks.queue import NO_LAST_WORD, WorkerQueue
from tidy_trunk.tasks.requests import Measure

RATE = 48_000


class Heard:
    """What was told of a request."""

    def __init__(self) -> None:
        self.shares: list[float] = []
        self.results: list[dict[str, Any]] = []
        self.problems: list[str] = []
        self.is_begun, self.is_ended = threading.Event(), threading.Event()

    def progress(self, share: float) -> None:
        self.shares.append(share)
        self.is_begun.set()

    def done(self, result: dict[str, Any]) -> None:
        self.results.append(result)

    def failed(self, problem: str) -> None:
        self.problems.append(problem)

    def ended(self) -> None:
        self.is_ended.set()


@pytest.fixture
def queue():
    queue = WorkerQueue()
    yield queue
    queue.close()


def test_a_recording_is_measured_and_told_of_to_its_end(queue, tmp_path):
    path = tmp_path / "tone.wav"
    path.write_bytes(wav(0.1 * np.sin(2 * np.pi * 1000 * np.arange(2 * RATE) / RATE), rate=RATE))
    heard = Heard()
    queue.submit(uuid4(), Measure(), path, heard)
    assert heard.is_ended.wait(60)
    (result,) = heard.results
    assert not heard.problems and heard.shares == sorted(heard.shares)
    assert result["channels"][0]["tone"]["level_dbfs"] == pytest.approx(-20, abs=0.05)  # AES17: a full sine is 0 dBFS


def test_what_cannot_be_read_has_a_problem_and_no_result(queue, tmp_path):
    path = tmp_path / "no.wav"
    path.write_bytes(b"RIFF")
    heard = Heard()
    queue.submit(uuid4(), Measure(), path, heard)
    assert heard.is_ended.wait(60)
    assert not heard.results and len(heard.problems) == 1 and heard.problems != [NO_LAST_WORD]


def test_one_that_is_cancelled_is_ended_and_one_that_waits_never_begins(queue, tmp_path):
    path = tmp_path / "long.wav"
    minute = np.random.default_rng(1).normal(0, 0.1, 60 * RATE)
    path.write_bytes(wav(np.tile(minute, 5), rate=RATE))  # many times longer than a busy machine needs to cancel it
    ids, told = [uuid4() for _ in range(3)], [Heard() for _ in range(3)]
    for task_id, heard in zip(ids, told, strict=True):
        queue.submit(task_id, Measure(), path, heard)
    assert told[0].is_begun.wait(60)
    for task_id in reversed(ids):  # the one that waits first, so that it does not get the place of another
        queue.cancel(task_id)
    assert all(heard.is_ended.wait(60) for heard in told)
    assert not any(heard.results for heard in told)
    assert told[0].problems == [NO_LAST_WORD] and not told[2].problems
