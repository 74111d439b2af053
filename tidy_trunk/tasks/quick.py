"""What somebody waits for at the screen: read in a confined process too, a few at once, and not for long."""

import json
import subprocess
import sys
import threading
from pathlib import Path
from typing import Any, Final

from tidy_trunk.errors import BusyError, InputError
from tidy_trunk.tasks.requests import Request, request_document
from tidy_trunk.tasks.worker import NO_LAST_WORD

AT_ONCE: Final = 2
"""ASSUMED_ readers that are waited for at once: each may take the memory that a reader may."""

TURN_S: Final = 20.0
"""ASSUMED_ time to wait for one's turn: then there are too many."""

LONGEST_S: Final = 120.0
"""ASSUMED_ time that such a reader may take: an hour of sound written out takes a quarter of it."""


class QuickReader:
    """Asks a reader and waits for its answer."""

    def __init__(self) -> None:
        self._turn = threading.BoundedSemaphore(AT_ONCE)

    def ask(self, request: Request, path: Path) -> dict[str, Any]:
        """What a request comes to. `path`: the file that it is about, or the folder of those.

        Raises:
            BusyError: Too many wait already.
            InputError: What the reader says is wrong; or it did not come to an end.
        """
        if not self._turn.acquire(timeout=TURN_S):
            raise BusyError("other files are being read: try again in a moment")
        try:
            done = subprocess.run(
                [sys.executable, "-m", "tidy_trunk.tasks.reader", str(path)],
                input=json.dumps(request_document(request)).encode(),
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
                timeout=LONGEST_S,
                cwd=Path(__file__).parents[2],
            )
        except subprocess.TimeoutExpired as error:
            raise InputError(f"it took longer than {LONGEST_S:.0f} s: give a part of it") from error
        finally:
            self._turn.release()
        said = done.stdout.splitlines()
        answer: dict[str, Any] = json.loads(said[-1]) if said else {}
        if "result" not in answer:
            raise InputError(answer.get("problem", NO_LAST_WORD))
        result: dict[str, Any] = answer["result"]
        return result
