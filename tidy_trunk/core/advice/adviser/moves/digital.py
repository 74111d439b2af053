"""Sample rates."""

from collections.abc import Iterator

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding
from tidy_trunk.core.gear.catalogue import SAMPLE_RATE_KEY, USUAL_RATE_HZ, DeviceKind
from tidy_trunk.core.plan import PlacedDevice, SetControl, SetJob, message


@moves_for("sample-rate")
def to_the_jobs_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """A recorder or camera to the rate of the job, where it can."""
    placed, wanted = question.index.placed(finding.device), question.plan.defaults.sample_rate_hz
    if wanted in placed.device_class.traits.sample_rates_hz:
        yield _to_rate(question, placed, wanted)


@moves_for("sample-rate", "sample-rate-between")
def job_to_a_common_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """The whole job to the usual rate, where something in it cannot follow: 96 kHz asks for all of the chain. [PRACTICE]"""
    placed_devices = [placed for placed in question.index.placed_devices() if placed.sample_rate_hz is not None]
    common = question.plan.defaults.sample_rate_hz != USUAL_RATE_HZ and all(
        USUAL_RATE_HZ in placed.device_class.traits.sample_rates_hz for placed in placed_devices
    )
    wanted = question.plan.defaults.sample_rate_hz
    if common and any(wanted not in placed.device_class.traits.sample_rates_hz for placed in placed_devices):
        follow = [
            _rate_of(placed, USUAL_RATE_HZ) for placed in placed_devices if placed.sample_rate_hz != USUAL_RATE_HZ
        ]
        yield move(
            message("job-sample-rate", question.index, rate_hz=USUAL_RATE_HZ),
            SetJob(sample_rate_hz=USUAL_RATE_HZ),
            *follow,
        )


@moves_for("sample-rate-between")
def to_the_others_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """The sender to the rate that the receiver takes; a camera only to that of the job."""
    joint = question.joint(finding.run)
    takes = joint.receiver.sample_rate_hz
    can = takes in joint.sender.device_class.traits.sample_rates_hz
    is_its_own = joint.sender.device_class.kind is DeviceKind.CAMERA and takes != question.plan.defaults.sample_rate_hz
    if takes is not None and can and not is_its_own:
        yield _to_rate(question, joint.sender, takes)


def _to_rate(question: Question, placed: PlacedDevice, rate: int) -> Move:
    return move(
        message("sample-rate", question.index, device=placed.device.id, rate_hz=rate),
        _rate_of(placed, rate),
    )


def _rate_of(placed: PlacedDevice, rate: int) -> SetControl:
    return SetControl(device=placed.device.id, control=SAMPLE_RATE_KEY, value=str(rate))
