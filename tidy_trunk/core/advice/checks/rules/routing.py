"""Rules on which input goes to which track."""

from collections.abc import Iterator
from itertools import combinations
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, rule
from tidy_trunk.core.gear.catalogue import INSIDE, Bus, channel_refs
from tidy_trunk.core.plan import PlacedDevice

SAFETY_DB: Final = 10.0
"""How far a safety track lies below the first: 6 to 20 dB. [PRACTICE]"""


@rule
def input_without_track(situation: Situation) -> Iterator[Finding]:
    """A plug in an input that no track takes. [HANDBOOK] §4"""
    taken: dict[str, set[str]] = {}
    for joint in situation.joints:
        placed = joint.receiver
        if not placed.device_class.is_recording or not joint.input.circuit.is_analogue:
            continue
        if placed.device.id not in taken:
            taken[placed.device.id] = {ref for bus in _recorded(placed) for ref in placed.bus_inputs(bus)}
        free = [ref for ref in _reached(joint) if ref not in taken[placed.device.id]]
        if not free or _waits_for_a_switch(placed, free[0]):
            continue
        yield Finding(
            rule="input-without-track",
            severity=Severity.CAUTION,
            source="HANDBOOK",
            device=placed.device.id,
            run=joint.run.id,
        )


@rule
def built_in_microphone(situation: Situation) -> Iterator[Finding]:
    """A track that takes the built-in microphone while a plug waits at an input that no track takes. [PRACTICE]"""
    for placed in situation.index.placed_devices():
        if not any(port.plug.connector == INSIDE for port in placed.device_class.inputs):
            continue
        waiting = [
            joint
            for joint in situation.joints
            if joint.receiver.device.id == placed.device.id
            and joint.input.circuit.is_analogue
            and not any(set(channel_refs(joint.input)) & set(placed.bus_inputs(bus)) for bus in _recorded(placed))
        ]
        for bus in _recorded(placed):
            refs = placed.bus_inputs(bus)
            if not waiting or not refs or not all(_is_built_in(situation, placed, ref) for ref in refs):
                continue
            yield Finding(
                rule="built-in-microphone",
                severity=Severity.STOP,
                facts={"waiting": waiting.pop(0).run.id},
                source="PRACTICE",
                device=placed.device.id,
                tracks=(f"{placed.device.id}.{bus.id}",),
            )


@rule
def four_track_mode(situation: Situation) -> Iterator[Finding]:
    """Four-track mode off though a socket is used that only tracks 3 and 4 take. [HANDBOOK] §10, [PRACTICE]"""
    for joint in situation.joints:
        placed = joint.receiver
        if not any(bus.needs_four_tracks for bus in placed.device_class.buses):
            continue
        refs = set(channel_refs(joint.input))
        buses = [bus for bus in placed.device_class.buses if refs & set(placed.bus_inputs(bus))]
        if any(placed.is_recorded(bus) for bus in buses) or not any(bus.needs_four_tracks for bus in buses):
            continue
        yield Finding(
            rule="four-track-mode",
            severity=Severity.STOP,
            facts={"buses": tuple(bus.id for bus in buses)},
            source="PRACTICE",
            device=placed.device.id,
            run=joint.run.id,
        )


@rule
def track_not_armed(situation: Situation) -> Iterator[Finding]:
    """A socket is used, and of the tracks that take it none is armed. [PRACTICE]"""
    told = set()
    for joint in situation.joints:
        placed = joint.receiver
        refs = set(channel_refs(joint.input))
        buses = [bus for bus in placed.device_class.buses if bus.recorded and refs & set(placed.bus_inputs(bus))]
        off = tuple(bus.id for bus in buses if bus.armed is not None)
        where = (placed.device.id, joint.input.id)
        if not off or where in told or any(placed.is_recorded(bus) for bus in buses):
            continue
        told.add(where)
        yield Finding(
            rule="track-not-armed",
            severity=Severity.STOP,
            facts={"buses": off},
            source="PRACTICE",
            device=placed.device.id,
            run=joint.run.id,
        )


@rule
def safety_on_one_knob(situation: Situation) -> Iterator[Finding]:
    """The same source on two tracks whose gain is one knob: no safety at all. [HANDBOOK] §6"""
    for first, second in _doubled(situation):
        placed = first.receiver
        leader = placed.leader_of(second.input)
        if leader.id != placed.leader_of(first.input).id:
            continue
        yield Finding(
            rule="safety-on-one-knob",
            severity=Severity.CAUTION,
            facts={"first": first.run.id},
            source="HANDBOOK",
            device=placed.device.id,
            run=second.run.id,
        )


def _doubled(situation: Situation) -> Iterator[tuple[Joint, Joint]]:
    """Pairs of runs that bring one output to two inputs of one device."""
    by_run = {joint.run.id: joint for joint in situation.joints}
    for runs in situation.index.leaving.values():
        for one, other in combinations(runs, 2):
            first, second = by_run[one.id], by_run[other.id]
            if first.receiver.device.id == second.receiver.device.id and first.input.id != second.input.id:
                yield first, second


def _waits_for_a_switch(placed: PlacedDevice, ref: str) -> bool:
    """Whether a track takes it that is only not armed, or only there in four-track mode."""
    return any(
        (bus.needs_four_tracks or bus.armed is not None) and bus.recorded and ref in placed.bus_inputs(bus)
        for bus in placed.device_class.buses
    )


def _recorded(placed: PlacedDevice) -> list[Bus]:
    return [bus for bus in placed.device_class.buses if placed.is_recorded(bus)]


def _reached(joint: Joint) -> list[str]:
    """The channels of the input on which something arrives."""
    return [ref for ref, heard in zip(channel_refs(joint.input), joint.link.heard, strict=True) if heard]


def _is_built_in(situation: Situation, placed: PlacedDevice, ref: str) -> bool:
    return situation.index.input_channel(placed, ref)[0].plug.connector == INSIDE
