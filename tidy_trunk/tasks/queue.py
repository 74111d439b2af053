"""Requests that take long: each in a process of its own, a few at once, the others wait for their turn."""

import json
import subprocess
import sys
import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from pathlib import Path
from typing import Any, Final, Protocol
from uuid import UUID

from tidy_trunk.errors import StoreUnavailableError
from tidy_trunk.tasks.requests import Request, request_document

MOST_AT_ONCE: Final = 2
"""ASSUMED_ requests that are worked on at once; the others wait."""

NO_LAST_WORD: Final = "it could not be read to its end: try a part of it"


class Listener(Protocol):
    """Is told, on a thread of the queue, what becomes of a request."""

    def progress(self, share: float) -> None:
        """How far it is, 0 to 1."""

    def done(self, result: dict[str, Any]) -> None: ...

    def failed(self, problem: str) -> None:
        """Why there is no result, as a sentence; also of one that was cancelled while it was worked on."""

    def ended(self) -> None:
        """Nobody works on it any more, whether it was done, failed, cancelled, or never begun. Comes last."""


class WorkerQueue:
    """Requests under ids."""

    def __init__(self) -> None:
        self._workers = ThreadPoolExecutor(MOST_AT_ONCE, thread_name_prefix="task")
        self._running: dict[UUID, subprocess.Popen[str]] = {}
        self._unwanted: set[UUID] = set()
        self._lock = threading.Lock()

    def submit(self, task_id: UUID, request: Request, path: Path, listener: Listener) -> None:
        """Work on a request about the file at `path` when its turn comes."""
        self._workers.submit(self._work, task_id, request, path, listener)

    def cancel(self, task_id: UUID) -> None:
        """End it, or never begin it."""
        with self._lock:
            self._unwanted.add(task_id)
            process = self._running.get(task_id)
            if process is not None:
                process.kill()

    def close(self) -> None:
        """End all that is under way, and begin nothing any more."""
        with self._lock:
            for process in self._running.values():
                process.kill()
        self._workers.shutdown(cancel_futures=True)

    def _work(self, task_id: UUID, request: Request, path: Path, listener: Listener) -> None:
        """On a thread of the pool: one process from its start to its last word."""
        try:
            process = self._start(task_id, request, path)
            if process is not None:
                _listen(process, listener)
        except StoreUnavailableError:
            pass  # nobody can be told; the next start finds it unfinished
        finally:
            listener.ended()
            with self._lock:
                self._running.pop(task_id, None)
                self._unwanted.discard(task_id)

    def _start(self, task_id: UUID, request: Request, path: Path) -> subprocess.Popen[str] | None:
        command = [sys.executable, "-m", "tidy_trunk.tasks.worker", str(path)]
        with self._lock:
            if task_id in self._unwanted:
                return None
            process = subprocess.Popen(
                command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
            )
            self._running[task_id] = process
        assert process.stdin is not None  # asked for
        with suppress(BrokenPipeError), process.stdin:  # whoever ended it wants no answer
            json.dump(request_document(request), process.stdin)
        return process


def _listen(process: subprocess.Popen[str], listener: Listener) -> None:
    assert process.stdout is not None  # asked for
    is_over = False
    with process:
        for line in process.stdout:
            told = json.loads(line)
            if "progress" in told:
                listener.progress(told["progress"])
                continue
            is_over = True
            if "problem" in told:
                listener.failed(told["problem"])
            else:
                listener.done(told["result"])
    if not is_over:
        listener.failed(NO_LAST_WORD)
