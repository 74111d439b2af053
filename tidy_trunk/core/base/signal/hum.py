"""Hum: the mains and their harmonics in what else is noise."""

from collections.abc import Sequence
from typing import Final

from tidy_trunk.core.base.signal.decibels import dbfs_of_power
from tidy_trunk.core.base.signal.lines import line_power
from tidy_trunk.core.base.signal.measurement import Hum
from tidy_trunk.core.base.signal.spectrum import Spectrum

MAINS_HZ: Final = (50, 60)
"""Mains frequencies of the world. [PRACTICE]"""

MOST_HARMONICS: Final = 40
"""ASSUMED_ harmonics that belong to hum: a dimmer's reach 2 kHz before they are a buzz of their own."""

MAINS_DRIFT: Final = 0.002
"""ASSUMED_ share by which mains may be off their frequency: a tenth of a hertz in fifty."""

FAINTEST_DB: Final = -25.0
"""ASSUMED_ hum that the noise hides: so far below all of it, nobody hears it."""

QUIETEST_HUM_DBFS: Final = -110.0
"""ASSUMED_ hum that nobody will ever find, whatever a clean file shows."""

COARSEST_HZ: Final = 5.0
"""ASSUMED_ widest bins in which hum can be told from noise and 50 Hz from 60."""


def find_hum(spectrum: Spectrum, tones_hz: Sequence[float] = ()) -> Hum | None:
    """The hum in a spectrum of pauses, or of what is left under a tone; None where there is none.

    Args:
        spectrum: Of noise; bins of `COARSEST_HZ` or less.
        tones_hz: What is no hum though it may stand where a harmonic would: a tone that is sent, and its harmonics.
    """
    if spectrum.width_hz > COARSEST_HZ:
        return None
    best: Hum | None = None
    noise_dbfs = dbfs_of_power(spectrum.noise()[0])
    for mains_hz in MAINS_HZ:
        lines = [_line(spectrum, mains_hz, number, tones_hz) for number in range(1, MOST_HARMONICS + 1)]
        # One line somewhere is a whistle; hum has its fundamental, or several of the first few.
        if not lines[0] and sum(line > 0 for line in lines[:6]) < 2:
            continue
        level = dbfs_of_power(sum(lines))
        if level >= max(QUIETEST_HUM_DBFS, noise_dbfs + FAINTEST_DB) and (best is None or level > best.level_dbfs):
            best = Hum(mains_hz=mains_hz, level_dbfs=level)
    return best


def _line(spectrum: Spectrum, mains_hz: int, number: int, tones_hz: Sequence[float]) -> float:
    """Power of one harmonic; 0 where it does not stand out, or where a tone is that is no hum."""
    hertz = float(mains_hz * number)
    if any(abs(tone - hertz) < mains_hz / 4 for tone in tones_hz):
        return 0.0
    return line_power(spectrum, hertz, reach_hz=mains_hz / 2, drift=MAINS_DRIFT)
