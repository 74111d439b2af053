"""How far two stretches lie apart, to a fraction of a sample: by the phases of their common frequencies."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.units import HIGHEST_OF_RATE

LOWEST_HZ, HIGHEST_HZ = 120.0, 7_000.0
"""ASSUMED_ between hum and what coders leave out."""

WHITENED: Final = 0.75
"""ASSUMED_ how far loud frequencies are brought down to the others: all the way, noise counts as much as sound."""

FINE_HZ: Final = 16_000
"""ASSUMED_ rate at which the correlation is looked at, a little above twice the highest frequency; between its samples a
parabola finds the top, to a few millionths of a second."""

BESIDE_S: Final = 0.005
"""ASSUMED_ how far beside its top a correlation belongs to it."""

NEAR_S: Final = 0.04
"""ASSUMED_ how far beside its top a correlation is looked at for itself: where words and pauses lie over each other, chance
stands higher at some lags than at others."""


@dataclass(frozen=True, slots=True)
class CorrelationPeak:
    """apart_s: the other's stretch lies so much later in the reference than was thought. sign: -1 for opposite polarity.

    height: of the top, against the root mean square of all beside it, or of what is near where that is louder. tried: of how
    many lags it is the top.
    """

    apart_s: float
    sign: int
    height: float
    tried: int


def match(
    reference: NDArray[np.float32], other: NDArray[np.float32], rates_hz: tuple[int, int], search_s: float
) -> CorrelationPeak | None:
    """Where a stretch of the other lies in one of the reference of the same length in seconds.

    Args:
        reference, other: Shape (count,), each at its own rate, as long as each other in seconds.
        rates_hz: Sample rates of both.
        search_s: How far to look to either side.

    Returns:
        None where one of them is silent.
    """
    seconds = min(len(reference) / rates_hz[0], len(other) / rates_hz[1])
    lines = []
    for samples, rate_hz in zip((reference, other), rates_hz, strict=True):
        count = round(seconds * rate_hz)
        window = _window(count)
        # Bins are of the same hertz at every rate. The window lets nothing come round from the other end.
        lines.append(np.fft.rfft(samples[:count] * window))
    width_hz = 1 / seconds
    top = min(HIGHEST_HZ, min(rates_hz) * HIGHEST_OF_RATE)
    first, last = int(np.ceil(LOWEST_HZ / width_hz)), int(top / width_hz)
    cross = lines[0][first:last] * np.conj(lines[1][first:last])
    size = np.abs(cross)
    if not size.max(initial=0.0):
        return None
    cross = cross / np.maximum(size, size.max() * 1e-9) ** WHITENED
    fine = 2 * round(seconds * FINE_HZ / 2)
    spectrum = np.zeros(fine // 2 + 1, dtype=np.complex64)
    spectrum[first:last] = cross
    found = np.asarray(np.fft.irfft(spectrum, fine), dtype=np.float32)
    reach = min(round(search_s * FINE_HZ), fine // 2 - 2)
    around = np.concatenate((found[-reach:], found[: reach + 1]))
    at = int(np.argmax(np.abs(around)))
    away = np.abs(np.arange(len(around)) - at)
    beside = away > BESIDE_S * FINE_HZ
    near = beside & (away <= NEAR_S * FINE_HZ)
    noise = max((float(np.sqrt(np.mean(around[part] ** 2))) for part in (beside, near) if part.any()), default=0.0)
    sign = 1 if around[at] > 0 else -1
    height = abs(float(around[at])) / noise if noise > 0 else np.inf
    return CorrelationPeak((at - reach + _top(sign * around, at)) / FINE_HZ, sign, float(height), len(around))


@lru_cache(maxsize=8)
def _window(count: int) -> NDArray[np.float32]:
    """Stretches are mostly as long as each other, and a window takes longer than a transform."""
    return np.hanning(count + 1)[:-1].astype(np.float32)


def _top(values: NDArray[np.float32], at: int) -> float:
    """Of a parabola through three samples, from -0.5 to 0.5 beside the middle one."""
    if not 0 < at < len(values) - 1:
        return 0.0
    before, here, after = (float(value) for value in values[at - 1 : at + 2])
    bend = before - 2 * here + after
    return float(np.clip(0.5 * (before - after) / bend, -0.5, 0.5)) if bend < 0 else 0.0
