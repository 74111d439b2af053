"""Third octaves, against what IEC 61260 says of white noise and of a sine."""

import numpy as np
import pytest

from tests.sounds import RATE, noise, sine
from tidy_trunk.core.base.signal import BANDS_HZ, band_levels


def bands_of(samples):
    powers = 2 * np.abs(np.fft.rfft(samples) / len(samples)) ** 2
    return band_levels(powers, RATE / len(samples))


def test_white_noise_rises_by_a_decibel_from_band_to_band():
    """Each band is wider than the one below by 10^0.1: a decibel."""
    found = bands_of(noise(-40, 20))[12:-1]
    assert np.polyfit(np.arange(len(found)), found, 1)[0] == pytest.approx(1.0, abs=0.03)


@pytest.mark.parametrize("hertz", [31.5, 250, 1000, 8000])
def test_a_sine_lies_in_its_own_band(hertz):
    found = bands_of(sine(hertz, -12, 2))
    own = int(np.argmin(np.abs(np.log(np.array(BANDS_HZ) / hertz))))
    assert found[own] == pytest.approx(-12, abs=0.01) and np.delete(found, own).max() < -60
