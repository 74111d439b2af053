"""Recordings made by different matching options of a run, beside each other and beside the plan."""

from collections.abc import Mapping
from uuid import UUID

from tidy_trunk.core.advice.compare import Comparison, OptionPlan, RecordedLevels, compare, option_plans
from tidy_trunk.core.base.signal import BANDS_HZ, NoiseFrom
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.errors import InputError
from tidy_trunk.results.measurement import MeasurementOut
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.recordings import RecordingService


class CompareService:
    """One method for one thing that a user does when he compares options."""

    def __init__(self, jobs: JobService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._recordings = recordings

    def options(self, job_id: UUID, run_id: str) -> list[OptionPlan]:
        """The options by which a run can be recorded. Raises UnknownItemError: no such run."""
        return list(option_plans(self._jobs.report(job_id), run_id).values())

    def compare(self, job_id: UUID, run_id: str, recordings: Mapping[str, UUID]) -> tuple[Comparison, ...]:
        """Recordings, each by the option that it was made in, the quietest first.

        Raises:
            NotFoundError, UnknownItemError: No such run, option or recording.
            InputError: A recording without tone or without silence, or too few of them.
        """
        found = {option: self._recorded(job_id, recording_id) for option, recording_id in recordings.items()}
        return compare(self._jobs.report(job_id), run_id, found)

    def _recorded(self, job_id: UUID, recording_id: UUID) -> RecordedLevels:
        record = self._recordings.get(job_id, recording_id)
        if record.result is None:
            raise InputError(f"'{record.name}' is not measured: wait, or leave it out")
        channels = MeasurementOut.model_validate(record.result).channels
        toned = [(channel.tone.level_dbfs, channel) for channel in channels if channel.tone is not None]
        if not toned:
            raise InputError(f"there is no tone in '{record.name}': record tone, and then silence, with each option")
        tone_dbfs, channel = max(toned, key=lambda item: item[0])
        noise, noise_a = channel.noise_floor_dbfs, channel.noise_floor_dbfs_a
        is_known = channel.noise_floor_from is not NoiseFrom.NOWHERE and bool(channel.noise_bands_dbfs)
        if noise is None or noise_a is None or not is_known:
            raise InputError(
                f"there is no noise to compare in '{record.name}': leave a few seconds of silence behind the tone"
            )
        bands = channel.noise_bands_dbfs[: len(BANDS_HZ)]
        return RecordedLevels(
            tone_dbfs=tone_dbfs,
            noise_dbfs=noise,
            noise_dbfs_a=noise_a,
            hum_dbfs=None if channel.hum is None else channel.hum.level_dbfs,
            bands=tuple(SILENCE_DB if band is None else band for band in bands),
            is_cut_off=channel.clipped_count > 0 or channel.flat_tops,
        )
