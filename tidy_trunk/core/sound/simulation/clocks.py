"""Clocks of the simulation: each runs a little fast or slow, and a recording is as long as its own clock says."""

import zlib
from typing import Final

import numpy as np

from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.simulation.materials import NoiseLoop

OVERSAMPLED: Final = 4
"""ASSUMED_ how much finer a loop is laid before it is read between its samples: what cubes miss lies 100 dB down."""


def clock_ppm(index: PlanIndex, device_id: str) -> float:
    """By how much a device's clock runs fast in the simulation, within what its class promises; 0 where it has none."""
    found = index.placed(device_id).device_class.traits.clock_ppm
    if found is None:
        return 0.0
    return round(found.value * (zlib.crc32(f"{device_id} clock".encode()) / 0xFFFF_FFFF * 2 - 1), 2)


def recorded_by(sound: NoiseLoop, sender_ppm: float, recorder_ppm: float) -> NoiseLoop:
    """A loop that one clock played, as another counts its samples: a fast recorder holds more of them, and plays it slow."""
    ratio = (1 + sender_ppm * 1e-6) / (1 + recorder_ppm * 1e-6)
    if ratio == 1.0:
        return sound
    count = len(sound)
    lines = np.fft.rfft(sound.astype(np.float64))
    fine = np.fft.irfft(lines, OVERSAMPLED * count) * OVERSAMPLED
    at = np.arange(count) * (ratio * OVERSAMPLED)
    whole = np.floor(at).astype(np.int64)
    share = at - whole
    before, here, after, beyond = (fine[(whole + step) % len(fine)] for step in (-1, 0, 1, 2))
    # Catmull and Rom's cubic: through both neighbours, with the slope of those beside them.
    slope_here, slope_after = (after - before) / 2, (beyond - here) / 2
    bend = 3 * (after - here) - 2 * slope_here - slope_after
    twist = 2 * (here - after) + slope_here + slope_after
    return np.asarray(here + share * (slope_here + share * (bend + share * twist)), dtype=np.float32)
