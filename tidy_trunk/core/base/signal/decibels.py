"""Decibels of whole arrays; of single numbers `core.base.units` knows more. Silence is -inf."""

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

FULL_SCALE_SINE_POWER: Final = 0.5
"""Mean square of a sine that peaks at ±1.0, which reads 0 dBFS. [AES17]"""


def dbfs_of_powers(powers: Any) -> NDArray[np.float64]:
    """Levels in dBFS [AES17] of mean squares of samples with full scale ±1.0, of any shape; 0 gives -inf."""
    with np.errstate(divide="ignore"):
        return np.asarray(10.0 * np.log10(np.asarray(powers, dtype=np.float64) / FULL_SCALE_SINE_POWER))


def dbfs_of_power(power: float) -> float:
    """The same of one."""
    return float(dbfs_of_powers(power))


def db_of_ratios(ratios: Any) -> NDArray[np.float64]:
    """20·log10 of ratios of two levels, of any shape; 0 gives -inf. Source: [IEC60027-3]"""
    with np.errstate(divide="ignore"):
        return np.asarray(20.0 * np.log10(np.abs(np.asarray(ratios, dtype=np.float64))))


def powers_of_dbfs(levels: Any) -> NDArray[np.float64]:
    """Mean squares of levels in dBFS [AES17]; -inf gives 0."""
    return np.asarray(FULL_SCALE_SINE_POWER * 10.0 ** (np.asarray(levels, dtype=np.float64) / 10.0))
