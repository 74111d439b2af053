"""Recordings made by different ways to match a run, beside each other and beside the plan."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from tidy_trunk.core.advice.compare import Compared, Recorded, WayPlan, compare, way_plans
from tidy_trunk.core.base.signal import BANDS_HZ, NoiseFrom
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.errors import InputError
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.recordings import RecordingService


class CompareService:
    """One method for one thing that a user does when he compares ways."""

    def __init__(self, jobs: JobService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._recordings = recordings

    def ways(self, job_id: UUID, run_id: str) -> list[WayPlan]:
        """The ways by which a run can be recorded. Raises UnknownItemError: no such run."""
        return list(way_plans(self._jobs.report(job_id), run_id).values())

    def compare(self, job_id: UUID, run_id: str, recordings: Mapping[str, UUID]) -> tuple[Compared, ...]:
        """Recordings, each by the way that it was made in, the quietest first.

        Raises:
            NotFoundError, UnknownItemError: No such run, way or recording.
            InputError: A recording without tone or without silence, or too few of them.
        """
        found = {way: self._recorded(job_id, recording_id) for way, recording_id in recordings.items()}
        return compare(self._jobs.report(job_id), run_id, found)

    def _recorded(self, job_id: UUID, recording_id: UUID) -> Recorded:
        record = self._recordings.get(job_id, recording_id)
        if record.result is None:
            raise InputError(f"'{record.name}' is not measured: wait, or leave it out")
        channels = [channel for channel in record.result["channels"] if channel["tone"] is not None]
        if not channels:
            raise InputError(f"there is no tone in '{record.name}': record tone, and then silence, by each way")
        channel = max(channels, key=lambda item: item["tone"]["level_dbfs"])
        bands = channel.get("noise_bands_dbfs") or []
        if channel["noise_floor_dbfs"] is None or channel["noise_floor_from"] == NoiseFrom.NOWHERE or not bands:
            raise InputError(
                f"there is no noise to compare in '{record.name}': leave a few seconds of silence behind the tone"
            )
        return _from_channel(channel, bands)


def _from_channel(channel: dict[str, Any], bands: list[float | None]) -> Recorded:
    hum = channel["hum"]
    return Recorded(
        tone_dbfs=channel["tone"]["level_dbfs"],
        noise_dbfs=channel["noise_floor_dbfs"],
        noise_dbfs_a=channel["noise_floor_dbfs_a"],
        hum_dbfs=None if hum is None else hum["level_dbfs"],
        bands=tuple(SILENCE_DB if band is None else band for band in bands[: len(BANDS_HZ)]),
        is_cut_off=channel["clipped_count"] > 0 or channel["flat_tops"],
    )
