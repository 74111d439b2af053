"""The plan as sound: every point of every chain, with simulated devices set as the plan says."""

import zlib
from collections.abc import Mapping, Sequence
from enum import StrEnum
from typing import Final

import numpy as np

from tidy_trunk.core.bench.materials import Loop, noise_loop, voice_loop
from tidy_trunk.core.bench.wave import WavePassage
from tidy_trunk.core.levels import NO_OSCILLATORS, NO_STEPS, Spectrum, StageLevel, Step, Walk
from tidy_trunk.core.plan import Rig, Source
from tidy_trunk.core.trace import Stage, StageKey
from tidy_trunk.core.units import ratio_from_db

RATE_HZ: Final = 48_000
"""Sample rate of sound for picture. [PRACTICE]"""

LOOP_SAMPLES: Final = 2**19
"""ASSUMED_ length of a loop: 10.9 s, three or four sentences, and quick to transform."""

TONE_HZ: Final = 1_000.0
"""Frequency of a line-up tone. [PRACTICE]"""


SPEED_OF_SOUND_M_PER_S: Final = 343.0
"""In air of 20 °C. [HANDBOOK]"""


class Play(StrEnum):
    """What the sources of the bench do."""

    VOICE = "voice"  # speak in sentences, at the levels of the plan
    TONE = "tone"  # one tone each, at the source's average
    CROWD = "crowd"  # murmur without a pause, at the source's average; no two microphones hear the same
    NOBODY = "nobody"  # pause: only noise is left


class Bench(Walk[Loop]):
    """Renders the stages of a plan as loops, each once. Levels in the stage's own unit, as `Reckoner` has them."""

    def __init__(
        self,
        rig: Rig,
        play: Play = Play.VOICE,
        *,
        oscillators: Mapping[str, float] = NO_OSCILLATORS,
        sample_count: int = LOOP_SAMPLES,
        rate_hz: int = RATE_HZ,
    ) -> None:
        super().__init__(rig, oscillators=oscillators)
        self._play = play
        self.sample_count = sample_count
        self.rate_hz = rate_hz

    def _begin(self, source: Source, device: str) -> Loop:
        loud = np.float32(ratio_from_db(source.average_db_spl))
        late = round(source.heard_by[device] / SPEED_OF_SOUND_M_PER_S * self.rate_hz)
        match self._play:
            case Play.VOICE:
                peak_db = source.peak_db_spl - source.average_db_spl
                loop = voice_loop(source.id, peak_db, self.sample_count, self.rate_hz) * loud
            case Play.CROWD:
                loop = noise_loop(Spectrum.VOICE, self.sample_count, self.rate_hz) * loud
                late = zlib.crc32(f"{source.id} {device}".encode())
            case Play.TONE:
                number = list(self.rig.plan.sources).index(source.id)
                loop = self._sine(TONE_HZ * 2 ** (number / 12), source.average_db_spl)
            case Play.NOBODY:
                return self._nothing()
        return np.roll(loop, late % self.sample_count)

    def _tone(self, level_dbfs: float) -> Loop:
        return self._sine(TONE_HZ, level_dbfs)

    def _sine(self, hertz: float, level: float) -> Loop:
        """A whole number of cycles, as near to the frequency as the loop allows."""
        cycles = round(hertz * self.sample_count / self.rate_hz)
        phase = np.arange(self.sample_count) * (cycles / self.sample_count)
        return np.asarray(ratio_from_db(level) * np.sin(2 * np.pi * (phase % 1.0)), dtype=np.float32)

    def _nothing(self) -> Loop:
        return np.zeros(self.sample_count, dtype=np.float32)

    def _passage(self, sound: Loop, at: StageKey) -> WavePassage:
        return WavePassage(sound, at, self.rate_hz)

    def _mixed(self, sounds: Sequence[Loop]) -> Loop:
        total = self._nothing()
        for sound in sounds:
            total = total + sound
        return total

    def _together(self, stage: Stage, sounds: Sequence[Loop], signs: Sequence[float]) -> Loop:
        return self._mixed([sound if sign > 0 else -sound for sound, sign in zip(sounds, signs, strict=True)])

    def _against(
        self,
        stage: Stage,
        unit: str,
        sound: Loop,
        ceiling: float,
        steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS,
    ) -> StageLevel[Loop]:
        return StageLevel(stage=stage, unit=unit, sound=sound, ceiling=ceiling)
