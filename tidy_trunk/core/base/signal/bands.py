"""Third octaves: how a noise is drawn, and told from another."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.decibels import dbfs_of_powers

BANDS_HZ: Final = tuple(10.0 ** (number / 10) for number in range(13, 44))
"""Middles of the third-octave bands from 20 Hz to 20 kHz. [IEC61260]"""


def band_levels(powers: NDArray[np.float64], width_hz: float) -> NDArray[np.float64]:
    """Level of each third octave from 20 Hz to 20 kHz, in dB re a sine that peaks at 1.0.

    Args:
        powers: Mean square by frequency, shape (bins,), from 0 Hz on.
        width_hz: Width of a bin. Bands narrower than one hold the bin that follows.

    Source: [IEC61260]: edges a twentieth of a decade from the middles.
    """
    edges = np.array([*BANDS_HZ, BANDS_HZ[-1] * 10**0.1]) * 10**-0.05
    bins = np.clip(np.ceil(edges / width_hz).astype(int), 0, len(powers) - 1)
    return dbfs_of_powers(np.add.reduceat(powers, bins)[:-1])
