"""Copies that say where they begin on another file's clock, with the drift taken out where that is wanted."""

from collections.abc import Iterable, Iterator
from fractions import Fraction
from typing import BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.formats import Broadcast, TimecodeSpeed, read_broadcast, write_broadcast
from tidy_trunk.media.file_clocks import DAY_S, began
from tidy_trunk.media.mono_mix import opened, sample_bits

STRETCHED_AS: Final = "VHQ"
"""ASSUMED_ quality of the resampler: the best it has, for it is done once."""


def write_aligned(
    other: BinaryIO,
    out: BinaryIO,
    *,
    name: str,
    moment_s: Fraction,
    rate: FrameRate,
    drift_ppm: float = 0.0,
    day: str = "",
) -> int:
    """A copy as Broadcast WAV that says where it begins; the samples since midnight that it says.

    The sound stays as it is, sample by sample, unless its drift is taken out; lossy sound becomes float.

    Args:
        name: Of the other, for the description.
        moment_s: Since midnight, at the first sample; beyond a day it begins again.
        drift_ppm: By how much its clock runs fast; it is made shorter by as much. 0 leaves it alone.
        day: On which it was made, `2026-11-25`; "" where nobody knows.

    Raises:
        FormatError: It cannot be decoded.
    """
    with opened(other) as recording:
        recording.prepare()
        moment_s %= DAY_S
        samples, seconds = round(moment_s * recording.rate_hz), int(moment_s)
        count, pieces = recording.sample_count, recording.again(recording.rate_hz)
        if drift_ppm:
            speed = 1 + drift_ppm * 1e-6
            count = round(count / speed)
            pieces = _stretched(pieces, recording.rate_hz, speed, recording.channels, count)
        write_broadcast(
            out,
            pieces,
            rate_hz=recording.rate_hz,
            channels=recording.channels,
            sample_count=count,
            bits=sample_bits(recording),
            broadcast=Broadcast(
                description=f"aligned{', drift taken out' if drift_ppm else ''}: {name}",
                originator="Tidy Trunk",
                date=day,
                time=f"{seconds // 3600:02}:{seconds // 60 % 60:02}:{seconds % 60:02}",
                time_reference=samples,
            ),
            speed=TimecodeSpeed(
                rate=f"{rate.ratio.numerator}/{rate.ratio.denominator}",
                drop=rate.drop,
                rate_hz=recording.rate_hz,
                time_reference=samples,
            ),
        )
        return samples


def began_at(reference: BinaryIO) -> tuple[Fraction, str]:
    """Seconds since midnight at a reference's first sample by its own clock, and its day; midnight where it has none."""
    said = read_broadcast(reference)
    with opened(reference) as recording:
        recording.prepare()
        moment_s = began(reference, recording)
    return moment_s or Fraction(0), "" if said is None else said.date


def _stretched(
    pieces: Iterable[NDArray[np.float32]], rate_hz: int, speed: float, channels: int, count: int
) -> Iterator[NDArray[np.float32]]:
    """Played so much faster, as so many samples of the same rate; the last one is as long as what is missing."""
    # Wanted where a drift is taken out, and nowhere else.
    import soxr

    stream = soxr.ResampleStream(rate_hz * speed, rate_hz, channels, dtype="float32", quality=STRETCHED_AS)
    left = count
    for piece in pieces:
        made = stream.resample_chunk(np.ascontiguousarray(piece.T)).T[:, :left]
        left -= made.shape[1]
        yield made
    last = stream.resample_chunk(np.zeros((0, channels), dtype=np.float32), last=True).T[:, :left]
    rest = np.zeros((channels, left - last.shape[1]), dtype=np.float32)
    yield np.concatenate((last, rest), axis=1)
