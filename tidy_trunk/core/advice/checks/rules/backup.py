"""Rules on what happens only once."""

import math
from collections.abc import Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, rule
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import battery, longest_stretch_min
from tidy_trunk.core.sound.trace import KnownParts, Stage, parts_on_all_ways


@rule
def one_recorder(situation: Situation) -> Iterator[Finding]:
    """A source that happens once, on one recorder alone. [HANDBOOK] §13"""
    for source in situation.plan.sources.values():
        if not source.irreplaceable:
            continue
        recorders = _recorders(situation, source.id)
        if len(recorders) == 1:
            (device,) = recorders
            yield Finding(
                rule="one-recorder",
                severity=Severity.CAUTION,
                source="HANDBOOK",
                device=device,
                about=source.id,
            )


@rule
def clip_limit(situation: Situation) -> Iterator[Finding]:
    """A source that happens once, and every device that records it stops by itself. [HANDBOOK] §9"""
    for source in situation.plan.sources.values():
        recorders = _recorders(situation, source.id) if source.irreplaceable else {}
        limits = {device: situation.index.placed(device).device_class.traits.clip_limit_min for device in recorders}
        stops = {device: limit.value for device, limit in limits.items() if limit is not None}
        if not stops or len(stops) < len(recorders):
            continue
        last = max(stops, key=lambda device: stops[device])
        yield Finding(
            rule="clip-limit",
            severity=Severity.CAUTION,
            facts={"minutes": stops[last]},
            source="HANDBOOK",
            device=last,
            about=source.id,
        )


@rule
def battery_ends(situation: Situation) -> Iterator[Finding]:
    """A source that happens once, and no recorder of it whose battery lasts from one break of the day to the next. [HANDBOOK] §9"""
    day = situation.plan.defaults
    longest_h = longest_stretch_min(day.day_begins_min, day.day_ends_min, situation.plan.breaks.values()) / 60
    for source in situation.plan.sources.values():
        recorders = _recorders(situation, source.id) if source.irreplaceable else {}
        hours = {device: _battery_h(situation, device) for device in recorders}
        if not hours or max(hours.values()) >= longest_h:
            continue
        last = max(hours, key=lambda device: hours[device])
        yield Finding(
            rule="battery-ends",
            severity=Severity.NOTE,
            facts={"hours": hours[last], "stretch_h": longest_h},
            source="HANDBOOK",
            device=last,
            about=source.id,
        )


def _battery_h(situation: Situation, device: str) -> float:
    """How long a device runs on its battery; inf for one that does not hang on it."""
    lasts = battery(situation.index.placed(device), situation.plan.defaults.temperature_c)
    return math.inf if lasts is None else lasts.usual_min / 60


@rule
def shared_part(situation: Situation) -> Iterator[Finding]:
    """Two recorders of what happens once, behind one part whose failure takes both. [HANDBOOK] §6"""
    for source in situation.plan.sources.values():
        recorders = _recorders(situation, source.id) if source.irreplaceable else {}
        if len(recorders) < 2:
            continue
        known: KnownParts = {}
        ways = [
            frozenset.intersection(*(parts_on_all_ways(stage, source.id, known) for stage in stages))
            for stages in recorders.values()
        ]
        shared = frozenset.intersection(*ways)
        devices = [device for kind, device in shared if kind == "device"]
        if not devices:
            continue
        order = list(situation.plan.devices)
        devices.sort(key=order.index)
        index = situation.index
        worse = any(index.placed(device).device_class.kind is not DeviceKind.MICROPHONE for device in devices)
        cables = sorted(index.plan.runs[run].number for kind, run in shared if kind == "run")
        yield Finding(
            rule="shared-part",
            severity=Severity.CAUTION if worse else Severity.NOTE,
            facts={"recorders": len(recorders), "devices": tuple(devices), "cables": tuple(cables)},
            source="HANDBOOK",
            device=devices[0],
            about=source.id,
        )


def _recorders(situation: Situation, source: str) -> dict[str, list[Stage]]:
    """The tracks that hold a source, by recording device."""
    found: dict[str, list[Stage]] = {}
    for track in situation.report.tracks:
        if track.is_reached and source in track.sources:
            found.setdefault(track.trace.device, []).append(track.trace.stage)
    return found
