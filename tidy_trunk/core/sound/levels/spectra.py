"""What lies where in the spectrum: how loud a noise is to the ear, and what a low cut takes of it and of a voice."""

from collections.abc import Mapping
from enum import StrEnum
from functools import lru_cache
from typing import Final

from tidy_trunk.core.base.signal import BANDS_HZ
from tidy_trunk.core.base.units import a_weighting_db, db_from_ratio, sum_powers_db

HALF_DB: Final = 3.01
"""Of the outermost bands one half lies within 20 Hz to 20 kHz. [IEC61260]"""

LOW_CUT_ORDER: Final = 2
"""12 dB per octave, 3 dB down at the frequency that is printed beside it. [PRACTICE]"""

Cuts = tuple[int, ...]
"""Low cuts that something has been through, in Hz. [PRACTICE]"""


class SpectrumShape(StrEnum):
    """The shape of a noise, or of a voice."""

    FLAT = "flat"
    ROOM = "room"
    RUMBLE = "rumble"
    VOICE = "voice"


SPEECH_DB: Final[Mapping[float, float]] = {
    20: 0.0, 25: 0.0, 31.5: 0.0, 40: 0.0, 50: 20.0, 63: 38.6, 80: 43.5, 100: 54.4, 125: 57.7, 160: 56.8, 200: 60.2, 250: 60.3,
    315: 59.0, 400: 62.1, 500: 62.1, 630: 60.5, 800: 56.8, 1000: 53.7, 1250: 53.0, 1600: 52.0, 2000: 48.7, 2500: 48.1, 3150: 46.8,
    4000: 45.6, 5000: 44.5, 6300: 44.3, 8000: 43.7, 10000: 43.4, 12500: 41.3, 16000: 40.7, 20000: 37.0,
}  # fmt: skip
"""Long-term average of speech in third octaves, dB of 70 in all. [BYRNE94]; below 63 Hz and at 20 kHz [MEMORY]"""

RUMBLE_PER_OCTAVE_DB: Final = -6.0
"""Slope of the third octaves of wind and rumble, from 20 Hz on. [MEMORY]"""

_SHAPES: Final[Mapping[SpectrumShape, tuple[float, ...]]] = {
    SpectrumShape.FLAT: tuple(float(index) for index in range(len(BANDS_HZ))),  # a third octave more: 1 dB more of it
    SpectrumShape.ROOM: tuple(0.0 for _ in BANDS_HZ),
    SpectrumShape.RUMBLE: tuple(RUMBLE_PER_OCTAVE_DB / 3 * index for index in range(len(BANDS_HZ))),
    SpectrumShape.VOICE: tuple(SPEECH_DB.values()),
}
"""Third octaves of each shape in dB, from 20 Hz up: flat rises by 1 dB each, a room's noise is alike in all. [MEMORY]"""


def low_cut_db(frequency_hz: float, cut_hz: float) -> float:
    """What a low cut leaves at a frequency, 0 or negative dB: Butterworth of `LOW_CUT_ORDER`. Source: [PRACTICE]"""
    below_db = LOW_CUT_ORDER * db_from_ratio(cut_hz / frequency_hz)
    return -sum_powers_db((0.0, below_db))


@lru_cache(maxsize=512)
def cut_change_db(spectrum: SpectrumShape, cuts: Cuts) -> float:
    """By how much low cuts turn it down, unweighted: 0 or negative dB."""
    return _level(spectrum, cuts, weighted=False) - _level(spectrum, (), weighted=False)


@lru_cache(maxsize=512)
def a_change_db(spectrum: SpectrumShape, cuts: Cuts = ()) -> float:
    """A-weighted level less the unweighted one, both behind those low cuts. Source: [IEC61672-1]"""
    return _level(spectrum, cuts, weighted=True) - _level(spectrum, cuts, weighted=False)


@lru_cache(maxsize=512)
def likeness(spectrum: SpectrumShape, one: Cuts, other: Cuts) -> float:
    """How much alike a sound still is that has been through different low cuts, 1 where they are the same: the real part of
    its cross-correlation. Butterworth filters turn the phase as well. Source: [HANDBOOK] §15.7"""
    if one == other:
        return 1.0
    powers = [10.0 ** (band / 10) for band in _SHAPES[spectrum]]
    passed = [(_response(hertz, one), _response(hertz, other)) for hertz in BANDS_HZ]
    both = sum(power * (a * b.conjugate()).real for power, (a, b) in zip(powers, passed, strict=True))
    each = [sum(power * abs(pair[at]) ** 2 for power, pair in zip(powers, passed, strict=True)) for at in (0, 1)]
    return float(both / (each[0] * each[1]) ** 0.5)


def _response(frequency_hz: float, cuts: Cuts) -> complex:
    """Of Butterworth high passes of the second order in a row."""
    found = 1.0 + 0.0j
    for cut in cuts:
        s = 1j * frequency_hz / cut
        found *= s * s / (s * s + 2**0.5 * s + 1)
    return found


def _level(spectrum: SpectrumShape, cuts: Cuts, *, weighted: bool) -> float:
    return sum_powers_db(
        band
        - (HALF_DB if hertz in (BANDS_HZ[0], BANDS_HZ[-1]) else 0.0)
        + (a_weighting_db(hertz) if weighted else 0.0)
        + sum(low_cut_db(hertz, cut) for cut in cuts)
        for hertz, band in zip(BANDS_HZ, _SHAPES[spectrum], strict=True)
    )
