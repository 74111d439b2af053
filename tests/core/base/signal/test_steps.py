"""Step recordings made with numpy: the levels are known, so is the setting that would meet the target."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.sounds import RATE, noise, ratio, sine
from tidy_trunk.core.base.signal import line_up_tone, measure_steps
from tidy_trunk.errors import InputError, RangeError


def recording(levels, *, pause=0.5, floor=-80.0, ceiling=None, clicks=False, glide=0.0, seed=1, hertz=1000.0):
    """A stay of one to two seconds at each level, with a pause or none between them."""
    random = np.random.default_rng(seed)
    parts = [np.zeros(RATE // 3)]
    for index, level in enumerate(levels):
        seconds = random.uniform(1.0, 2.0)
        if glide and index:
            ramp = ratio(np.linspace(levels[index - 1], level, round(glide * RATE)))
            parts.append(ramp * sine(hertz, 0, glide))
        tone = sine(hertz, level, seconds, phase=random.uniform(0, 6))
        if ceiling is not None:
            tone = np.clip(tone, -ratio(ceiling), ratio(ceiling))
        if clicks:
            at = len(tone) // 3
            tone[at : at + 400] += random.standard_normal(400) * 0.1
            tone[2 * at : 2 * at + 40] += random.standard_normal(40) * 0.3
        rest = np.zeros(round(pause * RATE))
        if clicks and len(rest) > 5_000:
            rest[2_000:4_000] += random.standard_normal(2_000) * 0.2
        parts += [tone, rest]
    whole = np.concatenate(parts)
    return whole + noise(floor, len(whole) / RATE, seed)[: len(whole)]


@pytest.mark.parametrize("clicks", [False, True])
@pytest.mark.parametrize(("pause", "glide"), [(0.5, 0.0), (0.2, 0.0), (0.0, 0.0), (0.0, 0.4)])
def test_every_setting_is_found(pause, glide, clicks):
    found = measure_steps(
        recording([-30, -20, -10, -4], pause=pause, glide=glide, clicks=clicks), RATE, [40, 50, 60, 70], -7
    )
    assert [step.level_dbfs for step in found.steps] == pytest.approx([-30, -20, -10, -4], abs=0.1)
    assert [step.noise_dbfs for step in found.steps] == pytest.approx([-80.8] * 4, abs=0.5)
    assert not any(step.clipped for step in found.steps)
    assert found.interpolated_setting == pytest.approx(65, abs=0.2), "half of the way from -10 to -4"
    assert found.frequency_hz == pytest.approx(1000, abs=0.1)


@settings(max_examples=12, deadline=None)
@given(
    st.floats(0.4, 3.0),
    st.integers(3, 7),
    st.booleans(),
    st.floats(0.05, 0.95),
    st.sampled_from([100.0, 440.0, 997.0, 1000.0]),
)
def test_the_setting_lands_within_half_a_step(db_per_mark, count, paused, share, hertz):
    levels = [-40 + db_per_mark * index for index in range(count)]
    target = levels[0] + share * (levels[-1] - levels[0])
    found = measure_steps(
        recording(levels, pause=0.3 if paused else 0.0, seed=count, hertz=hertz), RATE, list(range(count)), target
    )
    assert found.interpolated_setting == pytest.approx((target + 40) / db_per_mark, abs=0.5)
    assert found.db_per_setting == pytest.approx(db_per_mark, rel=0.05)
    assert abs(found.steps[int(found.best_setting)].level_dbfs - target) <= db_per_mark / 2 + 0.1


def test_clipped_settings_are_told_and_not_taken():
    found = measure_steps(recording([-30, -20, -10, 3, 8], ceiling=-1), RATE, [40, 50, 60, 73, 78], -2)
    assert [step.clipped for step in found.steps] == [False, False, False, True, True]
    assert found.best_setting == 60
    assert found.interpolated_setting == pytest.approx(68, abs=0.3), "one decibel a mark, as far as it was clean"
    assert found.db_per_setting == pytest.approx(1.0, abs=0.01)
    worst = measure_steps(recording([3, 8], ceiling=-1), RATE, [1, 2], -2)
    assert worst.best_setting is None


def test_where_a_control_turns_into_noise_is_told():
    """A gain whose last two positions bring more noise than tone."""
    parts = [
        recording([level], floor=floor, seed=3) for level, floor in ((-40, -90), (-30, -80), (-26, -70), (-24, -60))
    ]
    found = measure_steps(np.concatenate(parts), RATE, [1, 2, 3, 4], -25)
    assert found.noisy_from == 2
    assert measure_steps(recording([-40, -30, -20]), RATE, [1, 2, 3], -25).noisy_from is None


@pytest.mark.parametrize(
    ("given_settings", "target", "words"),
    [
        ([1, 2], -6, "has 3 steps"),
        ([1, 2, 3, 4], -6, "4 settings"),
        ([5, 5, 5], -6, "all settings are the same"),
        ([1], -6, "give 2 to"),
        ([1, float("nan"), 3], -6, "a setting is a number"),
        ([1, 2, 3], float("nan"), "target"),
        ([1, 2, 3], 3, "target"),
    ],
)
def test_what_does_not_fit_is_refused(given_settings, target, words):
    with pytest.raises(InputError, match=words):
        measure_steps(recording([-30, -20, -10]), RATE, given_settings, target)


def test_no_tone_is_refused():
    for wave in (noise(-20, 4), np.zeros(4 * RATE), sine(1000, -20, 0.1)):
        with pytest.raises(InputError, match=r"steady tone|too short"):
            measure_steps(wave, RATE, [1, 2], -6)


@settings(max_examples=20, deadline=None)
@given(st.floats(-60, 0), st.floats(20, 15_000), st.floats(0.3, 2.2), st.sampled_from([44_100, 48_000]))
def test_a_line_up_tone_is_what_it_says(level, hertz, seconds, rate):
    wave = np.concatenate(list(line_up_tone(level, hertz, seconds, rate_hz=rate)), axis=1)
    assert wave.shape == (1, round(seconds * rate)) and wave[0, 0] == 0
    assert np.abs(wave[0] - sine(hertz, level, seconds, rate)).max() < 1e-6


def test_an_ident_interrupts_the_left_alone():
    left, right = np.concatenate(list(line_up_tone(-20, 1000, 10, channels=2, ident=True)), axis=1)
    assert np.abs(right).max() == pytest.approx(0.1, abs=1e-6)
    silent = np.flatnonzero(np.abs(left[48:-48].reshape(-1, 24)).max(axis=1) == 0)
    assert len(silent) == pytest.approx(3 * 0.245 * RATE / 24, rel=0.02), "three gaps of a quarter of a second"
    assert np.abs(np.diff(left)).max() < 0.014, "no click: not steeper than the tone itself"


@pytest.mark.parametrize(
    "how",
    [
        {"level_dbfs": 1.0},
        {"level_dbfs": float("nan")},
        {"frequency_hz": 23_000.0},
        {"seconds": 0.0},
        {"seconds": 1e9},
        {"channels": 3},
        {"ident": True},
        {"rate_hz": 0},
    ],
)
def test_a_tone_that_cannot_be_is_refused(how):
    with pytest.raises(RangeError):
        line_up_tone(**{"level_dbfs": -20.0, "frequency_hz": 1000.0, "seconds": 1.0, **how})
