"""What computes for a while: few at once, once for all that ask, and not on for whoever has gone."""

import socket
import threading
import time
from concurrent.futures import ThreadPoolExecutor

import pytest

from tests.served import served
from tests.waiting import wait
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.adviser import Adviser
from tidy_trunk.services.shared import SharedAnswers


def test_what_several_ask_for_is_worked_out_once():
    shared, made, begun = SharedAnswers(2), [], threading.Event()

    def make():
        made.append(1)
        begun.wait(5)
        return "answer"

    with ThreadPoolExecutor(8) as pool:
        answers = [pool.submit(shared.get, "key", make) for _ in range(8)]
        begun.set()
        assert {answer.result() for answer in answers} == {"answer"} and len(made) == 1
    assert shared.get("key", lambda: "another") == "answer"
    shared.get("second", lambda: "second")
    shared.get("third", lambda: "third")
    assert shared.get("key", lambda: "made anew") == "made anew", "the oldest goes"


def test_what_failed_or_is_not_whole_is_asked_for_again():
    shared = SharedAnswers(2)
    with pytest.raises(ZeroDivisionError):
        shared.get("key", lambda: 1 / 0)
    assert shared.get("key", lambda: "half", lambda answer: answer == "whole") == "half"
    assert shared.get("key", lambda: "whole") == "whole"


@pytest.fixture
def slow(monkeypatch):
    """Each finding takes its time; how many were worked on."""
    seen, fixes = [], Adviser.fixes

    def fixed(self, finding):
        seen.append(finding.id)
        time.sleep(0.2)
        return fixes(self, finding)

    monkeypatch.setattr(Adviser, "fixes", fixed)
    return seen


@pytest.mark.deep
def test_nobody_waits_and_it_is_left(services, slow):
    """Said before: abandoned work ran on to its end."""
    job = services.jobs.create(foundry()).revision.job
    with served(services, None) as address:
        port = int(address.rpartition(":")[2])
        with socket.create_connection(("127.0.0.1", port)) as asker:
            asker.sendall(f"GET /api/jobs/{job}/advice HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n".encode())
            wait(lambda: len(slow) > 1)
        done = 0
        while len(slow) > done:  # until it stops
            done = len(slow)
            time.sleep(1)
        assert done < len(services.jobs.newest(job).evaluation.findings)


@pytest.mark.deep
def test_an_edit_waits_for_nothing_that_computes(client, services, slow):
    """More ask than are worked on at once: they wait without a thread, and a short request passes them."""
    jobs = [services.jobs.create(foundry()).revision.job for _ in range(3)]
    with ThreadPoolExecutor(3) as pool:
        waiting = [pool.submit(client.get, f"/api/jobs/{job}/advice") for job in jobs]
        wait(lambda: len(slow) > 2)
        edits = [{"kind": "set-job", "name": "Kept"}]
        assert client.post(f"/api/jobs/{jobs[0]}/edits", json={"base_revision": 1, "edits": edits}).status_code == 200
        assert not all(answer.done() for answer in waiting)
        assert {answer.result().status_code for answer in waiting} == {200}
