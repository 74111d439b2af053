"""Rules on what is plugged into what."""

from collections.abc import Iterator, Mapping
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, looks_at, rule
from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, Port, Signal, channel_refs
from tidy_trunk.core.gear.wiring import Fault, end_of, is_plug_of_its_own, unmated
from tidy_trunk.core.plan import Aspect, PlacedDevice, PortRef


@rule
def plugs_do_not_mate(situation: Situation) -> Iterator[Finding]:
    """Two ends in a run that do not go together. [IEC60268-12], [PRACTICE]"""
    for joint in situation.joints:
        mismatch = unmated(joint.output, [lead for lead, _ in joint.leads], joint.input)
        if mismatch is None:
            continue
        yield Finding(
            rule="plugs-do-not-mate",
            severity=Severity.STOP,
            facts={"first": mismatch.first, "second": mismatch.second},
            source="IEC60268-12",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def wrong_lead(situation: Situation) -> Iterator[Finding]:
    """A lead that mates but brings the signal wrongly: opposite sides, left minus right, inverted. [HANDBOOK] §4"""
    for joint in situation.joints:
        wrong = [fault for fault in joint.faults if fault in _WRONG]
        if joint.strange_plug is not None:
            continue  # strange-plug says it better
        for fault in wrong[:1]:
            yield Finding(
                rule="wrong-lead",
                severity=_WRONG[fault],
                facts={"fault": fault},
                source="HANDBOOK",
                device=joint.receiver.device.id,
                run=joint.run.id,
            )


_WRONG: Final[Mapping[Fault, Severity]] = {
    Fault.OPPOSITE: Severity.STOP,
    Fault.DIFFERENCE: Severity.STOP,
    Fault.NOTHING: Severity.STOP,
    Fault.FIGHTING: Severity.CAUTION,
    Fault.SHORTED: Severity.CAUTION,
    Fault.SWAPPED: Severity.CAUTION,
    Fault.INVERTED: Severity.CAUTION,
    Fault.NUMBERS: Severity.STOP,
    Fault.VOLTAGE: Severity.STOP,
}
"""How bad each is. [HANDBOOK] §4"""


@rule
def another_ring_count(situation: Situation) -> Iterator[Finding]:
    """A jack in a socket of another number of contacts: its sleeve lies across two springs. [PRACTICE]"""
    for joint in situation.joints:
        pair = joint.strange_plug
        if pair is None:
            continue
        is_dead = not any(joint.link.heard)
        yield Finding(
            rule="another-ring-count",
            severity=Severity.STOP if is_dead else Severity.CAUTION,
            facts={"plug": pair[0], "socket": pair[1], "is_dead": is_dead},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def stereo_into_mono(situation: Situation) -> Iterator[Finding]:
    """A stereo output of which one side goes nowhere. [HANDBOOK] §4"""
    for joint in situation.joints:
        if Fault.LOST not in joint.faults:
            continue
        heard = {arrival.channel for channel in joint.link.heard for arrival in channel}
        sides = [_sources_on(situation, joint.sender, ref) for ref in channel_refs(joint.output)]
        lost = next(side for side in range(len(sides)) if side not in heard)
        kept = {source for side in heard for source in sides[side]}
        if kept and not sides[lost]:
            continue  # nobody is there
        alone = tuple(source for source in sides[lost] if source not in kept)
        yield Finding(
            rule="stereo-into-mono",
            severity=Severity.CAUTION if alone else Severity.NOTE,
            facts={"lost": joint.output.channels[lost], "alone": alone},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def mono_into_stereo(situation: Situation) -> Iterator[Finding]:
    """A mono signal on one side of a stereo socket. [HANDBOOK] §4"""
    for joint in situation.joints:
        if Fault.ONE_SIDE not in joint.faults or joint.strange_plug is not None or joint.sends_timecode:
            continue  # timecode belongs on one side alone
        silent = next(name for name, heard in zip(joint.input.channels, joint.link.heard, strict=True) if not heard)
        yield Finding(
            rule="mono-into-stereo",
            severity=Severity.NOTE,
            facts={"silent": silent},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def port_blocked(situation: Situation) -> Iterator[Finding]:
    """A port that is off, or behind what is mounted over it, while another is used. [HANDBOOK] §3"""
    for joint in situation.joints:
        for other in joint.input.blocks:
            held = situation.index.arriving.get(PortRef(joint.receiver.device.id, other), [])
            for run in held:
                yield Finding(
                    rule="port-blocked",
                    severity=Severity.STOP,
                    facts={"by": joint.input.id},
                    source="HANDBOOK",
                    device=joint.receiver.device.id,
                    run=run.id,
                )


@looks_at(Aspect.STRAIN)
def no_strain_relief(situation: Situation) -> Iterator[Finding]:
    """A plug that does not lock, with nothing that takes the weight off it. [PRACTICE]"""
    for joint in situation.joints:
        own_plug = is_plug_of_its_own(end_of(joint.output))
        if joint.receiver.device_class.kind is DeviceKind.TRANSMITTER:
            continue  # worn on the body, where tape and clothing hold it
        sockets: list[tuple[PlacedDevice, Port]] = [(joint.sender, joint.output), (joint.receiver, joint.input)]
        loose = [PortRef(placed.device.id, port.id) for placed, port in sockets if not port.plug.locks]
        if joint.run.strain_relief or not loose or joint.is_wireless or not (joint.run.parts or own_plug):
            continue
        yield Finding(
            rule="no-strain-relief",
            severity=Severity.NOTE,
            facts={"loose": tuple(loose[-1:] if own_plug else loose)},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def digital_mode(situation: Situation) -> Iterator[Finding]:
    """Digital and analogue meet because a mode switch stands wrong. [AES3]"""
    for joint in situation.joints:
        if _wrong_by_build(joint) or Circuit.TIMECODE in (joint.output.circuit, joint.input.circuit):
            continue
        if joint.output.circuit is Circuit.GENLOCK:
            continue
        sends_digital = joint.output.circuit.is_digital
        if sends_digital == (joint.takes.signal is Signal.DIGITAL):
            continue
        yield Finding(
            rule="digital-mode",
            severity=Severity.STOP,
            facts={"sends_digital": sends_digital},
            source="AES3",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _wrong_by_build(joint: Joint) -> bool:
    return bool({Fault.NUMBERS, Fault.VOLTAGE} & set(joint.faults))


def _sources_on(situation: Situation, placed: PlacedDevice, side: str) -> tuple[str, ...]:
    """Who is heard on one side of an output."""
    bus = placed.fed_bus(side)
    return () if bus is None else situation.report.tracer.bus(placed.device.id, bus.id).sources
