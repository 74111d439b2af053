"""What a day asks of the sound crew: what runs out and is renewed again and again, and what is done once, by when."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.advice.line_up import State, line_up_steps
from tidy_trunk.core.advice.walk import short_walk_items
from tidy_trunk.core.day.timeline import PIECE_MIN, SOUND_ON_MIN, Consumption, Timeline, timeline
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import Break, Endurance, PlacedDevice, PlannedTake, battery, media
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.time.clock import Clocks, TimecodeDevice, clock_day, timecode_devices


class TaskKind(StrEnum):
    """What somebody does, in the order in which it is done at one device."""

    SWITCH_ON = "switch-on"
    BATTERY = "battery"
    MEDIA = "media"
    JAM = "jam"
    CHECK = "check"
    LINE_UP = "line-up"
    ROOM_TONE = "room-tone"
    OFFLOAD = "offload"


MINUTES: Final[Mapping[TaskKind, float]] = {
    TaskKind.SWITCH_ON: 1.0,
    TaskKind.BATTERY: 2.0,
    TaskKind.MEDIA: 2.0,
    TaskKind.JAM: 1.0,
    TaskKind.CHECK: 5.0,
    TaskKind.LINE_UP: 2.0,
    TaskKind.ROOM_TONE: 1.0,
    TaskKind.OFFLOAD: 3.0,
}
"""ASSUMED_ minutes that somebody needs for each, with the test recording behind it; copying goes on by itself afterwards."""

COPY_BREAK_MIN: Final = 20
"""ASSUMED_ shortest break in which cards are copied."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Renewal:
    """When something was renewed last, and what was left of it then: 1 is all of it."""

    at_min: float
    left: float = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DayProgress:
    """How far a day has come. now_min: None before it has begun.

    renewed: by kind and device, what was done or corrected; done: ids of errands; takes: those that were recorded, as begin and
    end in minutes since midnight.
    """

    now_min: float | None = None
    renewed: Mapping[tuple[TaskKind, str], Renewal] = field(default_factory=dict)
    done: frozenset[str] = frozenset()
    takes: tuple[tuple[float, float], ...] = ()


NOTHING_DONE: Final = DayProgress()
"""ASSUMED_ progress of a day that has not begun."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Series:
    """Something that runs out: it is renewed before that, as often as the day asks for.

    lasts: from one time to the next, in minutes of what uses it up; left: at the day's beginning.
    giver: of a jam. not_before_min: of the first time. is_unset: it was never done. with_battery: it is lost when its device's battery is changed.
    takes_jam: of such a battery.
    """

    kind: TaskKind
    device: str
    lasts: Endurance
    left: float
    minutes: float
    place: str
    uses: Consumption = Consumption.TIME
    giver: str = ""
    not_before_min: float = -math.inf
    is_unset: bool = False
    with_battery: bool = False
    takes_jam: bool = False

    def used(self, line: Timeline, at_min: float) -> float:
        """How much of it is used up from the beginning of the day's rest until then."""
        return float(self.used_all(line, np.array([at_min]))[0])

    def used_all(self, line: Timeline, at_min: NDArray[np.float64]) -> NDArray[np.float64]:
        """As `used`, of many moments at once."""
        return line.used_min(self.uses, at_min)


@dataclass(frozen=True, slots=True, kw_only=True)
class Errand:
    """Something that is done once within a time. after_take: only while everybody still stands where they stood.

    devices: at which it is done; about: the break or company move that asks for it, "" for the day's beginning or end.
    """

    id: str
    kind: TaskKind
    begins_min: float
    ends_min: float
    minutes: float
    device: str = ""
    devices: tuple[str, ...] = ()
    place: str = ""
    about: str = ""
    after_take: bool = False
    may_be_left: bool = False


def series_of(report: Report, line: Timeline, progress: DayProgress) -> tuple[Series, ...]:
    """All that runs out in the course of a day."""
    batteries = tuple(_batteries(report, line, progress))
    swapped = frozenset(item.device for item in batteries)
    return (*batteries, *_media(report, line, progress), *_jams(report, line, progress, swapped))


