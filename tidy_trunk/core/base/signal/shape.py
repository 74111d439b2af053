"""What made a noise, by its shape: electronics are level up to 20 kHz, rooms and microphones fall above about 2 kHz."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from tidy_trunk.core.base.signal.bands import BANDS_HZ
from tidy_trunk.core.base.signal.measurement import NoiseShape

SHAPED_HZ: Final = (2_000.0, 16_000.0)
"""Where the two part. [HANDBOOK] §7"""

LEVEL_PER_OCTAVE_DB: Final = -1.0
"""ASSUMED_ slope of the density from which on a noise is level: a third of pink noise's −3 dB an octave."""

FALLING_PER_OCTAVE_DB: Final = -2.0
"""ASSUMED_ slope of the density from which on it falls as a room's does: two thirds of pink noise's."""


def shape_of(bands: Sequence[float]) -> NoiseShape | None:
    """By the slope of its third octaves from 2 to 16 kHz; None where those hold nothing.

    Args:
        bands: Around `BANDS_HZ`, dBFS.

    Source: [HANDBOOK] §7; each third octave of a level noise holds 1 dB more than the one below it [IEC61260].
    """
    chosen = [
        (number, level)
        for number, (hertz, level) in enumerate(zip(BANDS_HZ, bands, strict=True))
        if SHAPED_HZ[0] * 0.95 <= hertz <= SHAPED_HZ[1] * 1.05 and np.isfinite(level)
    ]
    if len(chosen) < 10:
        return None
    numbers, levels = zip(*chosen, strict=True)
    per_octave_db = 3 * (float(np.polyfit(numbers, levels, 1)[0]) - 1.0)
    if per_octave_db >= LEVEL_PER_OCTAVE_DB:
        return NoiseShape.ELECTRONICS
    return NoiseShape.ROOM if per_octave_db <= FALLING_PER_OCTAVE_DB else NoiseShape.BOTH
