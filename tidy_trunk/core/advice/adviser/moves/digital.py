"""Sample rates."""

from collections.abc import Iterator

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding
from tidy_trunk.core.gear.catalogue import SAMPLE_RATE_KEY, Kind
from tidy_trunk.core.plan import PlacedDevice, SetControl, message


@moves_for("sample-rate")
def to_the_jobs_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """A recorder or camera to the rate of the job, where it can."""
    unit, wanted = question.index.unit(finding.device), question.plan.defaults.sample_rate_hz
    if wanted in unit.device_class.traits.sample_rates_hz:
        yield _to_rate(question, unit, wanted)


@moves_for("sample-rate-between")
def to_the_others_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """The sender to the rate that the receiver takes; a camera is not set by its listener."""
    joint = question.joint(finding.run)
    takes = joint.receiver.sample_rate_hz
    can = takes in joint.sender.device_class.traits.sample_rates_hz
    if takes is not None and can and joint.sender.device_class.kind is not Kind.CAMERA:
        yield _to_rate(question, joint.sender, takes)


def _to_rate(question: Question, unit: PlacedDevice, rate: int) -> Move:
    edit = SetControl(device=unit.device.id, control=SAMPLE_RATE_KEY, value=str(rate))
    return move(message("sample-rate", question.index, device=unit.device.id, rate_hz=rate), edit)
