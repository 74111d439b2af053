"""Units, levels, impedances and preferred values."""

from tidy_trunk.core.base.units.air import SOUND_M_PER_S, air_m, air_ms
from tidy_trunk.core.base.units.constants import (
    AUDIO_BANDWIDTH_HZ,
    BRIDGING_RATIO,
    CABLE_PF_PER_M,
    DBU_REFERENCE_V,
    HIGHEST_OF_RATE,
    LOWEST_SIGNAL_DB,
    PHANTOM_FEED_OHM,
    PHANTOM_MOST_MA,
    PHANTOM_TOLERANCE_V,
    PHANTOM_V,
    ROOM_TEMPERATURE_K,
)
from tidy_trunk.core.base.units.decibels import (
    SILENCE_DB,
    combine_tolerances_db,
    db_from_ratio,
    finite,
    less_power_db,
    ratio_from_db,
    sum_powers_db,
)
from tidy_trunk.core.base.units.impedance import bridging_loss_db, lead_corner_hz, parallel_ohm, thermal_noise_dbu
from tidy_trunk.core.base.units.levels import UNITS, convert, dbu_from_volts, find_unit, microphone_dbu, volts_from_dbu
from tidy_trunk.core.base.units.preferred import SERIES, neighbours_ohm
from tidy_trunk.core.base.units.weighting import a_weighting_db

__all__ = [
    "AUDIO_BANDWIDTH_HZ",
    "BRIDGING_RATIO",
    "CABLE_PF_PER_M",
    "DBU_REFERENCE_V",
    "HIGHEST_OF_RATE",
    "LOWEST_SIGNAL_DB",
    "PHANTOM_FEED_OHM",
    "PHANTOM_MOST_MA",
    "PHANTOM_TOLERANCE_V",
    "PHANTOM_V",
    "ROOM_TEMPERATURE_K",
    "SERIES",
    "SILENCE_DB",
    "SOUND_M_PER_S",
    "UNITS",
    "a_weighting_db",
    "air_m",
    "air_ms",
    "bridging_loss_db",
    "combine_tolerances_db",
    "convert",
    "db_from_ratio",
    "dbu_from_volts",
    "find_unit",
    "finite",
    "lead_corner_hz",
    "less_power_db",
    "microphone_dbu",
    "neighbours_ohm",
    "parallel_ohm",
    "ratio_from_db",
    "sum_powers_db",
    "thermal_noise_dbu",
    "volts_from_dbu",
]
