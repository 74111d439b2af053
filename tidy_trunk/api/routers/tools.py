"""Tools that need no job: the same answers as the commands give."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.tools import (
    ConvertedOut,
    DelayInAirOut,
    DriftOut,
    TimecodeOut,
    converted,
    delayed,
    delayed_in_air,
    drifted,
    timecoded,
)
from tidy_trunk.services.tools import timecode_file, tone_file

router = APIRouter(prefix="/tools", tags=["tools"], responses=PROBLEMS)

Number = Annotated[float, Query(allow_inf_nan=False, ge=-1e9, le=1e9)]
Maybe = Annotated[float | None, Query(allow_inf_nan=False, ge=0, le=1e9)]
Word = Annotated[str, Query(max_length=30)]
ToneSeconds = Annotated[float, Query(gt=0, le=600, allow_inf_nan=False)]
ToneDbfs = Annotated[float, Query(ge=-120, le=0, allow_inf_nan=False)]


@router.get("/convert")
def convert_level(value: Number, unit: Word, to: Word, sensitivity: Maybe = None) -> ConvertedOut:
    """A level in another unit."""
    return converted(value, unit, to, sensitivity)


@router.get("/delay")
def read_delay(
    fps: Word = "25",
    frames: Maybe = None,
    ms: Maybe = None,
    metres: Maybe = None,
    rate: Annotated[int, Query(ge=8_000, le=768_000)] = 48_000,
) -> DelayInAirOut:
    """A delay in frames, milliseconds, samples and metres of air, from one of them."""
    found = delayed(frames=frames, ms=ms, metres=metres, fps=fps, sample_rate_hz=rate)
    return delayed_in_air(found)


@router.get("/drift")
def read_drift(a: Number, b: Number, fps: Word = "25", hours: Number = 10.0, limit: Number = 0.5) -> DriftOut:
    """By how much two clocks may part, and how often to jam."""
    return drifted(a, b, fps, hours, limit)


@router.get("/timecode")
def read_timecode(timecode: Word, fps: Word = "25", add: Word = "", to: Word = "") -> TimecodeOut:
    """A timecode's frame and moment; added to, and carried to another rate."""
    return timecoded(timecode, fps, add or None, to or None)


@router.get("/tone.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
def read_tone(
    level: ToneDbfs = -20.0,
    frequency: Annotated[float, Query(ge=10, le=20_000, allow_inf_nan=False)] = 1000.0,
    seconds: ToneSeconds = 30.0,
    ident: Annotated[bool, Query(description="Mark the left channel by interrupting it")] = False,
) -> Response:
    """A line-up tone."""
    return _sound(tone_file(level, frequency, seconds, is_marked=ident), "tone.wav")


@router.get("/timecode.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
def read_timecode_sound(
    start: Word = "10:00:00:00", fps: Word = "25", seconds: ToneSeconds = 60.0, level: ToneDbfs = -18.0
) -> Response:
    """Linear timecode as sound."""
    return _sound(timecode_file(start, fps, seconds, level), "timecode.wav")


def _sound(data: bytes, name: str) -> Response:
    return Response(data, media_type="audio/wav", headers={"Content-Disposition": f'inline; filename="{name}"'})
