"""Claps that were put where they are: decaying noise on a floor of room, with echoes behind them."""

import numpy as np
import pytest

from tests.sounds import RATE, noise, sine, voice
from tidy_trunk.core.time.sync import claps_by_chance, common_lag, profile_of
from tidy_trunk.core.time.sync.claps import TOGETHER_S


def clap(seed=0):
    burst = np.random.default_rng(seed).standard_normal(RATE // 5) * np.exp(-np.arange(RATE // 5) / (0.01 * RATE))
    return 0.8 * burst / np.abs(burst).max()


def with_claps(at, seconds=20.0, floor=-60.0, echo=0.0, seed=1):
    samples = noise(floor, seconds, seed)
    for moment in at:
        begin = round(moment * RATE)
        samples[begin : begin + RATE // 5] += clap()
        if echo:
            later = begin + round(0.11 * RATE)
            samples[later : later + RATE // 5] += echo * clap(5)
    return samples


def claps_of(samples):
    wave = samples.astype(np.float32)
    return profile_of((wave[first : first + RATE] for first in range(0, len(wave), RATE)), RATE).claps


@pytest.mark.parametrize("echo", [0.0, 0.5, 0.9])
def test_the_first_edge_is_found_and_not_the_echo(echo):
    assert claps_of(with_claps([3.25, 9.5, 15.123], echo=echo)) == pytest.approx([3.25, 9.5, 15.123], abs=0.002)


@pytest.mark.parametrize(
    "sound", [noise(-20, 10), sine(1000, -6, 10), np.zeros(10 * RATE), np.zeros(100), voice(-20, 20, 3)]
)
def test_what_nobody_clapped_in_has_none(sound):
    assert claps_of(sound + noise(-60, len(sound) / RATE, 8)[: len(sound)]) == ()


def test_the_lag_on_which_most_agree():
    first, second = (10.0, 31.5, 47.2, 90.0), (2.0, 23.5, 39.2, 60.0)
    assert common_lag(first, second) == (pytest.approx(8.0), 3)
    assert common_lag((10.0,), (2.5,)) == (pytest.approx(7.5), 1)
    assert common_lag((10.0, 20.0), (2.5,)) is None, "either may be the one"
    assert common_lag((), (2.5,)) is None


@pytest.mark.parametrize(("claps", "seconds", "agree"), [(50, 600, 3), (100, 600, 4), (10, 60, 2), (20, 120, 5)])
def test_claps_that_lie_on_each_other_by_chance(claps, seconds, agree):
    """Against drawing: of 200 pairs that have nothing in common, no more than is told, and not far fewer."""
    hits, told = 0, []
    for seed in range(200):
        first, second = np.random.default_rng(seed).uniform(0, seconds, (2, claps))
        lags = np.sort(np.subtract.outer(first, second).ravel())
        counts = np.searchsorted(lags, lags + TOGETHER_S, side="right") - np.arange(len(lags))
        hits += counts.max() >= agree
        told.append(claps_by_chance(first.tolist(), second.tolist(), agree))
    assert hits / 200 <= np.mean(told) <= 4 * hits / 200 + 0.01
