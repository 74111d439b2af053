"""Voltage, pressure and level: the units of `./tidy convert`, and the ways between them."""

import math
from collections.abc import Callable, Mapping
from typing import Final, NamedTuple

from tidy_trunk.core.base.units.constants import DBU_REFERENCE_V, DBV_REFERENCE_V, SPL_REFERENCE_PA
from tidy_trunk.core.base.units.decibels import db_from_ratio, ratio_from_db
from tidy_trunk.errors import RangeError, UnitError


class Unit(NamedTuple):
    """A unit, the quantity it belongs to, and its way to and from that quantity's base (V or Pa, RMS)."""

    name: str
    quantity: str
    to_base: Callable[[float], float]
    from_base: Callable[[float], float]


UNITS: Final[Mapping[str, Unit]] = {
    unit.name.lower(): unit
    for unit in (
        Unit("V", "voltage", lambda value: value, lambda volts: volts),
        Unit("mV", "voltage", lambda value: value / 1000.0, lambda volts: volts * 1000.0),
        Unit("dBu", "voltage", lambda db: volts_from_dbu(db), lambda volts: dbu_from_volts(volts)),
        Unit("dBV", "voltage", lambda db: volts_from_dbv(db), lambda volts: dbv_from_volts(volts)),
        Unit("Pa", "pressure", lambda value: value, lambda pascal: pascal),
        Unit("dB SPL", "pressure", lambda db: pascal_from_db_spl(db), lambda pascal: db_spl_from_pascal(pascal)),
    )
}
"""The units by lower-case name. [IEC60027-3]"""

LARGEST_DB: Final = 1000.0
"""ASSUMED_ limit of any level that means something; beyond it floats overflow."""


def dbu_from_volts(volts: float) -> float:
    """RMS volts to dBu. Source: [BS645]"""
    return db_from_ratio(volts / DBU_REFERENCE_V)


def volts_from_dbu(level_dbu: float) -> float:
    """dBu to RMS volts. Source: [BS645]"""
    return ratio_from_db(level_dbu) * DBU_REFERENCE_V


def dbv_from_volts(volts: float) -> float:
    """RMS volts to dBV. Source: [IEC60027-3]"""
    return db_from_ratio(volts / DBV_REFERENCE_V)


def volts_from_dbv(level_dbv: float) -> float:
    """dBV to RMS volts. Source: [IEC60027-3]"""
    return ratio_from_db(level_dbv) * DBV_REFERENCE_V


def db_spl_from_pascal(pascal: float) -> float:
    """RMS pascal to dB SPL; 1 Pa is 93.98. Source: [IEC61672-1]"""
    return db_from_ratio(pascal / SPL_REFERENCE_PA)


def pascal_from_db_spl(level_db_spl: float) -> float:
    """dB SPL to RMS pascal. Source: [IEC61672-1]"""
    return ratio_from_db(level_db_spl) * SPL_REFERENCE_PA


def microphone_dbu(sensitivity_mv_per_pa: float, level_db_spl: float = db_spl_from_pascal(1.0)) -> float:
    """Open-circuit output of a microphone in dBu for a sound pressure; 20 mV/Pa at 94 dB SPL gives -31.8.

    Source: [HANDBOOK] §15.2
    """
    return dbu_from_volts(sensitivity_mv_per_pa / 1000.0 * pascal_from_db_spl(level_db_spl))


def find_unit(name: str) -> Unit:
    """The unit of that name, whatever its case and spaces.

    Raises:
        UnitError: Unknown; the message lists the known ones.
    """
    unit = UNITS.get(" ".join(name.split()).lower())
    if unit is None:
        raise UnitError(f"'{name}' is not a unit known here: use V, mV, dBu, dBV, \"dB SPL\" or Pa")
    return unit


def convert(value: float, unit: str, to: str, *, sensitivity_mv_per_pa: float | None = None) -> float:
    """Convert a level between units; between sound pressure and voltage through a microphone's sensitivity.

    Args:
        value: RMS value in `unit`; volts and pascal are 0 or more.
        unit, to: Names as in `UNITS`.
        sensitivity_mv_per_pa: Above 0; needed between pressure and voltage.

    Returns:
        The value in `to`; -inf where zero is asked in dB.

    Raises:
        UnitError: An unknown unit, or a sensitivity is missing.
        RangeError: Not a finite number, a negative size, or beyond ±1000 dB.

    Source: [BS645], [IEC61672-1]
    """
    start, end = find_unit(unit), find_unit(to)
    if not math.isfinite(value):
        raise RangeError(f"{value} is not a finite number")
    if start.name.startswith("dB"):
        if abs(value) > LARGEST_DB:
            raise RangeError(f"{value:g} {start.name} is beyond ±{LARGEST_DB:g} dB, further than any signal goes")
    elif value < 0 or value > ratio_from_db(LARGEST_DB / 2):
        raise RangeError(f"{value:g} {start.name} is no RMS size: give a number from 0 to 1e25")
    if sensitivity_mv_per_pa is not None and not (
        math.isfinite(sensitivity_mv_per_pa) and 0 < sensitivity_mv_per_pa < 1e6
    ):
        raise RangeError(f"sensitivity must be above 0 mV/Pa, not {sensitivity_mv_per_pa}")
    base = start.to_base(value)
    if start.quantity != end.quantity:
        if sensitivity_mv_per_pa is None:
            raise UnitError(
                f"from {start.name} to {end.name} needs the microphone's sensitivity: add --sensitivity MV_PER_PA"
            )
        volts_per_pascal = sensitivity_mv_per_pa / 1000.0
        base = base * volts_per_pascal if start.quantity == "pressure" else base / volts_per_pascal
    return end.from_base(base)
