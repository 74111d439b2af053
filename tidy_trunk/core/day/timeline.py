"""A day as a sequence of times in which hands are free, and of those in which nothing may be touched."""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.plan import Plan, PlannedTake, planned_takes

PIECE_MIN: Final = 5.0
"""ASSUMED_ grain of a free time: what is done in it counts as done at the end of such a piece, and as begun at its beginning."""

MOST_PIECES: Final = 300
"""ASSUMED_ pieces of a day; one with more is cut more coarsely, so that it is still planned within seconds."""

ON_BEFORE_MIN: Final = 10.0
"""ASSUMED_ how long before the first take of a set-up a camera is switched on, to frame and to focus."""

CRUMB_MIN: Final = 1e-6
"""ASSUMED_ time that is none: what is left over by rounding."""


class SlotKind(StrEnum):
    """What a free time is to the others on the set."""

    FREE = "free"  # between set-ups, before the first and after the last: the crew lights and moves
    BREAK = "break"
    BETWEEN = "between"  # between two takes of one set-up: whoever does something there holds the set up


@dataclass(frozen=True, slots=True, kw_only=True)
class Slot:
    """A time in which nothing is recorded, in minutes since midnight. beside: the set-up or break that it belongs to, "" else."""

    kind: SlotKind
    begins_min: float
    ends_min: float
    beside: str = ""

    @property
    def length_min(self) -> float:
        return self.ends_min - self.begins_min


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A part of a slot, by the slot's place in the day."""

    slot: int
    begins_min: float
    ends_min: float


@dataclass(frozen=True, kw_only=True)
class Timeline:
    """A day from `begins_min` on, which is its call, or now. takes: those that are still to come, or run."""

    begins_min: float
    ends_min: float
    takes: tuple[PlannedTake, ...]
    slots: tuple[Slot, ...]
    pieces: tuple[Piece, ...]

    def recorded_min(self, until_min: NDArray[np.float64]) -> NDArray[np.float64]:
        """How many minutes of takes are planned until each of some moments."""
        return _within(self._takes, until_min)

    @property
    def last_take_ends_min(self) -> float:
        """After it nothing has to last any longer."""
        return max((take.ends_min for take in self.takes), default=self.begins_min)

    def switched_on_min(self, until_min: NDArray[np.float64]) -> NDArray[np.float64]:
        """How long what is switched off between set-ups has been on until each of some moments."""
        return _within(self._switched_on, until_min)

    @cached_property
    def _takes(self) -> NDArray[np.float64]:
        return _times([(take.begins_min, take.ends_min) for take in self.takes])

    @cached_property
    def _switched_on(self) -> NDArray[np.float64]:
        return _times(self.switched_on)

    @cached_property
    def switched_on(self) -> tuple[tuple[float, float], ...]:
        """The times in which it is on: around each set-up, none twice."""
        times: dict[str, tuple[float, float]] = {}
        for take in self.takes:
            since, until = times.get(take.set_up, (take.begins_min - ON_BEFORE_MIN, take.ends_min))
            times[take.set_up] = (min(since, take.begins_min - ON_BEFORE_MIN), max(until, take.ends_min))
        found, reached = [], self.begins_min
        for begins, ends in sorted(times.values()):
            if ends > reached:
                found.append((max(begins, reached), ends))
                reached = ends
        return tuple(found)

    def next_take(self, after_min: float) -> PlannedTake | None:
        return next((take for take in self.takes if take.begins_min >= after_min - CRUMB_MIN), None)


def _times(times: Sequence[tuple[float, float]]) -> NDArray[np.float64]:
    """Begins and lengths, one row each."""
    begins_ends = np.array(times, dtype=float).reshape(-1, 2).T
    return np.stack([begins_ends[0], begins_ends[1] - begins_ends[0]])


def _within(times: NDArray[np.float64], until_min: NDArray[np.float64]) -> NDArray[np.float64]:
    """How much of some times lies before each of some moments."""
    found: NDArray[np.float64] = np.clip(until_min[:, None] - times[0], 0.0, times[1]).sum(axis=1)
    return found


def timeline(plan: Plan, now_min: float | None = None) -> Timeline:
    """The day of a plan, or what is left of it from now on."""
    begins = float(plan.defaults.day_begins_min) if now_min is None else now_min
    takes = tuple(take for take in planned_takes(plan.set_ups.values()) if take.ends_min > begins)
    last = max((take.ends_min for take in takes), default=begins)
    ends = max(float(plan.defaults.day_ends_min), last)
    slots = tuple(_slots(plan, takes, begins, ends))
    return Timeline(begins_min=begins, ends_min=ends, takes=takes, slots=slots, pieces=_pieces(slots))


def _slots(plan: Plan, takes: Sequence[PlannedTake], begins: float, ends: float) -> Iterator[Slot]:
    moves = [(float(move.at_min), float(move.at_min + move.length_min)) for move in plan.moves.values()]
    busy = sorted([(take.begins_min, take.ends_min, take.set_up) for take in takes] + [(*move, "") for move in moves])
    edges = [(begins, begins, ""), *busy, (ends, ends, "")]
    reached = begins
    for (_, until, before), (since, _, after) in pairwise(edges):
        reached = max(reached, min(until, ends))
        gap_ends = min(since, ends)
        if gap_ends - reached <= CRUMB_MIN:
            continue
        if before and before == after:
            yield Slot(kind=SlotKind.BETWEEN, begins_min=reached, ends_min=gap_ends, beside=before)
        else:
            yield from _around_breaks(plan, reached, gap_ends, after)


def _around_breaks(plan: Plan, begins: float, ends: float, after: str) -> Iterator[Slot]:
    at = begins
    for item in sorted(plan.breaks.values(), key=lambda one: one.at_min):
        since, until = max(float(item.at_min), at), min(float(item.at_min + item.length_min), ends)
        if until - since <= CRUMB_MIN:
            continue
        if since - at > CRUMB_MIN:
            yield Slot(kind=SlotKind.FREE, begins_min=at, ends_min=since, beside=after)
        yield Slot(kind=SlotKind.BREAK, begins_min=since, ends_min=until, beside=item.id)
        at = until
    if ends - at > CRUMB_MIN:
        yield Slot(kind=SlotKind.FREE, begins_min=at, ends_min=ends, beside=after)


def _pieces(slots: Sequence[Slot]) -> tuple[Piece, ...]:
    free_min = sum(slot.length_min for slot in slots if slot.kind is not SlotKind.BETWEEN)
    grain = max(PIECE_MIN, free_min / max(MOST_PIECES - len(slots), 1))
    return tuple(piece for number, slot in enumerate(slots) for piece in _cut(number, slot, grain))


def _cut(number: int, slot: Slot, grain: float) -> Iterable[Piece]:
    count = 1 if slot.kind is SlotKind.BETWEEN else max(1, math.floor(slot.length_min / grain + CRUMB_MIN))
    step = slot.length_min / count
    for at in range(count):
        begins = slot.begins_min + at * step
        ends = slot.ends_min if at == count - 1 else begins + step
        yield Piece(slot=number, begins_min=begins, ends_min=ends)
