"""What tells two states of a job apart, thing by thing."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields
from typing import Any, Final

from tidy_trunk.core.gear.catalogue import channel_refs, controls_of
from tidy_trunk.core.plan.index import PlacedDevice, PlanIndex
from tidy_trunk.core.plan.model import Defaults, Device, Plan
from tidy_trunk.core.plan.targets import Role

_PARTS: Final = (
    "classes",
    "leads",
    "targets",
    "devices",
    "sources",
    "runs",
    "line_ups",
    "gain_laws",
    "meters",
    "set_ups",
    "moves",
    "breaks",
    "pair_drifts",
)
"""Parts of a plan in the order in which a job is read. [PRACTICE] of software"""

_WHOLE: Final = frozenset({"line_ups", "gain_laws", "meters", "pair_drifts"})
"""What is measured at one go, and of which no single value is changed. [PRACTICE] of software"""


@dataclass(frozen=True, slots=True)
class Difference:
    """One thing that differs.

    part: a field of the plan (`devices`, `runs`, `defaults`, `name`); key: which one of it.
    what: which value of it, with `settings.`, `fed.`, `roles.` or `figures.` before a key of a device's own; "" for all of it.
    was, now: that value in both states; None where there is none.
    """

    part: str
    key: str
    what: str
    was: Any
    now: Any


def differences(before: Plan, after: Plan) -> Iterator[Difference]:
    """All that changes from one state to another, in the order in which a job is read. Both must be well formed."""
    if before.name != after.name:
        yield Difference("name", "", "", before.name, after.name)
    for field in fields(Defaults):
        was, now = getattr(before.defaults, field.name), getattr(after.defaults, field.name)
        if was != now:
            yield Difference("defaults", field.name, "", was, now)
    indexes = PlanIndex(before), PlanIndex(after)
    for part in _PARTS:
        for key, was, now in _pairs(getattr(before, part), getattr(after, part)):
            if was is None or now is None or part in _WHOLE:
                yield Difference(part, key, "", was, now)
            elif part == "devices":
                yield from _device(*indexes, was, now)
            else:
                for field in (item for item in fields(now) if item.compare):
                    values = getattr(was, field.name), getattr(now, field.name)
                    if values[0] != values[1]:
                        yield Difference(part, key, field.name, *values)


def _pairs(before: Mapping[str, Any], after: Mapping[str, Any]) -> Iterator[tuple[str, Any, Any]]:
    """Things of the same id, of which one may be missing; what is gone comes first."""
    yield from ((key, item, None) for key, item in before.items() if key not in after)
    yield from ((key, before.get(key), item) for key, item in after.items() if before.get(key) != item)


def _device(first: PlanIndex, second: PlanIndex, old: Device, new: Device) -> Iterator[Difference]:
    def changed(what: str, was: object, now: object) -> Iterator[Difference]:
        if was != now:
            yield Difference("devices", new.id, what, was, now)

    yield from changed("label", old.label, new.label)
    if old.class_id != new.class_id:  # what it can be set to is another matter then
        yield from changed("class_id", old.class_id, new.class_id)
        return
    placed, was = second.placed(new.id), first.placed(old.id)
    controls = controls_of(placed.device_class)
    for key in dict.fromkeys([*old.settings, *new.settings]):
        if key in controls:
            yield from changed(f"settings.{key}", old.settings.get(key), new.settings.get(key))
    fed = _fed(was)
    for place, feeds in _fed(placed).items():
        yield from changed(f"fed.{place}", fed[place], feeds)
    for bus in placed.device_class.buses:
        then, now = (device.roles.get(bus.id, Role.DIALOGUE) for device in (old, new))
        yield from changed(f"roles.{bus.id}", then, now)
    yield from changed("jam", old.jam, new.jam)
    yield from changed("place", old.place, new.place)
    for path in dict.fromkeys([*old.figures, *new.figures]):
        yield from changed(f"figures.{path}", old.figures.get(path), new.figures.get(path))


def _fed(placed: PlacedDevice) -> dict[str, tuple[str, ...]]:
    """What feeds each track, mix and output channel, by their ids."""
    found = {bus.id: tuple(placed.bus_inputs(bus)) for bus in placed.device_class.buses}
    for port in placed.device_class.outputs:
        for channel in channel_refs(port):
            fed = placed.fed_bus(channel)
            found[channel] = (fed.id,) if fed else ()
    return found
