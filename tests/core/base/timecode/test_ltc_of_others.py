"""Timecode that another program made: samples of libltc's encoder, and every rate of it."""

import io
import wave
from fractions import Fraction
from pathlib import Path

import numpy as np
import pytest

from tests.core.base.timecode.other_encoder import FRAMES, SAMPLES, encoded
from tests.core.base.timecode.test_ltc_decode import read
from tests.core.base.timecode.test_ltc_encode import SLOW, label
from tidy_trunk.core.base.timecode import RATES

FILES = Path(__file__).parents[3] / "files"


def scaled(data: np.ndarray) -> np.ndarray:
    return (data.astype(np.float32) - 128) / 128


def assert_found(found, first, ratio: Fraction, rate_hz: int):
    """Labels one after the other, and positions on a line through all of them, to a quarter of a bit."""
    assert found.first.timecode == first and found.last.timecode == first.plus(FRAMES - 1)
    assert found.frame_count == FRAMES and found.gaps == ()
    frame = rate_hz / ratio
    assert abs(found.first.sample) < frame / 80 / 4
    assert abs(found.last.sample - (FRAMES - 1) * frame) < frame / 80 / 4


@pytest.mark.parametrize("name", SAMPLES)
def test_a_sample_of_another_encoder_is_read(name):
    with wave.open(io.BytesIO((FILES / name).read_bytes())) as file:
        rate_hz, data = file.getframerate(), np.frombuffer(file.readframes(file.getnframes()), dtype=np.uint8)
    rate = name.removeprefix("ltc-").removesuffix(".wav")
    found = read(scaled(data), rate_hz)
    assert found.rate_name == rate
    assert_found(found, label(SAMPLES[name][2], rate), RATES[rate].ratio, rate_hz)


@pytest.mark.parametrize("name", [name for name in SLOW if name not in ("29.97", "30df")])  # which it does not make
@pytest.mark.parametrize("rate_hz", [44_100, 48_000])
def test_another_encoder_is_read(name, rate_hz):
    rate = RATES[name]
    first = label("10:00:59:20", name)
    found = read(scaled(encoded(str(first), float(rate.ratio), rate_hz, FRAMES)), rate_hz)
    assert found.rate_name == name
    assert_found(found, first, rate.ratio, rate_hz)
