"""A day as a sequence of times in which hands are free, and of those in which nothing may be touched."""

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
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

CAMERA_ON_MIN: Final = 10.0
"""ASSUMED_ how long before the first take of a set-up a camera is switched on, to frame and to focus."""

SOUND_ON_MIN: Final = 60.0
"""ASSUMED_ how long before a first take sound's devices are switched on, to be tested, lined up and jammed."""

SOUND_OFF_MIN: Final = 60.0
"""ASSUMED_ how long sound's devices are off at least, if they are switched off between two set-ups."""

STAYS_MIN: Final = 5.0
"""ASSUMED_ how long everybody is still there after a last take, be it wrap or later."""

CRUMB_MIN: Final = 1e-6
"""ASSUMED_ time that is none: what is left over by rounding."""


class Consumption(StrEnum):
    """What uses something up."""

    TIME = "time"  # on or off, as a clock drifts
    ALL_SHOOTING = "all-shooting"  # from an hour before the first take on, until the last one is over
    SOUND_ON = "sound-on"  # the same, but for long times between two set-ups
    CAMERA_ON = "camera-on"  # while a set-up is shot
    TAKES = "takes"


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
class SlotPart:
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
    pieces: tuple[SlotPart, ...]

    @property
    def last_take_ends_min(self) -> float:
        """After it nothing has to last any longer."""
        return max((take.ends_min for take in self.takes), default=self.begins_min)

    def used_min(self, uses: Consumption, until_min: NDArray[np.float64]) -> NDArray[np.float64]:
        """For how many minutes something has been used from the beginning of the day's rest until each of some moments."""
        if uses is Consumption.TIME:
            return until_min - self.begins_min
        begins_ends = np.array(self.times[uses], dtype=float).reshape(-1, 2)
        begins, lengths = begins_ends[:, 0], begins_ends[:, 1] - begins_ends[:, 0]
        found: NDArray[np.float64] = np.clip(until_min[:, None] - begins, 0.0, lengths).sum(axis=1)
        return found

    @cached_property
    def times(self) -> Mapping[Consumption, tuple[tuple[float, float], ...]]:
        """When something is used that is not used all the time."""
        return {
            Consumption.ALL_SHOOTING: self._on(SOUND_ON_MIN, math.inf),
            Consumption.SOUND_ON: self._on(SOUND_ON_MIN, SOUND_OFF_MIN),
            Consumption.CAMERA_ON: self._on(CAMERA_ON_MIN, 0.0, through_set_up=True),
            Consumption.TAKES: tuple((take.begins_min, take.ends_min) for take in self.takes),
        }

    def _on(
        self, before_min: float, shortest_off_min: float, *, through_set_up: bool = False
    ) -> tuple[tuple[float, float], ...]:
        """From some time before each take until its end, and through whatever is too short to switch it off."""
        found: list[tuple[float, float]] = []
        set_up = ""
        for take in sorted(self.takes, key=lambda one: one.begins_min):
            begins, ends = max(take.begins_min - before_min, self.begins_min), take.ends_min
            stays_on = found and (
                begins - found[-1][1] < shortest_off_min + CRUMB_MIN or (through_set_up and take.set_up == set_up)
            )
            if stays_on:
                found[-1] = (found[-1][0], max(found[-1][1], ends))
            else:
                found.append((begins, ends))
            set_up = take.set_up
        return tuple(found)

    def next_take(self, after_min: float) -> PlannedTake | None:
        return next((take for take in self.takes if take.begins_min >= after_min - CRUMB_MIN), None)


def timeline(plan: Plan, now_min: float | None = None) -> Timeline:
    """The day of a plan, or what is left of it from now on."""
    begins = float(plan.defaults.day_begins_min) if now_min is None else now_min
    takes = tuple(take for take in planned_takes(plan.set_ups.values()) if take.ends_min > begins)
    stays_until = max((take.ends_min + STAYS_MIN for take in takes), default=begins)
    ends = max(float(plan.defaults.day_ends_min), stays_until)
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


def _pieces(slots: Sequence[Slot]) -> tuple[SlotPart, ...]:
    free_min = sum(slot.length_min for slot in slots if slot.kind is not SlotKind.BETWEEN)
    grain = max(PIECE_MIN, free_min / max(MOST_PIECES - len(slots), 1))
    return tuple(piece for number, slot in enumerate(slots) for piece in _cut(number, slot, grain))


def _cut(number: int, slot: Slot, grain: float) -> Iterable[SlotPart]:
    count = 1 if slot.kind is SlotKind.BETWEEN else max(1, math.floor(slot.length_min / grain + CRUMB_MIN))
    step = slot.length_min / count
    for at in range(count):
        begins = slot.begins_min + at * step
        ends = slot.ends_min if at == count - 1 else begins + step
        yield SlotPart(slot=number, begins_min=begins, ends_min=ends)
