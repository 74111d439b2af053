"""Whether anybody still waits for what is being worked out: whoever asked may have gone away."""

from collections.abc import Callable
from contextvars import ContextVar
from typing import Final

_ASKED: Final[ContextVar[Callable[[], bool]]] = ContextVar("still wanted", default=lambda: True)


def is_wanted() -> bool:
    """Asked between two steps of something that takes long; True where nobody says otherwise."""
    return _ASKED.get()()


def ask(still_wanted: Callable[[], bool]) -> None:
    """For the rest of this context: what `is_wanted` asks."""
    _ASKED.set(still_wanted)
