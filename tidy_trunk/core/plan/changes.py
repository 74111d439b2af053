"""What two plans differ in, as far as it decides what has to be worked out again."""

from collections.abc import Iterator, Mapping
from dataclasses import fields, replace
from enum import Flag, auto
from typing import Final

from tidy_trunk.core.gear.catalogue import (
    CAPSULE_PAD_KEY,
    POWER_KEY,
    SAMPLE_RATE_KEY,
    TIMECODE_RATE_KEY,
    TIMECODE_RUN_KEY,
    Control,
    ControlKind,
    controls_of,
    limiter_key,
    low_cut_key,
    pad_key,
)
from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.model import Device, Plan, Run


class Aspect(Flag):
    """What of a plan can change without the rest.

    LEVELS: gains, attenuators, limiters, low cuts, automatic levels. WIRING: all that has no part of its own.
    """

    LEVELS = auto()
    STRAIN = auto()
    RADIO = auto()
    POWER = auto()
    CLOCK = auto()
    RATES = auto()
    WIRING = auto()


NOTHING_CHANGED: Final = Aspect(0)
"""ASSUMED_ name for no aspect at all."""


_ASIDE: Final = frozenset({"name", "devices", "runs", "set_ups", "moves"})
"""Looked at thing by thing, or nothing that a finding rests on. [PRACTICE] of software"""


def changed_aspects(before: Plan, after: Plan) -> Aspect:
    """What differs between two plans of which one was made from the other by edits."""
    others = (item.name for item in fields(Plan) if item.name not in _ASIDE)
    if any(getattr(before, name) is not getattr(after, name) for name in others):
        return Aspect.WIRING
    found = NOTHING_CHANGED
    for run_id in changed_keys(before.runs, after.runs):
        found |= _of_run(before.runs.get(run_id), after.runs.get(run_id))
    index = PlanIndex(after)
    for device_id in changed_keys(before.devices, after.devices):
        found |= _of_device(index, before.devices.get(device_id), after.devices.get(device_id))
    return found


def changed_keys(before: Mapping[str, object], after: Mapping[str, object]) -> Iterator[str]:
    """Keys under which two mappings hold different things, or only one holds something."""
    if before is not after:
        yield from (key for key in {**before, **after} if before.get(key) is not after.get(key))


def _of_run(was: Run | None, now: Run | None) -> Aspect:
    if was is None or now is None or was != replace(now, strain_relief=was.strain_relief):
        return Aspect.WIRING
    return Aspect.STRAIN


def _of_device(index: PlanIndex, was: Device | None, now: Device | None) -> Aspect:
    if was is None or now is None or was != replace(now, settings=was.settings, jam=was.jam, place=was.place):
        return Aspect.WIRING
    found = Aspect.CLOCK if was.jam != now.jam else NOTHING_CHANGED
    controls = controls_of(index.placed(now.id).device_class)
    for name in {*was.settings, *now.settings}:
        if was.settings.get(name) != now.settings.get(name):
            found |= _of_control(controls[name]) if name in controls else Aspect.WIRING
    return found


_BY_KEY: Final[Mapping[str, Aspect]] = {
    CAPSULE_PAD_KEY: Aspect.LEVELS,
    POWER_KEY: Aspect.POWER,
    SAMPLE_RATE_KEY: Aspect.RATES,
    TIMECODE_RATE_KEY: Aspect.CLOCK,
    TIMECODE_RUN_KEY: Aspect.CLOCK,
}


def _of_control(control: Control) -> Aspect:
    port = control.port
    if control.kind is ControlKind.KNOB or control.id in (pad_key(port), limiter_key(port), low_cut_key(port)):
        return Aspect.LEVELS
    if control.kind is ControlKind.FREQUENCY:
        return Aspect.RADIO
    if control.id.startswith(f"{port}.auto."):
        return Aspect.LEVELS
    return _BY_KEY.get(control.id, Aspect.WIRING)
