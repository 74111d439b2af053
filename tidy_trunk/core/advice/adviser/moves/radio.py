"""Frequencies of radio links."""

from collections.abc import Iterator

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Carrier, Finding
from tidy_trunk.core.base.radio import free_mhz
from tidy_trunk.core.gear.catalogue import Circuit, Port, frequency_key
from tidy_trunk.core.plan import Edit, PlacedDevice, SetControl, SetJob, message


@moves_for("frequency-mismatch")
def tune(question: Question, finding: Finding) -> Iterator[Move]:
    """The receiver to where its transmitter sends."""
    joint = question.joint(finding.run)
    sends = joint.sender.frequency_mhz(joint.output)
    if sends is not None:
        edit = _tuned(joint.receiver, joint.input, sends)
        yield move(message("tune", question.index, device=joint.receiver.device.id, mhz=sends), edit)


@moves_for("frequency-twice", "intermodulation")
def move_away(question: Question, finding: Finding) -> Iterator[Move]:
    """Transmitter and receiver to the nearest frequency that is free of all that."""
    moved: Carrier = next(carrier for carrier in question.carriers if carrier.placed.device.id == finding.device)
    others = [carrier.mhz for carrier in question.carriers if carrier is not moved]
    mhz = free_mhz(others, moved.mhz, question.plan.defaults.radio_guard_mhz)
    if mhz is None:
        return
    edits = [_tuned(moved.placed, moved.port, mhz)]
    for joint in question.joints:
        if (joint.run.sending.device, joint.run.sending.port) == (moved.placed.device.id, moved.port.id):
            edits.append(_tuned(joint.receiver, joint.input, mhz))
    yield move(message("move-frequency", question.index, device=moved.placed.device.id, mhz=mhz), *edits)


@moves_for("frequency-legal")
def cleared(question: Question, finding: Finding) -> Iterator[Move]:
    """Somebody has asked whether it is legal there; not before every transmitter has its frequency."""
    sending = {joint.sender.device.id for joint in question.joints if joint.output.circuit is Circuit.RADIO}
    if sending <= {carrier.placed.device.id for carrier in question.carriers}:
        yield move(message("frequencies-cleared", question.index), SetJob(frequencies_cleared=True))


def _tuned(placed: PlacedDevice, port: Port, mhz: float) -> Edit:
    return SetControl(device=placed.device.id, control=frequency_key(port.id), value=mhz)
