"""How loud somebody is in a recording, and how loud it is when nobody speaks."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.units import SILENCE_DB, a_weighting_db, db_from_ratio
from tidy_trunk.errors import InputError

BLOCK_S: Final = 0.05
"""ASSUMED_ stretch over which a level is taken: a syllable is longer, a pause between words as well."""

SPEECH_MARGIN_DB: Final = 15.9
"""What lies this far below the active level counts as pause. [P56], its meter simplified to blocks"""

QUIET_SHARE: Final = 0.1
"""ASSUMED_ share of the active blocks that are quiet words, and of the pauses that are the quietest."""

SHORTEST_S: Final = 1.0
"""ASSUMED_ least of a recording from which a level is taken."""

CLIPPED_RUN: Final = 3
"""Samples in a row at one extreme that count as cut off. [HANDBOOK]"""

_FULL_SCALE_SINE = 2**-0.5
_LOWEST_HZ, _HIGHEST_HZ = 20.0, 20_000.0
_MOST_ROUNDS = 20

Samples = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Heard:
    """Levels in dBFS [AES17] of one channel. `noise_dbfs`, `noise_a_dbfs`: of the pauses, None where there is none."""

    average_dbfs: float
    quiet_dbfs: float
    peak_dbfs: float
    noise_dbfs: float | None
    noise_a_dbfs: float | None
    is_clipped: bool
    seconds: float


def hear(samples: Samples, rate_hz: int) -> Heard:
    """Levels of a voice and of the pauses between its words.

    Args:
        samples: One channel, shape (sample_count,), full scale ±1.0.
        rate_hz: Samples in a second, 8000 or more.

    Raises:
        InputError: Too short, not finite, or silent.

    Source: [P56] active level, simplified; [IEC61672-1] A-weighting
    """
    if rate_hz < 8_000 or len(samples) < rate_hz * SHORTEST_S:
        raise InputError(f"{len(samples) / max(rate_hz, 1):.1f} s is too short: record at least {SHORTEST_S:g} s")
    if not np.isfinite(samples).all():
        raise InputError("the recording holds numbers that are not finite: export it again")
    size = round(rate_hz * BLOCK_S)
    blocks = samples[: len(samples) // size * size].reshape(-1, size)
    powers = np.mean(blocks**2, axis=1)
    if not powers.max():
        raise InputError("the recording is silent: choose the channel that has sound")
    active = _active(powers)
    spoken, pauses = np.sort(powers[active]), np.flatnonzero(~active)
    noise = noise_a = None
    if len(pauses):
        quietest = pauses[np.argsort(powers[pauses])][: max(int(len(pauses) * QUIET_SHARE), 1)]
        noise, noise_a = _noise(blocks[quietest], rate_hz)
    return Heard(
        average_dbfs=_dbfs(spoken.mean()),
        quiet_dbfs=_dbfs(spoken[int(len(spoken) * QUIET_SHARE)]),
        peak_dbfs=db_from_ratio(float(np.abs(samples).max())),
        noise_dbfs=noise,
        noise_a_dbfs=noise_a,
        is_clipped=_is_clipped(samples),
        seconds=len(samples) / rate_hz,
    )


def _active(powers: Samples) -> NDArray[np.bool_]:
    """Which blocks are speech: those above the margin below the mean of themselves, found from the loudest one down."""
    active: NDArray[np.bool_] = powers == powers.max()
    for _ in range(_MOST_ROUNDS):
        found: NDArray[np.bool_] = powers > powers[active].mean() * 10 ** (-SPEECH_MARGIN_DB / 10)
        if (found == active).all():
            break
        active = found
    return active


def _noise(blocks: Samples, rate_hz: int) -> tuple[float | None, float | None]:
    """Level of blocks of noise from 20 Hz to 20 kHz, flat and A-weighted."""
    window = np.hanning(blocks.shape[1])
    power = np.mean(np.abs(np.fft.rfft(blocks * window, axis=1)) ** 2, axis=0)
    power *= 2 / (blocks.shape[1] * np.sum(window**2))
    hertz = np.fft.rfftfreq(blocks.shape[1], 1 / rate_hz)
    power[(hertz < _LOWEST_HZ) | (hertz > _HIGHEST_HZ)] = 0
    weights = np.array([10 ** (a_weighting_db(float(value)) / 10) for value in hertz])
    levels = _dbfs(power.sum()), _dbfs((power * weights).sum())
    return levels if levels[0] > SILENCE_DB else (None, None)


def _dbfs(power: Any) -> float:
    return db_from_ratio(float(power) ** 0.5 / _FULL_SCALE_SINE)


def _is_clipped(samples: Samples) -> bool:
    """Whether several samples in a row stand at the highest or the lowest value that occurs."""
    for extreme in (samples.max(), samples.min()):
        if abs(extreme) < 0.5:
            continue  # nobody cuts off so far down
        flat = (samples == extreme).astype(np.int8)
        runs = np.convolve(flat, np.ones(CLIPPED_RUN, dtype=np.int8), "valid")
        if (runs == CLIPPED_RUN).any():
            return True
    return False
