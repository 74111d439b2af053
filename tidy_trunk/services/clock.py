"""Time on a set, as a job has it."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, Final
from uuid import UUID

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.command import picture_delay
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.plan import Edit, SetFigure
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.time.clock import (
    ClapReading,
    ClockDay,
    ClockPair,
    Clocks,
    LateScreen,
    TimecodeDevice,
    clock_day,
    late_screens,
    pairs,
    read_clap,
    timecode_devices,
)
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.services.jobs import JobService

NEAR_S: Final = 1.5
"""ASSUMED_ how far beside its picture a clap is looked for: no path is later than that."""


@dataclass(frozen=True, slots=True)
class ClockView:
    """Who keeps time, the day of those that run alone, by what picture and sound meet, and how late both are."""

    report: Report
    clocks: Clocks
    timecode_devices: tuple[TimecodeDevice, ...]
    days: tuple[ClockDay, ...]
    pairs: tuple[ClockPair, ...]
    screens: tuple[LateScreen, ...]


@dataclass(frozen=True, slots=True)
class MeasuredDelay:
    """What a clap said, and the edits that take it over; none where it cannot be."""

    reading: ClapReading
    edits: tuple[Edit, ...]


class ClockService:
    """What a user asks of the clocks of a job."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def view(self, job_id: UUID) -> ClockView:
        """All of it. Raises NotFoundError."""
        report = self._jobs.report(job_id)
        found = timecode_devices(report)
        clocks = Clocks(report.index, {timecode_device.device: timecode_device for timecode_device in found})
        days = (clock_day(clocks, timecode_device) for timecode_device in found)
        known = tuple(day for day in days if day is not None)
        return ClockView(report, clocks, found, known, pairs(report, found), late_screens(report))

    def picture_delay(self, job_id: UUID, device: str, text: str, *, by_sdi: bool) -> tuple[Edit, ...]:
        """The edit for a picture delay that somebody measured, in frames or ms; nothing is kept.

        Raises:
            NotFoundError: No such device.
            InputError: No delay, or a device without that picture.
        """
        plan = self._jobs.plan(job_id)
        if device not in plan.devices:
            raise NotFoundError(f"the job has no device '{device}'")
        return (picture_delay(plan, device, text, by_sdi=by_sdi),)

    def clap(self, job_id: UUID, device: str, camera: str, frame: float, found: Mapping[str, Any]) -> MeasuredDelay:
        """The delay of a camera's picture, from a recording of the programme in which somebody claps.

        Args:
            device: The switcher that was recorded.
            frame: The picture in which the hands close, from 0 on.
            found: Of the recording, as `media.claps` has it.

        Raises:
            NotFoundError: No such switcher with that camera.
            InputError: No clap is heard near that picture.
        """
        report = self._jobs.report(job_id)
        screen = next((item for item in late_screens(report) if item.device == device and item.is_switcher), None)
        path = next((item.path for item in screen.pictures if item.camera == camera), "") if screen is not None else ""
        if not path:
            raise NotFoundError(f"there is no switcher '{device}' into which '{camera}' sends its picture")
        rate = found["pictures"]
        pictures = FrameRate.parse(report.index.plan.defaults.frame_rate) if rate is None else FrameRate(Fraction(rate))
        seen_s = float(frame / pictures.ratio)
        near = [clap for clap in found["claps_s"] if abs(clap - seen_s) <= NEAR_S]
        if not near:
            raise InputError(f"no clap is heard within {NEAR_S:g} s of picture {frame:g}: count the pictures from 0")
        heard_s = min(near, key=lambda clap: abs(clap - seen_s))
        reading = read_clap(report, device, camera, heard_s, seen_s, pictures)
        if reading.camera_frames is None:
            return MeasuredDelay(reading, ())
        within = reading.within_ms / 1000 * float(pictures.ratio)
        tolerance = 100 * within / reading.camera_frames if reading.camera_frames else 100.0
        figure = Figure(reading.camera_frames, round(min(tolerance, 100.0), 1), Provenance.MEASURED, "USER")
        edit = SetFigure(device=camera, path=path, figure=figure)
        return MeasuredDelay(reading, (edit,))
