"""Files that are laid over each other: by their timecode where both have one, else by what both hear."""

from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from itertools import chain, islice
from typing import BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.sync import Sound, align, common_lag, profile_of
from tidy_trunk.core.timecode import FrameRate, carries_timecode, real_seconds
from tidy_trunk.errors import InputError
from tidy_trunk.formats import (
    Broadcast,
    Recording,
    TimecodeSpeed,
    open_recording,
    read_broadcast,
    write_broadcast,
)
from tidy_trunk.services.timecode import timecode_in

WEIGHED_S: Final = 20
"""ASSUMED_ beginning of a file over which its channels are weighed against each other."""

LOOKED_AT_S: Final = 20.0
"""ASSUMED_ beginning of a file in which timecode on a track is looked for."""

OPPOSITE: Final = -0.3
"""ASSUMED_ correlation from which a channel is turned over before it is mixed: else both would vanish."""

FOUND: Final = 0.5
"""Confidence from which something is found: half of it is right. `docs/craft/sync.md`. ASSUMED_"""

BY_TIMECODE: Final = 0.95
"""ASSUMED_ confidence of two files that bear the same clock: somebody may have forgotten to jam one."""


CLAPS_CONFIDENCE: Final = (0.4, 0.75, 0.9, 0.97)
"""ASSUMED_ confidence of so many claps that lie on each other: one on each may be two different ones."""


class Method(StrEnum):
    """By what two files were laid over each other."""

    TIMECODE = "timecode"
    WAVEFORM = "waveform"
    CLAP = "clap"


@dataclass(frozen=True, slots=True, kw_only=True)
class Synced:
    """offset_s: from the reference's first sample to the other's, positive where that begins later.

    drift_ppm: positive where the other's clock runs fast; None where nobody can tell. polarity: 1, or -1 for opposite.
    """

    offset_s: float
    offset_samples: int
    drift_ppm: float | None
    polarity: int
    method: Method
    confidence: float

    @property
    def is_found(self) -> bool:
        return self.confidence >= FOUND


def sync_files(reference: BinaryIO, other: BinaryIO) -> Synced | None:
    """Where the other lies in the reference; None where nothing at all can be said.

    Raises:
        FormatError, InputError: One of them is no recording, or holds no sound.
    """
    with _opened(reference) as first, _opened(other) as second:
        for recording in (first, second):
            recording.prepare()
        by_clock = _by_timecode((reference, first), (other, second))
        if by_clock is not None:
            return Synced(
                offset_s=float(by_clock),
                offset_samples=round(by_clock * first.rate_hz),
                drift_ppm=None,
                polarity=1,
                method=Method.TIMECODE,
                confidence=BY_TIMECODE,
            )
        with ThreadPoolExecutor(2) as pool:
            one, two = pool.map(_sound_of, (first, second))
        found = align(one, two)
        if found is None or found.confidence < FOUND:
            clapped = _by_claps(one, two, first.rate_hz)
            if clapped is not None:
                return clapped
        if found is None:
            return None
        return Synced(
            offset_s=found.offset_s,
            offset_samples=round(found.offset_s * first.rate_hz),
            drift_ppm=found.drift_ppm,
            polarity=found.polarity,
            method=Method.WAVEFORM,
            confidence=found.confidence,
        )


@contextmanager
def _opened(stream: BinaryIO) -> Iterator[Recording]:
    stream.seek(0)
    recording = open_recording(stream)
    try:
        yield recording
    finally:
        recording.close()


