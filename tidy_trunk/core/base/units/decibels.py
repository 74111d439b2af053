"""Decibels: the only module that takes a logarithm. Silence is -inf."""

import math
from collections.abc import Iterable
from typing import Final

from tidy_trunk.errors import RangeError

SILENCE_DB: Final = -math.inf
"""Level of nothing at all: the logarithm of zero. [AES17]"""


def db_from_ratio(ratio: float) -> float:
    """Voltage or pressure ratio in dB: 20·log10. Zero gives silence (-inf).

    Raises:
        RangeError: The ratio is negative or not a number.

    Source: [IEC60027-3]
    """
    if math.isnan(ratio) or ratio < 0:
        raise RangeError(f"{ratio} is no ratio of two levels: give a number of 0 or more")
    return 20.0 * math.log10(ratio) if ratio > 0 else SILENCE_DB


def ratio_from_db(db: float) -> float:
    """Voltage or pressure ratio of a level difference in dB; -inf gives 0. Source: [IEC60027-3]"""
    return float(10.0 ** (db / 20.0))


def sum_powers_db(levels_db: Iterable[float]) -> float:
    """Level of several uncorrelated sounds together: powers add, decibels do not.

    Args:
        levels_db: Levels in one unit (dBu, dBFS RMS or dB SPL); silence allowed.

    Returns:
        Level in the same unit; -inf for no level at all.

    Source: [IEC60027-3]
    """
    power = sum(10.0 ** (level / 10.0) for level in levels_db)
    return 10.0 * math.log10(power) if power > 0 else SILENCE_DB


def less_power_db(level_db: float, part_db: float) -> float:
    """What is left of a level when a part of its power is taken off; -inf where nothing is left.

    Raises:
        RangeError: The part is more than there is.

    Source: [IEC60027-3]
    """
    left = 10.0 ** (level_db / 10.0) - 10.0 ** (part_db / 10.0)
    if left < 0:
        raise RangeError(f"{part_db} dB cannot be a part of {level_db} dB")
    return 10.0 * math.log10(left) if left else SILENCE_DB


def finite(level: float) -> float | None:
    """A level, or None for silence: what leaves the program has no infinity."""
    return level if math.isfinite(level) else None


def combine_tolerances_db(tolerances_db: Iterable[float]) -> float:
    """± of a sum of independent figures, each with its own ±: root of the sum of squares. Source: [GUM]"""
    return math.sqrt(sum(tolerance * tolerance for tolerance in tolerances_db))
