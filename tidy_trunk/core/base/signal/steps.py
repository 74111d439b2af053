"""One recording of a line-up tone at several settings: what each of them gives, and which one is right."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.signal.clipping import is_cut_off
from tidy_trunk.core.base.signal.decibels import dbfs_of_power, dbfs_of_powers, powers_of_dbfs
from tidy_trunk.core.base.signal.spectrum import smooth_size
from tidy_trunk.core.base.signal.stretches import runs
from tidy_trunk.core.base.signal.tone import LONGEST_LOOK_S, tone_inside
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.errors import InputError

LOOK_S: Final = 0.05
"""ASSUMED_ stretch over which the tone's level is taken, at whole cycles of anything from 20 Hz on."""

STILL_DB: Final = 0.25
"""ASSUMED_ how far the level of one setting may move; the finest knob has steps of half a decibel."""

TONE_SHARE: Final = 0.25
"""ASSUMED_ share of a stretch that is the tone: less is a pause, a click, or a hand on the camera."""

SHORTEST_STEP_S: Final = 0.4
"""ASSUMED_ shortest stay at one setting: what is shorter happened while the knob was turned."""

SHORTEST_PAUSE_S: Final = 0.12
"""ASSUMED_ shortest pause between two settings: a click is shorter."""

SHORTEST_SHARE: Final = 0.15
"""ASSUMED_ share of the usual stay below which a stretch is no step of its own."""

LOOKS: Final = 5
"""ASSUMED_ places at which a step is looked at: most of them are without a click."""

MOST_LOOKS: Final = 20
"""ASSUMED_ of the loudest places, those at which a tone is looked for."""

MOST_STEPS: Final = 200
"""ASSUMED_ most settings of one recording."""

LARGEST_SETTING: Final = 1e6
"""ASSUMED_ largest number on a knob or in a menu."""

