"""Single lines in a spectrum of noise: what something steady adds to it at one frequency."""

from typing import Final

import numpy as np

from tidy_trunk.core.base.signal.decibels import powers_of_dbfs
from tidy_trunk.core.base.signal.spectrum import Spectrum

CLEAR_NEPERS: Final = 3.5
"""ASSUMED_ how far a line must stand above the noise around it, in nepers of power, divided by the root of the number of
spectra behind it: hardly one bin of noise in a million does by itself."""

FAINTEST_LINE_DBFS: Final = -130.0
"""ASSUMED_ line that nobody will ever find, whatever a clean file shows."""


def line_power(spectrum: Spectrum, hertz: float, *, reach_hz: float, drift: float) -> float:
    """Power of a line above the noise that lies in the same bins; 0 where it does not stand out.

    Args:
        reach_hz: How far to either side the noise beside it is looked at.
        drift: Share by which the frequency may be off.
    """
    lobe = spectrum.around(hertz, more=round(hertz * drift / spectrum.width_hz))
    reach = max(round(reach_hz / spectrum.width_hz), lobe.stop - lobe.start)
    middle = (lobe.start + lobe.stop) // 2
    if lobe.stop > len(spectrum.powers):
        return 0.0
    sides = (slice(max(middle - reach, 1), lobe.start), slice(lobe.stop, middle + reach))
    usual = np.median(np.concatenate([spectrum.usual[side] for side in sides]))
    # What is there all the time is in every pause: what only some of them have is somebody's voice.
    if spectrum.usual[lobe].max() < usual * np.exp(CLEAR_NEPERS / spectrum.averaged**0.5):
        return 0.0
    noise = float(np.median(np.concatenate([spectrum.powers[side] for side in sides])) / np.log(2.0))
    line = spectrum.powers[lobe]
    power = max(float(line.sum()) - noise * len(line), 0.0)
    return power if power > float(powers_of_dbfs(FAINTEST_LINE_DBFS)) else 0.0
