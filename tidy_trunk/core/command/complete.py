"""Ways to go on typing after the verb of a command, or between two devices."""

from collections.abc import Iterable, Iterator, Sequence
from typing import Final

from tidy_trunk.core.base.text import spelled
from tidy_trunk.core.command.runs import TO
from tidy_trunk.core.command.words import find_classes, find_devices, matches, near_classes, split_words
from tidy_trunk.core.gear.catalogue import INSIDE, ControlKind, controls_of
from tidy_trunk.core.plan import Hazard, PlacedDevice, Plan, PlanIndex

MOST: Final = 6
"""ASSUMED_ completions shown at most."""


def beginnings(plan: Plan) -> tuple[str, ...]:
    """How a line may begin."""
    if not plan.devices:
        return ("add ",)
    return ("add ", *(f"{device.label.lower()} to " for device in list(plan.devices.values())[:MOST]))


def nothing(plan: Plan, rest: str) -> Iterator[str]:
    """After a command whose words nobody can guess."""
    yield from ()


def classes(plan: Plan, rest: str) -> Iterator[str]:
    """Classes of devices; where the words name none, those that may be meant."""
    wanted, named, labels = rest.partition(" as ")
    typed = split_words(wanted)
    found = (find_classes(plan, typed) or near_classes(typed)) if typed else []
    yield from (f"{item.label.lower()}{named}{labels}" for item in found)


def names(plan: Plan, rest: str) -> Iterator[str]:
    """Devices and sources."""
    typed = split_words(rest)
    labels = [*(device.label for device in plan.devices.values()), *(source.label for source in plan.sources.values())]
    yield from (f"{label.lower()} " for label in labels if matches(typed, label))


def after_controls(plan: Plan, rest: str) -> Iterator[str]:
    """Devices and sources, and the controls of a device that is named."""
    yield from names(plan, rest)
    for match in find_devices(PlanIndex(plan), split_words(rest)):
        placed = match.placed
        for control in controls_of(placed.device_class).values():
            port = f"{where.lower()} " if (where := placed.where_label(control.port)) else ""
            if control.kind is not ControlKind.KNOB and not match.rest:
                continue  # with nothing said, only the knobs: they are what is set most
            if matches(match.rest, port, control.label):
                yield f"{placed.label.lower()} {port}{control.label.lower()} "


def after_run(after: str, plan: Plan, rest: str) -> Iterator[str]:
    """Runs, each with the word that follows its number."""
    number = "".join(split_words(rest)[1:2])
    if " " not in rest.removeprefix("cable ").strip() and ":" not in rest:
        runs = [run for run in plan.runs.values() if str(run.number).startswith(number)]
        yield from (f"cable {run.number}{after}" for run in runs)


def after_path(plan: Plan, rest: str) -> Iterator[str]:
    """Runs, and what a path may pass."""
    yield from after_run(": ", plan, rest)
    begun, past, last = rest.rpartition(" past ")
    if past:
        yield from (f"{begun} past {spelled(hazard)}" for hazard in Hazard if spelled(hazard).startswith(last.strip()))


def between(plan: Plan, line: str) -> Iterator[str]:
    """Devices that give something out; after `to`, devices and sockets that take it."""
    if not TO.search(line + " "):
        senders = [placed for placed in PlanIndex(plan).placed_devices() if placed.device_class.outputs]
        yield from (f"{label} to " for label in _labels(senders, split_words(line)))
        return
    start, end = TO.split(line + " ", maxsplit=1)
    typed = split_words(end)
    receivers = [placed for placed in PlanIndex(plan).placed_devices() if placed.device_class.inputs]
    yield from (f"{start} to {label}" for label in _labels(receivers, typed))
    for match in find_devices(PlanIndex(plan), typed):
        ports = [port for port in match.placed.device_class.inputs if port.plug.connector != INSIDE]
        ports = [port for port in ports if matches(match.rest, port.label, port.id)]
        yield from (f"{start} to {match.placed.label.lower()} {port.label.lower()}" for port in ports)


def _labels(placed_devices: Iterable[PlacedDevice], typed: Sequence[str]) -> list[str]:
    return [
        placed.label.lower()
        for placed in placed_devices
        if matches(typed, placed.label) or matches(typed, placed.device.id)
    ]
