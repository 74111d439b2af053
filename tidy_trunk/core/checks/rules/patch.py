"""Rules on what is plugged into what."""

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Final

from tidy_trunk.core.catalogue import LEADS, OutputPort, Signal, mates
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.joins import UNBALANCED_LIMIT_M, find_joins, unbalanced_length_m
from tidy_trunk.core.plan import Edit, MoveRun, Part, PortRef, SetParts
from tidy_trunk.core.wiring import Fault, unmated


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
            text=f"Run {joint.run.number}: {mismatch.first} does not go into {mismatch.second}. Nothing arrives.",
            source="IEC60268-12",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=_join_fixes(situation, joint),
        )


@rule
def wrong_lead(situation: Situation) -> Iterator[Finding]:
    """A lead that mates but brings the signal wrongly: opposite sides, left minus right, inverted. [HANDBOOK] §4"""
    for joint in situation.joints:
        wrong = [fault for fault in joint.faults if fault in _WRONG]
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
                fixes=_join_fixes(situation, joint),
                verify="The right and the wrong lead look the same: test the lead, and sum to mono while listening.",
            )


_WRONG: Final[Mapping[Fault, tuple[str, str, Severity]]] = {
    Fault.OPPOSITE: (
        "Sides in opposite polarity",
        "Run {run} puts hot on the left and cold on the right of {socket}: it sounds hollow, and in mono nothing is left. "
        "Use a lead with hot on tip and ring.",
        Severity.STOP,
    ),
    Fault.DIFFERENCE: (
        "Stereo into a balanced input",
        "Run {run} brings left and right of {sender} to hot and cold of {socket}: it hears left minus right, and what is in "
        "the middle vanishes.",
        Severity.STOP,
    ),
    Fault.NOTHING: (
        "Nothing arrives",
        "Run {run} mates, but no contact brings the signal of {sender} to {socket}.",
        Severity.STOP,
    ),
    Fault.FIGHTING: (
        "Two outputs joined",
        "Run {run} joins left and right of {sender}: each drives the other, both come out distorted or too low.",
        Severity.CAUTION,
    ),
    Fault.SHORTED: (
        "Output shorted",
        "Run {run} ties one leg of {sender} to the screen: its output drives a short. Use a lead that leaves that leg open.",
        Severity.CAUTION,
    ),
    Fault.SWAPPED: (
        "Left and right exchanged",
        "Run {run} does not bring left and right of {sender} to the same sides of {socket}.",
        Severity.CAUTION,
    ),
    Fault.INVERTED: (
        "Polarity inverted",
        "Run {run} swaps hot and cold. Beside another microphone on the same voice it thins the sound.",
        Severity.CAUTION,
    ),
    Fault.NUMBERS: (
        "Digital into analogue",
        "{sender} sends digital sound, {socket} expects a voltage: it would record loud noise. Use another output or input.",
        Severity.STOP,
    ),
    Fault.VOLTAGE: (
        "Analogue into digital",
        "{socket} takes only digital sound, {sender} sends a voltage: nothing arrives. Use another output or input.",
        Severity.STOP,
    ),
}


@rule
def digital_mode(situation: Situation) -> Iterator[Finding]:
    """Digital and analogue meet because a mode switch stands wrong. [AES3]"""
    for joint in situation.joints:
        if _wrong_by_build(joint):
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
            fixes=situation.way_fixes(joint.run.id),
        )


@rule
def unbalanced_too_long(situation: Situation) -> Iterator[Finding]:
    """Keep the balanced part long and the unbalanced part short. [PRACTICE]"""
    for joint in situation.joints:
        length_m = unbalanced_length_m(joint.output, joint.run.parts)
        if length_m <= UNBALANCED_LIMIT_M:
            continue
        yield Finding(
            rule="unbalanced-too-long",
            severity=Severity.CAUTION,
            title=f"{length_m:g} m unbalanced",
            text=(
                f"Run {joint.run.number} is unbalanced for {length_m:g} m. Beside dimmers, LED supplies or transmitters, 1 m has "
                "buzzed: balanced lead to the receiving end, adapter of about 0.3 m there."
            ),
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            measured_db=None,
            fixes=_balanced_instead(situation, joint, length_m),
            verify="Listen at the camera with the final power in place, and keep clear of mains.",
        )


def _wrong_by_build(joint: Joint) -> bool:
    return bool({Fault.NUMBERS, Fault.VOLTAGE} & set(joint.faults))


def _join_fixes(situation: Situation, joint: Joint) -> tuple[Fix, ...]:
    length_m = sum(part.length_m for part in joint.run.parts)
    branch, shared = _way_of(joint)
    joins = find_joins(joint.output, joint.input, length_m=length_m or 0.3, branch=branch, shared=shared)
    fixes: list[Fix] = []
    for join in joins:
        if join.is_right and len(fixes) < 2:
            names = " and ".join(LEADS[part.lead].label for part in join.parts) or "no lead"
            fixes.append(Fix(f"Use {names}", (SetParts(run=joint.run.id, parts=join.parts),)))
    if not any(joint.link.heard):
        # Where nothing went round before, a lead that mates may close a circle.
        fixes = [fix for fix in fixes if situation.can(fix.edits)]
    return tuple(fixes)


def _way_of(joint: Joint) -> tuple[str, str]:
    two_way = next((part for part in joint.run.parts if part.branch), None)
    return (two_way.branch, two_way.shared) if two_way else ("", "")


def _balanced_instead(situation: Situation, joint: Joint, length_m: float) -> tuple[Fix, ...]:
    """The same signal from a balanced output of the same device, or an adapter nearer to the end."""
    for port in joint.sender.device_class.outputs:
        ref = PortRef(joint.sender.device.id, port.id)
        in_use = situation.rig.leaving.get(ref) and port.id != joint.output.id
        if not port.circuit.is_balanced or in_use or not _same_signal(joint, port):
            continue
        total_m = sum(part.length_m for part in joint.run.parts)
        for join in find_joins(port, joint.input, length_m=total_m):
            if not join.is_right or join.unbalanced_m >= length_m:
                continue
            parts = _keep_pad(joint, join.parts)
            edits: tuple[Edit, ...] = (MoveRun(run=joint.run.id, sending=ref, parts=parts),)
            return (Fix(f"Go balanced from {joint.sender.label} {port.label}, adapter at the end", edits),)
    return ()


def _same_signal(joint: Joint, port: OutputPort) -> bool:
    if port.id == joint.output.id:
        return True
    if len(port.channels) != 1 or joint.sender.device_class.capsule is not None:
        return False
    return any(mode.signal is joint.sends.signal for mode in port.modes)


def _keep_pad(joint: Joint, parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The loss that the run has now, in the last lead of the new way where one of the same plugs is made with it."""
    if not parts or joint.pad_db == 0:
        return parts
    last = LEADS[parts[-1].lead]
    for lead in LEADS.values():
        if lead.loss_db is None or lead.loss_db.value != joint.pad_db:
            continue
        if last.id in lead.replaces:
            return (*parts[:-1], replace(parts[-1], lead=lead.id))
        if mates(last.receiving, lead.sending) and mates(lead.receiving, joint.input.plug):
            return (*parts, Part(lead=lead.id, length_m=lead.short_m or 0.3))
    return parts
