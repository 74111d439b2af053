"""Two channels beside each other: the same sound, turned over, late, or heard through."""

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.signal.decibels import db_of_ratios
from tidy_trunk.core.base.signal.measurement import PairMeasure, Polarity
from tidy_trunk.core.base.signal.meter import MeterResult

RELATED: Final = 0.25
"""ASSUMED_ correlation from which two channels hold the same sound as they are."""

RELATED_LATE: Final = 0.5
"""ASSUMED_ the same once one of them has been moved in time: the best of many places is high by chance."""

LONGEST_DELAY_S: Final = 0.1
"""ASSUMED_ how much later the same sound may come: 34 m of air, or a slow digital radio."""

AS_GOOD: Final = 0.98
"""ASSUMED_ how near to the best place another one comes and counts as well: of those the nearest is meant."""

OUTSHONE_DB: Final = 12.0
"""ASSUMED_ how much louder a channel must be for what is heard in the other one then to be bleed."""

BLEED_CORRELATION: Final = 0.15
"""ASSUMED_ correlation of what is left there from which it is bleed, not the other channel's own noise."""

CLEAR_CORRELATION: Final = 0.5
"""ASSUMED_ correlation of a single block in which bleed is most of what is heard."""

SAME_SOUND: Final = 0.9
"""ASSUMED_ correlation from which the quieter of two is the same sound on purpose, as a safety track is."""

LOWEST_SAFETY_DB: Final = -20.5
"""A safety track lies 6 to 20 dB lower; what lies further down is no track but bleed. [PRACTICE]"""

FEWEST_BLOCKS: Final = 5
"""ASSUMED_ blocks in which bleed must be heard: a quarter of a second."""


def measure_pair(metered: MeterResult, index: int, loudest: Sequence[tuple[Samples, Samples]]) -> PairMeasure:
    """Args:
    index: Which of the pairs of `metered`.
    loudest: Stretches of both channels: where the first is loudest, and where the second is.
    """
    first, second = metered.pairs[index]
    correlation = _correlation(metered, index)
    late = [_moved(*stretch, metered.rate_hz) for stretch in loudest]
    polarity, delay_ms = Polarity.UNRELATED, None
    moved = min(late, key=lambda found: abs(found.correlation)) if late else LagPeak(0.0, 0.0)
    agree = len({np.sign(found.correlation) for found in late}) == 1
    if abs(correlation) >= RELATED:
        polarity = Polarity.SAME if correlation > 0 else Polarity.OPPOSITE
        delay_ms = moved.late_ms if abs(moved.correlation) >= RELATED_LATE else 0.0
    elif abs(moved.correlation) >= RELATED_LATE and agree:
        polarity = Polarity.SAME if moved.correlation > 0 else Polarity.OPPOSITE
        delay_ms = moved.late_ms
    bleed = _bleed(metered, index, correlation)
    return PairMeasure(
        channels=(first + 1, second + 1),
        polarity=polarity,
        correlation=correlation,
        delay_ms=delay_ms,
        bleed_db=bleed[0] if bleed else None,
        bleeds_into=bleed[1] + 1 if bleed else None,
    )


def _correlation(metered: MeterResult, index: int) -> float:
    first, second = metered.pairs[index]
    both = metered.power(first) * metered.power(second)
    if both <= 0:
        return 0.0
    product = float(metered.products[index] @ metered.weights) - metered.mean(first) * metered.mean(second)
    return float(np.clip(product / both**0.5, -1.0, 1.0))


class LagPeak(NamedTuple):
    """The place at which two stretches are most alike: their correlation there, and by how much the second is late."""

    correlation: float
    late_ms: float


def _moved(first: Samples, second: Samples, rate_hz: int) -> LagPeak:
    one, other = (np.asarray(samples, dtype=np.float64) - np.mean(samples) for samples in (first, second))
    scale = float(np.sqrt((one @ one) * (other @ other)))
    if scale <= 0:
        return LagPeak(0.0, 0.0)
    reach = min(round(LONGEST_DELAY_S * rate_hz), len(one) - 1)
    size = 1 << (2 * len(one) - 1).bit_length()
    product = np.fft.irfft(np.conj(np.fft.rfft(one, size)) * np.fft.rfft(other, size), size) / scale
    near: NDArray[np.float64] = np.concatenate((product[-reach:], product[: reach + 1]))
    lags = np.arange(-reach, reach + 1)
    sizes = np.abs(near)
    top = sizes >= AS_GOOD * sizes.max()
    # Only where it is highest, not on the way there: a low voice is almost as alike a few samples before.
    top[1:] &= sizes[1:] >= sizes[:-1]
    top[:-1] &= sizes[:-1] >= sizes[1:]
    good = np.flatnonzero(top)
    best = good[np.argmin(np.abs(lags[good]))]
    return LagPeak(float(near[best]), float(lags[best]) / rate_hz * 1000)


LOUD_SHARE: Final = 0.01
"""ASSUMED_ share of a source's loudest power from which on a block tells how far it is heard elsewhere: 20 dB."""


def _bleed(metered: MeterResult, index: int, correlation: float) -> tuple[float, int] | None:
    """How loud one channel is heard in the other, and in which: the louder of both ways."""
    first, second = metered.pairs[index]
    product = metered.products[index] - metered.mean(first) * metered.mean(second)
    found = []
    for source, into in ((first, second), (second, first)):
        loud, soft = metered.block_powers(source), metered.block_powers(into)
        # A block in which the source is at its loudest tells most, and one in which both are silent nothing.
        chosen = (loud > soft * 10 ** (OUTSHONE_DB / 10)) & (loud > LOUD_SHARE * loud.max(initial=0.0))
        with np.errstate(divide="ignore", invalid="ignore"):
            alike = chosen & (np.abs(product) > CLEAR_CORRELATION * np.sqrt(loud * soft))
        clear = np.count_nonzero(alike) >= FEWEST_BLOCKS and abs(np.sign(product[alike]).mean()) >= CLEAR_CORRELATION
        chosen = alike if clear else chosen  # where the other channel's own sound pauses
        if np.count_nonzero(chosen) < FEWEST_BLOCKS:
            continue
        power, heard, both = (float(part[chosen].sum()) for part in (loud, soft, product))
        if heard <= 0 or abs(both) / (power * heard) ** 0.5 < BLEED_CORRELATION:
            continue
        # Of single blocks the median: some hold the beginning of a word of the other channel's own.
        level = float(db_of_ratios(np.median(product[chosen] / loud[chosen]) if clear else both / power))
        if abs(correlation) < SAME_SOUND or level < LOWEST_SAFETY_DB:
            found.append((level, into))
    return max(found, default=None)
