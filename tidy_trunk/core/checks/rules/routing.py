"""Rules on which input goes to which track."""

from collections.abc import Iterator
from itertools import combinations
from typing import Final

from tidy_trunk.core.catalogue import FOUR_TRACKS_KEY, Bus, channel_refs, gain_key, link_key
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.plan import Edit, RouteBus, SetControl, Unit

SAFETY_DB: Final = 10.0
"""How far a safety track lies below the first: 6 to 20 dB. [PRACTICE]"""


@rule
def input_without_track(situation: Situation) -> Iterator[Finding]:
    """A plug in an input that no track takes. [HANDBOOK] §4"""
    taken: dict[str, set[str]] = {}
    for joint in situation.joints:
        unit = joint.receiver
        if not unit.device_class.is_recording or not joint.input.circuit.is_analogue:
            continue
        if unit.device.id not in taken:
            taken[unit.device.id] = {ref for bus in _recorded(unit) for ref in unit.bus_inputs(bus)}
        free = [ref for ref in _reached(joint) if ref not in taken[unit.device.id]]
        if not free or _waits_for_four_tracks(unit, free[0]):
            continue
        track = _track_for(unit)
        fixes: tuple[Fix, ...] = ()
        if track is not None:
            built_in = [ref for ref in unit.bus_inputs(track) if _is_built_in(situation, unit, ref)]
            kept = tuple(ref for ref in unit.bus_inputs(track) if ref not in built_in)
            edit: Edit = RouteBus(device=unit.device.id, bus=track.id, inputs=(*kept, free[0]))
            fixes = (Fix(f"Route {joint.input.label} to track {track.label}", (edit,)),)
        yield Finding(
            rule="input-without-track",
            severity=Severity.CAUTION,
            title=f"{joint.socket} goes to no track",
            text=f"Run {joint.run.number} ends at {joint.socket}, and no track of {unit.label} takes it: it is heard perhaps, never recorded.",
            source="HANDBOOK",
            device=unit.device.id,
            run=joint.run.id,
            fixes=fixes,
        )


@rule
def built_in_microphone(situation: Situation) -> Iterator[Finding]:
    """A track that takes the built-in microphone while a plug waits at an input that no track takes. [PRACTICE]"""
    for unit in situation.rig.units():
        if not any(port.plug.connector == "inside" for port in unit.device_class.inputs):
            continue
        waiting = [
            joint
            for joint in situation.joints
            if joint.receiver.device.id == unit.device.id
            and joint.input.circuit.is_analogue
            and not any(set(channel_refs(joint.input)) & set(unit.bus_inputs(bus)) for bus in _recorded(unit))
        ]
        for bus in _recorded(unit):
            refs = unit.bus_inputs(bus)
            if not waiting or not refs or not all(_is_built_in(situation, unit, ref) for ref in refs):
                continue
            joint = waiting.pop(0)
            edit: Edit = RouteBus(device=unit.device.id, bus=bus.id, inputs=(channel_refs(joint.input)[0],))
            yield Finding(
                rule="built-in-microphone",
                severity=Severity.STOP,
                title=f"Track {bus.label} takes the built-in microphone",
                text=(
                    f"{unit.bus_label(bus.id)} records the microphone inside {unit.label}, not run {joint.run.number} at "
                    f"{joint.socket}. The meter moves all the same."
                ),
                source="PRACTICE",
                device=unit.device.id,
                track=f"{unit.device.id}.{bus.id}",
                fixes=(Fix(f"Route {joint.input.label} to track {bus.label}", (edit,)),),
                verify="Scratch the microphone that is meant, and watch which track moves.",
            )


