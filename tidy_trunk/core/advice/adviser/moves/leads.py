"""Other leads, other lengths, other outputs."""

from collections.abc import Iterator
from dataclasses import replace

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, Joint
from tidy_trunk.core.gear.catalogue import OutputPort
from tidy_trunk.core.plan import Disconnect, MoveRun, PortRef, SetParts, SetStrainRelief, message, order_m
from tidy_trunk.core.sound.cable_chains import SHORT_M, find_cable_chains, keeping_loss, with_length

_MOST = 2


@moves_for("plugs-do-not-mate", "wrong-lead", "another-ring-count", "mono-into-stereo", "stereo-into-mono")
def other_leads(question: Question, finding: Finding) -> Iterator[Move]:
    """The best other leads for the same ports, those of the user's own among them."""
    joint = question.joint(finding.run)
    two_way = next((part for part in joint.run.parts if part.branch), None)
    branch, shared = (two_way.branch, two_way.shared) if two_way else ("", "")
    length_m = joint.run.length_m or SHORT_M
    own = question.index.plan.leads
    joins = find_cable_chains(joint.output, joint.input, length_m=length_m, branch=branch, shared=shared, own=own)
    for join in [join for join in joins if join.is_right][:_MOST]:
        edit = SetParts(run=joint.run.id, parts=join.parts)
        yield move(message("use-cables", question.index, parts=join.parts), edit)


@moves_for("port-blocked")
def take_out(question: Question, finding: Finding) -> Iterator[Move]:
    """The run that ends at a dead socket, or the one that makes it dead, away."""
    dead = question.joint(finding.run)
    others = [
        joint.run
        for joint in question.joints
        if joint.receiver.device.id == finding.device and dead.input.id in joint.input.blocks
    ]
    for run in (dead.run, *others):
        yield move(message("remove-cable", question.index, run=run.id), Disconnect(run=run.id))


@moves_for("no-strain-relief")
def tie_up(question: Question, finding: Finding) -> Iterator[Move]:
    """Somebody has tied it up."""
    yield move(message("strain-relief", question.index), SetStrainRelief(run=finding.run, on=True))


@moves_for("lead-too-short")
def longer(question: Question, finding: Finding) -> Iterator[Move]:
    """The length to order for its path."""
    run = question.plan.runs[finding.run]
    length_m = order_m(run, question.plan.defaults)
    parts = with_length(question.index, run, length_m)
    if parts:
        yield move(message("cable-length", question.index, length_m=length_m), SetParts(run=run.id, parts=parts))


@moves_for("unbalanced-too-long")
def balanced_instead(question: Question, finding: Finding) -> Iterator[Move]:
    """The same signal from a balanced output of the same device, or an adapter nearer to the end."""
    joint = question.joint(finding.run)
    for port in joint.sender.device_class.outputs:
        ref = PortRef(joint.sender.device.id, port.id)
        in_use = question.index.leaving.get(ref) and port.id != joint.output.id
        if not port.circuit.is_balanced or in_use or not _same_signal(joint, port):
            continue
        for join in find_cable_chains(port, joint.input, length_m=joint.run.length_m):
            if not join.is_right or join.unbalanced_m >= joint.unbalanced_m:
                continue
            edit = MoveRun(run=joint.run.id, sending=ref, parts=keeping_loss(join.parts, joint.pad_db, joint.input))
            yield move(message("go-balanced", question.index, output=ref), edit)
            break


def _same_signal(joint: Joint, port: OutputPort) -> bool:
    if port.id == joint.output.id:
        return True
    if len(port.channels) != 1 or joint.sender.device_class.is_microphone:
        return False
    return any(mode.signal is joint.sends.signal for mode in port.modes)


@moves_for("aes3-lead")
def digital_lead(question: Question, finding: Finding) -> Iterator[Move]:
    """The lead of the right impedance in place of microphone lead."""
    run = question.plan.runs[finding.run]
    parts = tuple(replace(part, lead="aes3") if part.lead == "xlr" else part for part in run.parts)
    if parts != run.parts:
        yield move(message("use-aes3-cable", question.index), SetParts(run=run.id, parts=parts))


@moves_for("headphone-feed")
def another_output(question: Question, finding: Finding) -> Iterator[Move]:
    """The best way that leaves the headphones alone."""
    joint = question.joint(finding.run)
    for port in joint.sender.device_class.outputs:
        ref = PortRef(joint.sender.device.id, port.id)
        if port.is_headphone or not port.circuit.is_analogue or question.index.leaving.get(ref):
            continue
        length_m = max(joint.run.length_m, SHORT_M)
        joins = find_cable_chains(port, joint.input, length_m=length_m, own=question.index.plan.leads)
        if joins and joins[0].is_right:
            edit = MoveRun(run=joint.run.id, sending=ref, parts=joins[0].parts)
            yield move(message("other-output", question.index, output=ref), edit)