def write_aligned(
    reference: BinaryIO, other: BinaryIO, found: Synced, out: BinaryIO, *, name: str, rate: FrameRate
) -> int:
    """A copy of the other as Broadcast WAV that says where it begins on the reference's clock; samples since midnight.

    A reference without a clock begins at midnight. The sound stays as it is, sample by sample; lossy sound becomes float.

    Raises:
        FormatError: It cannot be decoded.
    """
    with _opened(reference) as first, _opened(other) as recording:
        recording.prepare()
        said = read_broadcast(reference)
        began_s = Fraction(said.time_reference, first.rate_hz) if said is not None else Fraction(0)
        moment_s = (began_s + Fraction(found.offset_s).limit_denominator(10**9)) % 86_400
        samples, seconds = round(moment_s * recording.rate_hz), int(moment_s)
        bits = {(16, "pcm"): "16", (24, "pcm"): "24"}.get((recording.bits or 0, recording.encoding), "32f")
        write_broadcast(
            out,
            _seconds_of(recording),
            rate_hz=recording.rate_hz,
            channels=recording.channels,
            sample_count=recording.sample_count,
            bits=bits,
            broadcast=Broadcast(
                description=f"aligned: {name}",
                originator="Tidy Trunk",
                date=said.date if said is not None else "",
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


def _seconds_of(recording: Recording) -> Iterator[NDArray[np.float32]]:
    """All of a recording, a second at a time."""
    for first in range(0, recording.sample_count, recording.rate_hz):
        yield recording.read(first, min(recording.rate_hz, recording.sample_count - first))


def _by_claps(reference: Sound, other: Sound, rate_hz: int) -> Synced | None:
    """By the first edges of claps: one on each is a guess, and the more of them agree the surer it is."""
    found = common_lag(reference.profile.claps, other.profile.claps)
    if found is None:
        return None
    lag_s, agree = found
    return Synced(
        offset_s=lag_s,
        offset_samples=round(lag_s * rate_hz),
        drift_ppm=None,
        polarity=1,
        method=Method.CLAP,
        confidence=CLAPS_CONFIDENCE[min(agree, len(CLAPS_CONFIDENCE)) - 1],
    )


def _by_timecode(*files: tuple[BinaryIO, Recording]) -> Fraction | None:
    """By how much the second begins later, as both clocks have it; the nearer way round midnight."""
    first, second = (_began(stream, recording) for stream, recording in files)
    if first is None or second is None:
        return None
    day = Fraction(86_400)
    return (second - first + day / 2) % day - day / 2


def _began(stream: BinaryIO, recording: Recording) -> Fraction | None:
    """Seconds since midnight at the first sample: by timecode on a track, else as the file says of itself."""
    looked_at = min(recording.sample_count, round(LOOKED_AT_S * recording.rate_hz))
    found = timecode_in(recording, looked_at)
    if found is not None:
        return real_seconds(found.reading.start) + Fraction(found.reading.start_offset_s).limit_denominator(10**6)
    said = read_broadcast(stream)
    if said is None or not said.time_reference:
        return None
    return Fraction(said.time_reference, recording.rate_hz)


def _sound_of(recording: Recording) -> Sound:
    """One channel out of all that a file holds, with its profile. Raises InputError: nothing is in it."""
    pieces = _seconds_of(recording)
    begin = list(islice(pieces, WEIGHED_S))
    if not begin:
        raise InputError("the recording is empty: there is nothing to lay over another")
    weights = _weights(np.concatenate(begin, axis=1), recording.rate_hz)
    profile = profile_of(_mixed(chain(begin, pieces), weights), recording.rate_hz)

    def read(start: int, count: int) -> NDArray[np.float32]:
        return _mix(recording.read(start, count), weights)

    return Sound(profile, read, recording.rate_hz, recording.sample_count)


def _mixed(pieces: Iterable[NDArray[np.float32]], weights: NDArray[np.float32]) -> Iterator[NDArray[np.float32]]:
    for piece in pieces:
        yield _mix(piece, weights)


def _mix(piece: NDArray[np.float32], weights: NDArray[np.float32]) -> NDArray[np.float32]:
    mixed: NDArray[np.float32] = piece[0] if len(weights) == 1 else weights @ piece
    return mixed


def _weights(begin: NDArray[np.float32], rate_hz: int) -> NDArray[np.float32]:
    """What of each channel goes into the mix: nothing of timecode, and what is upside down is turned over."""
    channels = len(begin)
    powers = np.mean(np.square(begin), axis=1)
    weights = np.ones(channels, dtype=np.float32)
    if channels == 1:
        return weights
    for channel in range(channels):
        if powers[channel] and carries_timecode(begin[channel, : 2 * rate_hz], rate_hz):
            weights[channel] = 0.0
    if not weights.any():
        return np.ones(channels, dtype=np.float32)
    loudest = int(np.argmax(powers * weights))
    for channel in np.flatnonzero(weights).tolist():
        both = float(np.sqrt(powers[channel] * powers[loudest]))
        if both and float(np.mean(begin[channel] * begin[loudest])) / both < OPPOSITE:
            weights[channel] = -1.0
    return np.asarray(weights / np.abs(weights).sum(), dtype=np.float32)
