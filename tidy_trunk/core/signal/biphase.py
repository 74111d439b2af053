"""Whether a channel carries timecode as sound, told by its sync words."""

from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.signal.spectrum import Samples

SYNC_WORD: Final = "0011111111111101"
"""The last 16 of the 80 bits of a frame, in the order in which they are sent. [ST12-1]"""

FRAME_BITS: Final = 80
"""Bits of a frame. [ST12-1]"""

FEWEST_FRAMES: Final = 3
"""ASSUMED_ sync words at the right distance that are no accident."""

HYSTERESIS: Final = 0.2
"""ASSUMED_ how far beyond zero, as a share of its RMS, a wave must swing for a crossing to count."""


def carries_timecode(samples: Samples) -> bool:
    """Whether frames of linear timecode follow each other in one channel, forwards or backwards. Source: [ST12-1]

    Args:
        samples: Shape (sample_count,), at least a few frames long.
    """
    bits = _bits(_intervals(samples))
    for word in (SYNC_WORD, SYNC_WORD[::-1]):
        found = [at for at in range(len(bits)) if bits.startswith(word, at)]
        if sum(later - earlier == FRAME_BITS for earlier, later in pairwise(found)) >= FEWEST_FRAMES - 1:
            return True
    return False


def _intervals(samples: Samples) -> NDArray[np.float64]:
    """Between the crossings of zero, in samples, each found between the two samples around it."""
    values = np.asarray(samples, dtype=np.float64)
    values = values - values.mean()
    threshold = HYSTERESIS * float(np.sqrt(np.mean(values**2))) if len(values) else 0.0
    far = np.flatnonzero(np.abs(values) > threshold)
    if threshold <= 0 or len(far) < 2:
        return np.zeros(0)
    turned = np.flatnonzero(np.sign(values[far[1:]]) != np.sign(values[far[:-1]]))
    before, after = far[turned], far[turned + 1]
    return np.diff(before + values[before] / (values[before] - values[after]) * (after - before))


def _bits(intervals: NDArray[np.float64]) -> str:
    """Biphase mark: one long interval is a 0, two short ones are a 1; a break in the pattern is a space."""
    if len(intervals) < 2 * FRAME_BITS:
        return ""
    short = float(np.percentile(intervals, 15))
    found = []
    waiting = False
    for interval in intervals:
        if 0.5 * short < interval < 1.5 * short:
            if waiting:
                found.append("1")
            waiting = not waiting
            continue
        found.append(("" if not waiting else " ") + ("0" if 1.5 * short <= interval < 2.7 * short else " "))
        waiting = False
    return "".join(found)
