"""Linear timecode in files."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.timecode import (
    NO_EXTRAS,
    FrameRate,
    LtcExtras,
    LtcReading,
    Timecode,
    at_seconds,
    ltc_reading,
    ltc_samples,
    read_frames,
    real_seconds,
)
from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.errors import InputError, RangeError
from tidy_trunk.formats import Recording, open_recording, write_sound

PIECE_S: Final = 10
"""ASSUMED_ stretch that is written at once."""

LOUDEST_DBFS, QUIETEST_DBFS = 0.0, -60.0
"""ASSUMED_ peaks between which timecode is sent: below, no reader finds it again."""

LONGEST_S: Final = 86_400.0
"""Longest stretch of timecode: a day, then its labels begin again. [ST12-1]"""


@dataclass(frozen=True, slots=True)
class FoundTimecode:
    """What a recording's timecode says, and on which channel it is, from 1."""

    channel: int
    rate_hz: int
    reading: LtcReading


def find_timecode(
    stream: BinaryIO, channel: int | None = None, wanted: FrameRate | None = None
) -> FoundTimecode | None:
    """The timecode of a recording; None where there is none. Arguments and errors as of `timecode_in`, and:

    Raises:
        FormatError: Not a recording.
    """
    recording = open_recording(stream)
    try:
        recording.prepare()
        return timecode_in(recording, recording.sample_count, channel, wanted)
    finally:
        recording.close()


def timecode_at_end(stream: BinaryIO, wanted: FrameRate) -> dict[str, str]:
    """The label at the end of a recording through which timecode runs, to the nearest frame, and its rate; empty where there is none.

    Raises:
        FormatError: Not a recording.
    """
    recording = open_recording(stream)
    try:
        recording.prepare()
        found = timecode_in(recording, recording.sample_count, wanted=wanted)
        seconds = Fraction(recording.sample_count, recording.rate_hz)
    finally:
        recording.close()
    if found is None:
        return {}
    reading = found.reading
    ends_s = real_seconds(reading.start) + Fraction(reading.start_offset_s).limit_denominator(1_000_000) + seconds
    return {"timecode": str(at_seconds(ends_s, reading.rate)), "rate": reading.rate_name}


def timecode_in(
    recording: Recording, sample_count: int, channel: int | None = None, wanted: FrameRate | None = None
) -> FoundTimecode | None:
    """The timecode in the first so many samples of a recording that is prepared.

    Args:
        channel: On which it is, from 1; that with the most frames where nobody says.
        wanted: The job's rate.

    Raises:
        InputError: The recording has no such channel.
    """
    if channel is not None and not 1 <= channel <= recording.channels:
        raise InputError(f"the recording has {recording.channels} channels, and no channel {channel}")
    channels = [channel] if channel is not None else list(range(1, recording.channels + 1))
    found = None
    for number in channels:
        reading = _read_channel(recording, number, sample_count, wanted)
        if reading is not None and (found is None or reading.frame_count > found.reading.frame_count):
            found = FoundTimecode(number, recording.rate_hz, reading)
    return found


def _read_channel(recording: Recording, channel: int, sample_count: int, wanted: FrameRate | None) -> LtcReading | None:
    def read(start: int, count: int) -> NDArray[np.float32]:
        samples: NDArray[np.float32] = recording.read(start, count)[channel - 1]
        return samples

    return ltc_reading(read_frames(read, sample_count, recording.rate_hz), recording.rate_hz, wanted)


def write_timecode(
    stream: BinaryIO,
    start: Timecode,
    *,
    seconds: float,
    level_dbfs: float,
    rate_hz: int,
    bits: str,
    extras: LtcExtras = NO_EXTRAS,
) -> int:
    """A WAV of linear timecode that peaks at a level; how many samples it has.

    Raises:
        RangeError: A level, length or sample rate that cannot be.
        RateError: A rate of more frames than timecode can number.
    """
    if not LOUDEST_DBFS >= level_dbfs >= QUIETEST_DBFS:
        raise RangeError(f"level must be between {QUIETEST_DBFS:g} and {LOUDEST_DBFS:g} dBFS, not {level_dbfs:g}")
    if not 0 < seconds <= LONGEST_S:
        raise RangeError(f"length must be more than 0 and at most {LONGEST_S:g} s, not {seconds:g}")
    if not 8_000 <= rate_hz <= 192_000:
        raise RangeError(f"a sample rate of {rate_hz} Hz is not in use here: give 8000 to 192000")
    count, peak = round(seconds * rate_hz), ratio_from_db(level_dbfs)
    ltc_samples(start, rate_hz, 0, 1)  # what cannot be sent is refused before anything is written

    def pieces() -> Iterator[NDArray[np.float64]]:
        for first in range(0, count, PIECE_S * rate_hz):
            size = min(PIECE_S * rate_hz, count - first)
            yield (peak * ltc_samples(start, rate_hz, first, size, extras=extras))[np.newaxis]

    write_sound(stream, pieces(), rate_hz=rate_hz, channels=1, sample_count=count, bits=bits)
    return count
