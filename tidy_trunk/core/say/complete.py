"""Ways to go on typing."""

from collections.abc import Iterable, Iterator, Sequence
from typing import Final

from tidy_trunk.core.catalogue import ControlKind, controls_of
from tidy_trunk.core.plan import Hazard, Plan, Rig, Unit
from tidy_trunk.core.say.runs import RUN_VERBS, TO
from tidy_trunk.core.say.words import find_classes, find_devices, matches, near_classes, split_words

MOST: Final = 6
"""ASSUMED_ completions shown at most."""

_VERBS = (
    "add ",
    "copy ",
    "feed ",
    "length run ",
    "lead run ",
    "move run ",
    "path run ",
    "remove ",
    "rename ",
    "route ",
    "set ",
    "tie run ",
)
_OF_DEVICES = ("copy", "remove", "rename", "route", "feed", "set")


def beginnings(plan: Plan) -> tuple[str, ...]:
    """How a line may begin."""
    if not plan.devices:
        return ("add ",)
    return ("add ", *(f"{device.label.lower()} to " for device in list(plan.devices.values())[:MOST]))


def completions(plan: Plan, line: str) -> tuple[str, ...]:
    """Whole lines that go on from what is typed, at most six."""
    found = dict.fromkeys(item for item in _all(plan, line) if item.strip() != line.strip())
    return tuple(found)[:MOST]


def _all(plan: Plan, line: str) -> Iterator[str]:
    lower = line.lower()
    verb, _, rest = lower.partition(" ")
    if " " not in lower:
        yield from (item for item in _VERBS if item.startswith(lower))
    if verb == "add":
        wanted, named, labels = rest.partition(" as ")
        typed = split_words(wanted)
        classes = (find_classes(plan, typed) or near_classes(typed)) if typed else []
        yield from (f"add {item.label.lower()}{named}{labels}" for item in classes)
        return
    if verb in RUN_VERBS:
        yield from _of_run(plan, verb, rest)
        return
    if verb in _OF_DEVICES:
        yield from (f"{verb} {name}" for name in _names(plan, split_words(rest)))
        if verb == "set":
            yield from _controls(plan, rest)
        return
    if TO.search(line + " "):
        start, end = TO.split(line + " ", maxsplit=1)
        typed = split_words(end)
        units = [unit for unit in Rig(plan).units() if unit.device_class.inputs]
        yield from (f"{start} to {label}" for label in _labels(units, typed))
        for match in find_devices(Rig(plan), typed):
            ports = [port for port in match.unit.device_class.inputs if matches(match.rest, port.label, port.id)]
            yield from (f"{start} to {match.unit.label.lower()} {port.label.lower()}" for port in ports)
        return
    units = [unit for unit in Rig(plan).units() if unit.device_class.outputs]
    yield from (f"{label} to " for label in _labels(units, split_words(line)))


def _labels(units: Iterable[Unit], typed: Sequence[str]) -> list[str]:
    return [unit.label.lower() for unit in units if matches(typed, unit.label) or matches(typed, unit.device.id)]


def _names(plan: Plan, typed: Sequence[str]) -> list[str]:
    labels = [*(device.label for device in plan.devices.values()), *(source.label for source in plan.sources.values())]
    return [f"{label.lower()} " for label in labels if matches(typed, label)]


def _of_run(plan: Plan, verb: str, rest: str) -> Iterator[str]:
    number = "".join(split_words(rest)[1:2])
    runs = [run for run in plan.runs.values() if str(run.number).startswith(number)]
    after = {"path": ": ", "lead": " by ", "move": " to ", "length": " "}.get(verb, "")
    if " " not in rest.removeprefix("run ").strip() and ":" not in rest:
        yield from (f"{verb} run {run.number}{after}" for run in runs)
    elif verb == "path" and " past " in rest:
        begun, _, last = rest.rpartition(" past ")
        yield from (
            f"path {begun} past {hazard.lower()}" for hazard in Hazard if hazard.lower().startswith(last.strip())
        )


def _controls(plan: Plan, rest: str) -> Iterator[str]:
    for match in find_devices(Rig(plan), split_words(rest)):
        unit = match.unit
        for control in controls_of(unit.device_class).values():
            port = unit.port(control.port).label.lower() + " " if control.port else ""
            if control.kind is not ControlKind.KNOB and not match.rest:
                continue  # with nothing said, only the knobs: they are what is set most
            if matches(match.rest, port, control.label):
                yield f"set {unit.label.lower()} {port}{control.label.lower()} "
