"""How loud somebody is in a recording, and how loud it is when nobody speaks."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.signal.clipping import is_cut_off
from tidy_trunk.core.base.signal.decibels import db_of_ratios, dbfs_of_power, dbfs_of_powers
from tidy_trunk.core.base.signal.meter import BLOCK_S, LOWEST_RATE_HZ
from tidy_trunk.core.base.signal.pauses import find_pauses, noise_frames
from tidy_trunk.core.base.signal.spectrum import noise_spectrum
from tidy_trunk.errors import InputError

SPEECH_MARGIN_DB: Final = 15.9
"""What lies this far below the active level counts as pause. [P56], its meter simplified to blocks"""

QUIET_SHARE: Final = 0.1
"""ASSUMED_ share of the active blocks that are quiet words."""

SHORTEST_S: Final = 1.0
"""ASSUMED_ least of a recording from which a level is taken."""

MOST_FRAMES: Final = 48
"""ASSUMED_ stretches of pause that are looked at."""

_MOST_ROUNDS = 20


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeechLevels:
    """Levels in dBFS [AES17] of one channel. `noise_dbfs`, `noise_a_dbfs`: of the pauses, None where there is none."""

    average_dbfs: float
    quiet_dbfs: float
    peak_dbfs: float
    noise_dbfs: float | None
    noise_a_dbfs: float | None
    is_clipped: bool
    seconds: float


def speech_levels(samples: Samples, rate_hz: int) -> SpeechLevels:
    """Levels of a voice and of the pauses between its words.

    Args:
        samples: One channel, shape (sample_count,), full scale ±1.0.
        rate_hz: Samples in a second, 8000 or more.

    Raises:
        InputError: Too short, not finite, or silent.

    Source: [P56] active level, simplified; [IEC61672-1] A-weighting
    """
    if rate_hz < LOWEST_RATE_HZ or len(samples) < rate_hz * SHORTEST_S:
        raise InputError(f"{len(samples) / max(rate_hz, 1):.1f} s is too short: record at least {SHORTEST_S:g} s")
    if not np.isfinite(samples).all():
        raise InputError("the recording holds numbers that are not finite: export it again")
    size = round(rate_hz * BLOCK_S)
    blocks = samples[: len(samples) // size * size].reshape(-1, size)
    powers = np.mean(blocks**2, axis=1)
    if not powers.max():
        raise InputError("the recording is silent: choose the channel that has sound")
    active = _active(powers)
    spoken = np.sort(powers[active])
    pauses = find_pauses(dbfs_of_powers(powers), powers).blocks & ~active
    noise = noise_a = None
    starts, length = noise_frames(pauses, size, rate_hz, MOST_FRAMES)
    if starts:
        flat, weighted = noise_spectrum([samples[start : start + length] for start in starts], rate_hz).noise()
        noise, noise_a = (dbfs_of_power(flat), dbfs_of_power(weighted)) if flat else (None, None)
    return SpeechLevels(
        average_dbfs=dbfs_of_power(float(spoken.mean())),
        quiet_dbfs=dbfs_of_power(float(spoken[int(len(spoken) * QUIET_SHARE)])),
        peak_dbfs=float(db_of_ratios(np.abs(samples).max())),
        noise_dbfs=noise,
        noise_a_dbfs=noise_a,
        is_clipped=is_cut_off(samples),
        seconds=len(samples) / rate_hz,
    )


def active_level_dbfs(powers: NDArray[np.float64]) -> float | None:
    """Level of what is spoken; None where there is nothing. `powers`: mean square of each block. Source: [P56], simplified"""
    return dbfs_of_power(float(powers[_active(powers)].mean())) if len(powers) and powers.max() else None


def _active(powers: NDArray[np.float64]) -> NDArray[np.bool_]:
    """Which blocks are speech: those above the margin below the mean of themselves, found from the loudest one down."""
    active: NDArray[np.bool_] = powers == powers.max()
    for _ in range(_MOST_ROUNDS):
        found: NDArray[np.bool_] = powers > powers[active].mean() * 10 ** (-SPEECH_MARGIN_DB / 10)
        if (found == active).all():
            break
        active = found
    return active