def _jams(report: Report, line: Timeline, progress: DayProgress, swapped: frozenset[str]) -> Iterator[Series]:
    """Those that run alone between jams. `swapped`: devices whose batteries are changed."""
    clocks = Clocks(report.index, {item.device: item for item in timecode_devices(report)})
    first = line.next_take(line.begins_min)
    for item in clocks.timecode_devices.values():
        if item.jam is None or first is None:
            continue
        day, placed = clock_day(clocks, item), report.index.placed(item.device)
        every = day.every_min if day is not None and day.every_min is not None else math.inf
        last = _last_jam(item, progress)
        warm = placed.device_class.traits.warm_up_min
        yield Series(
            kind=TaskKind.JAM,
            device=item.device,
            lasts=Endurance(every, every),
            # Nobody has set it yet: by the next take at the latest.
            left=first.begins_min - line.begins_min if last is None else every - (line.begins_min - last.at_min),
            minutes=MINUTES[TaskKind.JAM],
            place=placed.device.place,
            giver=item.giver,
            is_unset=last is None,
            not_before_min=_jam_from(report, line, progress, 0.0 if warm is None else warm.value),
            with_battery=bool(item.forgets) and item.device in swapped,
        )


def _jam_from(report: Report, line: Timeline, progress: DayProgress, warm_min: float) -> float:
    """On the day itself whenever somebody comes to it; planned ahead, when it is on and warm."""
    first = line.next_take(line.begins_min)
    if first is None or progress.now_min is not None:
        return -math.inf
    return max(_on_from(report, first), _call(report) + warm_min)


def _last_jam(item: TimecodeDevice, progress: DayProgress) -> Renewal | None:
    """When it was jammed last; None where it has not been, or has lost its time with its battery since."""
    last = progress.renewed.get((TaskKind.JAM, item.device))
    swap = progress.renewed.get((TaskKind.BATTERY, item.device))
    is_lost = last is not None and item.forgets and swap is not None and swap.at_min > last.at_min
    return None if is_lost else last


def _batteries(report: Report, line: Timeline, progress: DayProgress) -> Iterator[Series]:
    whole = timeline(report.index.plan)
    for placed in report.index.placed_devices():
        lasts = battery(placed, report.index.plan.defaults.temperature_c)
        if lasts is None:
            continue
        last = progress.renewed.get((TaskKind.BATTERY, placed.device.id), Renewal(at_min=_call(report)))
        uses = _uses(placed)
        since, until = whole.used_min(uses, np.array([last.at_min, line.begins_min]))
        left = lasts.least_min * last.left - max(0.0, float(until - since))
        yield Series(
            kind=TaskKind.BATTERY,
            device=placed.device.id,
            lasts=lasts,
            left=left,
            minutes=MINUTES[TaskKind.BATTERY],
            place=placed.device.place,
            uses=uses,
            takes_jam=placed.device.jam is not None and placed.device_class.traits.keeps_timecode_when_off is False,
        )


def _uses(placed: PlacedDevice) -> Consumption:
    """When it is on: whatever can be is switched off between set-ups, unless it loses its timecode by it. [PRACTICE]"""
    if placed.device.jam is not None and placed.device_class.traits.keeps_timecode_when_off is False:
        return Consumption.ALL_SHOOTING
    return Consumption.CAMERA_ON if placed.device_class.kind is DeviceKind.CAMERA else Consumption.SOUND_ON


def _media(report: Report, line: Timeline, progress: DayProgress) -> Iterator[Series]:
    for placed in report.index.placed_devices():
        lasts = media(placed)
        if lasts is None:
            continue
        last = progress.renewed.get((TaskKind.MEDIA, placed.device.id), Renewal(at_min=-math.inf))
        recorded = sum(max(0.0, ends - max(begins, last.at_min)) for begins, ends in progress.takes)
        yield Series(
            kind=TaskKind.MEDIA,
            device=placed.device.id,
            lasts=lasts,
            minutes=MINUTES[TaskKind.MEDIA],
            left=lasts.least_min * last.left - recorded,
            place=placed.device.place,
            uses=Consumption.TAKES,
        )


def _call(report: Report) -> float:
    return float(report.index.plan.defaults.day_begins_min)


def _on_from(report: Report, first: PlannedTake) -> float:
    """When sound's devices are switched on for a first take: not at a call that is hours before it."""
    return max(_call(report), first.begins_min - SOUND_ON_MIN)


def errands_of(report: Report, line: Timeline, progress: DayProgress) -> tuple[Errand, ...]:
    """All that is done once, in the order of the day."""
    found = [*_beginning(report, line), *_moves(report, line), *_room_tones(report, line), *_copies(report, line)]
    has_begun = progress.now_min is not None
    return tuple(
        item for item in found if item.id not in progress.done and (item.ends_min > line.begins_min or not has_begun)
    )


