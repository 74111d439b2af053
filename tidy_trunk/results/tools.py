"""What the tools answer that need no job: numbers, and the same in one line. The command line prints them, the page shows them."""

import math
from typing import Any, Final

from tidy_trunk.core.base.timecode import (
    FrameRate,
    Timecode,
    added,
    by_count,
    by_real_time,
    delay_of_frames,
    delay_of_ms,
    drift,
    name_of,
    real_seconds,
)
from tidy_trunk.core.base.units import air_m, air_ms, convert, find_unit, finite
from tidy_trunk.errors import InputError
from tidy_trunk.results.numbers import Out

IN_HOURS_FROM: Final = 2.0
"""ASSUMED_ hours from which a time is told in hours: one sets an alarm to minutes below that."""


class ToolOut(Out):
    """words: the answer in one line; the other fields are those of the command's JSON."""

    words: str

    def document(self) -> dict[str, Any]:
        """The numbers alone."""
        return self.model_dump(mode="json", exclude={"words"})


class ConvertedOut(ToolOut):
    value: float | None
    unit: str


def converted(value: float, unit: str, to: str, sensitivity_mv_per_pa: float | None) -> ConvertedOut:
    """A level in another unit. Raises UnitError, RangeError."""
    number = finite(convert(value, unit, to, sensitivity_mv_per_pa=sensitivity_mv_per_pa))
    name = find_unit(to).name
    told = "silence" if number is None else f"{number:.2f}" if name.startswith("dB") else f"{number:.4g}"
    words = f"{told} {name}" if number is not None else f"{told} ({name})"
    return ConvertedOut(words=words, value=number, unit=name)


class DelayOut(ToolOut):
    ms: float
    frames: float | None
    samples: int


def delayed(
    *, frames: float | None, ms: float | None, metres: float | None, fps: str | None, sample_rate_hz: int
) -> DelayOut:
    """A length of time in all its measures, from the one that is given. Raises InputError: none or several."""
    rate = FrameRate.parse(fps) if fps is not None else None
    given = [value for value in (frames, ms, metres) if value is not None]
    if len(given) != 1 or (frames is not None and rate is None):
        raise InputError("give --frames N with --fps RATE, or --ms MS, not both")
    if frames is not None and rate is not None:
        found = delay_of_frames(frames, rate, sample_rate_hz)
    else:
        found = delay_of_ms(air_ms(metres) if metres is not None else ms or 0.0, rate, sample_rate_hz)
    count = None if found.frame_count is None else float(found.frame_count)
    milliseconds = float(found.seconds * 1000)
    in_frames = f", {count:.6g} frames" if count is not None else ""
    words = f"{milliseconds:.6g} ms{in_frames}, {found.sample_count} samples at {sample_rate_hz} Hz"
    return DelayOut(words=words, ms=milliseconds, frames=count, samples=found.sample_count)


class DelayInAirOut(DelayOut):
    """metres: of air at 20 °C in which sound takes as long."""

    metres: float


def delayed_in_air(found: DelayOut) -> DelayInAirOut:
    metres = air_m(found.ms)
    return DelayInAirOut(**{**found.model_dump(), "words": f"{found.words}, {metres:.3g} m of air"}, metres=metres)


class DriftOut(ToolOut):
    relative_ppm: float
    drift_ms: float
    drift_frames: float
    rejam_every_h: float | None


def _lasting(hours: float) -> str:
    """A time to jam again in, rounded down: later would be too late."""
    if hours >= IN_HOURS_FROM:
        return f"{math.floor(hours * 10) / 10:g} h"
    minutes = math.floor(hours * 60)
    return f"{minutes} min" if minutes else f"{math.floor(hours * 3600)} s"


def drifted(ppm_a: float, ppm_b: float, fps: str, hours: float, limit_frames: float) -> DriftOut:
    """By how much two clocks may part. Raises RangeError, RateError."""
    found = drift(ppm_a, ppm_b, FrameRate.parse(fps), hours, limit_frames)
    every_h = finite(found.rejam_every_h)
    often = "they never part" if every_h is None else f"jam again every {_lasting(every_h)}"
    words = (
        f"after {hours:g} h up to {found.drift_ms:.4g} ms apart, {found.drift_frames:.3g} frames; {often} to stay within "
        f"{limit_frames:g} frames"
    )
    return DriftOut(
        words=words,
        relative_ppm=found.relative_ppm,
        drift_ms=found.drift_ms,
        drift_frames=found.drift_frames,
        rejam_every_h=every_h,
    )


class TimecodeOut(ToolOut):
    timecode: str
    frames: int
    seconds: float
    rate: str


def timecoded(text: str, fps: str, add: str | None, to: str | None, *, is_by_count: bool = False) -> TimecodeOut:
    """A label, its frame and its moment; added to, and carried to another rate. Raises TimecodeError, RateError."""
    timecode = Timecode.parse(text, FrameRate.parse(fps))
    if add is not None:
        timecode = added(timecode, add)
    seconds = float(real_seconds(timecode))
    if to is not None:
        timecode = (by_count if is_by_count else by_real_time)(timecode, FrameRate.parse(to))
    rate = name_of(timecode.rate)
    words = (
        f"{timecode} at {rate}: frame {timecode.frame_count}, {f'{seconds:.6f}'.rstrip('0').rstrip('.')} s of real time"
    )
    return TimecodeOut(words=words, timecode=str(timecode), frames=timecode.frame_count, seconds=seconds, rate=rate)
