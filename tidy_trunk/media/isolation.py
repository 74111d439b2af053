"""Many files, each in a process of its own: one that hangs, or breaks whoever reads it, takes nothing with it."""

import time
from collections.abc import Callable, Iterator, Sequence
from multiprocessing import get_context
from multiprocessing.connection import Connection, wait
from multiprocessing.context import ForkProcess
from typing import Final, TypeVar

T = TypeVar("T")

AT_ONCE: Final = 2
"""ASSUMED_ files that are read at once: a card gives them no faster."""

LONGEST_S: Final = 900.0
"""ASSUMED_ time that one file may take: ten hours of eight channels take a third of it."""


def each_in_a_process(
    items: Sequence[str], work: Callable[[str], T], longest_s: float = LONGEST_S
) -> Iterator[tuple[str, T | None]]:
    """What work comes to for each item, in the order in which they end; None where its process died or took longer than that."""
    # What is forked has all modules already, and no threads; a new interpreter for each would take a fifth of a second.
    forked = get_context("fork")
    waiting = list(reversed(items))
    running: dict[Connection, tuple[str, ForkProcess, float]] = {}

    def answer(into: Connection, item: str) -> None:
        into.send(work(item))

    while waiting or running:
        while waiting and len(running) < AT_ONCE:
            item = waiting.pop()
            mine, its = forked.Pipe(duplex=False)
            process = forked.Process(target=answer, args=(its, item), daemon=True)
            process.start()
            its.close()
            running[mine] = item, process, time.monotonic() + longest_s
        next_end = min(end for _, _, end in running.values()) - time.monotonic()
        ready = wait(list(running), max(next_end, 0.0))
        late = [one for one, (_, _, end) in running.items() if end <= time.monotonic()]
        for one in {*ready, *late}:
            assert isinstance(one, Connection)  # they are what was waited for
            item, process, _ = running.pop(one)
            try:
                found = one.recv() if one.poll() else None
            except EOFError:
                found = None
            one.close()
            process.kill()
            process.join()
            yield item, found