DISTORTED_DB: Final = -26.0
"""ASSUMED_ THD+N from which a tone is cut off even where no top is flat any more: a twentieth of it is distortion."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StepMeasure:
    """What one setting gave. Levels in dBFS [AES17]; noise from 20 Hz to 20 kHz under the tone. `seconds`: for how long."""

    setting: float
    level_dbfs: float
    noise_dbfs: float
    clipped: bool
    start_s: float
    seconds: float


@dataclass(frozen=True, slots=True, kw_only=True)
class StepsMeasure:
    """Every setting in the order of the recording, and what follows for the target.

    best_setting: of those tried and not clipped, the one nearest to the target; None where all are clipped.
    interpolated_setting: between two that were tried; None where the target lies outside of them.
    db_per_setting: slope of the control where it is straight; None where fewer than two settings are clean.
    noisy_from: the lowest setting from which on its own noise rises faster than the tone; None where none does.
    """

    frequency_hz: float
    steps: tuple[StepMeasure, ...]
    target_dbfs: float
    best_setting: float | None
    interpolated_setting: float | None
    db_per_setting: float | None
    noisy_from: float | None


def measure_steps(samples: Samples, rate_hz: int, settings: Sequence[float], target_dbfs: float) -> StepsMeasure:
    """Find the plateaus of a step recording, with pauses between them or without, and what they say.

    Args:
        samples: One channel, shape (sample_count,), full scale 1.0.
        settings: What the control stood at, in the order of the recording.
        target_dbfs: Where the tone is wanted.

    Raises:
        InputError: Another number of steps than of settings, no tone, or numbers that cannot be.
    """
    _check(settings, target_dbfs)
    frequency_hz = _frequency(samples, rate_hz)
    levels, shares = _tone_levels(samples, rate_hz, frequency_hz)
    found = _plateaus(levels, shares)
    if len(found) != len(settings):
        heard = ", ".join(f"{levels[start:end].mean():.1f}" for start, end in found[:12]).replace("-", "−")
        raise InputError(
            f"the recording has {_count(len(found), 'step')} ({heard} dBFS), and {_count(len(settings), 'setting')} "
            "were given: name each setting once, in the order of the recording, and stay at each for a second or two"
        )
    size = round(LOOK_S * rate_hz)
    steps = tuple(
        _step(setting, samples[start * size : end * size], rate_hz, start * LOOK_S)
        for setting, (start, end) in zip(settings, found, strict=True)
    )
    return StepsMeasure(
        frequency_hz=frequency_hz,
        steps=steps,
        target_dbfs=target_dbfs,
        best_setting=_best(steps, target_dbfs),
        interpolated_setting=_interpolated(steps, target_dbfs),
        db_per_setting=_slope(steps),
        noisy_from=_noisy_from(steps),
    )


def _check(settings: Sequence[float], target_dbfs: float) -> None:
    if not 2 <= len(settings) <= MOST_STEPS:
        raise InputError(f"{_count(len(settings), 'setting')} cannot be compared: give 2 to {MOST_STEPS}")
    if not all(math.isfinite(setting) and abs(setting) <= LARGEST_SETTING for setting in settings):
        raise InputError("a setting is a number as it stands on the knob or in the menu")
    if len(set(settings)) < 2:
        raise InputError("all settings are the same: give what the control really stood at")
    if not -120.0 <= target_dbfs <= 0.0:
        raise InputError(f"target must be between −120 and 0 dBFS, not {target_dbfs:g}")


def _count(number: int, what: str) -> str:
    return f"{number} {what}{'' if number == 1 else 's'}"


def _frequency(samples: Samples, rate_hz: int) -> float:
    """Of the tone, found where the recording is loudest; a clipped tone still has its own frequency."""
    size = smooth_size(min(len(samples), rate_hz))
    if size < rate_hz * SHORTEST_STEP_S:
        raise InputError(f"{len(samples) / rate_hz:.1f} s is too short for steps: stay at each for a second or two")
    starts = list(range(0, len(samples) - size + 1, size // 2))
    starts.sort(key=lambda start: -float(np.mean(samples[start : start + size] ** 2)))
    for start in starts[:MOST_LOOKS]:
        inside = tone_inside(samples[start : start + size], rate_hz)
        if inside is not None:
            return inside.frequency_hz
    raise InputError("there is no steady tone in the recording: send a line-up tone, and stay at each setting")


def _tone_levels(
    samples: Samples, rate_hz: int, frequency_hz: float
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Level of the tone in each stretch in dBFS, and what share of the stretch it is: noise and clicks are left out."""
    size = round(LOOK_S * rate_hz)
    blocks = np.asarray(samples[: len(samples) // size * size], dtype=np.float64).reshape(-1, size)
    window = np.hanning(size + 1)[:-1]
    wave = np.exp(-2j * np.pi * frequency_hz / rate_hz * np.arange(size))
    amplitudes = np.abs(blocks @ (window * wave)) * 2 / window.sum()
    centred = blocks - blocks.mean(axis=1, keepdims=True)
    whole = (centred**2 @ window) / window.sum()
    shares = np.divide(amplitudes**2 / 2, whole, out=np.zeros_like(whole), where=whole > 0)
    return dbfs_of_powers(amplitudes**2 / 2), shares


def _plateaus(levels: NDArray[np.float64], shares: NDArray[np.float64]) -> list[tuple[int, int]]:
    """Stretches over which the tone stands still: first block, and the one behind the last."""
    sounds = (shares >= TONE_SHARE) & np.isfinite(levels)
    still = sounds.copy()
    still[1:] &= np.abs(np.diff(np.where(sounds, levels, 0.0))) <= STILL_DB
    pieces = [(start, end) for start, end in runs(still) if end - start >= 3]
    merged: list[tuple[int, int]] = []
    for start, end in pieces:
        if merged and _is_same(levels, sounds, merged[-1], (start, end)):
            merged[-1] = (merged[-1][0], end)
        else:
            merged.append((start, end))
    kept = [(start, end) for start, end in merged if (end - start) * LOOK_S >= SHORTEST_STEP_S]
    if not kept:
        return []
    usual = float(np.median([end - start for start, end in kept]))
    return [(start, end) for start, end in kept if end - start >= SHORTEST_SHARE * usual]


def _is_same(
    levels: NDArray[np.float64], sounds: NDArray[np.bool_], before: tuple[int, int], after: tuple[int, int]
) -> bool:
    """Whether a click or a hand, and no pause and no other setting, lies between two stretches of one level."""
    gap = ~sounds[before[1] : after[0]]
    longest = max((end - start for start, end in runs(gap)), default=0)
    first, second = (float(np.median(levels[slice(*piece)])) for piece in (before, after))
    return longest * LOOK_S < SHORTEST_PAUSE_S and abs(first - second) <= STILL_DB


def _step(setting: float, samples: Samples, rate_hz: int, start_s: float) -> StepMeasure:
    # The ends may hold the knob being turned.
    edge = min(round(LOOK_S * rate_hz), len(samples) // 4)
    inner = samples[edge : len(samples) - edge]
    size = smooth_size(
        min(max(len(inner) // LOOKS, round(SHORTEST_STEP_S / 2 * rate_hz)), round(LONGEST_LOOK_S * rate_hz))
    )
    starts = np.linspace(0, len(inner) - size, LOOKS).astype(int)
    looks = [tone_inside(inner[start : start + size], rate_hz) for start in starts]
    found = sorted((look for look in looks if look is not None), key=lambda look: look.noise)
    if not found:
        power = float(np.mean((inner - inner.mean()) ** 2))
        level, noise, distorted = dbfs_of_power(power), SILENCE_DB, True
    else:
        # The quieter looks are those without a click or a hand in them.
        clean = found[: len(found) // 2 + 1]
        middle = clean[len(clean) // 2]
        level, noise = dbfs_of_power(float(np.median([look.power for look in clean]))), dbfs_of_power(middle.noise)
        distorted = dbfs_of_power(max(middle.rest - middle.noise, 0.0)) - level > DISTORTED_DB
    return StepMeasure(
        setting=setting,
        level_dbfs=level,
        noise_dbfs=noise,
        clipped=distorted or is_cut_off(inner, float(np.sqrt(powers_of_dbfs(min(noise, 0.0))))),
        start_s=round(start_s, 3),
        seconds=round(len(samples) / rate_hz, 3),
    )


def _best(steps: Sequence[StepMeasure], target_dbfs: float) -> float | None:
    clean = [step for step in steps if not step.clipped]
    return min(clean, key=lambda step: abs(step.level_dbfs - target_dbfs)).setting if clean else None


def _interpolated(steps: Sequence[StepMeasure], target_dbfs: float) -> float | None:
    """On the straight line between the two settings that have the target between them, clean ones where there are.

    Where only the quieter of them is clean, on the line of all clean ones: what is cut off tells too little.
    """
    ordered = sorted(steps, key=lambda step: step.setting)
    spans = [
        (first, second)
        for first, second in pairwise(ordered)
        if min(first.level_dbfs, second.level_dbfs) <= target_dbfs <= max(first.level_dbfs, second.level_dbfs)
        and first.setting != second.setting
    ]
    if not spans:
        return None
    first, second = min(spans, key=lambda span: span[0].clipped + span[1].clipped)
    slope = _slope(steps)
    if first.clipped != second.clipped and slope:
        known = second if first.clipped else first
        guess = known.setting + (target_dbfs - known.level_dbfs) / slope
        return min(max(guess, first.setting), second.setting)
    rise = second.level_dbfs - first.level_dbfs
    share = (target_dbfs - first.level_dbfs) / rise if rise else 0.0
    return first.setting + share * (second.setting - first.setting)


def _slope(steps: Sequence[StepMeasure]) -> float | None:
    """Decibels for one of the control's marks, by least squares over the clean settings."""
    clean = [(step.setting, step.level_dbfs) for step in steps if not step.clipped]
    settings, levels = (np.array(values) for values in zip(*clean, strict=True)) if clean else (np.zeros(0),) * 2
    if len(set(settings.tolist())) < 2:
        return None
    return float(np.polyfit(settings - settings.mean(), levels, 1)[0])


def _noisy_from(steps: Sequence[StepMeasure]) -> float | None:
    """Where a control turns into noise: from there on, each step up brings more noise than tone."""
    clean = sorted((step for step in steps if not step.clipped), key=lambda step: step.level_dbfs)
    found = None
    for quieter, louder in reversed(list(pairwise(clean))):
        if louder.noise_dbfs - quieter.noise_dbfs <= louder.level_dbfs - quieter.level_dbfs + STILL_DB:
            break
        found = quieter.setting
    return found
