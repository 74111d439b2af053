"""When each thing is done: the cheapest way through the day for each, again and again, until none gets cheaper by moving.

What is done in a piece of a free time counts as done by the end of the piece, and what it renews as renewed at its beginning: so
that the order in which the time is worked through makes nothing late. Which times between two takes are worth holding the set for
is for all things together to say (`holds`).
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.day.holds import least_holds, windows
from tidy_trunk.core.day.in_turn import AssignedWork, WorkedSlot, work_through
from tidy_trunk.core.day.needs import MINUTES, Errand, Series, TaskKind
from tidy_trunk.core.day.timeline import CRUMB_MIN, SlotKind, Timeline

HOLDS_SET: Final = 1000.0
"""ASSUMED_ price of doing something between two takes: any number of things in other times rather than one of these."""

ANY_TIME: Final = 5.0
"""ASSUMED_ price of a free time in which nothing else is done: rather two things at once than each at its own time."""

ONE_TASK: Final = 20.0
"""ASSUMED_ price of each thing that is done: as few as do."""

HELD_MIN: Final = 60.0
"""ASSUMED_ price of each minute that the set waits longer than the time between two takes."""

NOT_KEPT: Final = 20_000.0
"""ASSUMED_ price of what runs out, or is not done in its time."""

LOST_MIN: Final = 100.0
"""ASSUMED_ price of each minute for which something has run out: for ten of them the set is held once."""

LATER: Final = 0.01
"""ASSUMED_ price of each piece of the day by which an errand is later: what can be done is done."""

EARLY: Final = 3.0
"""ASSUMED_ price of renewing something at the day's beginning, falling to none at its end: what is full is left alone."""

FIRST_ROUNDS: Final = 2
"""ASSUMED_ rounds of a first answer: each thing has seen where all others are."""

