"""One channel out of all that a recording holds, for laying it over another."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from itertools import chain, islice
from typing import BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.timecode import carries_timecode
from tidy_trunk.core.time.sync import Sound, profile_of
from tidy_trunk.errors import InputError
from tidy_trunk.formats import Recording, open_recording

PIECE_S: Final = 10
"""ASSUMED_ stretch that is looked at at once: shorter ones wait for each other, longer ones take room."""

WEIGHED_S: Final = 20
"""ASSUMED_ beginning of a file over which its channels are weighed against each other."""

OPPOSITE: Final = -0.3
"""ASSUMED_ correlation from which a channel is turned over before it is mixed: else both would vanish."""


@contextmanager
def opened(stream: BinaryIO) -> Iterator[Recording]:
    """A recording that is closed again. Raises FormatError."""
    stream.seek(0)
    recording = open_recording(stream)
    try:
        yield recording
    finally:
        recording.close()


def sample_bits(recording: Recording) -> str:
    """How a recording is written again without a loss: as its own bits, or as float. A key of `SAMPLE_BYTES`."""
    return {(16, "pcm"): "16", (24, "pcm"): "24"}.get((recording.bits or 0, recording.encoding), "32f")


def sound_of(recording: Recording) -> Sound:
    """One channel out of all that a file holds, with its profile. Raises InputError: nothing is in it."""
    pieces = recording.again(PIECE_S * recording.rate_hz)
    begin = list(islice(pieces, WEIGHED_S // PIECE_S))
    if not begin:
        raise InputError("the recording is empty: there is nothing to lay over another")
    weights = weights_of(np.concatenate(begin, axis=1), recording.rate_hz)
    profile = profile_of(mixed(chain(begin, pieces), weights), recording.rate_hz)

    def read(start: int, count: int) -> NDArray[np.float32]:
        return mix(recording.read(start, count), weights)

    return Sound(profile, read, recording.rate_hz, recording.sample_count)


def mixed(pieces: Iterable[NDArray[np.float32]], weights: NDArray[np.float32]) -> Iterator[NDArray[np.float32]]:
    for piece in pieces:
        yield mix(piece, weights)


def mix(piece: NDArray[np.float32], weights: NDArray[np.float32]) -> NDArray[np.float32]:
    mixed: NDArray[np.float32] = piece[0] if len(weights) == 1 else weights @ piece
    return mixed


def weights_of(begin: NDArray[np.float32], rate_hz: int) -> NDArray[np.float32]:
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
