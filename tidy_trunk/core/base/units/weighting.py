"""The ear's weighting of a noise."""

from typing import Final

from tidy_trunk.core.base.units.decibels import db_from_ratio

A_POLES_HZ: Final = (20.598997, 107.65265, 737.86223, 12_194.217)
"""Poles of the A-weighting; the first and the last are double. [IEC61672-1]"""

A_AT_1_KHZ_DB: Final = 2.000
"""What makes the A-weighting 0 dB at 1 kHz. [IEC61672-1]"""


def a_weighting_db(frequency_hz: float) -> float:
    """What A-weighting takes off a tone, or adds, in dB; -inf at 0 Hz. Source: [IEC61672-1]"""
    f1, f2, f3, f4 = (pole * pole for pole in A_POLES_HZ)
    f = frequency_hz * frequency_hz
    ratio = f4 * f * f / ((f + f1) * ((f + f2) * (f + f3)) ** 0.5 * (f + f4))
    return db_from_ratio(ratio) + A_AT_1_KHZ_DB
