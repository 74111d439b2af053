"""The day as it is to be worked: what is done when, by when at the latest, what holds the set, and what cannot be kept."""

import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise
from typing import Final

import numpy as np

from tidy_trunk.core.day.heat import overheated
from tidy_trunk.core.day.in_turn import WorkedSlot
from tidy_trunk.core.day.needs import NOTHING_DONE, DayProgress, Errand, Series, TaskKind, errands_of, series_of
from tidy_trunk.core.day.schedule import first_schedule, schedule
from tidy_trunk.core.day.timeline import CRUMB_MIN, Consumption, Slot, SlotKind, Timeline, timeline
from tidy_trunk.core.plan import (
    Break,
    CompanyMove,
    Plan,
    PlannedTake,
    battery_needed_wh,
    clip_limit_min,
    file_ends_min,
    planned_takes,
)
from tidy_trunk.core.sound.levels import Report

LATE_MIN: Final = 0.01
"""ASSUMED_ by how much something may be late: what rounding makes of a moment."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DayTask:
    """Something that is done. at_min: when it begins; by_min: the last moment at which it may be over.

    id: the same each time the day is planned, as far as it is the same thing. lasts_until_min: as a rule, what it renews;
    None where it renews nothing. giver: of a jam. devices: of what is done at several. about: break or move that asks for it.
    is_first: of what was never done before today. who: of the crew, from 0 on. slot: the free time in which it is done; held_min: by how long the set waits then, longer than between two takes anyway.
    """

    id: str
    kind: TaskKind
    device: str
    at_min: float
    minutes: float
    by_min: float
    slot: Slot
    place: str = ""
    giver: str = ""
    devices: tuple[str, ...] = ()
    about: str = ""
    lasts_until_min: float | None = None
    who: int = 0
    is_first: bool = False
    held_min: float = 0.0

    @property
    def ends_min(self) -> float:
        return self.at_min + self.minutes


class DayTrouble(StrEnum):
    """What cannot be kept, or not without help."""

    RUNS_OUT = "runs-out"  # a battery, a card or a jam, in the middle of a take, or before anybody can renew it
    NOT_DONE = "not-done"  # no time for it
    CLIP_LIMIT = "clip-limit"  # a take is longer than a camera's longest clip
    OVERHEATS = "overheats"  # a camera gets too hot in the course of its takes
    TWO_FILES = "two-files"  # a take is longer than a plain WAV
    OVERLAP = "overlap"  # two takes at once, or a take within a break or a move
    BEFORE_CALL = "before-call"  # takes before the day begins: nothing is planned for them
    AFTER_WRAP = "after-wrap"  # takes beyond the end of the day


@dataclass(frozen=True, slots=True, kw_only=True)
class UnmetNeed:
    """What cannot be kept, where, and the nearest remedy. at_min: when it happens.

    take, other: set-ups that it happens in. limit_min: how long the thing lasts, or how much time there is for it; needed_min: how long it
    would have to last, or takes.
    needed: what would do, in the unit of its kind (Wh of a battery, GB of a card, minutes of a pause); None where nothing of that kind would.
    """

    what: DayTrouble
    at_min: float
    kind: TaskKind | None = None
    device: str = ""
    take: str = ""
    other: str = ""
    limit_min: float = 0.0
    needed_min: float = 0.0
    needed: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RenewalSpan:
    """How long a device's battery, media or clock lasts, from one renewal to the next.

    usual_min, least_min: when it ends, as a rule and at the least; ends_min: when it is renewed, or the day is over.
    """

    kind: TaskKind
    device: str
    begins_min: float
    ends_min: float
    usual_min: float
    least_min: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DayPlan:
    """A day, or what is left of it. interruptions: times at which the set is held; is_best: no plan holds it less often."""

    line: Timeline
    tasks: tuple[DayTask, ...]
    unkept: tuple[UnmetNeed, ...]
    holdings: tuple[RenewalSpan, ...]
    is_best: bool

    @property
    def interruptions(self) -> int:
        return len({task.slot.begins_min for task in self.tasks if task.slot.kind is SlotKind.BETWEEN})


def plan_day(report: Report, progress: DayProgress = NOTHING_DONE, *, is_first: bool = False) -> DayPlan:
    """What the sound crew does in the course of a day, so that nothing runs out in a take and the set is held least often.

    `is_first`: an answer within a fraction of a second, which holds the set hardly more often.
    """
    plan = report.index.plan
    line = timeline(plan, progress.now_min)
    series, errands = series_of(report, line, progress), errands_of(report, line, progress)
    plans = first_schedule if is_first else schedule
    found = plans(line, series, errands, hands=plan.defaults.hands, walk_min=plan.defaults.walk_min)
    tasks = tuple(_timed(line, found.worked))
    lives = [_life(item, line, tasks) for item in series]
    unkept = [*_troubles(report, line), *_not_done(errands, tasks)]
    for item, life in zip(series, lives, strict=True):
        unkept += _run_out(report, line, item, life)
    unset = {(item.kind, item.device) for item in series if item.is_unset}
    ends = {(one.kind, one.device, one.begins_min): one for life in lives for one in life}
    return DayPlan(
        line=line,
        tasks=tuple(_with_lives(line, task, (task.kind, task.device) in unset, lives, ends) for task in tasks),
        unkept=tuple(sorted(unkept, key=lambda item: (item.at_min, item.what, item.device))),
        holdings=tuple(one for life in lives for one in life),
        is_best=found.is_best,
    )


def _timed(line: Timeline, worked: Sequence[WorkedSlot]) -> Iterator[DayTask]:
    """Each thing at its minute."""
    for slot, item in zip(line.slots, worked, strict=True):
        for one, at, who in zip(item.assigned, item.starts_min, item.hands, strict=True):
            yield replace(_task(one.task, at, slot, item.held_min), who=who)


def _task(task: Series | Errand, at_min: float, slot: Slot, held_min: float) -> DayTask:
    if isinstance(task, Errand):
        return DayTask(
            id=task.id,
            kind=task.kind,
            device=task.device,
            at_min=at_min,
            minutes=task.minutes,
            by_min=task.ends_min,
            slot=slot,
            place=task.place,
            devices=task.devices,
            about=task.about,
            held_min=held_min,
        )
    return DayTask(
        id=f"{task.kind}.{task.device}",
        kind=task.kind,
        device=task.device,
        at_min=at_min,
        minutes=task.minutes,
        by_min=math.inf,
        slot=slot,
        place=task.place,
        giver=task.giver,
        held_min=held_min,
    )


def _life(series: Series, line: Timeline, tasks: Sequence[DayTask]) -> tuple[RenewalSpan, ...]:
    """From one renewal to the next, over what is left of the day."""
    # While the set is held no take runs: what is done then counts as done before the next one was to begin.
    mine = sorted(
        min(task.at_min, task.slot.ends_min)
        for task in tasks
        if task.kind is series.kind and task.device == series.device
    )
    edges = [line.begins_min, *mine, max(line.last_take_ends_min, line.begins_min, *mine)]
    found = []
    for number, (begins, ends) in enumerate(pairwise(edges)):
        least = series.left if number == 0 else series.lasts.least_min
        usual = least * series.lasts.usual_min / series.lasts.least_min if math.isfinite(least) else math.inf
        found.append(
            RenewalSpan(
                kind=series.kind,
                device=series.device,
                begins_min=begins,
                ends_min=ends,
                usual_min=_used_up(series, line, begins, usual),
                least_min=_used_up(series, line, begins, least),
            )
        )
    return tuple(found)


def _used_up(series: Series, line: Timeline, since_min: float, amount: float) -> float:
    """When so much of it is used up; inf where it is not in this day."""
    if series.uses is Consumption.TIME:
        return since_min + amount
    begun = series.used(line, since_min)
    busy = line.times[series.uses]
    used = series.used_all(line, np.array([ends for _, ends in busy]))
    for (begins, _), until in zip(busy, used, strict=True):
        if until - begun > amount + CRUMB_MIN:
            return max(begins, since_min) + amount - (series.used(line, max(begins, since_min)) - begun)
    return math.inf


def _with_lives(
    line: Timeline,
    task: DayTask,
    is_unset: bool,
    lives: Sequence[Sequence[RenewalSpan]],
    ends: Mapping[tuple[TaskKind, str, float], RenewalSpan],
) -> DayTask:
    """The last moment of what renews something is when it would have run out."""
    own = ends.get((task.kind, task.device, min(task.at_min, task.slot.ends_min)))
    if own is None:
        return task
    life = next(life for life in lives if own in life)
    before = life[life.index(own) - 1]
    until = own.usual_min if math.isfinite(own.usual_min) else None
    is_first = before is life[0] and is_unset
    suffers_min = next(
        (take.begins_min for take in line.takes if take.ends_min > before.least_min + CRUMB_MIN), before.least_min
    )
    # A clock that parts hurts in the next take alone; what is empty may be missed while the set is made ready.
    last_min = suffers_min if task.kind is TaskKind.JAM else min(before.least_min, suffers_min)
    by_min = min(last_min, task.by_min)
    return replace(task, by_min=by_min, lasts_until_min=until, is_first=is_first)


def _run_out(report: Report, line: Timeline, series: Series, life: Sequence[RenewalSpan]) -> Iterator[UnmetNeed]:
    """Where something runs out before it is renewed, what would last."""
    for one in life:
        if one.least_min >= one.ends_min - LATE_MIN or not any(take.ends_min > one.least_min for take in line.takes):
            continue
        take = next(
            (take for take in line.takes if take.ends_min > one.least_min and take.begins_min < one.ends_min), None
        )
        if take is None:
            continue
        needed = series.used(line, one.ends_min) - series.used(line, one.begins_min)
        placed = report.index.placed(series.device)
        needed_of_kind = None
        if series.kind is TaskKind.BATTERY:
            needed_of_kind = battery_needed_wh(placed, needed, report.index.plan.defaults.temperature_c)
        elif series.kind is TaskKind.MEDIA and placed.device_class.traits.media_gb is not None:
            needed_of_kind = placed.device_class.traits.media_gb.value * needed / series.lasts.least_min
        yield UnmetNeed(
            what=DayTrouble.RUNS_OUT,
            at_min=max(one.least_min, one.begins_min),
            kind=series.kind,
            device=series.device,
            take=take.set_up,
            limit_min=series.lasts.least_min,
            needed_min=needed,
            needed=needed_of_kind,
        )


def _not_done(errands: Sequence[Errand], tasks: Sequence[DayTask]) -> Iterator[UnmetNeed]:
    done = {task.id for task in tasks}
    for errand in errands:
        if errand.id not in done:
            yield UnmetNeed(
                what=DayTrouble.NOT_DONE,
                at_min=errand.begins_min,
                kind=errand.kind,
                device=errand.device,
                other=errand.about,
                limit_min=max(0.0, errand.ends_min - errand.begins_min),
                needed_min=errand.minutes,
            )


def _troubles(report: Report, line: Timeline) -> Iterator[UnmetNeed]:
    """What is wrong with the day itself, whoever works it."""
    yield from _overlaps(report.index.plan, line)
    yield from _before_call(report.index.plan)
    longest: dict[str, PlannedTake] = {}
    for take in line.takes:
        longest.setdefault(take.set_up, take)
    # Only tracks that something comes to are armed, where one can choose.
    tracks = Counter(track.trace.device for track in report.tracks if track.trace.stage.feeds)
    for placed in report.index.placed_devices():
        ends_min = file_ends_min(placed, tracks[placed.device.id])
        limits = ((DayTrouble.CLIP_LIMIT, clip_limit_min(placed)), (DayTrouble.TWO_FILES, ends_min))
        for what, limit in limits:
            for take in longest.values():
                length = take.ends_min - take.begins_min
                if limit is not None and length > limit + CRUMB_MIN:
                    yield UnmetNeed(
                        what=what,
                        at_min=take.begins_min + limit,
                        device=placed.device.id,
                        take=take.set_up,
                        limit_min=limit,
                        needed_min=length,
                    )
    yield from _overheating(report, line)
    ends = report.index.plan.defaults.day_ends_min
    late = next((take for take in line.takes if take.ends_min > ends + CRUMB_MIN), None)
    if late is not None:
        yield UnmetNeed(
            what=DayTrouble.AFTER_WRAP, at_min=ends, take=late.set_up, needed_min=line.takes[-1].ends_min - ends
        )


def _overheating(report: Report, line: Timeline) -> Iterator[UnmetNeed]:
    for placed in report.index.placed_devices():
        limit = placed.device_class.traits.heat_limit_min
        found = overheated(line.takes, limit.value) if limit is not None and limit.value else None
        if limit is not None and found is not None:
            yield UnmetNeed(
                what=DayTrouble.OVERHEATS,
                at_min=found.at_min,
                device=placed.device.id,
                take=found.take.set_up,
                limit_min=limit.value,
                needed_min=found.take.ends_min - found.take.begins_min,
                needed=found.pause_min,
            )


def _before_call(plan: Plan) -> Iterator[UnmetNeed]:
    told = set()
    for take in planned_takes(plan.set_ups.values()):
        if take.begins_min < plan.defaults.day_begins_min and take.set_up not in told:
            told.add(take.set_up)
            yield UnmetNeed(what=DayTrouble.BEFORE_CALL, at_min=take.begins_min, take=take.set_up)


def _overlaps(plan: Plan, line: Timeline) -> Iterator[UnmetNeed]:
    told = set()
    for earlier, later in pairwise(sorted(line.takes, key=lambda take: take.begins_min)):
        if later.begins_min < earlier.ends_min - CRUMB_MIN and (earlier.set_up, later.set_up) not in told:
            told.add((earlier.set_up, later.set_up))
            yield UnmetNeed(what=DayTrouble.OVERLAP, at_min=later.begins_min, take=earlier.set_up, other=later.set_up)
    held: list[Break | CompanyMove] = [*plan.breaks.values(), *plan.moves.values()]
    for item in held:
        since, until = item.at_min, item.at_min + item.length_min
        hit = next((take for take in line.takes if take.begins_min < until and take.ends_min > since), None)
        if hit is not None:
            yield UnmetNeed(what=DayTrouble.OVERLAP, at_min=max(since, hit.begins_min), take=hit.set_up, other=item.id)
