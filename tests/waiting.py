"""For what is worked out elsewhere."""

import time
from collections.abc import Callable


def wait(is_there: Callable[[], bool]) -> None:
    deadline = time.monotonic() + 60  # readers give way to all else: on a busy machine they wait long
    while not is_there():
        assert time.monotonic() < deadline
        time.sleep(0.05)
