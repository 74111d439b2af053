"""What low cuts and A-weighting make of noises, against noise that is made, filtered and measured (numpy, scipy.signal)."""

import math

import numpy as np
import pytest
import scipy

from tests.core.base.units.test_weighting import TABLE
from tidy_trunk.core.sound.levels import SpectrumShape, a_change_db, cut_change_db, low_cut_db

RATE = 48_000
HERTZ = np.fft.rfftfreq(1 << 18, 1 / RATE)
AUDIBLE = (HERTZ >= 20) & (HERTZ <= 20_000)


def slope(decibels_per_octave: float) -> np.ndarray:
    """Power in each line of a spectrum that falls by that much in each third octave's density."""
    return np.where(AUDIBLE, np.maximum(HERTZ, 1.0) ** (decibels_per_octave / (20 * math.log10(2)) * 2), 0)


SHAPES = {SpectrumShape.FLAT: slope(0), SpectrumShape.ROOM: slope(-3.0103), SpectrumShape.RUMBLE: slope(-9.0309)}


def level(power: np.ndarray) -> float:
    return 10 * math.log10(power.sum())


@pytest.mark.parametrize("spectrum", SHAPES)
def test_a_weighting_of_noise(spectrum):
    """The standard's table, interpolated between its frequencies, on the lines of a spectrum."""
    nominal = [10 ** (number / 10) for number in range(13, 44)]
    weights = np.interp(np.log(np.maximum(HERTZ, 1)), np.log(nominal), list(TABLE.values()))
    power = SHAPES[spectrum]
    assert a_change_db(spectrum) == pytest.approx(level(power * 10 ** (weights / 10)) - level(power), abs=0.2)


@pytest.mark.parametrize("spectrum", SHAPES)
@pytest.mark.parametrize("cuts", [(80,), (160,), (80, 120)])
def test_low_cuts_on_noise(spectrum, cuts):
    """A Butterworth of the second order as scipy designs it, 12 dB per octave: common practice."""
    power = SHAPES[spectrum]
    filtered = power.copy()
    for cut in cuts:
        poles = scipy.signal.butter(2, 2 * math.pi * cut, "highpass", analog=True)
        _, response = scipy.signal.freqs(*poles, worN=2 * math.pi * HERTZ)
        filtered *= np.abs(response) ** 2
    assert cut_change_db(spectrum, cuts) == pytest.approx(level(filtered) - level(power), abs=0.25)


def test_a_low_cut_is_three_decibels_down_where_it_says():
    assert low_cut_db(80, 80) == pytest.approx(-3.01, abs=0.01)
    assert low_cut_db(20, 80) == pytest.approx(-24.1, abs=0.1), "two octaves of 12 dB"


def test_160_hz_thins_a_voice_and_80_hz_does_not():
    """Handbook §6: against rumble; 80 to 160 Hz thins a voice. The spectrum of speech is from memory."""
    assert -0.2 < cut_change_db(SpectrumShape.VOICE, (80,)) < 0
    assert cut_change_db(SpectrumShape.VOICE, (160,)) < -0.5
    assert cut_change_db(SpectrumShape.RUMBLE, (80,)) < -10