MOST_ROUNDS: Final = 6
"""ASSUMED_ rounds after which nothing moves any more, or moves in a circle."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Schedule:
    """What is done where in the day, slot by slot. is_best: proven to hold the set as rarely as can be."""

    worked: tuple[WorkedSlot, ...]
    is_best: bool


def first_schedule(
    line: Timeline, series: Sequence[Series], errands: Sequence[Errand], *, hands: int, walk_min: float
) -> Schedule:
    """A schedule within a fraction of a second; it holds the set hardly more often than the best one does.

    Args:
        hands: How many people do it, from 1.
        walk_min: From the cart to a device elsewhere, one way.

    What cannot be kept is left as it is: nothing is refused.
    """
    made = _Assignment(line, series, errands, hands, walk_min)
    made.improve(FIRST_ROUNDS)
    return Schedule(worked=made.worked(), is_best=made.interruptions == 0)


def schedule(
    line: Timeline, series: Sequence[Series], errands: Sequence[Errand], *, hands: int, walk_min: float
) -> Schedule:
    """The schedule that holds the set least often; then with the fewest things done, in the fewest times. As `first_schedule`."""
    first = _Assignment(line, series, errands, hands, walk_min)
    first.improve()
    if first.interruptions == 0:
        return Schedule(worked=first.worked(), is_best=True)
    least = least_holds(line, series, first.free_min(), hands=hands)
    if least.slots is None:
        return Schedule(worked=first.worked(), is_best=False)
    second = _Assignment(line, series, errands, hands, walk_min, holds=least.slots)
    second.improve()
    best = min(first, second, key=lambda made: made.price)
    is_best = least.is_proven and best.interruptions <= len(least.slots)
    return Schedule(worked=best.worked(), is_best=is_best)


class _Assignment:
    """Which piece of the day each thing is done in; moved one thing at a time."""

    def __init__(
        self,
        line: Timeline,
        series: Sequence[Series],
        errands: Sequence[Errand],
        hands: int,
        walk_min: float,
        holds: frozenset[int] | None = None,
    ) -> None:
        """`holds`: slots between two takes that are to be preferred, where it is known which."""
        self.line, self.hands, self.walk_min, self.holds = line, hands, walk_min, holds
        # What loses its timecode with its battery is jammed with it: tightest first, so that the others go along.
        self.series = sorted(series, key=lambda item: (item.kind is TaskKind.JAM, item.lasts.least_min, item.device))
        self.errands = list(errands)
        self.in_slot: list[list[AssignedWork]] = [[] for _ in line.slots]
        self.missed: dict[object, float] = {}
        self.alone: dict[tuple[int, float, str, float], WorkedSlot] = {}
        self.lasts = {(item.kind, item.device): lasts(line, item) for item in self.series}

    def improve(self, rounds: int = MOST_ROUNDS) -> None:
        """Round after round, each thing where it is cheapest beside all others."""
        before = math.inf
        for _ in range(rounds):
            for errand in self.errands:
                self._place_errand(errand)
            for item in self.series:
                self._place_series(item)
            if self.price >= before - CRUMB_MIN:
                break
            before = self.price

    @property
    def interruptions(self) -> int:
        return sum(
            bool(mine) and slot.kind is SlotKind.BETWEEN
            for slot, mine in zip(self.line.slots, self.in_slot, strict=True)
        )

    @property
    def price(self) -> float:
        """Of the whole day."""
        worked = self.worked()
        used = sum(bool(item.assigned) for item in worked)
        held = sum(item.held_min for item in worked)
        count = sum(len(item.assigned) for item in worked)
        holds = HOLDS_SET * self.interruptions + HELD_MIN * held
        return sum(self.missed.values()) + holds + ANY_TIME * used + ONE_TASK * count

    def worked(self) -> tuple[WorkedSlot, ...]:
        return tuple(
            work_through(self.line, slot, mine, self.hands, self.walk_min)
            for slot, mine in zip(self.line.slots, self.in_slot, strict=True)
        )

    def free_min(self) -> tuple[float, ...]:
        """What is left of each slot beside its errands, for one pair of hands."""
        return tuple(
            slot.length_min - sum(item.task.minutes for item in mine if isinstance(item.task, Errand)) / self.hands
            for slot, mine in zip(self.line.slots, self.in_slot, strict=True)
        )

    def _take_away(self, task: Series | Errand) -> None:
        self.in_slot = [[item for item in mine if item.task is not task] for mine in self.in_slot]

    def _put(self, task: Series | Errand, piece: int) -> None:
        self.in_slot[self.line.pieces[piece].slot].append(AssignedWork(task, piece))

    def _place_errand(self, errand: Errand) -> None:
        self._take_away(errand)
        prices = {number: self._price(errand, number) + LATER * number for number in self._pieces_of(errand)}
        best = min(prices, key=lambda number: prices[number], default=None)
        if best is None or math.isinf(prices[best]):
            self.missed[errand.id] = 0.0 if errand.may_be_left else NOT_KEPT
            return
        self.missed[errand.id] = 0.0
        self._put(errand, best)

    def _pieces_of(self, errand: Errand) -> Iterator[int]:
        """Where it can be done; what may be left out never holds the set."""
        for number, piece in enumerate(self.line.pieces):
            if self.line.slots[piece.slot].kind is SlotKind.BETWEEN and errand.may_be_left:
                continue
            within_min = piece.ends_min - max(piece.begins_min, errand.begins_min)
            is_cut = piece.begins_min < errand.begins_min and within_min < errand.minutes
            if within_min < CRUMB_MIN or is_cut or piece.ends_min > errand.ends_min + CRUMB_MIN:
                continue
            if errand.after_take and not self._follows_take(piece.begins_min):
                continue
            yield number

    def _follows_take(self, at_min: float) -> bool:
        return any(abs(take.ends_min - at_min) < CRUMB_MIN for take in self.line.takes)

    def _price(self, task: Series | Errand, number: int) -> float:
        """What it costs to do something in a piece, beside what is done there already; inf where it does not fit."""
        at = self.line.pieces[number].slot
        slot, mine = self.line.slots[at], self.in_slot[at]
        if slot.kind is not SlotKind.BETWEEN and self.line.pieces[number].ends_min - slot.begins_min < task.minutes:
            return math.inf
        worked = self._with(task, number)
        if worked.late_min > CRUMB_MIN:
            return math.inf
        if slot.kind is not SlotKind.BETWEEN:
            return ONE_TASK + (0.0 if mine else ANY_TIME)
        before = work_through(self.line, slot, mine, self.hands, self.walk_min).held_min if mine else 0.0
        new = HOLDS_SET * (1.0 if self.holds is None or at in self.holds else 3.0)
        return ONE_TASK + HELD_MIN * (worked.held_min - before) + (0.0 if mine else new)

    def _with(self, task: Series | Errand, number: int) -> WorkedSlot:
        """A piece's time, worked with one thing more; what is alone in it is worked through once."""
        at = self.line.pieces[number].slot
        slot, mine = self.line.slots[at], self.in_slot[at]
        if mine:
            return work_through(self.line, slot, [*mine, AssignedWork(task, number)], self.hands, self.walk_min)
        since = task.begins_min if isinstance(task, Errand) else -math.inf
        key = (number, task.minutes, task.place, since)
        if key not in self.alone:
            self.alone[key] = work_through(self.line, slot, [AssignedWork(task, number)], self.hands, self.walk_min)
        return self.alone[key]

    def _place_series(self, item: Series) -> None:
        jam = next((one for one in self.series if one.with_battery and one.device == item.device), None)
        if not item.takes_jam or jam is None:
            self._lay(item)
            return
        # Where it is cheapest by itself, or where its device is jammed anyway: whichever makes both together cheaper.
        jammed = self._pieces_with(jam) - self._pieces_with(item)
        # Of equals what stands stays.
        stands = [list(mine) for mine in self.in_slot]
        tries = [(self._price_of(item), stands, dict(self.missed))] if (item.kind, item.device) in self.missed else []
        for beside in (frozenset[int](), jammed):
            self._lay(item, beside)
            self._lay(jam)
            tries.append((self._price_of(item), [list(mine) for mine in self.in_slot], dict(self.missed)))
        _, self.in_slot, self.missed = min(tries, key=lambda one: one[0])

    def _price_of(self, item: Series) -> float:
        """Of the whole day, and of how early one thing is renewed in it."""
        count = max(len(self.line.pieces), 1)
        return self.price + sum(EARLY * (1 - number / count) for number in self._pieces_with(item))

    def _lay(self, item: Series, cheaper: frozenset[int] = frozenset()) -> None:
        """The cheapest way for one thing beside all others; in some pieces it spares something else."""
        self._take_away(item)
        pieces = self.line.pieces
        # A jam behind a change of battery takes its minute with it.
        priced = (
            replace(item, with_battery=False, minutes=item.minutes + MINUTES[TaskKind.JAM]) if item.takes_jam else item
        )
        prices = np.array([self._price(priced, number) for number in range(len(pieces))])
        prices += EARLY * (1 - np.arange(len(pieces)) / max(len(pieces), 1))
        prices[list(cheaper)] -= ONE_TASK
        prices[[piece.begins_min < item.not_before_min - CRUMB_MIN for piece in pieces]] = math.inf
        forced = self._forced(item) if item.kind is TaskKind.JAM else []
        chosen, missed = cheapest_way(self.lasts[item.kind, item.device], prices, forced)
        self.missed[(item.kind, item.device)] = missed
        for number in chosen:
            self._put(item, number)

    def _pieces_with(self, item: Series) -> frozenset[int]:
        return frozenset(one.piece for mine in self.in_slot for one in mine if one.task is item)

    def _forced(self, item: Series) -> list[int]:
        """Where its device's battery is changed, if its time is lost by that."""
        if not item.with_battery:
            return []
        return sorted(
            one.piece
            for mine in self.in_slot
            for one in mine
            if one.task.kind is TaskKind.BATTERY and one.task.device == item.device
        )


