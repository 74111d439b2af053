"""The day of a clock that runs alone: how far it may be off at any time, and when it is to be jammed again."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from tidy_trunk.core.plan import Break
from tidy_trunk.core.time.clock.apart import Clocks
from tidy_trunk.core.time.clock.timecode_devices import TimecodeDevice

SHORTEST_ALONE_MIN: Final = 30
"""ASSUMED_ shortest time between two jams: nobody stops the work more often; what needs more stays on the lead."""

OFTEN_MIN: Final = 120
"""Time between two jams under which no crew keeps to them all day: a better clock, or a lead that stays on. [PRACTICE]"""

STOPS_WORK: Final = 1_000_000
"""ASSUMED_ price of a jam that stops the work: any number of those in breaks rather than one of these."""

ONE_JAM: Final = 1_000
"""ASSUMED_ price of any jam: as few as do."""

WITHIN_BREAK: Final = 1
"""ASSUMED_ price of a jam in the middle of a break: its beginning is easier to keep in mind."""


@dataclass(frozen=True, slots=True, kw_only=True)
class FreeRun:
    """A time in which a clock runs alone. apart_frames: at the worst in it, from the device that it is compared with.

    begins_frames: what it is off when it begins, because its giver is.
    beyond_min: from when on that is more than the limit; None where it stays within.
    against: the device from which it then is furthest.
    """

    begins_min: int
    ends_min: int
    begins_frames: float
    apart_frames: float
    beyond_min: int | None
    against: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ClockDay:
    """A jammed device over the job's day.

    root: where its time comes from in the end.
    unset_until_min: when it is set for the first time, where that is after the day has begun.
    every_min: how long it stays within the limit once it is jammed from what is right; None where that is longer than a
        day.
    """

    device: str
    root: str
    free_runs: tuple[FreeRun, ...]
    unset_until_min: int | None
    every_min: float | None

    @property
    def beyond_min(self) -> int | None:
        """When it goes beyond the limit for the first time, or runs unset; None where it never does."""
        if self.unset_until_min is not None:
            return self.free_runs[0].begins_min if self.free_runs else self.unset_until_min
        return next((free_run.beyond_min for free_run in self.free_runs if free_run.beyond_min is not None), None)


def clock_day(clocks: Clocks, timecode_device: TimecodeDevice) -> ClockDay | None:
    """The day of a device that is jammed and then runs alone; None for all others, and where nobody knows its clock."""
    if timecode_device.jam is None or timecode_device.relative_drift is None:
        return None
    root = clocks.root(timecode_device.device)
    per_min = clocks.per_min(timecode_device.genlocked_to or timecode_device.device, root)
    if per_min is None:
        return None
    defaults = clocks.index.plan.defaults
    begins, ends, limit = defaults.day_begins_min, defaults.day_ends_min, defaults.drift_limit_frames
    every = limit / per_min if per_min * (ends - begins) > limit else None
    jams = [minute for minute in timecode_device.jam.at_min if minute < ends]
    # Before the day only the last one counts; a first one after its beginning leaves the time before it unset.
    early = [minute for minute in jams if minute <= begins][-1:]
    edges = [*early, *(minute for minute in jams if minute > begins), ends]
    free_runs = [_free_run(clocks, timecode_device.device, first, last, limit) for first, last in pairwise(edges)]
    known = tuple(free_run for free_run in free_runs if free_run is not None)
    if len(known) < len(free_runs):
        return None
    return ClockDay(
        device=timecode_device.device,
        root=root,
        free_runs=known,
        unset_until_min=None if early else edges[0],
        every_min=every,
    )


def _free_run(clocks: Clocks, device: str, begins_min: int, ends_min: int, limit: float) -> FreeRun | None:
    found = clocks.parted(device, begins_min, ends_min, limit)
    start = clocks.parted(device, begins_min, begins_min + 1, limit)
    if found is None or start is None:
        return None
    per_min = clocks.per_min(device, found.against) or 0.0
    return FreeRun(
        begins_min=begins_min,
        ends_min=ends_min,
        begins_frames=max(start.frames - per_min, 0.0),
        apart_frames=found.frames,
        beyond_min=found.beyond_min,
        against=found.against,
    )


def jams_for(clocks: Clocks, device: str) -> tuple[int, ...] | None:
    """When to jam a device from its giver so that it stays within the limit all day; None where it has to stay on the
    lead, or where its giver is too far off itself."""
    defaults, breaks = clocks.index.plan.defaults, list(clocks.index.plan.breaks.values())
    ends, limit = defaults.day_ends_min, defaults.drift_limit_frames
    root, giver = clocks.root(device), clocks.timecode_devices[device].giver
    if giver == root and clocks.compared_with(device) == (root,):
        # The usual case: whoever jams it is right at any time, and it lasts as long whenever that is done.
        per_min = clocks.per_min(clocks.timecode_devices[device].genlocked_to or device, root) or 0.0
        lasts = ends if per_min * (ends - defaults.day_begins_min) <= limit else int(limit / per_min)
        return advised_jams(defaults.day_begins_min, ends, lambda minute: minute + lasts, breaks)

    def holds_until(jam_min: int) -> int:
        if clocks.counted_by(device, jam_min + 1, jams=(jam_min,)) is None:
            return jam_min  # its giver is not set itself
        found = clocks.parted(device, jam_min, ends, limit, jams=(jam_min,))
        return ends if found is None or found.beyond_min is None else found.beyond_min

    return advised_jams(defaults.day_begins_min, ends, holds_until, breaks)


def jams_too_often(at_min: Sequence[int]) -> int:
    """How many of a day's jams come sooner after the one before than a crew keeps to."""
    return sum(later - earlier < OFTEN_MIN for earlier, later in pairwise(sorted(at_min)))


def advised_jams(
    begins_min: int, ends_min: int, holds_until: Callable[[int], int], breaks: Sequence[Break]
) -> tuple[int, ...] | None:
    """When to jam so that a clock never runs alone for longer than it stays within the limit.

    As few as possible stop the work, then as few as possible at all. Any minute of a break stops nothing, its last one
    too.

    Args:
        holds_until: The last minute at which a jam that is made in a minute still holds.

    Returns:
        Minutes since midnight, the first at the day's beginning; None where it would be jammed all the time.
    """
    price_of = dict.fromkeys(range(begins_min, ends_min), STOPS_WORK + ONE_JAM)
    for item in breaks:
        for minute in range(item.at_min, item.at_min + item.length_min + 1):
            if minute in price_of:
                own = ONE_JAM if minute == item.at_min else ONE_JAM + WITHIN_BREAK
                price_of[minute] = min(price_of[minute], own)
    price_of[begins_min] = ONE_JAM
    # The cheapest way from each minute to the end of the day, from the back: the price of its jams, and the next one.
    count = ends_min - begins_min
    price: list[float] = [0.0] * (count + 1)
    following = [0] * (count + 1)
    for at in range(count - 1, -1, -1):
        last = min(holds_until(begins_min + at) - begins_min, count)
        if last < count and last - at < SHORTEST_ALONE_MIN:
            price[at] = math.inf
            continue
        reached = price[at + 1 : last + 1]
        # The latest of equals: later jams leave more of the day to breaks that are not planned yet.
        following[at] = at + len(reached) - reached[::-1].index(min(reached))
        price[at] = price_of[begins_min + at] + price[following[at]]
    if math.isinf(price[0]):
        return None
    found, at = [], 0
    while at < count:
        found.append(begins_min + at)
        at = following[at]
    return tuple(found)
