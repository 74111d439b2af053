"""Lines about runs: connect, length, path, lead, other ends."""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from itertools import islice, product

from tidy_trunk.core.base.text import spelled
from tidy_trunk.core.command.connect import propose_leads, propose_runs
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal, possible, single
from tidy_trunk.core.command.words import (
    DeviceMatch,
    find_devices,
    find_leads,
    find_ports,
    named_run,
    near_classes,
    number,
    split_words,
    take_length,
)
from tidy_trunk.core.gear.catalogue import INSIDE, Circuit, InputPort, OutputPort, Port, built_in
from tidy_trunk.core.plan import (
    Connect,
    Disconnect,
    Hazard,
    MoveRun,
    Passing,
    PlacedDevice,
    Plan,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    SetParts,
    SetPath,
    SetStrainRelief,
    Stretch,
    needed_m,
    order_m,
)
from tidy_trunk.core.sound.cable_chains import SHORT_M, find_cable_chains, usual_length_m, with_length

OfRun = Callable[[Plan, Run, str], Iterator[Proposal]]

TO = re.compile(r"\s+(?:to|into|->|>|→)\s+")
_BY = re.compile(r"[,\s]\s*by\s+(.+)$")
_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_STRETCH = re.compile(r"(\d+(?:[.,]\d+)?)\s*m?(?:\s+(?:past\s+)?(.+))?")
_PASSING = re.compile(r"(.+?)(?:\s+(?:at|for)?\s*(\d+(?:[.,]\d+)?)\s*m)?")


class UnknownEndError(NotUnderstoodError):
    """A connection to or from what the job does not have."""


def ends_of(line: str) -> tuple[str, str, float | None]:
    """What a line says before its first `to` and behind it, and the length in m of either side; None where none is said.

    Raises:
        NotUnderstoodError: Nothing but a length stands on one of the sides.
    """
    start, end = TO.split(line, maxsplit=1)
    length_m, end = take_length(end)
    if length_m is None:
        length_m, start = take_length(start)
    if not start.strip(" ,") or not end.strip(" ,"):
        raise NotUnderstoodError(f"'{line.strip()}' names one end alone: say boom to bag 1, 7 m")
    return start, end, length_m


def connect(plan: Plan, line: str) -> Iterator[Proposal]:
    """`boom to bag 1, 7 m`, `hall mic to pocket, 5 m, by straight`."""
    start, end, length_m = ends_of(line)
    by = _BY.search(end)
    end = end[: by.start()] if by else end
    index = PlanIndex(plan)
    senders, receivers = (find_devices(index, split_words(words)) for words in (start, end))
    for words, found in ((start, senders), (end, receivers)):
        if not found:
            raise UnknownEndError(f"no device here is called '{words.strip(' ,')}'. Add it first: add CLASS as NAME")
    yield from joined(plan, senders[:3], receivers[:3], length_m, _leads_meant(index, by.group(1)) if by else ())


def joined(
    plan: Plan,
    senders: Sequence[DeviceMatch],
    receivers: Sequence[DeviceMatch],
    length_m: float | None,
    through: Sequence[str] = (),
) -> Iterator[Proposal]:
    """Cables from any of some devices to any of others, best first. Raises NotUnderstoodError: there is none, and why."""
    count = 0
    for sender in senders:
        for receiver in receivers:
            for proposal in propose_runs(plan, sender, receiver, length_m, through):
                count += 1
                yield proposal
    if not count:
        raise NotUnderstoodError(_why_not(PlanIndex(plan), senders[0], receivers[0], through))


