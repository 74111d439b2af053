"""Operations that compute for a while: few at once, so that an edit never waits for them, and none for whoever has gone."""

import asyncio
import threading
from collections.abc import Callable, Coroutine
from contextvars import ContextVar
from functools import wraps
from typing import Any, Final, ParamSpec, TypeVar

from anyio import CapacityLimiter, to_thread
from anyio.lowlevel import RunVar
from starlette.types import Receive

from tidy_trunk.errors import BusyError
from tidy_trunk.services import wanted

AT_ONCE: Final = 2
"""ASSUMED_ such operations at once: more of them share one interpreter, and all are slower."""

RECEIVE: Final[ContextVar[Receive | None]] = ContextVar("receive", default=None)
"""Of the request that is being answered: tells when its asker goes away. ASSUMED_"""

_LIMITER: Final[RunVar[CapacityLimiter]] = RunVar("heavy")

P = ParamSpec("P")
T = TypeVar("T")


def heavy(endpoint: Callable[P, T]) -> Callable[P, Coroutine[Any, Any, T]]:
    """An operation that waits for its turn without a thread, and is given up where nobody waits for it any more."""

    @wraps(endpoint)
    async def run(*args: P.args, **kwargs: P.kwargs) -> T:
        gone = threading.Event()

        def work() -> T:
            if gone.is_set():
                raise BusyError("nobody waits for this any more")
            wanted.ask(lambda: not gone.is_set())
            return endpoint(*args, **kwargs)

        receive = RECEIVE.get()
        watcher = asyncio.create_task(_watch(receive, gone)) if receive is not None else None
        try:
            return await to_thread.run_sync(work, limiter=_limiter(), abandon_on_cancel=True)
        finally:
            gone.set()  # also where the program ends
            if watcher is not None:
                watcher.cancel()

    return run


async def _watch(receive: Receive, gone: threading.Event) -> None:
    while (await receive())["type"] != "http.disconnect":
        pass
    gone.set()


def _limiter() -> CapacityLimiter:
    try:
        return _LIMITER.get()
    except LookupError:
        limiter = CapacityLimiter(AT_ONCE)
        _LIMITER.set(limiter)
        return limiter