@rule
def four_track_mode(situation: Situation) -> Iterator[Finding]:
    """Four-track mode off though a socket is used that only tracks 3 and 4 take. [HANDBOOK] §10, [PRACTICE]"""
    for joint in situation.joints:
        unit = joint.receiver
        if not any(bus.needs_four_tracks for bus in unit.device_class.buses):
            continue
        refs = set(channel_refs(joint.input))
        buses = [bus for bus in unit.device_class.buses if refs & set(unit.bus_inputs(bus))]
        if any(unit.is_recorded(bus) for bus in buses) or not any(bus.needs_four_tracks for bus in buses):
            continue
        on = SetControl(device=unit.device.id, control=FOUR_TRACKS_KEY, value=True)
        yield Finding(
            rule="four-track-mode",
            severity=Severity.STOP,
            title="Four-track mode is off",
            text=(
                f"{joint.socket} goes to tracks {' and '.join(bus.label for bus in buses)} of {unit.label}, which exist only in its "
                f"four-track mode. Run {joint.run.number} is not recorded."
            ),
            source="PRACTICE",
            device=unit.device.id,
            run=joint.run.id,
            fixes=(Fix(f"Switch {unit.label} to four tracks", (on,)),),
        )


@rule
def safety_on_one_knob(situation: Situation) -> Iterator[Finding]:
    """The same source on two tracks whose gain is one knob: no safety at all. [HANDBOOK] §6"""
    for first, second in _doubled(situation):
        unit = first.receiver
        leader = unit.leader_of(second.input)
        if leader.id != unit.leader_of(first.input).id:
            continue
        yield Finding(
            rule="safety-on-one-knob",
            severity=Severity.CAUTION,
            title="Both tracks on one knob",
            text=(
                f"Runs {first.run.number} and {second.run.number} bring {first.sender.label} to two inputs of {unit.label}, and one "
                "knob moves both: what clips one clips the other. Give the second its own knob, 6 to 20 dB lower."
            ),
            source="HANDBOOK",
            device=unit.device.id,
            run=second.run.id,
            fixes=_part_knobs(unit, leader.id, first, second),
        )


def _doubled(situation: Situation) -> Iterator[tuple[Joint, Joint]]:
    """Pairs of runs that bring one output to two inputs of one device."""
    by_run = {joint.run.id: joint for joint in situation.joints}
    for runs in situation.rig.leaving.values():
        for one, other in combinations(runs, 2):
            first, second = by_run[one.id], by_run[other.id]
            if first.receiver.device.id == second.receiver.device.id and first.input.id != second.input.id:
                yield first, second


def _part_knobs(unit: Unit, leader: str, first: Joint, second: Joint) -> tuple[Fix, ...]:
    edits: list[Edit] = [SetControl(device=unit.device.id, control=link_key(leader), value=False)]
    lower = second if second.input.id != leader else first
    if lower.takes.gain is not None:
        wanted = lower.takes.gain.nearest_db(unit.gain_db(lower.input, lower.takes) - SAFETY_DB)
        key = gain_key(lower.input.id, lower.takes.id)
        edits.append(SetControl(device=unit.device.id, control=key, value=wanted))
    return (Fix(f"Own knob for {lower.input.label}, {SAFETY_DB:g} dB lower", tuple(edits)),)


def _waits_for_four_tracks(unit: Unit, ref: str) -> bool:
    return any(bus.needs_four_tracks and ref in unit.bus_inputs(bus) for bus in unit.device_class.buses)


def _recorded(unit: Unit) -> list[Bus]:
    return [bus for bus in unit.device_class.buses if unit.is_recorded(bus)]


def _reached(joint: Joint) -> list[str]:
    """The channels of the input on which something arrives."""
    return [ref for ref, heard in zip(channel_refs(joint.input), joint.link.heard, strict=True) if heard]


def _is_built_in(situation: Situation, unit: Unit, ref: str) -> bool:
    return situation.rig.input_channel(unit, ref)[0].plug.connector == "inside"


def _track_for(unit: Unit) -> Bus | None:
    """The first track that takes nothing, else the first."""
    recorded = _recorded(unit)
    return next((bus for bus in recorded if not unit.bus_inputs(bus)), recorded[0] if recorded else None)
