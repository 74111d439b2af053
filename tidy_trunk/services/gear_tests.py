"""Know your own gear: the tests of a job's devices, and what their answers keep."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

from tidy_trunk.core.advice.gear_tests import (
    GearAnswer,
    GearRecording,
    GearTest,
    RecordedChannel,
    answered,
    gear_test_of,
    gear_tests,
)
from tidy_trunk.core.plan import Edit, ReadFrom, Scale
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.errors import InputError
from tidy_trunk.results.measurement import MeasurementOut
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.tasks.requests import Measure, request_of
from tidy_trunk.words.gear_tests import found_words


@dataclass(frozen=True, slots=True, kw_only=True)
class GearTestResult:
    """What was found, the edits that keep it in the job, and the class or cable that knows it then."""

    sentence: str
    edits: tuple[Edit, ...]
    class_id: str


class GearTestService:
    """One method for one thing that a user does when he gets to know his gear."""

    def __init__(
        self, jobs: JobService, recordings: RecordingService, now: Callable[[], datetime] = lambda: datetime.now(UTC)
    ) -> None:
        self._jobs = jobs
        self._recordings = recordings
        self._now = now

    def all(self, job_id: UUID) -> tuple[Report, tuple[GearTest, ...]]:
        """The tests of a job, by device, in the order of the work."""
        report = self._jobs.report(job_id)
        return report, gear_tests(report)

    def answer(
        self,
        job_id: UUID,
        test_id: str,
        *,
        yes: bool | None = None,
        value: float | None = None,
        recording_id: UUID | None = None,
        scale: Scale | None = None,
    ) -> GearTestResult:
        """What an answer says of a device, and the edits that keep it; nothing is kept yet.

        Raises:
            NotFoundError: No such test or recording.
            InputError: An answer that the test does not take, or a recording that does not tell.
        """
        report = self._jobs.report(job_id)
        test = gear_test_of(report, test_id)
        recording, read_from = None, ReadFrom.RECORDING
        if recording_id is not None:
            record = self._recordings.get(job_id, recording_id)
            asked = request_of(record.asked)
            if record.result is None or not isinstance(asked, Measure):
                raise InputError(f"'{record.name}' is not measured yet: wait until it is")
            recording = _measured(MeasurementOut.model_validate(record.result))
            read_from = ReadFrom.SIMULATION if asked.simulated else ReadFrom.RECORDING
        when = self._now().astimezone().isoformat(timespec="minutes")
        answer = GearAnswer(yes=yes, value=value, recording=recording, scale=scale, read_from=read_from, when=when)
        found = answered(report, test, answer)
        return GearTestResult(sentence=found_words(found.what), edits=found.edits, class_id=found.class_id)


def _measured(found: MeasurementOut) -> GearRecording:
    channels = tuple(
        RecordedChannel(
            tone_dbfs=None if channel.tone is None else channel.tone.level_dbfs,
            noise_dbfs=-math.inf if channel.noise_floor_dbfs is None else channel.noise_floor_dbfs,
            is_cut=channel.clipped_count > 0 or channel.flat_tops,
        )
        for channel in found.channels
    )
    steps = found.steps
    return GearRecording(
        channels,
        steps=() if steps is None else tuple(step.to_core() for step in steps.steps),
        noisy_from=None if steps is None else steps.noisy_from,
        bleed_db=next((pair.bleed_db for pair in found.pairs if pair.bleed_db is not None), None),
    )
