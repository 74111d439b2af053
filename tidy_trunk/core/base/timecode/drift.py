"""Two clocks that part: by how much, and when they are to be set together again."""

import math
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.timecode.rates import FrameRate
from tidy_trunk.errors import RangeError

HALF_A_FRAME: Final = 0.5
"""Frames by which two clocks may part before the nearest label is another one. [PRACTICE]"""

LARGEST_PPM: Final = 10_000.0
"""ASSUMED_ worst clock: one in a hundred is broken."""

LONGEST_H: Final = 24.0 * 365
"""ASSUMED_ longest time that two clocks run: a year."""

MOST_FRAMES: Final = 1_000.0
"""ASSUMED_ most frames of a limit."""


@dataclass(frozen=True, slots=True)
class Drift:
    """By how much two clocks may have parted. rejam_every_h: how long they stay within the limit, inf where they never part."""

    relative_ppm: float
    drift_ms: float
    drift_frames: float
    rejam_every_h: float


def drift(ppm_a: float, ppm_b: float, rate: FrameRate, hours: float, limit_frames: float = HALF_A_FRAME) -> Drift:
    """At the worst: one clock as fast as it may be, the other as slow.

    1 ppm is 3.6 ms an hour. Source: [HANDBOOK] §8

    Args:
        ppm_a, ppm_b: What each clock is good for, in millionths, 0 or more.
        hours: Since they were set together, 0 or more.
        limit_frames: By how much they may part, above 0.

    Raises:
        RangeError: Negative, not finite, or more than any clock, day or limit has.
    """
    for ppm in (ppm_a, ppm_b):
        if not (math.isfinite(ppm) and 0 <= ppm <= LARGEST_PPM):
            raise RangeError(f"clock error must be between 0 and {LARGEST_PPM:g} ppm, not {ppm:g}")
    if not (math.isfinite(hours) and 0 <= hours <= LONGEST_H):
        raise RangeError(f"duration must be between 0 and {LONGEST_H:g} h, not {hours:g}")
    if not (math.isfinite(limit_frames) and 0 < limit_frames <= MOST_FRAMES):
        raise RangeError(f"limit must be more than 0 and at most {MOST_FRAMES:g} frames, not {limit_frames:g}")
    relative = ppm_a + ppm_b
    seconds = relative * 1e-6 * hours * 3600
    limit_s = limit_frames / float(rate.ratio)
    every_h = limit_s / (relative * 1e-6) / 3600 if relative else math.inf
    return Drift(relative, seconds * 1000, seconds * float(rate.ratio), every_h)
