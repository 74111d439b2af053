"""Sounds that the tools make: tone and timecode, to play or to save."""

import io
from typing import Final

from tidy_trunk.core.base.signal import line_up_tone
from tidy_trunk.core.base.timecode import FrameRate, Timecode
from tidy_trunk.formats import write_sound
from tidy_trunk.media.timecode import write_timecode

RATE_HZ: Final = 48_000
"""Sample rate of what is made here. [PRACTICE]"""

BITS: Final = "24"
"""ASSUMED_ depth of what is made here."""


def tone_file(level_dbfs: float, frequency_hz: float, seconds: float, *, is_marked: bool) -> bytes:
    """A line-up tone as a WAV; marked: two channels, the left one interrupted. Raises RangeError."""
    channels = 2 if is_marked else 1
    pieces = line_up_tone(level_dbfs, frequency_hz, seconds, rate_hz=RATE_HZ, channels=channels, ident=is_marked)
    out = io.BytesIO()
    write_sound(out, pieces, rate_hz=RATE_HZ, channels=channels, sample_count=round(seconds * RATE_HZ), bits=BITS)
    return out.getvalue()


def timecode_file(start: str, fps: str, seconds: float, level_dbfs: float) -> bytes:
    """Linear timecode as a WAV. Raises TimecodeError, RateError, RangeError."""
    out = io.BytesIO()
    timecode = Timecode.parse(start, FrameRate.parse(fps))
    write_timecode(out, timecode, seconds=seconds, level_dbfs=level_dbfs, rate_hz=RATE_HZ, bits=BITS)
    return out.getvalue()
