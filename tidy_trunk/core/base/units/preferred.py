"""Preferred resistor values: the E12, E24 and E96 series."""

import math
from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.base.units.decibels import db_from_ratio
from tidy_trunk.errors import InputError

_E24 = (10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91)

SERIES: Final[Mapping[str, tuple[float, ...]]] = {
    "E12": tuple(value / 10 for value in _E24[::2]),
    "E24": tuple(value / 10 for value in _E24),
    # From E48 upwards the standard's values are the rounded geometric series itself.
    "E96": tuple(round(10 ** (step / 96), 2) for step in range(96)),
}
"""Values of one decade from 1, ascending. [IEC60063]"""


def neighbours_ohm(exact_ohm: float, series: str, *, reach: int = 1) -> tuple[float, ...]:
    """The preferred values around an exact one: `reach` below and above, and the nearest between.

    Args:
        exact_ohm: Above 0.
        series: "E12", "E24" or "E96".
        reach: How many values to each side.

    Raises:
        InputError: Unknown series.

    Source: [IEC60063]
    """
    if series not in SERIES:
        raise InputError(f"'{series}' is no series known here: use exact, {', '.join(SERIES)}")
    decade = SERIES[series]
    exponent = math.floor(db_from_ratio(exact_ohm) / 20.0)
    values = [round(step * 10.0**power, 9) for power in range(exponent - 1, exponent + 2) for step in decade]
    nearest = min(range(len(values)), key=lambda index: abs(db_from_ratio(values[index] / exact_ohm)))
    return tuple(values[nearest - reach : nearest + reach + 1])
