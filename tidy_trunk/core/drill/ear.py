"""Ear training: which of two sounds has more of something, with the difference found that is just heard.

Two right answers in a row make it harder, each wrong one easier: that comes to rest where 70.7 % of the answers are right. [LEVITT71]
"""

import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from random import Random
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.plan import SPEECH_PEAK_ABOVE_DB
from tidy_trunk.core.sound.levels import SpectrumShape
from tidy_trunk.core.sound.simulation import RATE_HZ, mains_hum, noise_loop, voice_loop


class EarTask(StrEnum):
    """What one of the two sounds has more of."""

    HUM = "hum"
    HISS = "hiss"
    CLIPPING = "clipping"
    BLEED = "bleed"
    POLARITY = "polarity"
    LEVEL = "level"


BEGINS_DB: Final = 12.0
"""ASSUMED_ difference of the first pair: everybody hears it."""

STEPS_DB: Final = (4.0, 4.0, 2.0, 2.0, 1.0)
"""ASSUMED_ steps by the number of turning points before; the last holds from then on."""

LARGEST_DB, SMALLEST_DB = 24.0, 0.25
"""ASSUMED_ limits of a difference."""

TURNS: Final = 10
"""ASSUMED_ turning points after which it is over."""

COUNTED: Final = 6
"""ASSUMED_ turning points at the end of which the mean is taken: an even number. [LEVITT71]"""

MOST_TRIALS: Final = 80
"""ASSUMED_ pairs after which it is over whatever was answered."""

SAMPLES: Final = 2**17
"""ASSUMED_ length of a sound: 2.7 s, a sentence; a power of two is quick to transform."""

VOICE_DBFS: Final = -28.0
"""ASSUMED_ level of the voice: safe for headphones that were set low, and room for what comes on top."""

BASES_DB: Final = {EarTask.HUM: -52.0, EarTask.HISS: -48.0, EarTask.BLEED: -36.0, EarTask.POLARITY: -24.0}
"""ASSUMED_ what both sounds have of it, below the voice: just heard in a quiet room."""

SECOND_LATE_S: Final = 0.0004
"""ASSUMED_ by how much a second microphone hears later: 14 cm."""


@dataclass(frozen=True, slots=True)
class EarState:
    """difference_db: of the next pair; turns: where it turned; threshold_db: once it is over, None before."""

    difference_db: float
    turns: tuple[float, ...]
    threshold_db: float | None

    @property
    def is_over(self) -> bool:
        return self.threshold_db is not None


def staircase(answers: Sequence[bool]) -> EarState:
    """Where the difference stands after some answers, right or not. Source: [LEVITT71]"""
    difference, in_row, was_up = BEGINS_DB, 0, None
    turns: list[float] = []
    for is_right in answers:
        in_row = in_row + 1 if is_right else 0
        if is_right and in_row < 2:
            continue
        goes_up = not is_right
        if was_up is not None and goes_up != was_up:
            turns.append(difference)
        was_up, in_row = goes_up, 0
        step = STEPS_DB[min(len(turns), len(STEPS_DB) - 1)]
        difference = min(max(difference + (step if goes_up else -step), SMALLEST_DB), LARGEST_DB)
    is_over = len(turns) >= TURNS or len(answers) >= MOST_TRIALS
    counted = turns[-COUNTED:] or [difference]
    return EarState(difference, tuple(turns), sum(counted) / len(counted) if is_over else None)


def has_more(seed: int, trial: int) -> int:
    """Which sound of a pair has more: 0 for the first, 1 for the second; by chance, and always the same for a number."""
    return Random(zlib.crc32(f"{seed} {trial}".encode())).randrange(2)


MAINS_HZ: Final = 50
"""ASSUMED_ mains of the hum that is trained on: an ear that finds it finds 60 Hz as well."""


def ear_sound(task: EarTask, seed: int, trial: int, which: int, difference_db: float) -> NDArray[np.float32]:
    """One sound of a pair, full scale ±1.0, mono at 48 kHz; the same sentence in both."""
    more_db = difference_db if which == has_more(seed, trial) else 0.0
    voice = voice_loop(f"ear {seed} {trial}", SPEECH_PEAK_ABOVE_DB, SAMPLES, RATE_HZ).astype(np.float64)
    match task:
        case EarTask.HUM:
            heard = voice + mains_hum(BASES_DB[task] + more_db, MAINS_HZ, SAMPLES, RATE_HZ)
        case EarTask.HISS:
            heard = voice + noise_loop(SpectrumShape.FLAT, SAMPLES, RATE_HZ) * ratio_from_db(BASES_DB[task] + more_db)
        case EarTask.BLEED:
            other = np.roll(voice_loop(f"other {seed} {trial}", SPEECH_PEAK_ABOVE_DB, SAMPLES, RATE_HZ), SAMPLES // 3)
            heard = voice + other * ratio_from_db(BASES_DB[task] + more_db)
        case EarTask.CLIPPING:
            top = float(np.abs(voice).max()) * ratio_from_db(-more_db)
            heard = np.clip(voice, -top, top)
        case EarTask.POLARITY:
            second = np.roll(voice, round(SECOND_LATE_S * RATE_HZ)) * ratio_from_db(BASES_DB[task] + difference_db)
            heard = voice - second if which == has_more(seed, trial) else voice + second
        case EarTask.LEVEL:
            heard = voice * ratio_from_db(more_db - difference_db)
    return np.asarray(np.clip(heard * ratio_from_db(VOICE_DBFS), -1.0, 1.0), dtype=np.float32)
