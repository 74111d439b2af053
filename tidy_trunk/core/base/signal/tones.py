"""Tones to line up with."""

from collections.abc import Iterator
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.meter import HIGHEST_RATE_HZ, LOWEST_RATE_HZ
from tidy_trunk.core.base.units import HIGHEST_OF_RATE, ratio_from_db
from tidy_trunk.errors import RangeError

LOWEST_TONE_HZ: Final = 10.0
"""ASSUMED_ lowest frequency of a tone: an octave below what is heard."""

IDENT_EVERY_S: Final = 3.0
"""How often the left channel of an ident is interrupted. [MEMORY]"""

IDENT_GAP_S: Final = 0.25
"""For how long. [MEMORY]"""

IDENT_EDGE_S: Final = 0.005
"""ASSUMED_ time in which the tone goes and comes, so that no click tells it."""

LONGEST_TONE_S: Final = 4 * 3600.0
"""ASSUMED_ longest tone: nobody lines up for half a day."""

QUIETEST_DBFS: Final = -120.0
"""ASSUMED_ quietest tone: 24 bits hold little below it."""


def line_up_tone(
    level_dbfs: float,
    frequency_hz: float,
    seconds: float,
    *,
    rate_hz: int = 48_000,
    channels: int = 1,
    ident: bool = False,
) -> Iterator[NDArray[np.float32]]:
    """A sine in pieces of a second, shape (channels, sample_count), full scale 1.0.

    It begins at zero, and has round(seconds · rate) samples. With `ident` the left of two channels is interrupted for a
    quarter of a second every 3 s, so that a crossed pair is heard at once; the last gap leaves tone behind it.

    Args:
        level_dbfs: -120 to 0; what it peaks at is what it reads. Source: [AES17]
        frequency_hz: 10 to 0.45 of the rate.
        seconds: Up to 4 hours.

    Raises:
        RangeError: Outside of these.
    """
    if not LOWEST_RATE_HZ <= rate_hz <= HIGHEST_RATE_HZ:
        raise RangeError(f"sample rate must be between {LOWEST_RATE_HZ} and {HIGHEST_RATE_HZ} Hz, not {rate_hz}")
    if not QUIETEST_DBFS <= level_dbfs <= 0.0:
        raise RangeError(f"level must be between {QUIETEST_DBFS:g} and 0 dBFS, not {level_dbfs:g}")
    if not LOWEST_TONE_HZ <= frequency_hz <= HIGHEST_OF_RATE * rate_hz:
        raise RangeError(
            f"a tone of {frequency_hz:g} Hz cannot be at {rate_hz} Hz: give {LOWEST_TONE_HZ:g} to {HIGHEST_OF_RATE * rate_hz:.0f} Hz"
        )
    if not 1 / rate_hz <= seconds <= LONGEST_TONE_S:
        raise RangeError(f"length must be more than 0 and at most {LONGEST_TONE_S:.0f} s, not {seconds:g}")
    if channels not in (1, 2) or (ident and channels != 2):
        raise RangeError("a tone has 1 or 2 channels, and an ident marks the left one of 2")
    return _pieces(ratio_from_db(level_dbfs), frequency_hz, round(seconds * rate_hz), rate_hz, channels, ident)


def _pieces(
    amplitude: float, frequency_hz: float, sample_count: int, rate_hz: int, channels: int, ident: bool
) -> Iterator[NDArray[np.float32]]:
    for start in range(0, sample_count, rate_hz):
        at = np.arange(start, min(start + rate_hz, sample_count))
        # Cycles first, their whole ones away: after hours a phase in radians has lost its last digits.
        wave = amplitude * np.sin(2 * np.pi * ((at * frequency_hz / rate_hz) % 1.0))
        piece = np.repeat(wave[np.newaxis], channels, axis=0)
        if ident:
            piece[0] *= _gate(at / rate_hz, sample_count / rate_hz)
        yield piece.astype(np.float32)


def _gate(time_s: NDArray[np.float64], whole_s: float) -> NDArray[np.float64]:
    """1 where the tone stands, 0 in the gaps, with edges of half a cosine."""
    into = time_s % IDENT_EVERY_S - (IDENT_EVERY_S - IDENT_GAP_S) / 2
    begun = time_s - into
    inside = np.clip(np.minimum(into, IDENT_GAP_S - into) / IDENT_EDGE_S + 0.5, 0.0, 1.0)
    inside[begun + IDENT_GAP_S >= whole_s] = 0.0
    return np.asarray(0.5 + 0.5 * np.cos(np.pi * inside))
