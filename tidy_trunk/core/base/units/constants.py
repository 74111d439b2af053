"""Physical and normative numbers, each with the tag of its source (docs/sources.md)."""

import math
from typing import Final

DBU_REFERENCE_V: Final = math.sqrt(0.6)
"""RMS volts at 0 dBu: 1 mW in 600 Ω. [BS645]"""

DBV_REFERENCE_V: Final = 1.0
"""RMS volts at 0 dBV. [IEC60027-3]"""

SPL_REFERENCE_PA: Final = 20e-6
"""RMS pascal at 0 dB SPL. [IEC61672-1]"""

BOLTZMANN_J_PER_K: Final = 1.380649e-23
"""Boltzmann constant, exact by definition. [SI2019]"""

ROOM_TEMPERATURE_K: Final = 293.15
"""20 °C, the temperature at which resistor noise is stated. [HANDBOOK] §15.3"""

AUDIO_BANDWIDTH_HZ: Final = 20_000.0
"""Noise bandwidth for flat figures, 20 Hz to 20 kHz. [HANDBOOK] §15.3"""

LOWEST_SIGNAL_DB: Final = -200.0
"""ASSUMED_ level in any unit from which on something sounds: below it lies what floating point leaves of silence."""

HIGHEST_OF_RATE: Final = 0.45
"""ASSUMED_ share of a sample rate up to which a frequency is used: half of it is the limit [AES17], and filters need some room."""

BRIDGING_RATIO: Final = 5.0
"""The load of a source is kept at this many times its impedance or more. [PRACTICE]"""

PHANTOM_V: Final = 48.0
"""Phantom supply voltage. [IEC61938]"""

PHANTOM_TOLERANCE_V: Final = 4.0
"""± of the phantom supply voltage. [IEC61938]"""

PHANTOM_FEED_OHM: Final = 6_800.0
"""Resistor from the phantom supply to each leg. [IEC61938]"""

PHANTOM_MOST_MA: Final = 10.0
"""Most current of one microphone on phantom power. [IEC61938]"""

CABLE_PF_PER_M: Final = 100.0
"""Capacitance of audio cable. [MEMORY]"""
