"""Frame rates and delays. SMPTE ST 12-1, from memory; handbook section 8."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.base.timecode import RATES, FrameRate, delay_of_frames, delay_of_ms
from tidy_trunk.errors import RangeError, RateError


def test_five_frames_at_2997():
    delay = delay_of_frames(5, RATES["29.97"], 48_000)
    assert float(delay.seconds) == pytest.approx(0.1668, abs=5e-5)  # handbook section 8
    assert delay.sample_count == 8008  # 5 x 1001 / 30000 x 48000, exact


def test_rates_are_exact():
    assert RATES["23.976"].ratio == Fraction(24_000, 1001)
    assert RATES["29.97df"].ratio == RATES["29.97"].ratio
    assert RATES["29.97df"] != RATES["29.97"]


@given(st.floats(0, 1000), st.sampled_from(list(RATES)))
def test_frames_and_ms_are_the_same_delay(frames, name):
    there = delay_of_frames(frames, RATES[name], 48_000)
    back = delay_of_ms(float(there.seconds * 1000), RATES[name], 48_000)
    assert float(back.frame_count) == pytest.approx(frames, abs=1e-9)
    assert abs(back.sample_count - there.sample_count) <= 1


@pytest.mark.parametrize("frames", [-1, float("nan"), float("inf"), 1e12])
def test_impossible_delays(frames):
    with pytest.raises(RangeError):
        delay_of_frames(frames, RATES["25"], 48_000)


def test_refusals():
    with pytest.raises(RateError):
        FrameRate.parse("26")
    with pytest.raises(RangeError):
        delay_of_ms(10, None, 7)