def _why_not(index: PlanIndex, sender: DeviceMatch, receiver: DeviceMatch, through: Sequence[str]) -> str:
    """What was understood of a run, and why nothing comes of it. through: cables of which one was asked for."""
    first, second = sender.placed, receiver.placed
    outputs = find_ports(first.device_class.outputs, sender.rest)
    inputs = find_ports(second.device_class.inputs, receiver.rest)
    for match, ports, all_ports, what in (
        (sender, outputs, first.device_class.outputs, "output"),
        (receiver, inputs, second.device_class.inputs, "input"),
    ):
        if not ports:
            if not all_ports:
                label = match.placed.device_class.label
                article = "an" if label[0] in "AEIOU" else "a"
                near = near_classes(split_words(match.placed.label))
                meant = next(
                    (item.label.lower() for item in near if (item.inputs if what == "input" else item.outputs)), ""
                )
                return f"{match.placed.label} has no {what}: it is {article} {label[:1].lower()}{label[1:]}" + (
                    f". Did you mean the {meant}? Type: add {meant} as …" if meant else ""
                )
            known = ", ".join(port.label for port in all_ports)
            return f"{match.placed.label} has no {what} '{' '.join(match.rest)}': it has {known}"
    for output, port in product(outputs, inputs):
        held = (
            *index.leaving.get(PortRef(first.device.id, output.id), ()),
            *index.arriving.get(PortRef(second.device.id, port.id), ()),
        )
        if held and _joins_rightly(output, port):
            number = held[0].number
            if output.circuit is Circuit.TIMECODE:
                return (
                    f"That socket is in use by {index.run_label(held[0])}. Put a timecode generator of its own on {second.label}, or jam "
                    f"it in turn: jam {second.label} from {first.label} at 8:00"
                )
            return (
                f"That socket is in use by {index.run_label(held[0])}. Use a Y-cable (swap cable {number} for it by its name), move "
                f"cable {number}, or remove it"
            )
    if through and any(_joins_rightly(output, port) for output, port in product(outputs, inputs)):
        asked = index.plan.leads.get(through[0]) or built_in().leads[through[0]]
        return (
            f"{asked.label} does not fit {first.label} {outputs[0].label} and {second.label} {inputs[0].label}. Leave the cable out, "
            "and one that fits is found"
        )
    elsewhere = list(islice(_goes_into(index, first, outputs[0]), 3))
    socket = next((port for port in inputs if port.plug.connector != INSIDE), inputs[0])
    return f"nothing joins {first.label} {outputs[0].label} to {second.label} {socket.label}: no cable fits both. " + (
        f"It goes into {', '.join(elsewhere)}" if elsewhere else "No other free input here takes it either"
    )


def _joins_rightly(output: Port, port: Port) -> bool:
    if not isinstance(output, OutputPort) or not isinstance(port, InputPort):
        return False
    far_m = usual_length_m(output, port)
    return any(
        join.is_right
        for branch in ("", "L")
        for join in find_cable_chains(output, port, length_m=far_m, branch=branch, shared=branch and port.id)
    )


def _goes_into(index: PlanIndex, sender: PlacedDevice, output: Port) -> Iterator[str]:
    """Free inputs of other devices of the job that receive an output as they should."""
    for placed in index.placed_devices():
        if placed.device.id == sender.device.id:
            continue
        for port in placed.device_class.inputs:
            if not index.arriving.get(PortRef(placed.device.id, port.id)) and _joins_rightly(output, port):
                yield f"{placed.label} {port.label}"


def _leads_meant(index: PlanIndex, text: str) -> tuple[str, ...]:
    """Leads of one's own first, then those of the catalogue, whose name the words begin; the shortest name first."""
    words = split_words(text)
    own = [lead.id for lead in find_leads(index.plan.leads, words)]
    found = sorted(find_leads(built_in().leads, words), key=lambda lead: len(lead.label))
    if not own and not found:
        raise NotUnderstoodError(f"no cable is called '{text.strip()}'")
    return (*own, *(lead.id for lead in found))


def names_run(rest: str) -> bool:
    """Whether what follows a verb is meant as a run, and no device whose name begins with that verb."""
    return re.match(r"(?:cable\b|\d)", rest, re.IGNORECASE) is not None


def of_run(verb: str, meaning: OfRun, plan: Plan, rest: str) -> Iterator[Proposal]:
    """Lines that begin with a verb and the number of a run: `meaning` is given the run and what follows its number."""
    run = named_run(plan, rest)
    if run is None:
        wanted = re.search(r"\d+", rest)
        missing = f"there is no cable {wanted.group()}" if wanted else f"say which cable: {verb} cable 4"
        raise NotUnderstoodError(f"{missing}; the job has {_numbers(plan)}")
    yield from meaning(plan, *run)


def _numbers(plan: Plan) -> str:
    numbers = sorted(run.number for run in plan.runs.values())
    return f"cables {', '.join(map(str, numbers))}" if numbers else "no cables yet"


