"""Linear timecode as samples."""

import math
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.timecode.label import Timecode
from tidy_trunk.core.base.timecode.ltc_bits import FRAME_BITS, NO_EXTRAS, LtcExtras, frame_bits
from tidy_trunk.errors import RateError

FASTEST_LTC: Final = 30
"""Most frames a second that the 80 bits can number. [ST12-1]"""

RISE_S: Final = 40e-6
"""Length of an edge from 10 to 90 %. [ST12-1]: 40 ± 10 µs"""

EDGE_SHARE: Final = 0.59
"""Share of a raised cosine's length that lies from 10 to 90 %. [HANDBOOK] §15.9: 1 - 2·acos(0.8)/π"""

SHORTEST_EDGE_SAMPLES: Final = 2.0
"""ASSUMED_ edge in samples that a low sample rate still carries without folding."""


def ltc_samples(
    start: Timecode,
    rate_hz: int,
    first: int,
    count: int,
    *,
    extras: LtcExtras = NO_EXTRAS,
    rise_s: float = RISE_S,
) -> NDArray[np.float64]:
    """A stretch of linear timecode; stretches that follow each other fit without a seam.

    Args:
        start: The frame that begins at sample 0.
        rate_hz: Sample rate.
        first, count: Which samples.

    Returns:
        Shape (count,), peaks at ±1.0.

    Raises:
        RateError: A rate of more frames a second than timecode can number.

    Source: [ST12-1]: biphase mark, each bit begins with an edge, a one has another in its middle.
    """
    rate = start.rate
    if rate.nominal > FASTEST_LTC:
        raise RateError(f"linear timecode numbers up to {FASTEST_LTC} frames a second: send half of this rate")
    frame_s = float(1 / rate.ratio)
    edge_s = max(rise_s / EDGE_SHARE, SHORTEST_EDGE_SAMPLES / rate_hz)
    begin, end = first / rate_hz - edge_s, (first + count) / rate_hz + edge_s
    frames = range(math.floor(begin / frame_s), math.ceil(end / frame_s) + 1)
    # An even number of edges in each frame: whichever it is, it begins low and rises.
    edges = np.concatenate([_edges(frame_bits(start.plus(frame), extras)) + frame for frame in frames]) * frame_s
    times = (first + np.arange(count)) / rate_hz
    last = np.searchsorted(edges, times, side="right")
    sign = np.where(last % 2 == 1, 1.0, -1.0)
    near = np.minimum(times - edges[np.maximum(last - 1, 0)], edges[np.minimum(last, len(edges) - 1)] - times)
    # Half of each edge lies before its moment, and half behind it.
    share = np.clip(np.abs(near) / (edge_s / 2), 0.0, 1.0)
    return np.asarray(sign * np.sin(share * np.pi / 2))


def _edges(bits: tuple[int, ...]) -> NDArray[np.float64]:
    """Moments of the edges within a frame, as shares of it."""
    values = np.array(bits)
    begins = np.arange(FRAME_BITS) / FRAME_BITS
    return np.sort(np.concatenate((begins, begins[values == 1] + 0.5 / FRAME_BITS)))
