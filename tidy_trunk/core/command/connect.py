"""What the program would use for a run that was said: ports, leads, pad, switches, power and gain."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.advice.adviser import Adviser, ConnectionMethod, MatchedRun, Matcher
from tidy_trunk.core.advice.checks import Finding, PlacedFinding
from tidy_trunk.core.advice.options import arming, switched
from tidy_trunk.core.command.proposal import Proposal, single
from tidy_trunk.core.command.words import DeviceMatch, find_ports
from tidy_trunk.core.gear.catalogue import (
    CELL_KEY,
    Circuit,
    DeviceKind,
    InputPort,
    OutputPort,
    Signal,
    built_in,
    mode_key,
)
from tidy_trunk.core.plan import (
    AddDevice,
    Connect,
    Edit,
    Message,
    PlacedDevice,
    Plan,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    SetParts,
    apply_edits,
    edited,
    message,
)
from tidy_trunk.core.sound.cable_chains import (
    JOINT_M,
    CableChain,
    find_cable_chains,
    is_timecode_as_sound,
    keeping_loss,
    usual_length_m,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import is_powered, trace_plan, upstream_of
from tidy_trunk.core.time.clock import kept_for_timecode
from tidy_trunk.errors import TidyTrunkError

MOST_PROPOSALS: Final = 6
"""ASSUMED_ how many answers a line gives at most: more is no choice."""


PAIRS_TRIED: Final = 2
"""ASSUMED_ pairs of sockets of which answers are given; where nothing can be done between these, the next one with an answer."""


@dataclass(frozen=True, slots=True)
class _Pair:
    """Two ports with the leads between them. `before`: what another run is made with first, so that both can share a plug."""

    output: OutputPort
    input: InputPort
    join: CableChain
    before: tuple[Edit, ...] = ()


def propose_runs(
    plan: Plan, sender: DeviceMatch, receiver: DeviceMatch, length_m: float | None, through: Sequence[str] = ()
) -> Iterator[Proposal]:
    """Runs between two devices, best first: as the program would do it, then exactly as it was said.

    `length_m`: None for the usual one. `through`: leads of which one was asked for; then it is taken, and nothing else
    is matched.
    """
    adviser = Adviser(Report(trace_plan(plan)))
    for lead in through or ("",):
        pairs = _pairs(plan, sender, receiver, length_m, lead)
        answers: dict[tuple[str, str], list[tuple[MatchedRun, Message]]] = {}  # by ports: the best cables between them
        for at, pair in enumerate(pairs):
            ports = (pair.output.id, pair.input.id)
            if not answers.get(ports) and (at < PAIRS_TRIED or not any(answers.values())):
                answers[ports] = list(_for_pair(adviser, sender.placed, receiver.placed, pair, lead))
        found: list[tuple[MatchedRun, Message]] = []
        for answer in (answer for between in answers.values() for answer in between):
            if all(answer[0].plan != other.plan for other, _ in found):  # two sockets may both be left for a third one
                found.append(answer)
        # One without a stop comes before one with; else the pair that fits what was said.
        found.sort(key=lambda item: bool(item[0].stops))
        for matched, does in found:
            outcome = _outcome(matched.plan, matched.move.edits)
            stops = _placed(matched.stops, PlanIndex(matched.plan))
            yield Proposal(plan, matched.move.edits, does, outcome, stops)
        if pairs:
            return


def plain_run(plan: Plan, sender: DeviceMatch, receiver: DeviceMatch) -> tuple[Edit, ...]:
    """A run of usual length by a cable that is right for both ends, with the switches that its microphone needs and nothing
    else set; empty where there is none."""
    for pair in _pairs(plan, sender, receiver, None, ""):
        if pair.join.is_right:
            try:
                edits = _made(plan, sender.placed, receiver.placed, pair)
                apply_edits(plan, edits)
            except TidyTrunkError:
                continue
            return edits
    return ()


def propose_leads(plan: Plan, run: Run, leads: Sequence[str]) -> list[Proposal]:
    """A run by each of some leads that fits it; those after which a stop stands come last, and say so."""
    adviser = Adviser(Report(trace_plan(plan)))
    found = []
    for edit in [edit for lead in leads for edit in _by_lead(adviser.report.index, run, lead)][:MOST_PROPOSALS]:
        tried = adviser.tried([edit])
        stops = () if tried is None else _placed(adviser.new_stops(tried), tried.question.index)
        found.append(replace(single(plan, edit), stops=stops))
    return sorted(found, key=lambda proposal: bool(proposal.stops))


def _by_lead(index: PlanIndex, run: Run, lead: str) -> Iterator[SetParts]:
    """The best chain with a certain lead between the ports of a run; nothing where it does not fit.

    An attenuator stays at the receiving end, unless its plain twin was asked for.
    """
    output = index.placed(run.sending.device).output(run.sending.port)
    port = index.placed(run.receiving.device).input(run.receiving.port)
    two_way = next((part for part in run.parts if part.branch), None)
    branch, shared = (two_way.branch, two_way.shared) if two_way else ("", "")
    length_m = max(run.length_m, JOINT_M)
    joins = find_cable_chains(
        output, port, length_m=length_m, branch=branch, shared=shared, own=index.plan.leads, through=lead
    )
    for join in joins[:1]:
        padded = [item for item, _ in index.leads_of(run) if item.loss_db is not None]
        loss_db = sum(item.loss_db.value for item in padded if item.loss_db is not None)
        is_plain_twin = any(lead in item.replaces for item in padded)
        yield SetParts(run=run.id, parts=join.parts if is_plain_twin else keeping_loss(join.parts, loss_db, port))


def _pairs(plan: Plan, sender: DeviceMatch, receiver: DeviceMatch, length_m: float | None, through: str) -> list[_Pair]:
    index = PlanIndex(plan)
    is_listened_to = receiver.placed.device_class.kind is DeviceKind.HEADPHONES
    found: list[tuple[tuple[float, ...], _Pair]] = []
    for output in find_ports(sender.placed.device_class.outputs, sender.rest):
        for order, port in enumerate(find_ports(receiver.placed.device_class.inputs, receiver.rest)):
            if not isinstance(output, OutputPort) or not isinstance(port, InputPort):
                continue
            if (output.circuit is Circuit.GENLOCK) is not (port.circuit is Circuit.GENLOCK):
                continue  # the same plug as timecode's, and neither sound nor timecode in it
            ends = (PortRef(sender.placed.device.id, output.id), PortRef(receiver.placed.device.id, port.id))
            named = built_in().leads.get(through) or index.plan.leads.get(through)
            usual_m = usual_length_m(output, port) if named is None or named.short_m is None else named.short_m
            far_m = usual_m if length_m is None else length_m
            both = None if through else _both_tails(index, ends, output, port, far_m)
            is_unasked_headphone = output.is_headphone is not is_listened_to and "headphones" not in sender.rest
            if both is not None:
                found.append(((False, 0, is_unasked_headphone, False, both.join.unbalanced_m > 1, order, 0), both))
            joins = list(_free_joins(index, ends, output, port, far_m, through))
            if joins:
                join = joins[0]
                rank = (
                    _is_unasked_timecode(output, port, (*sender.rest, *receiver.rest)),
                    len(join.faults),
                    is_unasked_headphone,
                    output.circuit.is_digital and not sender.rest,
                    join.unbalanced_m > 1,
                    order,
                    len(join.parts),
                )
                found.append((rank, _Pair(output, port, join)))
            elif not through:
                found += [
                    ((len(pair.join.faults), order), pair) for pair in _shared_plug(index, ends, output, port, far_m)
                ]
    found.sort(key=lambda item: item[0])
    return [pair for _, pair in found]


def _is_unasked_timecode(output: OutputPort, port: InputPort, said: Sequence[str]) -> bool:
    """Whether a join would record timecode where nobody has said so: sound comes first."""
    return is_timecode_as_sound(output, port) and not any(word in ("timecode", "tc", "time", "clock") for word in said)


def _free_joins(
    index: PlanIndex, ends: tuple[PortRef, PortRef], output: OutputPort, port: InputPort, length_m: float, through: str
) -> Iterator[CableChain]:
    """Joins for ports that are free, or that share a two-way lead that is there already."""
    sending, receiving = index.leaving.get(ends[0], []), index.arriving.get(ends[1], [])

    def found(branch: str = "", shared: str = "") -> list[CableChain]:
        own = index.plan.leads
        return find_cable_chains(
            output, port, length_m=length_m, branch=branch, shared=shared, own=own, through=through
        )

    if not sending and not receiving:
        plain = found()
        yield from (join for join in plain if join.is_right)
        yield from (join for join in found("L", f"{ends[1].device}-{ends[1].port}") if join.is_right)
        yield from plain
        return
    two_way = [part for run in (*sending, *receiving) for part in run.parts if part.branch == "L"]
    if two_way and len(sending) + len(receiving) == 1:
        yield from (join for join in found("R", two_way[0].shared) if any(part.branch for part in join.parts))


def _both_tails(
    index: PlanIndex, ends: tuple[PortRef, PortRef], output: OutputPort, port: InputPort, length_m: float
) -> _Pair | None:
    """Two channels of one plug into a stereo socket: each tail of the one lead into its side of the other, by two runs.

    None where a single lead does it, where something is plugged in already, or where nothing fits.
    """
    if (
        len(output.channels) != 2
        or len(port.channels) != 2
        or output.circuit.is_digital  # both channels go by one pair of wires: no tail carries one of them
        or index.leaving.get(ends[0])
        or index.arriving.get(ends[1])
    ):
        return None
    shared = f"{ends[1].device}-{ends[1].port}"

    def tails(branch: str) -> dict[tuple[str, ...], CableChain]:
        chains = find_cable_chains(output, port, length_m=length_m, branch=branch, shared=shared, own=index.plan.leads)
        return {
            tuple(part.lead for part in chain.parts): chain
            for chain in chains
            if chain.is_right and sum(bool(part.branch) for part in chain.parts) == 2
        }

    lefts, rights = tails("L"), tails("R")
    leads = next((leads for leads in lefts if leads in rights), None)
    if leads is None or any(chain.is_right for chain in find_cable_chains(output, port, length_m=length_m)):
        return None
    left = Connect(sending=ends[0], receiving=ends[1], parts=lefts[leads].parts)
    return _Pair(output, port, rights[leads], (left,))


def _shared_plug(
    index: PlanIndex, ends: tuple[PortRef, PortRef], output: OutputPort, port: InputPort, length_m: float
) -> Iterator[_Pair]:
    """A two-way lead into a stereo socket that one run holds alone: that one on the left, the new one on the right."""
    receiving = index.arriving.get(ends[1], [])
    if index.leaving.get(ends[0]) or len(receiving) != 1 or len(port.channels) != 2:
        return
    (held,) = receiving
    if any(part.branch for part in held.parts):
        return
    other, shared = index.placed(held.sending.device).output(held.sending.port), f"{ends[1].device}-{ends[1].port}"
    lefts = find_cable_chains(other, port, length_m=held.length_m, branch="L", shared=shared, own=index.plan.leads)
    rights = find_cable_chains(output, port, length_m=length_m, branch="R", shared=shared, own=index.plan.leads)
    for left in lefts:
        for right in rights:
            if left.is_right and right.is_right and _two_way(left) == _two_way(right) != "":
                yield _Pair(output, port, right, (SetParts(run=held.id, parts=left.parts),))
                return


def _two_way(join: CableChain) -> str:
    """The two-way lead of a join; "" where it has none."""
    return next((part.lead for part in join.parts if part.branch), "")


def _for_pair(
    adviser: Adviser, sender: PlacedDevice, receiver: PlacedDevice, pair: _Pair, lead: str
) -> Iterator[tuple[MatchedRun, Message]]:
    """The best way to make a run between two ports, and the same with nothing set, each with what is said of it."""
    try:
        edits = _made(adviser.plan, sender, receiver, pair)
    except TidyTrunkError:
        return
    found = Matcher(adviser).matched(edits, keeps_cable=bool(lead))
    if not found:
        return
    yield found[0], found[0].move.does[0]
    for other in found[1:]:
        does = other.move.does[0]
        if other.is_plain:
            yield other, replace(does, facts={**does.facts, "how": ConnectionMethod.UNMATCHED})
        elif other.stops == found[0].stops and other.how is not ConnectionMethod.MATCHED:
            yield other, does  # via another device


def _made(plan: Plan, sender: PlacedDevice, receiver: PlacedDevice, pair: _Pair) -> tuple[Edit, ...]:
    """What makes a run between two ports, with the switches that it cannot do without. Raises PlanError."""
    sending = PortRef(sender.device.id, pair.output.id)
    receiving = PortRef(receiver.device.id, pair.input.id)
    connect = Connect(sending=sending, receiving=receiving, parts=pair.join.parts)
    edits: tuple[Edit, ...] = (*pair.before, connect, *_switches(sender, receiver, pair))
    if sender.timecode_channels(pair.output) and pair.input.circuit.is_analogue:
        edits = (*edits, *kept_for_timecode(edited(plan, edits), receiver.device.id))
    return edits


def _switches(sender: PlacedDevice, receiver: PlacedDevice, pair: _Pair) -> Iterator[Edit]:
    """The mode that a microphone needs at the receiving end, and its power where that can be given; that which gives
    timecode, for a timecode socket."""
    port, gives = pair.input, pair.output.timecode_mode
    if port.circuit is Circuit.TIMECODE and gives is not None and sender.output_mode(pair.output) is not gives:
        yield SetControl(device=sender.device.id, control=mode_key(pair.output.id), value=gives.id)
    yield from arming(receiver, port)
    feeding = sender.device_class.feeding
    if feeding is None:
        return
    mode = receiver.input_mode(port)
    wanted = next(
        (
            item
            for item in port.modes
            if item.signal is Signal.MIC and (not feeding.needs or set(feeding.needs) & set(item.supplies))
        ),
        None,
    )
    if feeding.cell and not sender.has_cell_in and (wanted is None or not set(feeding.needs) & set(wanted.supplies)):
        yield SetControl(device=sender.device.id, control=CELL_KEY, value=True)
    if wanted is None:
        return
    if mode.signal is not Signal.MIC:
        yield SetControl(device=receiver.device.id, control=mode_key(port.id), value=wanted.id)
    for need in feeding.needs[:1]:
        yield from switched(receiver, port, need, on=True)


def _placed(stops: Sequence[Finding], index: PlanIndex) -> tuple[PlacedFinding, ...]:
    return tuple(PlacedFinding(finding, index) for finding in stops)


def _outcome(plan: Plan, edits: Sequence[Edit]) -> Message | None:
    """What is heard at the end of a run that edits have made."""
    *_, connect = (edit for edit in edits if isinstance(edit, Connect))
    # The last that was made there: its sender may have been changed for another output since.
    *_, run = (run for run in plan.runs.values() if run.receiving == connect.receiving)
    index = PlanIndex(plan)
    if not is_powered(index, run.sending.device):
        return message("no-power-here", index, device=run.sending.device)
    for track in Report(trace_plan(plan)).tracks:
        if track.trace.device != connect.receiving.device:
            continue
        # Of a socket with two sides the one that this run reaches.
        if not any(stage.run is not None and stage.run.id == run.id for stage in upstream_of(track.trace.stage)):
            continue
        bus, sound = track.trace.bus, track.sound
        if track.is_silent:
            return message("track-without-source", index, bus=bus)
        if track.clip is not None:
            return message("track-clips", index, bus=bus, by_db=track.clip.over_db)
        noise = sound.gear_noise if any(isinstance(edit, AddDevice) for edit in edits) else None
        return message(
            "track-level", index, bus=bus, average_dbfs=sound.average, peak_dbfs=sound.peak, gear_noise_dbfs=noise
        )
    return None
