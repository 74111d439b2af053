"""What the program would use for a run that was said: ports, leads, pad, switches, power and gain."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.catalogue import InputPort, OutputPort, Signal, Supply, mode_key, switch_key
from tidy_trunk.core.clock import kept_for_timecode
from tidy_trunk.core.joins import JOINT_M, Join, find_joins, is_timecode_as_sound, usual_length_m
from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import (
    Connect,
    Edit,
    Part,
    Plan,
    PortRef,
    Rig,
    Run,
    SetControl,
    Unit,
    apply_edits,
    edited,
)
from tidy_trunk.core.say.proposal import Proposal
from tidy_trunk.core.say.words import Match, find_ports
from tidy_trunk.core.trace import accept, is_powered
from tidy_trunk.core.ways import by_hand, detours, ways
from tidy_trunk.errors import TidyTrunkError

MOST_PROPOSALS: Final = 6
"""ASSUMED_ how many answers a line gives at most: more is no choice."""


@dataclass(frozen=True, slots=True)
class _Pair:
    output: OutputPort
    input: InputPort
    join: Join


def propose_runs(
    plan: Plan, sender: Match, receiver: Match, length_m: float | None, through: Sequence[str] = ()
) -> Iterator[Proposal]:
    """Runs between two devices, best first: as the program would do it, then exactly as it was said.

    `length_m`: None for the usual one. `through`: leads of which one was asked for; then it is taken, and nothing else
    is matched.
    """
    for lead in through or ("",):
        pairs = _pairs(plan, sender, receiver, length_m, lead)
        for pair in pairs[:2]:
            yield from _for_pair(plan, sender.unit, receiver.unit, pair, bare=bool(lead))
        if pairs:
            return


def leads_between(rig: Rig, run: Run, lead: str) -> Iterator[tuple[Part, ...]]:
    """The best chain with a certain lead between the ports of a run; nothing where it does not fit."""
    output = rig.unit(run.sending.device).output(run.sending.port)
    port = rig.unit(run.receiving.device).input(run.receiving.port)
    two_way = next((part for part in run.parts if part.branch), None)
    branch, shared = (two_way.branch, two_way.shared) if two_way else ("", "")
    length_m = max(run.length_m, JOINT_M)
    for join in find_joins(
        output, port, length_m=length_m, branch=branch, shared=shared, own=rig.own_leads, through=lead
    )[:1]:
        yield join.parts


def _pairs(plan: Plan, sender: Match, receiver: Match, length_m: float | None, through: str) -> list[_Pair]:
    rig = Rig(plan)
    found: list[tuple[tuple[float, ...], _Pair]] = []
    for output in find_ports(sender.unit.device_class.outputs, sender.rest):
        for order, port in enumerate(find_ports(receiver.unit.device_class.inputs, receiver.rest)):
            if not isinstance(output, OutputPort) or not isinstance(port, InputPort):
                continue
            ends = (PortRef(sender.unit.device.id, output.id), PortRef(receiver.unit.device.id, port.id))
            far_m = usual_length_m(output, port) if length_m is None else length_m
            joins = list(_free_joins(rig, ends, output, port, far_m, through))
            if joins:
                join = joins[0]
                rank = (
                    len(join.faults),
                    output.is_headphone and "headphones" not in sender.rest,
                    output.circuit.is_digital and not sender.rest,
                    join.unbalanced_m > 1,
                    order,
                    len(join.parts),
                )
                found.append((rank, _Pair(output, port, join)))
    found.sort(key=lambda item: item[0])
    return [pair for _, pair in found]


def _free_joins(
    rig: Rig, ends: tuple[PortRef, PortRef], output: OutputPort, port: InputPort, length_m: float, through: str
) -> Iterator[Join]:
    """Joins for ports that are free, or that share a two-way lead that is there already."""
    sending, receiving = rig.leaving.get(ends[0], []), rig.arriving.get(ends[1], [])

    def found(branch: str = "", shared: str = "") -> list[Join]:
        own = rig.own_leads
        return find_joins(output, port, length_m=length_m, branch=branch, shared=shared, own=own, through=through)

    if not sending and not receiving:
        plain = found()
        yield from (join for join in plain if join.is_right)
        yield from (join for join in found("L", f"{ends[1].device}-{ends[1].port}") if join.is_right)
        yield from plain
        return
    two_way = [part for run in (*sending, *receiving) for part in run.parts if part.branch == "L"]
    if two_way and len(sending) + len(receiving) == 1:
        yield from (join for join in found("R", two_way[0].shared) if any(part.branch for part in join.parts))


def _for_pair(plan: Plan, sender: Unit, receiver: Unit, pair: _Pair, *, bare: bool) -> Iterator[Proposal]:
    sending = PortRef(sender.device.id, pair.output.id)
    receiving = PortRef(receiver.device.id, pair.input.id)
    connect = Connect(sending=sending, receiving=receiving, parts=pair.join.parts)
    plain_edits: tuple[Edit, ...] = (connect, *_switches(sender, receiver, pair))
    try:
        connected = edited(plan, plain_edits)
        if is_timecode_as_sound(pair.output, pair.input):
            plain_edits = (*plain_edits, *kept_for_timecode(connected, receiver.device.id))
        run_id = next(run for run in connected.runs if run not in plan.runs)
        found = ways(Report(accept(connected)), run_id)
    except TidyTrunkError:
        return
    now = next((way for way in found if way.fits and way.sure and not way.clips), None)
    title = f"{_ends(plan, sending, receiving)}"
    plain = _proposal(plan, title, plain_edits)
    if plain is not None and not is_powered(Rig(connected), connected.runs[run_id].sending.device):
        yield plain
        yield from _by_a_box(plan, connected, run_id, title)
        return
    if not bare and now is not None and plain is not None and not _fits_already(connected, run_id):
        better = _proposal(plan, f"{title}, matched", (*plain_edits, *now.edits))
        if better is not None:
            yield better
            yield replace(plain, title=f"{title}, plain lead, nothing matched")
            return
    if plain is not None:
        yield plain


def _by_a_box(plan: Plan, connected: Plan, run_id: str, title: str) -> Iterator[Proposal]:
    """Where the socket cannot power the microphone: the quietest ways by a box between."""
    for detour in detours(Report(accept(connected)), run_id)[:2]:
        proposal = _proposal(plan, f"{title}, {detour.label[3:]}", detour.edits[1:])  # there is no run yet to take out
        if proposal is not None:
            cost = f", gear noise {detour.noise_dbfs:.0f}".replace("-", "−")
            yield replace(proposal, outcome=proposal.outcome + cost)


def _fits_already(plan: Plan, run_id: str) -> bool:
    """Whether what a run brings fits as it is, with automatic level off."""
    end = plan.runs[run_id].receiving
    unit, receiving = Rig(plan).unit(end.device), end.device
    manual = edited(plan, by_hand(unit, unit.input(end.port)))
    for track in Report(accept(manual)).tracks:
        uses = any(
            lead.run is not None and lead.run.id == run_id
            for feed, _ in track.trace.stage.feeds
            for lead, _ in feed.feeds
        )
        if track.trace.device == receiving and uses:
            return track.clip is None and track.miss_db is not None and abs(track.miss_db) <= 1
    return False


def _switches(sender: Unit, receiver: Unit, pair: _Pair) -> Iterator[Edit]:
    """The mode that a microphone needs at the receiving end, and its power where that can be given."""
    capsule = sender.device_class.capsule
    if capsule is None:
        return
    port = pair.input
    mode = receiver.input_mode(port)
    wanted = next(
        (
            item
            for item in port.modes
            if item.signal is Signal.MIC and (not capsule.needs or set(capsule.needs) & set(item.supplies))
        ),
        None,
    )
    if wanted is None:
        return
    if mode.signal is not Signal.MIC:
        yield SetControl(device=receiver.device.id, control=mode_key(port.id), value=wanted.id)
    for need in capsule.needs[:1]:
        what, places = ("plug_in", port.plug_in_places) if need is Supply.PLUG_IN else ("phantom", port.phantom_places)
        for place in places:
            yield SetControl(device=receiver.device.id, control=switch_key(port.id, what, place), value=True)


def _proposal(plan: Plan, title: str, edits: tuple[Edit, ...]) -> Proposal | None:
    steps = []
    state = plan
    try:
        for edit in edits:
            steps.append(edit.sentence(state))
            state = edit.apply(state)
        after, _ = apply_edits(plan, edits)
        outcome = _outcome(after, edits)
    except TidyTrunkError:
        return None
    return Proposal(title, tuple(steps), outcome, edits)


def _outcome(plan: Plan, edits: Sequence[Edit]) -> str:
    *_, connect = (edit for edit in edits if isinstance(edit, Connect))
    run = next(run for run in plan.runs.values() if run.receiving == connect.receiving)
    if not is_powered(Rig(plan), run.sending.device):
        label = plan.devices[run.sending.device].label
        return f"{label} has no power here: its socket cannot give it, or a lead does not pass it"
    for track in Report(accept(plan)).tracks:
        if track.trace.device != connect.receiving.device:
            continue
        if not any(feed.name == connect.receiving.port for feed, _ in track.trace.stage.feeds):
            continue
        if track.is_silent:
            return f"track {track.trace.bus}: no source yet"
        if track.clip is not None:
            return f"track {track.trace.bus}: clips by {track.clip.over_db:.1f} dB"
        return f"track {track.trace.bus}: average {track.sound.average:.0f}, peak {track.sound.peak:.0f} dBFS".replace(
            "-", "−"
        )
    return ""


def _ends(plan: Plan, sending: PortRef, receiving: PortRef) -> str:
    rig = Rig(plan)
    return f"{rig.port_label(sending)} to {rig.port_label(receiving)}"
