"""A steady tone in a recording: where it stands, how loud, how clean, and what noise lies under it."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.signal.decibels import db_of_ratios, dbfs_of_powers
from tidy_trunk.core.base.signal.spectrum import HIGHEST_HZ, LOWEST_HZ, Spectrum, tone_spectrum

STEADY_DB: Final = 0.5
"""ASSUMED_ how far two blocks of a steady tone may differ: one of 50 Hz and more does by less, 20 dB above its noise."""

FLATTEST_CREST_DB, HIGHEST_CREST_DB = -0.5, 7.0
"""Crest factor of a sine is 3 dB, of one cut off less, of one with noise on it more; noise alone has 11. [HANDBOOK] §15.1"""

SHORTEST_TONE_S: Final = 0.3
"""ASSUMED_ shortest stretch that is called steady: longer than a vowel stays in place."""

LONGEST_LOOK_S: Final = 4.0
"""ASSUMED_ most of a tone that is looked at: its frequency is then known to a hundredth of a hertz."""

TONE_SHARE: Final = 0.5
"""ASSUMED_ share of a stretch that must be in one line for it to be a tone: a square wave has four fifths there."""

MOST_HARMONICS: Final = 400
"""ASSUMED_ harmonics that are taken out of the noise under a tone: those of 50 Hz up to 20 kHz."""


@dataclass(frozen=True, slots=True)
class SteadyRun:
    """Blocks from `start` up to, not with, `end` over which a level stands still."""

    start: int
    end: int
    level_dbfs: float


def steady_runs(levels: NDArray[np.float64], peaks: NDArray[np.float64], block_s: float) -> tuple[SteadyRun, ...]:
    """Where a tone may stand: stretches without change, with the crest factor of a tone.

    Args:
        levels, peaks: RMS and peak of each block in dBFS [AES17], shape (blocks,).
        block_s: Length of a block in s.
    """
    with np.errstate(invalid="ignore"):
        crest = peaks - levels + db_of_ratios(np.sqrt(2.0))  # a sine's RMS in dBFS is its peak's
        tonal = np.isfinite(levels) & (crest >= FLATTEST_CREST_DB) & (crest <= HIGHEST_CREST_DB)
        still = np.abs(np.diff(levels)) <= STEADY_DB
    found = []
    start = 0
    for index in range(1, len(levels) + 1):
        if index < len(levels) and tonal[index] and tonal[index - 1] and still[index - 1]:
            continue
        if index - start >= SHORTEST_TONE_S / block_s - 1e-9 and tonal[start]:
            found.append(SteadyRun(start, index, float(np.median(levels[start:index]))))
        start = index
    return tuple(found)


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredTone:
    """A tone in a stretch. Powers are mean squares; noise without the tone and its harmonics, flat and A-weighted.

    residue: the spectrum without the tone and its harmonics, what lay under them guessed from beside them.
    """

    frequency_hz: float
    power: float
    rest: float
    noise: float
    noise_a: float
    residue: Spectrum

    @property
    def thd_n_db(self) -> float:
        """All else from 20 Hz to 20 kHz against the tone, negative; -inf for a tone with nothing beside it."""
        return float(dbfs_of_powers(self.rest) - dbfs_of_powers(self.power))


def tone_inside(stretch: Samples, rate_hz: int) -> MeasuredTone | None:
    """The tone that rules a stretch, None where none does. Source: [AES17] THD+N, here against the tone alone"""
    spectrum = tone_spectrum(stretch, rate_hz)
    audible = spectrum.within(LOWEST_HZ / 2, rate_hz / 2)
    powers = np.where(audible, spectrum.powers, 0.0)
    top = int(np.argmax(powers))
    total = float(powers.sum())
    if total <= 0.0 or top < 1 or top + 1 >= len(powers):
        return None
    frequency_hz = _frequency(spectrum, top)
    lobe = spectrum.around(frequency_hz)
    power = float(spectrum.powers[lobe].sum())
    if power < TONE_SHARE * total:
        return None
    band = spectrum.within()
    out = band.copy()
    out[lobe] = False
    left = spectrum.powers.copy()
    for number in range(1, MOST_HARMONICS + 1):
        if number * frequency_hz - spectrum.lobe * spectrum.width_hz > HIGHEST_HZ:
            break
        _take_out(left, spectrum, number * frequency_hz)
    residue = spectrum._replace(powers=left, usual=left)
    noise, noise_a = residue.noise(band)
    return MeasuredTone(
        frequency_hz=frequency_hz,
        power=power,
        rest=float(spectrum.powers[out].sum()),
        noise=noise,
        noise_a=noise_a,
        residue=residue,
    )


def _frequency(spectrum: Spectrum, top: int) -> float:
    """Between the bins: the window's lobe is almost a Gaussian, whose logarithm is a parabola through three of them."""
    before, middle, after = np.log(np.maximum(spectrum.powers[top - 1 : top + 2], 1e-300))
    bend = before - 2 * middle + after
    shift = 0.5 * (before - after) / bend if bend < 0 else 0.0
    return float((top + shift) * spectrum.width_hz)


def _take_out(powers: NDArray[np.float64], spectrum: Spectrum, hertz: float) -> None:
    """In place of a line, what lies beside it: else the noise under it would be missing."""
    lobe = spectrum.around(hertz)
    width = lobe.stop - lobe.start
    beside = np.concatenate((powers[max(lobe.start - width, 0) : lobe.start], powers[lobe.stop : lobe.stop + width]))
    # The median: another line beside it is none of its noise. Of noise powers it lies ln 2 below their mean.
    powers[lobe] = np.median(beside) / np.log(2.0) if len(beside) else 0.0
