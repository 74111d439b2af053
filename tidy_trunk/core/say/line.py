"""The sentence line: what a typed line means, answered with what it would do before anything changes.

    add CLASS as NAME               add bag recorder as bag
    SOURCE at MICROPHONE, N m, LEVEL    founder at boom, 0.5 m, raised
    FROM to TO, N m                 boom to bag 1, 7 m
    set DEVICE PORT CONTROL VALUE   set camera b mic gain 3
    name THING as NAME              name camera 2 as camera b
    remove THING                    remove run 4

Length, level, port and "as NAME" may be left out.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.catalogue import Control, ControlKind, InputPort, Setting, controls_of, gain_key, trim_key
from tidy_trunk.core.joins import USUAL_LENGTH_M
from tidy_trunk.core.plan import (
    EFFORTS_DB_SPL,
    AddDevice,
    AddSource,
    Disconnect,
    Edit,
    Hear,
    Plan,
    PortRef,
    RemoveDevice,
    RemoveSource,
    RenameDevice,
    Rig,
    Run,
    SetControl,
    SetSource,
    Unit,
    apply_edits,
)
from tidy_trunk.core.say.connect import MOST_PROPOSALS, Proposal, propose_runs
from tidy_trunk.core.say.words import (
    Match,
    find_classes,
    find_devices,
    find_ports,
    find_sources,
    matches,
    split_words,
)
from tidy_trunk.errors import TidyTrunkError

_LENGTH = re.compile(r"[,\s]\s*(\d+(?:[.,]\d+)?)\s*m\b")
_LEVEL = re.compile(r"[,\s]\s*(\d+(?:[.,]\d+)?)\s*db\b(?:\s*spl)?", re.IGNORECASE)
_TO = re.compile(r"\s+(?:to|into|->|>|→)\s+")
USUAL_DISTANCE_M: Final = 0.5
"""ASSUMED_ distance of a microphone when none is said: a boom just out of frame."""


@dataclass(frozen=True, slots=True)
class Answer:
    """Proposals to choose from, ways to go on typing, and what was not understood."""

    proposals: tuple[Proposal, ...]
    completions: tuple[str, ...]
    problem: str


def say(plan: Plan, text: str) -> Answer:
    """What a line means in this plan; never raises for what is typed."""
    line = " ".join(text.split())
    if not line:
        return Answer((), _beginnings(plan), "")
    try:
        proposals = tuple(_understand(plan, line))[:MOST_PROPOSALS]
        problem = "" if proposals else f"nothing here answers to '{line}': look at the names in Runs"
    except TidyTrunkError as error:
        proposals, problem = (), error.message
    further = tuple(found for found in _completions(plan, line) if found.strip() != line)
    return Answer(proposals, further, problem)


def _understand(plan: Plan, line: str) -> Iterator[Proposal]:
    first, _, rest = line.partition(" ")
    verbs = {"add": _add, "set": _set, "name": _name, "remove": _remove}
    if first.lower() in verbs and rest:
        yield from verbs[first.lower()](plan, rest)
    elif _TO.search(line):
        yield from _run(plan, line)
    elif re.search(r"\sat\s", line):
        yield from _hear(plan, line)
    else:
        raise _NotUnderstood(
            f"'{line}' is not understood yet. Say a run (boom to bag 1, 7 m), add bag recorder, founder at boom, or set bag 1 gain 40."
        )


class _NotUnderstood(TidyTrunkError):
    default_code = "say"


def _single(plan: Plan, *edits: Edit) -> Proposal:
    _, sentence = apply_edits(plan, edits)
    return Proposal(sentence, (), "", tuple(edits))


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _add(plan: Plan, rest: str) -> Iterator[Proposal]:
    wanted, _, label = rest.partition(" as ")
    classes = find_classes(plan, split_words(wanted))
    if not classes:
        raise _NotUnderstood(f"no class of device is called '{wanted}'")
    for found in classes:
        yield _single(plan, AddDevice(class_id=found.id, label=label.strip() or None))


def _run(plan: Plan, line: str) -> Iterator[Proposal]:
    length = _LENGTH.search(line)
    length_m = _number(length.group(1)) if length else USUAL_LENGTH_M
    start, end = _TO.split(_LENGTH.sub("", line), maxsplit=1)
    rig = Rig(plan)
    senders, receivers = (find_devices(rig, split_words(words)) for words in (start, end))
    for words, found in ((start, senders), (end, receivers)):
        if not found:
            raise _NotUnderstood(f"no device here is called '{words.strip()}'. Add it first: add CLASS as NAME")
    count = 0
    for sender in senders[:3]:
        for receiver in receivers[:3]:
            for proposal in propose_runs(plan, sender, receiver, length_m):
                count += 1
                yield proposal
    if not count:
        in_the_way = _plugs_in_the_way(rig, senders[0], receivers[0])
        if in_the_way is not None:
            raise _NotUnderstood(
                f"{rig.run_label(in_the_way)} holds that plug: say remove run {in_the_way.number} first"
            )
        raise _NotUnderstood(
            f"nothing joins {senders[0].unit.label} to {receivers[0].unit.label} as said: no such port, all are taken, or no lead fits"
        )


def _plugs_in_the_way(rig: Rig, sender: Match, receiver: Match) -> Run | None:
    """A run that holds the only port that was said, on either side; None where one of them has no such port."""
    outputs = find_ports(sender.unit.device_class.outputs, sender.rest)
    inputs = find_ports(receiver.unit.device_class.inputs, receiver.rest)
    if not outputs or not inputs:
        return None
    for match, ports, runs in ((sender, outputs, rig.leaving), (receiver, inputs, rig.arriving)):
        held = [run for port in ports for run in runs.get(PortRef(match.unit.device.id, port.id), [])]
        if len(ports) == 1 and held:
            return held[0]
    return None


def _hear(plan: Plan, line: str) -> Iterator[Proposal]:
    who, _, where = line.partition(" at ")
    distance, level = _LENGTH.search(where), _LEVEL.search(where)
    distance_m = _number(distance.group(1)) if distance else USUAL_DISTANCE_M
    effort = next((name for name in reversed(list(EFFORTS_DB_SPL)) if re.search(rf"\b{name}\b", where)), None)
    average = _number(level.group(1)) if level else EFFORTS_DB_SPL.get(effort or "")
    rest = _LEVEL.sub("", _LENGTH.sub("", where))
    words = split_words(rest.replace(effort, "") if effort else rest)
    microphones = [match.unit for match in find_devices(Rig(plan), words) if match.unit.device_class.capsule]
    if not microphones:
        raise _NotUnderstood(f"no microphone here is called '{' '.join(words)}'")
    known = find_sources(plan, split_words(who))
    for unit in microphones:
        if not known:
            level_db = EFFORTS_DB_SPL["normal"] if average is None else average
            yield _single(
                plan,
                AddSource(
                    label=who.strip().capitalize(), average_db_spl=level_db, heard_by={unit.device.id: distance_m}
                ),
            )
        for source in known:
            edits: list[Edit] = [Hear(source=source.id, device=unit.device.id, distance_m=distance_m)]
            if average is not None:
                up = source.peak_db_spl - source.average_db_spl
                down = source.average_db_spl - source.quiet_db_spl
                edits.append(
                    SetSource(
                        source=source.id, quiet_db_spl=average - down, average_db_spl=average, peak_db_spl=average + up
                    )
                )
            yield _single(plan, *edits)


def _set(plan: Plan, rest: str) -> Iterator[Proposal]:
    *words, value = rest.lower().replace("−", "-").split()
    found = find_devices(Rig(plan), split_words(" ".join(words)))
    if not found:
        raise _NotUnderstood("say which device, which control and the value: set bag 1 gain 40")
    for match in found:
        controls = controls_of(match.unit.device_class).values()
        for control in controls:
            port = match.unit.port(control.port).label if control.port else ""
            if matches(match.rest, port, control.label, control.id) and _is_current(match.unit, control):
                setting = _setting(control, value)
                if setting is not None:
                    yield _single(plan, SetControl(device=match.unit.device.id, control=control.id, value=setting))


def _is_current(unit: Unit, control: Control) -> bool:
    """Knobs exist once for each mode: only that of the mode now set is meant."""
    if control.kind is not ControlKind.KNOB:
        return True
    port = unit.port(control.port)
    mode = unit.input_mode(port) if isinstance(port, InputPort) else unit.output_mode(port)
    return control.id in (gain_key(port.id, mode.id), trim_key(port.id, mode.id))


def _setting(control: Control, value: str) -> Setting | None:
    if control.kind is ControlKind.SWITCH:
        return {"on": True, "off": False}.get(value)
    if control.kind is ControlKind.CHOICE:
        return next((option for option, label in control.options if value in (option, label.lower())), None)
    number = re.fullmatch(r"([+-]?\d+(?:[.,]\d+)?)(?:db)?", value)
    return _number(number.group(1)) if number else None


def _name(plan: Plan, rest: str) -> Iterator[Proposal]:
    old, _, new = rest.partition(" as ")
    for match in find_devices(Rig(plan), split_words(old)):
        if new.strip() and not match.rest:
            yield _single(plan, RenameDevice(device=match.unit.device.id, label=new.strip()))
    for source in find_sources(plan, split_words(old)):
        if new.strip():
            yield _single(plan, SetSource(source=source.id, label=new.strip()))


def _remove(plan: Plan, rest: str) -> Iterator[Proposal]:
    number = re.fullmatch(r"run (\d+)", rest.strip().lower())
    if number:
        for run in plan.runs.values():
            if run.number == int(number.group(1)):
                yield _single(plan, Disconnect(run=run.id))
        return
    for match in find_devices(Rig(plan), split_words(rest)):
        if not match.rest:
            yield _single(plan, RemoveDevice(device=match.unit.device.id))
    for source in find_sources(plan, split_words(rest)):
        yield _single(plan, RemoveSource(source=source.id))


def _beginnings(plan: Plan) -> tuple[str, ...]:
    if not plan.devices:
        return ("add ",)
    return ("add ", *(f"{device.label.lower()} to " for device in list(plan.devices.values())[:6]))


def _completions(plan: Plan, line: str) -> tuple[str, ...]:
    """Whole lines that go on from what is typed."""
    lower = line.lower()
    if lower.startswith("add ") or "add".startswith(lower):
        typed = split_words(lower[4:])
        return tuple(f"add {item.label.lower()}" for item in (find_classes(plan, typed) if typed else []))[:6]
    if _TO.search(line + " "):
        start, end = _TO.split(line + " ", maxsplit=1)
        return tuple(f"{start} to {label.lower()}" for label in _labels(plan, split_words(end)))[:6]
    return tuple(f"{label.lower()} to " for label in _labels(plan, split_words(line)))[:6]


def _labels(plan: Plan, typed: Sequence[str]) -> list[str]:
    return [device.label for device in plan.devices.values() if matches(typed, device.label, device.id)]