def length(plan: Plan, run: Run, rest: str) -> Iterator[Proposal]:
    """`cable 4 12 m`."""
    bare = _NUMBER.fullmatch(rest.strip())
    length_m = number(bare.group()) if bare else take_length(rest)[0]
    if length_m is None:
        raise NotUnderstoodError(f"cable {run.number} is understood; say how long: length cable {run.number} 12 m")
    parts = with_length(PlanIndex(plan), run, length_m)
    if not parts:
        raise NotUnderstoodError(
            f"cable {run.number} has no part that is made to length: say swap cable {run.number} for xlr, or connect it anew"
        )
    yield single(plan, SetParts(run=run.id, parts=parts))


def path(plan: Plan, run: Run, rest: str) -> Iterator[Proposal]:
    """`cable 4: 8 m past walkway and beside mains 2 m, then 4 m past dimmer at 0.5 m`."""
    stretches = tuple(_stretch(piece) for piece in re.split(r",?\s*\bthen\s+|;\s*", rest) if piece.strip())
    if not stretches:
        raise NotUnderstoodError(
            f"cable {run.number} is understood; say its way: path cable {run.number}: 8 m past walkway, then 4 m"
        )
    edit = SetPath(run=run.id, path=stretches)
    laid = replace(run, path=stretches)
    short = needed_m(laid, plan.defaults) > run.length_m
    parts = with_length(PlanIndex(plan), run, order_m(laid, plan.defaults)) if short else ()
    if parts:
        yield from possible(plan, edit, SetParts(run=run.id, parts=parts))
    yield single(plan, edit)


def _stretch(text: str) -> Stretch:
    found = _STRETCH.fullmatch(text.strip(" ,"))
    if not found:
        raise NotUnderstoodError(f"'{text.strip()}' is no stretch of a path: say 8 m past walkway and dimmer at 0.5 m")
    passes = [_passing(piece) for piece in re.split(r"\s*,\s*|\s+and\s+", found.group(2) or "") if piece]
    return Stretch(number(found.group(1)), tuple(passes))


def _passing(text: str) -> Passing:
    found = _PASSING.fullmatch(text.strip())
    words = split_words(found.group(1)) if found else []
    for hazard in Hazard:
        said = split_words(spelled(hazard))
        if words in (said[: len(words)], said[-len(words) :]) and words:
            metres = number(found.group(2)) if found and found.group(2) else None
            return Passing(hazard, metres)
    raise NotUnderstoodError(f"'{text.strip()}' is nothing that a cable passes: use {', '.join(map(spelled, Hazard))}")


def swap(plan: Plan, run: Run, rest: str) -> Iterator[Proposal]:
    """`cable 4 for straight`: another lead for the same ports."""
    index = PlanIndex(plan)
    found = propose_leads(plan, run, _leads_meant(index, rest.removeprefix("for ")))
    yield from found
    if not found:
        raise NotUnderstoodError(
            f"'{rest.strip()}' does not fit cable {run.number}, {index.run_label(run).split(', ', 1)[1]}"
        )


def tie(plan: Plan, run: Run, rest: str) -> Iterator[Proposal]:
    """`cable 4`: its ends are tied up."""
    yield single(plan, SetStrainRelief(run=run.id, on=rest.strip() != "off"))


def move(plan: Plan, run: Run, rest: str) -> Iterator[Proposal]:
    """`cable 4 to camera b in 2`, `cable 4 from bag out l`: another end, with the lead that fits there."""
    index = PlanIndex(plan)
    way, _, words = rest.strip().partition(" ")
    if way not in ("to", "from") or not words:
        raise NotUnderstoodError(
            f"cable {run.number} is understood; say where to: move cable {run.number} to camera b in 2"
        )
    kept = run.sending if way == "to" else run.receiving
    fixed = DeviceMatch(index.placed(kept.device), tuple(split_words(kept.port)))
    freed = Disconnect(run=run.id).apply(plan)
    for match in find_devices(index, split_words(words)):
        ends = (fixed, match) if way == "to" else (match, fixed)
        for proposal in propose_runs(freed, *ends, max(run.length_m, SHORT_M)):
            connect_edit, *switches = proposal.edits
            if isinstance(connect_edit, Connect) and all(isinstance(edit, SetControl) for edit in switches):
                sending, receiving = connect_edit.sending, connect_edit.receiving
                moved = MoveRun(run=run.id, sending=sending, receiving=receiving, parts=connect_edit.parts)
                yield single(plan, moved, *switches)
                break
