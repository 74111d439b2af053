"""The difference that is just heard: against listeners whose threshold is known, and sounds measured."""

import math
from random import Random

import numpy as np
import pytest

from tidy_trunk.core.drill import EarTask, ear_sound, has_more, staircase
from tidy_trunk.core.drill.ear import TURNS


def listener(threshold_db, by):
    """Right as often as a logistic function says: half by guessing, 70.7 % at the threshold."""
    slope_db = 1.5
    at = math.log((0.707 - 0.5) / (1.0 - 0.707))  # where it is to pass through

    def is_right(difference_db):
        return by.random() < 0.5 + 0.5 / (1 + math.exp(-((difference_db - threshold_db) / slope_db + at)))

    return is_right


@pytest.mark.parametrize("threshold_db", [2.0, 4.0, 8.0])
def test_it_rests_where_70_percent_are_right(threshold_db):
    """Levitt 1971: two down, one up. The mean over forty sessions lies at the threshold of the listener."""
    found = []
    for session in range(40):
        is_right, answers = listener(threshold_db, Random(session)), []
        while not (state := staircase(answers)).is_over:
            answers.append(is_right(state.difference_db))
        found.append(state.threshold_db)
    assert np.mean(found) == pytest.approx(threshold_db, abs=1.2)


def test_who_is_always_right_or_always_wrong_comes_to_an_end():
    for answers in ([True] * 200, [False] * 200):
        states = [staircase(answers[:count]) for count in range(120)]
        assert states[-1].is_over and 0 < states[-1].threshold_db <= 24
    turning = staircase([True, True, False] * TURNS)
    assert turning.is_over and len(turning.turns) >= TURNS


def rms_db(samples):
    return 10 * np.log10(np.mean(np.square(samples, dtype=np.float64)))


def band_db(samples, hertz):
    lines = 2 * np.abs(np.fft.rfft(samples.astype(np.float64)) / len(samples)) ** 2
    at = np.fft.rfftfreq(len(samples), 1 / 48_000)
    return 10 * np.log10(lines[np.abs(at - hertz) < 4].sum())


@pytest.mark.parametrize("difference_db", [3.0, 12.0])
def test_the_one_has_more_by_what_is_said(difference_db):
    """Measured: the line of the mains, the whole level, the highest sample."""
    more = has_more(7, 3)
    pair = {
        task: [ear_sound(task, 7, 3, which, difference_db) for which in (more, 1 - more)]
        for task in (EarTask.HUM, EarTask.LEVEL, EarTask.CLIPPING)
    }
    louder, softer = pair[EarTask.HUM]
    quiet = slice(0, 8_192)  # before the first word
    assert band_db(louder[quiet], 50) - band_db(softer[quiet], 50) == pytest.approx(difference_db, abs=1.0)
    louder, softer = pair[EarTask.LEVEL]
    assert rms_db(louder) - rms_db(softer) == pytest.approx(difference_db, abs=0.01)
    clipped, whole = pair[EarTask.CLIPPING]
    assert 20 * np.log10(np.abs(whole).max() / np.abs(clipped).max()) == pytest.approx(difference_db, abs=0.01)


@pytest.mark.parametrize("task", list(EarTask))
def test_no_sound_is_louder_than_is_safe_and_both_are_one_sentence(task):
    first, second = (ear_sound(task, 5, 0, which, 6.0).astype(np.float64) for which in (0, 1))
    assert max(np.abs(first).max(), np.abs(second).max()) < 0.4
    assert np.corrcoef(first, second)[0, 1] > 0.9


def test_which_has_more_is_by_chance():
    found = [has_more(seed, trial) for seed in range(20) for trial in range(20)]
    assert 160 < sum(found) < 240
