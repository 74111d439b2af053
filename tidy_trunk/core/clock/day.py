"""The day of a clock that runs alone: how far it may be off at any time, and when it is to be jammed again."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from tidy_trunk.core.clock.keepers import Keeper
from tidy_trunk.core.plan import Break, Rig
from tidy_trunk.core.timecode import FrameRate

SHORTEST_ALONE_MIN: Final = 30
"""ASSUMED_ shortest time between two jams: nobody stops the work more often; what needs more stays on the lead."""

OUTSIDE_BREAKS: Final = 1_000
"""ASSUMED_ price of a jam that stops the work, against one in a break: any number of those rather than one of these."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Spell:
    """A time in which a clock runs alone. apart_frames: at its end, at the worst.

    beyond_min: from when on that is more than the limit; None where it stays within.
    """

    begins_min: int
    ends_min: int
    apart_frames: float
    beyond_min: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class ClockDay:
    """A jammed device over the job's day.

    unset_until_min: when it is set for the first time, where that is after the day has begun.
    every_min: how long it stays within the limit; None where that is longer than a day.
    """

    device: str
    spells: tuple[Spell, ...]
    unset_until_min: int | None
    every_min: float | None

    @property
    def beyond_min(self) -> int | None:
        """When it goes beyond the limit for the first time, or runs unset; None where it never does."""
        if self.unset_until_min is not None:
            return self.spells[0].begins_min if self.spells else self.unset_until_min
        return next((spell.beyond_min for spell in self.spells if spell.beyond_min is not None), None)


def clock_day(rig: Rig, keeper: Keeper) -> ClockDay | None:
    """The day of a device that is jammed and then runs alone; None for all others, and where nobody knows its clock."""
    if keeper.jam is None or keeper.parting is None:
        return None
    defaults = rig.plan.defaults
    begins, ends, limit = defaults.day_begins_min, defaults.day_ends_min, defaults.drift_limit_frames
    per_min = keeper.parting.ppm * 1e-6 * 60 * float(FrameRate.parse(defaults.frame_rate).ratio)
    every = limit / per_min if per_min * (ends - begins) > limit else None
    jams = [minute for minute in keeper.jam.at_min if minute < ends]
    # Before the day only the last one counts; a first one after its beginning leaves the time before it unset.
    early = [minute for minute in jams if minute <= begins][-1:]
    edges = [*early, *(minute for minute in jams if minute > begins), ends]
    spells = tuple(_spell(first, last, per_min, limit) for first, last in pairwise(edges))
    return ClockDay(
        device=keeper.device,
        spells=spells,
        unset_until_min=None if early else edges[0],
        every_min=every,
    )


def jams_for(rig: Rig, day: ClockDay) -> tuple[int, ...] | None:
    """When to jam a device so that it stays within the limit all day; None where it has to stay on the lead."""
    defaults, breaks = rig.plan.defaults, list(rig.plan.breaks.values())
    return advised_jams(defaults.day_begins_min, defaults.day_ends_min, day.every_min, breaks)


def _spell(begins_min: int, ends_min: int, per_min: float, limit: float) -> Spell:
    apart = per_min * (ends_min - begins_min)
    beyond = begins_min + int(limit / per_min) if apart > limit else None
    return Spell(begins_min=begins_min, ends_min=ends_min, apart_frames=apart, beyond_min=beyond)


def advised_jams(
    begins_min: int, ends_min: int, every_min: float | None, breaks: Sequence[Break]
) -> tuple[int, ...] | None:
    """When to jam so that a clock never runs alone for longer than it stays within the limit.

    As few as possible stop the work, then as few as possible at all; a jam in a break is made at its beginning.

    Args:
        every_min: How long it stays within the limit; None for all day.

    Returns:
        Minutes since midnight, the first at the day's beginning; None where it would be jammed all the time.
    """
    if every_min is None:
        return (begins_min,)
    longest = int(every_min)
    if longest < SHORTEST_ALONE_MIN:
        return None
    in_breaks = {item.at_min for item in breaks}
    # The cheapest way from each minute to the end of the day, from the back: the price of its jams, and the next one.
    count = ends_min - begins_min
    price, following = [0] * (count + 1), [0] * (count + 1)
    for minute in range(count - 1, -1, -1):
        if minute + longest >= count:
            following[minute] = count
        else:
            reached = price[minute + 1 : minute + longest + 1]
            cheapest = min(reached)
            # The latest of equals: later jams leave more of the day to breaks that are not planned yet.
            following[minute] = minute + len(reached) - reached[::-1].index(cheapest)
        own = 1 if minute + begins_min in in_breaks or minute == 0 else OUTSIDE_BREAKS
        price[minute] = own + price[following[minute]]
    found, minute = [], 0
    while minute < count:
        found.append(begins_min + minute)
        minute = following[minute]
    return tuple(found)
