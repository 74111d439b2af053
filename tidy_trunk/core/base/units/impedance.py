"""Dividers, parallel resistances, and the noise that every resistance makes."""

import math

from tidy_trunk.core.base.units.constants import (
    AUDIO_BANDWIDTH_HZ,
    BOLTZMANN_J_PER_K,
    CABLE_PF_PER_M,
    ROOM_TEMPERATURE_K,
)
from tidy_trunk.core.base.units.decibels import db_from_ratio
from tidy_trunk.core.base.units.levels import dbu_from_volts
from tidy_trunk.errors import RangeError


def parallel_ohm(first_ohm: float, second_ohm: float) -> float:
    """Two resistances side by side, each above 0; an infinite one changes nothing. Source: [HANDBOOK] §15.3"""
    if math.isinf(first_ohm):
        return second_ohm
    if math.isinf(second_ohm):
        return first_ohm
    return first_ohm * second_ohm / (first_ohm + second_ohm)


def bridging_loss_db(source_ohm: float, load_ohm: float) -> float:
    """What a load takes off the open-circuit voltage of a source: positive, 0.5 dB for 150 Ω into 2.5 kΩ.

    Raises:
        RangeError: A negative source or a load that is not above zero.

    Source: [HANDBOOK] §15.3
    """
    if not source_ohm >= 0 or not load_ohm > 0:
        raise RangeError(f"source and load impedance must be above 0 Ω, not {source_ohm:g} and {load_ohm:g}")
    return -db_from_ratio(load_ohm / (load_ohm + source_ohm)) if math.isfinite(load_ohm) else 0.0


def lead_corner_hz(driving_ohm: float, length_m: float, pf_per_m: float = CABLE_PF_PER_M) -> float:
    """Where a lead's capacitance begins to take the treble away (−3 dB): 1/(2π·R·C), R being what drives it.

    Raises:
        RangeError: A resistance, length or capacitance that is not above zero, or more than 10 km of lead.

    Source: [HANDBOOK] §4
    """
    if not (driving_ohm > 0 and 0 < length_m <= 10_000 and 0 < pf_per_m <= 10_000):
        raise RangeError(
            f"{length_m:g} m of {pf_per_m:g} pF/m behind {driving_ohm:g} Ω is no cable: give sizes above 0"
        )
    return 1 / (2 * math.pi * driving_ohm * pf_per_m * 1e-12 * length_m)


def thermal_noise_dbu(
    source_ohm: float, *, bandwidth_hz: float = AUDIO_BANDWIDTH_HZ, temperature_k: float = ROOM_TEMPERATURE_K
) -> float:
    """Noise of a bare resistance: no input that it feeds can be quieter.

    Open-circuit v = sqrt(4 k T R B), flat over the band.

    Args:
        source_ohm: Resistance in Ω, above 0; microphones are mostly rated 150 or 200.
        bandwidth_hz: Noise bandwidth in Hz, unweighted, above 0.
        temperature_k: Absolute temperature in K, above 0.

    Returns:
        RMS level in dBu; -130.9 for 150 Ω and the defaults.

    Raises:
        RangeError: An argument is not finite or not above zero.

    Source: [NYQUIST28]
    """
    for value in (source_ohm, bandwidth_hz, temperature_k):
        if not (math.isfinite(value) and value > 0):
            raise RangeError(f"{value} cannot be a resistance, bandwidth or temperature: give a finite number above 0")
    return dbu_from_volts(math.sqrt(4.0 * BOLTZMANN_J_PER_K * temperature_k * source_ohm * bandwidth_hz))