def _beginning(report: Report, line: Timeline) -> Iterator[Errand]:
    """Before the first take of the whole day; and what was changed since it was read, before the next one."""
    call, whole = _call(report), timeline(report.index.plan)
    first, following = whole.next_take(call), line.next_take(line.begins_min)
    if first is None or following is None:
        return
    on_from = _on_from(report, first)
    warms = {
        placed.device.id: placed.device_class.traits.warm_up_min.value
        for placed in report.index.placed_devices()
        if placed.device_class.traits.warm_up_min is not None
    }
    warm_from = max(call, on_from - max(warms.values(), default=0.0))
    if warms and line.begins_min <= warm_from:
        yield Errand(
            id="switch-on",
            kind=TaskKind.SWITCH_ON,
            begins_min=warm_from,
            ends_min=warm_from + MINUTES[TaskKind.SWITCH_ON] + 2 * PIECE_MIN,
            minutes=MINUTES[TaskKind.SWITCH_ON],
            devices=tuple(warms),
        )
    if short_walk_items(report):
        yield _within(TaskKind.CHECK, "check", on_from, first.begins_min)
    for device, states in _lined_up(report).items():
        placed = report.index.placed(device)
        if State.STALE in states and line.begins_min > call:
            yield _line_up(placed, f"line-up.{device}.again", line.begins_min, following.begins_min)
        elif states != {State.DONE}:
            yield _line_up(placed, f"line-up.{device}", on_from, first.begins_min)


def _moves(report: Report, line: Timeline) -> Iterator[Errand]:
    """All was unplugged: nothing that was tested before counts any more."""
    for move in report.index.plan.moves.values():
        arrives = float(move.at_min + move.length_min)
        first = line.next_take(arrives)
        if first is None:
            continue
        since = max(arrives, _on_from(report, first))
        if short_walk_items(report):
            yield _within(TaskKind.CHECK, f"check.{move.id}", since, first.begins_min, about=move.id)
        for device in _lined_up(report):
            placed = report.index.placed(device)
            yield _line_up(placed, f"line-up.{device}.{move.id}", since, first.begins_min, about=move.id)


def _within(kind: TaskKind, own_id: str, begins_min: float, ends_min: float, about: str = "") -> Errand:
    return Errand(id=own_id, kind=kind, begins_min=begins_min, ends_min=ends_min, minutes=MINUTES[kind], about=about)


def _line_up(placed: PlacedDevice, own_id: str, begins_min: float, ends_min: float, about: str = "") -> Errand:
    return Errand(
        id=own_id,
        kind=TaskKind.LINE_UP,
        begins_min=begins_min,
        ends_min=ends_min,
        minutes=MINUTES[TaskKind.LINE_UP],
        device=placed.device.id,
        place=placed.device.place,
        about=about,
    )


def _lined_up(report: Report) -> dict[str, set[State]]:
    """The devices that tone is sent to, and how far their tracks are."""
    found: dict[str, set[State]] = {}
    for step in line_up_steps(report):
        found.setdefault(step.device, set()).add(step.state)
    return found


def _room_tones(report: Report, line: Timeline) -> Iterator[Errand]:
    """One at each place, before everybody leaves it."""
    moves = sorted(report.index.plan.moves.values(), key=lambda item: item.at_min)
    edges = [-math.inf, *(float(move.at_min) for move in moves), math.inf]
    for number, (since, until) in enumerate(pairwise(edges)):
        takes = [take for take in line.takes if since <= take.begins_min < until]
        if takes:
            about = moves[number].id if number < len(moves) else ""
            yield Errand(
                id=f"room-tone.{about or 'wrap'}",
                kind=TaskKind.ROOM_TONE,
                begins_min=takes[0].ends_min,
                ends_min=min(until, line.ends_min),
                minutes=MINUTES[TaskKind.ROOM_TONE],
                about=about,
                after_take=True,
                may_be_left=True,
            )


def _copies(report: Report, line: Timeline) -> Iterator[Errand]:
    """Cards are copied in the long breaks, so that what is lost with a card is at most half a day."""
    cards = tuple(placed.device.id for placed in report.index.placed_devices() if media(placed) is not None)
    if not cards or not line.takes:
        return
    for item in sorted(report.index.plan.breaks.values(), key=lambda one: one.at_min):
        if item.length_min >= COPY_BREAK_MIN and any(take.ends_min <= item.at_min for take in line.takes):
            yield _copy(item, cards)


def _copy(item: Break, cards: tuple[str, ...]) -> Errand:
    return Errand(
        id=f"offload.{item.id}",
        kind=TaskKind.OFFLOAD,
        begins_min=item.at_min,
        ends_min=item.at_min + item.length_min,
        minutes=MINUTES[TaskKind.OFFLOAD],
        devices=cards,
        about=item.id,
        may_be_left=True,
    )
