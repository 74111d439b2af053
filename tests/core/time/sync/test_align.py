"""Pairs of which the truth is known, made with numpy and scipy: what another microphone, a room and a coder do to a sound."""

import numpy as np
import pytest
import scipy

from tests.few import each_of
from tests.sounds import RATE, noise, voice
from tidy_trunk.core.time.sync import Sound, align, profile_of
from tidy_trunk.core.time.sync.chance import top_by_chance

SECONDS, BEGINS = 30.0, 7.3210
SOURCE = voice(-20, SECONDS, 7)
AT = round(BEGINS * RATE)
WITHIN_S = 0.001


def sound_of(samples, rate_hz=RATE):
    wave = np.asarray(samples, dtype=np.float32)
    pieces = (wave[first : first + rate_hz] for first in range(0, len(wave), rate_hz))
    return Sound(profile_of(pieces, rate_hz), lambda start, count: wave[start : start + count], rate_hz, len(wave))


def other(seconds=20.0):
    return SOURCE[AT : AT + round(seconds * RATE)]


def in_a_room(samples, seed=3):
    """The tail as strong as the direct sound."""
    random = np.random.default_rng(seed)
    tail = random.standard_normal(RATE // 2) * np.exp(-np.arange(RATE // 2) / (0.12 * RATE))
    tail /= np.sqrt(np.sum(tail**2))
    tail[0] = 1.0
    return scipy.signal.fftconvolve(samples, tail)[: len(samples)]


def ridden(samples):
    """As automatic level leaves it: what is quiet is brought up."""
    loud = scipy.signal.fftconvolve(np.abs(samples), np.ones(9_600) / 9_600, "same")
    return samples / (loud + 0.01)


@pytest.mark.parametrize(
    ("what", "changed"),
    [
        ("nothing", lambda x: x),
        ("opposite polarity", lambda x: -x),
        ("noise as loud as the words", lambda x: x + noise(-20, len(x) / RATE, 9)),
        ("a room", in_a_room),
        ("automatic level", ridden),
        ("8 bits", lambda x: np.round(x * 128) / 128),
        ("a telephone's band", lambda x: np.fft.irfft(np.fft.rfft(x) * _band(len(x), 300, 3_400), len(x))),
    ],
)
def test_it_is_found_whatever_happened_to_it(what, changed):
    found = align(sound_of(SOURCE + noise(-45, SECONDS, 2)), sound_of(changed(other())))
    assert found.offset_s == pytest.approx(AT / RATE, abs=WITHIN_S) and found.confidence > 0.9
    assert found.polarity == (-1 if what == "opposite polarity" else 1)
    assert found.drift_ppm is None, "too short to tell"


def _band(count, low, high):
    hertz = np.fft.rfftfreq(count, 1 / RATE)
    return (hertz > low) & (hertz < high)


def test_both_in_noise_as_loud_as_themselves():
    found = align(sound_of(SOURCE + noise(-20, SECONDS, 4)), sound_of(other() + noise(-20, 20, 5)))
    assert found.offset_s == pytest.approx(AT / RATE, abs=WITHIN_S) and found.confidence > 0.9


def test_another_sample_rate():
    resampled = scipy.signal.resample_poly(other(), 147, 160)  # 44 100 to 48 000
    found = align(sound_of(SOURCE), sound_of(resampled, 44_100))
    assert found.offset_s == pytest.approx(AT / RATE, abs=WITHIN_S) and found.confidence > 0.9


def test_the_other_may_begin_earlier():
    found = align(sound_of(other()), sound_of(SOURCE))
    assert found.offset_s == pytest.approx(-AT / RATE, abs=WITHIN_S) and found.confidence > 0.9
    halves = align(sound_of(SOURCE[: 20 * RATE]), sound_of(SOURCE[10 * RATE :]))
    assert halves.offset_s == pytest.approx(10, abs=WITHIN_S), "only ten seconds are on both"


@pytest.mark.deep
@pytest.mark.parametrize("ppm", each_of([-12.0, 100.0], 1))
def test_clocks_that_part(ppm):
    """A fast clock holds more samples of the same time: the other is longer by so many millionths."""
    slow, long = RATE // 3, voice(-20, 150, 21)[::3]
    at = np.arange(round(120 * slow)) * (1 - ppm * 1e-6) + 20 * slow
    found = align(sound_of(long, slow), sound_of(np.interp(at, np.arange(len(long)), long), slow))
    assert found.drift_ppm == pytest.approx(ppm, abs=2.0)
    assert found.offset_s == pytest.approx(20.0, abs=WITHIN_S)


@pytest.mark.parametrize(
    "stranger",
    [
        voice(-20, 20, 99),
        noise(-20, 20, 6),
        np.sin(2 * np.pi * 1000 * np.arange(20 * RATE) / RATE),
        np.zeros(20 * RATE),
        np.zeros(0),
        voice(-20, 1.0, 98)[:3000],
    ],
)
def test_what_has_nothing_in_common_is_not_found(stranger):
    found = align(sound_of(SOURCE), sound_of(stranger))
    assert found is None or found.confidence < 0.5


@pytest.mark.deep
@pytest.mark.parametrize("seed", each_of([2, 3], 1))
def test_strangers_with_silence_between_their_words_are_not_found(seed):
    """Where only few words lie over each other, what is common by chance is uneven, and stands out of the rest."""
    found = align(sound_of(voice(-20, 60, seed)), sound_of(voice(-20, 60, seed + 50)))
    assert found is None or found.confidence < 0.5


def test_the_best_of_many_by_chance():
    """Against numpy: the mean of the largest of so many normal values lies below, and near."""
    for tried in (100, 1_000, 100_000):
        drawn = np.random.default_rng(tried).standard_normal((20, tried)).max(axis=1).mean()
        assert drawn < top_by_chance(tried) < drawn + 0.6


def test_a_short_clip_is_found():
    start = AT + 2 * RATE
    found = align(sound_of(SOURCE), sound_of(SOURCE[start : start + 4 * RATE]))
    assert found.offset_s == pytest.approx(start / RATE, abs=WITHIN_S) and found.confidence > 0.9


@pytest.mark.deep
def test_half_an_hour_that_begins_minutes_later_on_a_clock_that_parts():
    """Thirty minutes of which twenty-six are on both; over them the clocks part by 156 ms. The other way it is -100 ppm."""
    rate_hz, minutes, later_s, ppm = 8_000, 30, 240, 100.0
    random = np.random.default_rng(31)
    count = (minutes * 60 + later_s) * rate_hz
    swells = random.gamma(0.6, 0.5, count // 1_200 + 2).astype(np.float32)
    whole = random.standard_normal(count, dtype=np.float32) * np.interp(
        np.arange(count) / 1_200, np.arange(len(swells)), swells
    )
    whole += np.roll(whole, 1)  # less treble than bass, as a voice
    at = np.arange(minutes * 60 * rate_hz) * (1 - ppm * 1e-6) + later_s * rate_hz
    first = sound_of(whole[: minutes * 60 * rate_hz], rate_hz)
    second = sound_of(np.interp(at, np.arange(count), whole), rate_hz)
    found = align(first, second)
    assert found.offset_s == pytest.approx(later_s, abs=WITHIN_S) and found.drift_ppm == pytest.approx(ppm, abs=0.5)
    back = align(second, first)
    # The first sample of the first lies before the second begins: by its slope that is 240 s of its own clock.
    assert back.offset_s == pytest.approx(-later_s * (1 + ppm * 1e-6), abs=WITHIN_S)
    assert back.drift_ppm == pytest.approx(-ppm, abs=0.5)
