"""Sound as samples on its way through a stage: the same few words as for levels, done to a loop."""

from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal import dbfs_of_powers
from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.sound.levels import Noise, Passage, SpectrumShape, Step
from tidy_trunk.core.sound.simulation.materials import NoiseLoop, gusts, low_cut_response, noise_loop, noise_of
from tidy_trunk.core.sound.trace import StageKey

RIDE_BLOCK_S: Final = 0.05
"""ASSUMED_ how often automatic level looks at the sound."""

RIDE_RISE_DB_PER_S: Final = 12.0
"""ASSUMED_ how fast it turns up in a pause."""

RIDE_QUIET_DB: Final = -15.0
"""ASSUMED_ how far below the words a pause is for it."""

LIMIT_BLOCK_S: Final = 0.001
"""ASSUMED_ how often a limiter looks; it sees a block ahead, so that nothing slips through."""

LIMIT_RELEASE_S: Final = 0.1
"""ASSUMED_ time in which it lets go by 63 %."""

TINY: Final = 1e-20
"""ASSUMED_ power that is none: nothing is quieter than 200 dB below full scale."""

COMPAND_BLOCK_S: Final = 0.02
"""ASSUMED_ how fast a compander follows."""


class WavePassage(Passage[NoiseLoop]):
    """A loop; its unit is the stage's, and a sine that peaks at 1.0 has a level of 0 in it. [AES17]"""

    __slots__ = ("_gusty", "_rate_hz", "sound")

    def __init__(self, sound: NoiseLoop, at: StageKey, rate_hz: int, *, gusty: bool = False) -> None:
        """`gusty`: rumble comes and goes, as wind does."""
        self.sound = sound
        self.at = at
        self.steps = []
        self._rate_hz = rate_hz
        self._gusty = gusty

    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        if by_db:
            self.sound = self.sound * np.float32(ratio_from_db(by_db))
            self.steps.append(Step(what, by_db, figures))

    def add_noise(self, *noises: Noise) -> None:
        for noise in noises:
            heard = noise_of(noise, self.at, len(self.sound), self._rate_hz)
            if self._gusty and noise.spectrum is SpectrumShape.RUMBLE:
                heard = heard * gusts(len(heard), self._rate_hz)
            self.sound = self.sound + heard

    def _exceeds(self, ceiling: float) -> bool:
        return bool(np.abs(self.sound).max(initial=0.0) > ratio_from_db(ceiling))

    def cap(self, ceiling: float, device: str, where: Callable[[], str]) -> None:
        if self._exceeds(ceiling):
            top = np.float32(ratio_from_db(ceiling))
            self.sound = np.clip(self.sound, -top, top)

    def limit(self, threshold: float) -> None:
        top = ratio_from_db(threshold)
        if not self._exceeds(threshold):
            return
        blocks = _blocks(np.abs(self.sound), round(LIMIT_BLOCK_S * self._rate_hz)).max(axis=1)
        wanted = np.minimum(1.0, top / np.maximum(blocks, 1e-12))
        near = np.minimum(wanted, np.minimum(np.roll(wanted, 1), np.roll(wanted, -1)))
        keep = float(np.exp(-LIMIT_BLOCK_S / LIMIT_RELEASE_S))
        gains, gain = [], 1.0
        for value in [*near, *near]:  # twice around: a loop has no beginning
            gain = min(float(value), 1.0 - keep * (1.0 - gain))
            gains.append(gain)
        limited = self.sound * _over_time(np.array(gains[len(near) :]), len(self.sound))
        self.sound = np.clip(limited, -np.float32(top), np.float32(top))

    def low_cut(self, cut_hz: int) -> None:
        response = low_cut_response(cut_hz, len(self.sound), self._rate_hz)
        self.sound = np.fft.irfft(np.fft.rfft(self.sound) * response, len(self.sound)).astype(np.float32)

    def ride(self, target: float, range_db: float) -> None:
        size = round(RIDE_BLOCK_S * self._rate_hz)
        levels = _levels_db(self.sound, size)
        words = levels.max() + RIDE_QUIET_DB
        spoken = _blocks(self.sound, size)[levels > words]
        average = float(dbfs_of_powers(np.maximum(np.mean(np.square(spoken, dtype=np.float64)), TINY)))
        speech_db = min(max(target - average, -range_db), range_db)
        rise = RIDE_RISE_DB_PER_S * RIDE_BLOCK_S
        gains_db, gain_db = [], speech_db
        for level in [*levels, *levels]:
            # Down to where the words reach their target at once, and up by and by.
            wanted = min(max(target - float(level), speech_db), range_db)
            gain_db = speech_db if level > words else max(min(gain_db + rise, wanted), speech_db)
            gains_db.append(gain_db)
        self.sound = self.sound * _over_time(10 ** (np.array(gains_db[len(levels) :]) / 20), len(self.sound))

    def compand(self, label: str, channel_db: float) -> None:
        levels = _levels_db(self.sound, round(COMPAND_BLOCK_S * self._rate_hz))
        # In silence the expander is as far down as the channel's own noise lets it go.
        gains = 10 ** (np.maximum(levels / 2, -channel_db) / 20)
        hiss = noise_loop(SpectrumShape.FLAT, len(self.sound), self._rate_hz) * np.float32(ratio_from_db(-channel_db))
        self.sound = self.sound + hiss * _over_time(gains, len(self.sound))


def _blocks(samples: NoiseLoop, size: int) -> NoiseLoop:
    """The loop in pieces of one size; the last one is filled up from its beginning."""
    missing = -len(samples) % size
    whole = np.concatenate((samples, samples[:missing])) if missing else samples
    return whole.reshape(-1, size)


def _levels_db(samples: NoiseLoop, size: int) -> NDArray[np.float64]:
    powers = np.mean(np.square(_blocks(samples, size), dtype=np.float64), axis=1)
    return dbfs_of_powers(np.maximum(powers, TINY))


def _over_time(values: NDArray[np.float64], sample_count: int) -> NoiseLoop:
    """Values of blocks, joined by straight lines around the loop."""
    middles = (np.arange(len(values)) + 0.5) * (sample_count / len(values))
    return np.interp(np.arange(sample_count), middles, values, period=sample_count).astype(np.float32)
