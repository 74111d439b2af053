"""Rules on what is plugged into what."""

from collections.abc import Iterator, Mapping
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, looks_at, rule
from tidy_trunk.core.gear.catalogue import Circuit, Kind, Port, Signal, channel_refs
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
            title="Plugs do not mate",
            text=f"Cable {joint.run.number}: {mismatch.first} does not go into {mismatch.second}. Nothing arrives.",
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
            title, text, severity = _WRONG[fault]
            yield Finding(
                rule="wrong-lead",
                severity=severity,
                title=title,
                text=text.format(run=joint.run.number, sender=joint.sender.label, socket=joint.socket),
                source="HANDBOOK",
                device=joint.receiver.device.id,
                run=joint.run.id,
                verify="The right and the wrong cable look the same: test the cable, and sum to mono while listening.",
            )


_WRONG: Final[Mapping[Fault, tuple[str, str, Severity]]] = {
    Fault.OPPOSITE: (
        "Sides in opposite polarity",
        "Cable {run} puts hot on the left and cold on the right of {socket}: it sounds hollow, and in mono nothing is left. Nothing is "
        "lost for good: keep one side, or invert one. Use a cable with hot on tip and ring.",
        Severity.STOP,
    ),
    Fault.DIFFERENCE: (
        "Stereo into a balanced input",
        "Cable {run} brings left and right of {sender} to hot and cold of {socket}: it hears left minus right, and what is in "
        "the middle vanishes.",
        Severity.STOP,
    ),
    Fault.NOTHING: (
        "Nothing arrives",
        "Cable {run} mates, but no contact brings the signal of {sender} to {socket}.",
        Severity.STOP,
    ),
    Fault.FIGHTING: (
        "Two outputs joined",
        "Cable {run} joins left and right of {sender}: each drives the other, both come out distorted or too low.",
        Severity.CAUTION,
    ),
    Fault.SHORTED: (
        "Output shorted",
        "Cable {run} ties one leg of {sender} to the screen: its output drives a short. Use a cable that leaves that leg open.",
        Severity.CAUTION,
    ),
    Fault.SWAPPED: (
        "Left and right exchanged",
        "Cable {run} does not bring left and right of {sender} to the same sides of {socket}.",
        Severity.CAUTION,
    ),
    Fault.INVERTED: (
        "Polarity inverted",
        "Cable {run} swaps hot and cold. Beside another microphone on the same voice it thins the sound.",
        Severity.CAUTION,
    ),
    Fault.NUMBERS: (
        "Digital into analogue",
        "{sender} sends digital sound, {socket} expects a voltage or other numbers: loud noise, or nothing. Use another output or "
        "input.",
        Severity.STOP,
    ),
    Fault.VOLTAGE: (
        "Analogue into digital",
        "{socket} takes only digital sound, {sender} sends a voltage: nothing arrives. Use another output or input.",
        Severity.STOP,
    ),
}


@rule
def another_ring_count(situation: Situation) -> Iterator[Finding]:
    """A jack in a socket of another number of contacts: its sleeve lies across two springs. [PRACTICE]"""
    for joint in situation.joints:
        pair = joint.strange_plug
        if pair is None:
            continue
        dead = not any(joint.link.heard)
        what = (
            "The signal is shorted: nothing arrives."
            if dead
            else "Two contacts are joined there: one side is lost or shorted."
        )
        yield Finding(
            rule="another-ring-count",
            severity=Severity.STOP if dead else Severity.CAUTION,
            title="Headset plug in a camera's kind of socket"
            if "TRRS" in pair[0]
            else "Plug and socket count differently",
            text=(
                f"Cable {joint.run.number}: {pair[0]} goes into {pair[1]}, and its sleeve lies across two contacts. {what} "
                "An adapter made for the two puts it right."
            ),
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
        lost = next(name for index, name in enumerate(joint.output.channels) if index not in heard)
        yield Finding(
            rule="stereo-into-mono",
            severity=Severity.CAUTION if _says_two_things(joint) else Severity.NOTE,
            title="One side of it is lost",
            text=(
                f"Cable {joint.run.number} brings one side of {joint.sender.label} {joint.output.label} to {joint.socket}; "
                f"{lost} goes nowhere. If something else is on {lost}, use a Y-cable and a second input."
            ),
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
            title=f"{silent} stays silent",
            text=(
                f"Cable {joint.run.number} reaches one side of {joint.socket}; {silent} records nothing. Use a cable with hot on "
                "tip and ring where both sides are wanted, and do not take the silent side for a backup."
            ),
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def port_blocked(situation: Situation) -> Iterator[Finding]:
    """A port that is off, or behind what is mounted over it, while another is used. [HANDBOOK] §3"""
    for joint in situation.joints:
        for other in joint.input.blocks:
            held = situation.rig.arriving.get(PortRef(joint.receiver.device.id, other), [])
            for run in held:
                blocked = joint.receiver.input(other)
                yield Finding(
                    rule="port-blocked",
                    severity=Severity.STOP,
                    title=f"{joint.receiver.label} {blocked.label} is off",
                    text=(
                        f"While {joint.socket} is used, {blocked.label} records nothing: cable {run.number} ends at a dead socket. "
                        "Keep one of the two."
                    ),
                    source="HANDBOOK",
                    device=joint.receiver.device.id,
                    run=run.id,
                )


@looks_at(Aspect.STRAIN)
def no_strain_relief(situation: Situation) -> Iterator[Finding]:
    """A plug that does not lock, with nothing that takes the weight off it. [PRACTICE]"""
    for joint in situation.joints:
        own_plug = is_plug_of_its_own(end_of(joint.output))
        if joint.receiver.device_class.kind is Kind.TRANSMITTER:
            continue  # worn on the body, where tape and clothing hold it
        sockets: list[tuple[PlacedDevice, Port]] = [(joint.sender, joint.output), (joint.receiver, joint.input)]
        loose = [f"{unit.label} {port.label}" for unit, port in sockets if not port.plug.locks]
        if joint.run.strain_relief or not loose or joint.is_wireless or not (joint.run.parts or own_plug):
            continue
        where = loose[-1] if own_plug else " and ".join(loose)
        yield Finding(
            rule="no-strain-relief",
            severity=Severity.NOTE,
            title="Nothing holds this plug",
            text=(
                f"Cable {joint.run.number}: the plug at {where} does not lock and works loose. Tie the cable up high beside the "
                "socket, with no weight on it, and tick it here."
            ),
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
        sent, taken = ("digital sound", "a voltage") if sends_digital else ("a voltage", "digital sound")
        yield Finding(
            rule="digital-mode",
            severity=Severity.STOP,
            title="Digital and analogue mixed up",
            text=f"{joint.sender.label} {joint.output.label} sends {sent}; {joint.socket} is set to take {taken}.",
            source="AES3",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _wrong_by_build(joint: Joint) -> bool:
    return bool({Fault.NUMBERS, Fault.VOLTAGE} & set(joint.faults))


def _says_two_things(joint: Joint) -> bool:
    """Whether the two sides of an output carry different buses with different inputs."""
    unit = joint.sender
    buses = [unit.fed_bus(ref) for ref in channel_refs(joint.output)]
    return len({unit.bus_inputs(bus) for bus in buses if bus is not None}) > 1
