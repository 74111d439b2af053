"""How far two devices may be apart at any minute of the day, along the chains by which both get their time."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.time.clock.timecode_devices import TimecodeDevice, TimecodeFrom, first_giver, relative_drift

SINCE_EVER: Final = -math.inf
"""ASSUMED_ beginning of a clock that nobody sets."""


@dataclass(frozen=True, slots=True)
class ClockSpan:
    """A time, in minutes since midnight, in which a device's labels were counted by a clock: its own, or a giver's."""

    clock: str
    begins_min: float
    ends_min: float


@dataclass(frozen=True, slots=True)
class WorstDrift:
    """The worst of a time. beyond_min: from when on it is more than the limit; None where it stays within."""

    against: str
    frames: float
    beyond_min: int | None


class Clocks:
    """The clocks of a job over its day.

    A device that is jammed takes over its giver's error of that minute, and adds what it parts by from then on. Two
    devices are apart by what the clocks that counted for them, minute by minute, may have parted: nothing while both were
    counted by one. A giver that is jammed in the same minute is jammed first. Source: [HANDBOOK] §8
    """

    def __init__(self, index: PlanIndex, timecode_devices: Mapping[str, TimecodeDevice]) -> None:
        self.index = index
        self.timecode_devices = timecode_devices
        self._frames_per_min = 1e-6 * 60 * float(FrameRate.parse(index.plan.defaults.frame_rate).ratio)
        self._rates: dict[tuple[str, str], float | None] = {}
        self._compared: dict[str, tuple[str, ...]] = {}
        self._jams = sorted(
            {minute for item in timecode_devices.values() if item.jam is not None for minute in item.jam.at_min}
        )

    def root(self, device: str) -> str:
        """Where a device's time comes from in the end; the device that gives it where that is known no further."""
        return first_giver(self.index, self.timecode_devices, device) or self.timecode_devices[device].giver

    def compared_with(self, device: str) -> tuple[str, ...]:
        """With whom a device has to agree: with the first of its chain, and, where it or what stays on its lead is a camera,
        with every recorder of the same chain, for their files meet in the edit."""
        if device not in self._compared:
            self._compared[device] = self._compared_with(device)
        return self._compared[device]

    def _compared_with(self, device: str) -> tuple[str, ...]:
        root = self.root(device)
        carried = {device, *(item.device for item in self.timecode_devices.values() if self._follows(item, device))}
        if not any(self._is_camera(item) for item in carried):
            return (root,)
        recorders = [
            item
            for item in self.timecode_devices
            if item not in carried
            and item != root
            and self.root(item) == root
            and self.index.placed(item).device_class.is_recording
            and not self._is_camera(item)
        ]
        return (root, *recorders)

    def _is_camera(self, device: str) -> bool:
        return self.index.placed(device).device_class.kind in (DeviceKind.CAMERA, DeviceKind.SWITCHER)

    def _follows(self, timecode_device: TimecodeDevice, device: str) -> bool:
        """Whether a device stays on another's lead, or on that of one that does."""
        seen: set[str] = set()
        while timecode_device.gets in (TimecodeFrom.SOCKET, TimecodeFrom.SOUND) and timecode_device.device not in seen:
            seen.add(timecode_device.device)
            if timecode_device.giver == device:
                return True
            if timecode_device.giver not in self.timecode_devices:
                return False
            timecode_device = self.timecode_devices[timecode_device.giver]
        return False

    def per_min(self, first: str, second: str) -> float | None:
        """Frames by which two clocks part in a minute at the worst; None where nobody knows."""
        if first == second:
            return 0.0
        if (first, second) not in self._rates:
            found = relative_drift(self.index, first, second)
            self._rates[first, second] = None if found is None else found.ppm * self._frames_per_min
        return self._rates[first, second]

    def counted_by(
        self, device: str, at_min: float, *, jams: Sequence[int] | None = None
    ) -> tuple[ClockSpan, ...] | None:
        """The clocks that have counted a device's labels up to a minute, just before whatever is jammed in it; None while
        it is not set. `jams`: in place of its own."""
        return self._history(device, at_min, set(), jams=jams)

    def _history(
        self, device: str, at_min: float, seen: set[str], *, jams: Sequence[int] | None = None, inclusive: bool = False
    ) -> tuple[ClockSpan, ...] | None:
        timecode_device = self.timecode_devices.get(device)
        if (
            timecode_device is None
            or device in seen
            or timecode_device.gets in (TimecodeFrom.GIVES, TimecodeFrom.NOTHING)
        ):
            return (ClockSpan(device, SINCE_EVER, at_min),)
        seen = {*seen, device}
        if timecode_device.jam is None:
            return self._history(timecode_device.giver, at_min, seen, inclusive=inclusive)  # it stays on the lead
        minutes = timecode_device.jam.at_min if jams is None else jams
        jam = max((minute for minute in minutes if minute < at_min or (inclusive and minute == at_min)), default=None)
        if jam is None:
            return None
        before = self._history(timecode_device.giver, jam, seen, inclusive=True)
        clock = timecode_device.genlocked_to or device
        return None if before is None else (*before, ClockSpan(clock, jam, at_min))

    def frames(self, first: Sequence[ClockSpan], second: Sequence[ClockSpan]) -> float | None:
        """By how much two devices are apart whose labels were counted so; None where a clock is unknown."""
        total = 0.0
        for one in first:
            for other in second:
                minutes = min(one.ends_min, other.ends_min) - max(one.begins_min, other.begins_min)
                if minutes <= 0 or one.clock == other.clock:
                    continue
                rate = self.per_min(one.clock, other.clock)
                if rate is None:
                    return None
                total += rate * minutes if rate else 0.0
        return total

    def parted(
        self, device: str, begins_min: int, ends_min: int, limit_frames: float, *, jams: Sequence[int] | None = None
    ) -> WorstDrift | None:
        """The worst between two minutes against all that a device has to agree with; None where nobody knows.

        Args:
            jams: In place of those of the plan.
        """
        root, *recorders = (
            self._against(device, other, begins_min, ends_min, limit_frames, jams)
            for other in self.compared_with(device)
        )
        if root is None:
            return None
        known = [root, *(item for item in recorders if item is not None)]
        first = min((item.beyond_min for item in known if item.beyond_min is not None), default=None)
        worst = max(known, key=lambda item: item.frames)
        return WorstDrift(worst.against, worst.frames, first)

    def _against(
        self, device: str, other: str, begins_min: int, ends_min: int, limit_frames: float, jams: Sequence[int] | None
    ) -> WorstDrift | None:
        # Straight lines between jams of anybody: worth a look just after one, and just before the next.
        edges = [begins_min, *(minute for minute in self._jams if begins_min < minute < ends_min), ends_min]
        worst, beyond = 0.0, None
        for first, last in pairwise(edges):
            after = self._apart(device, other, first + JUST_MIN, jams)
            before = self._apart(device, other, last, jams)
            if after is None or before is None:
                return None
            worst = max(worst, after, before)
            if beyond is None and before > limit_frames:
                slope = (before - after) / (last - first - JUST_MIN)
                beyond = first if after >= limit_frames else first + int((limit_frames - after) / slope + JUST_MIN)
        return WorstDrift(other, worst, beyond)

    def _apart(self, device: str, other: str, at_min: float, jams: Sequence[int] | None) -> float | None:
        ours, theirs = self.counted_by(device, at_min, jams=jams), self.counted_by(other, at_min)
        # What is not set yet is another matter, and is told where it is.
        return 0.0 if ours is None or theirs is None else self.frames(ours, theirs)


JUST_MIN: Final = 1e-6
"""ASSUMED_ time after a jam at which it has been made."""