@dataclass(frozen=True, slots=True)
class RenewalReach:
    """How far something lasts: from the day's beginning on, and from each piece in which it is renewed.

    reach: how many pieces of the day, one more than there are where it lasts to the end. What is used of it, in its own minutes:
    until: when it is over; begins: at the beginning of each piece; whole: in the whole day.
    """

    reach: Sequence[int]
    until: NDArray[np.float64]
    begins: NDArray[np.float64]
    whole: float

    def without_min(self, node: int, piece: int | None) -> float:
        """How long it has run out, from one renewal to the next, or for the rest of the day."""
        renewed = self.whole if piece is None else float(self.begins[piece])
        return max(0.0, renewed - float(self.until[node]))


def lasts(line: Timeline, item: Series) -> RenewalReach:
    begins = item.used_all(line, np.array([piece.begins_min for piece in line.pieces]))
    return RenewalReach(
        reach=[len(line.pieces) + 1 if window is None else window.stop for window in windows(line, item)],
        until=np.array([item.left, *(begins + item.lasts.least_min)]),
        begins=begins,
        whole=item.used(line, line.last_take_ends_min),
    )


def cheapest_way(
    lasts: RenewalReach, prices: NDArray[np.float64], forced: Iterable[int] = ()
) -> tuple[list[int], float]:
    """The pieces of the day in which something is renewed, so that it never runs out, at the least price.

    Args:
        prices: Of doing it in each piece; inf where it cannot be done.
        forced: Pieces in which it is renewed in any case, in order.

    Returns:
        The pieces, in order, and the price of the times at which it runs out nevertheless.
    """
    count = len(prices)
    must = list(forced)
    prices = prices.copy()
    prices[must] = 0.0
    stops = np.full(count + 1, count, dtype=int)  # the last piece that may follow: no forced one is passed over
    for at in range(count + 1):
        later = [number for number in must if number >= at]
        stops[at] = later[0] + 1 if later else count
    best, follows, misses = np.zeros(count + 1), [-1] * (count + 1), [0.0] * (count + 1)
    values = np.full(count, math.inf)
    for node in range(count, -1, -1):  # node 0 is the beginning of the day, node n the piece n − 1
        stop = int(stops[node])
        has_forced = stop <= count and any(number >= node for number in must)
        if lasts.reach[node] <= count or has_forced:
            best[node], follows[node], misses[node] = _next(values, node, lasts, stop, has_forced)
        if node:
            values[node - 1] = prices[node - 1] + best[node]
    chosen, missed, at = [], misses[0], 0
    while follows[at] >= 0:
        number = follows[at]
        chosen.append(number)
        at = number + 1
        missed += misses[at]
    return chosen, missed


def _next(
    values: NDArray[np.float64], node: int, lasts: RenewalReach, stop: int, has_forced: bool
) -> tuple[float, int, float]:
    """The cheapest piece to go on to from a node: within reach, else the first one beyond it, else none. Its whole price, the piece,
    and what of the price is for what runs out."""
    reach = min(lasts.reach[node], len(values))
    options: list[tuple[float, int, float]] = []
    edge, until = max(reach, node), min(reach, stop)
    if node < until:
        at = node + int(values[node:until].argmin())
        if math.isfinite(values[at]):
            options.append((float(values[at]), at, 0.0))
    if edge < stop:
        # What has run out is renewed as soon as it can be, and not where that is cheapest.
        at = edge + int(np.isfinite(values[edge:stop]).argmax())
        if math.isfinite(values[at]) and (has_forced or lasts.begins[at] < lasts.whole - CRUMB_MIN):
            missed = NOT_KEPT + LOST_MIN * lasts.without_min(node, at)
            options.append((missed + float(values[at]), at, missed))
    if not has_forced:
        missed = NOT_KEPT + LOST_MIN * lasts.without_min(node, None)
        options.append((missed, -1, missed))
    return min(options) if options else (NOT_KEPT, -1, NOT_KEPT)
