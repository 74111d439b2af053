"""What lies where in a sound: powers by frequency, of stretches that are short enough to hold at once."""

from functools import lru_cache
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.units import a_weighting_db

LOWEST_HZ: Final = 20.0
"""Where a noise measurement begins. [AES17]"""

HIGHEST_HZ: Final = 20_000.0
"""Where it ends. [AES17]"""

TINY: Final = 1e-30
"""ASSUMED_ power that is none: 300 dB below full scale."""


class Spectrum(NamedTuple):
    """powers: mean square by frequency, shape (bins,); their sum over all is that of the sound. width_hz: of one bin.

    lobe: bins to either side over which a single tone is spread by the window. averaged: stretches that it is the mean of.
    usual: the same powers as most stretches have them, their geometric mean: a burst in one of them is hardly in it.
    """

    powers: NDArray[np.float64]
    width_hz: float
    lobe: int
    usual: NDArray[np.float64]
    averaged: int = 1

    @property
    def hertz(self) -> NDArray[np.float64]:
        """The frequency of each bin."""
        return np.asarray(np.arange(len(self.powers)) * self.width_hz, dtype=np.float64)

    def within(self, lowest_hz: float = LOWEST_HZ, highest_hz: float = HIGHEST_HZ) -> NDArray[np.bool_]:
        """Which bins lie in a band, its edges in it."""
        return np.asarray((self.hertz >= lowest_hz) & (self.hertz <= highest_hz))

    def noise(self, chosen: NDArray[np.bool_] | None = None) -> tuple[float, float]:
        """Mean square from 20 Hz to 20 kHz, flat and A-weighted. Source: [IEC61672-1]"""
        powers = np.where(self.within() if chosen is None else chosen, self.powers, 0.0)
        return float(powers.sum()), float(powers @ a_weights(len(powers), self.width_hz))

    def around(self, hertz: float, more: int = 0) -> slice:
        """The bins over which a tone of that frequency is spread, and `more` to either side."""
        middle, reach = round(hertz / self.width_hz), self.lobe + more
        return slice(max(middle - reach, 0), max(middle + reach + 1, 0))


@lru_cache(maxsize=16)
def a_weights(bins: int, width_hz: float) -> NDArray[np.float64]:
    """What A-weighting makes of the power in each bin, read between the points of a fine grid. Source: [IEC61672-1]"""
    grid = np.geomspace(LOWEST_HZ / 2, HIGHEST_HZ * 2, 1000)
    levels = [a_weighting_db(float(hertz)) for hertz in grid]
    return np.asarray(10 ** (np.interp(np.arange(bins) * width_hz, grid, levels) / 10))


def noise_spectrum(stretches: list[Samples], rate_hz: int) -> Spectrum:
    """Of stretches of one length, their powers averaged: behind a Hann window, good for noises and their hum."""
    size = len(stretches[0])
    window = np.hanning(size + 1)[:-1]
    total, logarithms = np.zeros(size // 2 + 1), np.zeros(size // 2 + 1)
    for stretch in stretches:
        values = np.asarray(stretch, dtype=np.float64)
        powers = _powers((values - values.mean()) * window, window)
        total += powers
        logarithms += np.log(np.maximum(powers, TINY))
    usual = np.exp(logarithms / len(stretches))
    return Spectrum(total / len(stretches), rate_hz / size, 2, usual, len(stretches))


KAISER_BETA: Final = 20.0
"""ASSUMED_ shape of the window for tones: what it leaks lies 150 dB below the tone, under the noise of 24 bits."""


def tone_spectrum(stretch: Samples, rate_hz: int) -> Spectrum:
    """Of one stretch, behind a Kaiser window: a loud tone hides nothing beside it but the bins of its own lobe."""
    window = _kaiser(len(stretch))
    values = np.asarray(stretch, dtype=np.float64)
    powers = _powers((values - values.mean()) * window, window)
    return Spectrum(powers, rate_hz / len(stretch), 8, powers)


@lru_cache(maxsize=4)
def _kaiser(size: int) -> NDArray[np.float64]:
    return np.asarray(np.kaiser(size, KAISER_BETA))


def _powers(windowed: NDArray[np.float64], window: NDArray[np.float64]) -> NDArray[np.float64]:
    spectrum = np.fft.rfft(windowed)
    powers = np.asarray(spectrum.real**2 + spectrum.imag**2) * 2 / (len(windowed) * float(np.sum(window**2)))
    powers[0] /= 2
    if len(windowed) % 2 == 0:
        powers[-1] /= 2
    return powers


def smooth_size(count: int) -> int:
    """The largest number of samples not above `count` that is quick to transform: a product of 2, 3 and 5."""
    best = 1
    for fives in (1, 5, 25, 125, 625):
        for threes in (1, 3, 9, 27, 81):
            size = fives * threes
            while size <= count:
                best = max(best, size)
                size *= 2
    return best
