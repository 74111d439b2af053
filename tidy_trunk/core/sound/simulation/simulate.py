"""The plan as sound: every point of every chain, with simulated devices set as the plan says."""

import zlib
from collections.abc import Mapping, Sequence
from dataclasses import replace
from enum import StrEnum
from typing import Final

import numpy as np

from tidy_trunk.core.base.timecode import FASTEST_LTC, FrameRate, Timecode, ltc_samples
from tidy_trunk.core.base.units import air_ms, ratio_from_db
from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, PlaybackLevel
from tidy_trunk.core.plan import PlanIndex, Source
from tidy_trunk.core.sound.levels import NO_OSCILLATORS, NO_STEPS, SpectrumShape, StageLevel, StageSolver, Step
from tidy_trunk.core.sound.simulation.clocks import clock_ppm, recorded_by
from tidy_trunk.core.sound.simulation.faults import BLEED_DB, NO_FAULTS, Faults, picked_up, strays, through_loose_plug
from tidy_trunk.core.sound.simulation.materials import (
    NoiseLoop,
    bell_loop,
    burst_loop,
    clap_loop,
    noise_loop,
    voice_loop,
)
from tidy_trunk.core.sound.simulation.wave import WavePassage
from tidy_trunk.core.sound.trace import Stage, StageKey, Tracer

SEMITONE: Final = 2 ** (1 / 12)
"""Of equal temperament: by it each further source is told from the one before. [PRACTICE]"""

RATE_HZ: Final = 48_000
"""Sample rate of sound for picture. [PRACTICE]"""

LOOP_SAMPLES: Final = 2**19
"""ASSUMED_ length of a loop: 10.9 s, three or four sentences, and quick to transform."""

TONE_HZ: Final = 1_000.0
"""Frequency of a line-up tone. [PRACTICE]"""


TIMECODE_FROM: Final = "10:00:00:00"
"""ASSUMED_ where the clocks of the simulation stand when one begins to listen."""

WIND_DB_SPL: Final = 75.0
"""ASSUMED_ what a windy day leaves at a microphone in its windshield, below the voice."""


class Play(StrEnum):
    """What the sources of the simulation do."""

    VOICE = "voice"  # speak in sentences, at the levels of the plan
    LAUGH = "laugh"  # the same, and once a laugh or a shout as loud as the plan fears
    BELL = "bell"  # struck once, as loud as the source's peaks
    CLAP = "clap"  # hands that meet once, as loud as the source's peaks
    WIND = "wind"  # nobody speaks, and wind comes in gusts
    TONE = "tone"  # one tone each, at the source's average
    CROWD = "crowd"  # murmur without a pause, at the source's average; no two microphones hear the same
    NOBODY = "nobody"  # pause: only noise is left


class Simulator(StageSolver[NoiseLoop]):
    """Renders the stages of a plan as loops, each once. Levels in the stage's own unit, as `LevelSolver` has them."""

    def __init__(
        self,
        index: PlanIndex,
        play: Play = Play.VOICE,
        *,
        oscillators: Mapping[str, float] = NO_OSCILLATORS,
        faults: Faults = NO_FAULTS,
        sample_count: int = LOOP_SAMPLES,
        rate_hz: int = RATE_HZ,
    ) -> None:
        super().__init__(_in_wind(index) if play is Play.WIND else index, oscillators=oscillators)
        self._play = play
        self._faults = faults
        self._strays = strays(index) if faults.strays else {}
        self._tracer = Tracer(self.index)
        self.sample_count = sample_count
        self.rate_hz = rate_hz

    def _begin(self, source: Source, device: str) -> NoiseLoop:
        loud = np.float32(ratio_from_db(source.average_db_spl))
        late = round(air_ms(source.heard_by[device]) / 1000 * self.rate_hz)
        match self._play:
            case Play.VOICE:
                peak_db = source.peak_db_spl - source.average_db_spl
                loop = voice_loop(source.id, peak_db, self.sample_count, self.rate_hz) * loud
            case Play.CROWD:
                loop = noise_loop(SpectrumShape.VOICE, self.sample_count, self.rate_hz) * loud
                late = zlib.crc32(f"{source.id} {device}".encode())
            case Play.TONE:
                number = list(self.index.plan.sources).index(source.id)
                loop = self._sine(TONE_HZ * SEMITONE**number, source.average_db_spl)
            case Play.LAUGH:
                peak_db = source.peak_db_spl - source.average_db_spl
                loop = voice_loop(source.id, peak_db, self.sample_count, self.rate_hz) * loud
                laugh = burst_loop(source.id, self.sample_count, self.rate_hz)
                loop = loop + laugh * np.float32(ratio_from_db(source.burst_db_spl))
            case Play.BELL | Play.CLAP:
                strike = bell_loop if self._play is Play.BELL else clap_loop
                loop = strike(self.sample_count, self.rate_hz) * np.float32(ratio_from_db(source.peak_db_spl))
            case Play.NOBODY | Play.WIND:
                return self._nothing()
        return np.roll(loop, late % self.sample_count)

    def _tone(self, level_dbfs: float) -> NoiseLoop:
        return self._sine(TONE_HZ, level_dbfs)

    def _timecode(self) -> NoiseLoop:
        """From ten o'clock on, at the job's rate, or at half of it where that is more than timecode can number."""
        rate = FrameRate.parse(self.index.plan.defaults.frame_rate)
        slow = FrameRate(rate.ratio / 2, rate.drop) if rate.nominal > FASTEST_LTC else rate
        samples = ltc_samples(Timecode.parse(TIMECODE_FROM, slow), self.rate_hz, 0, self.sample_count)
        return samples.astype(np.float32)

    def _sine(self, hertz: float, level: float) -> NoiseLoop:
        """A whole number of cycles, as near to the frequency as the loop allows."""
        cycles = round(hertz * self.sample_count / self.rate_hz)
        phase = np.arange(self.sample_count) * (cycles / self.sample_count)
        return np.asarray(ratio_from_db(level) * np.sin(2 * np.pi * (phase % 1.0)), dtype=np.float32)

    def _played(self, playback: PlaybackLevel) -> NoiseLoop:
        """Where voices speak, a voice in place of the music; where the rest is noise or tone, that."""
        average, peak = playback.average_dbfs.value, playback.peak_dbfs.value
        match self._play:
            case Play.VOICE | Play.LAUGH:
                loop = voice_loop("playback", peak - average, self.sample_count, self.rate_hz)
            case Play.TONE:
                return self._sine(TONE_HZ, average)
            case Play.NOBODY | Play.WIND:
                return self._nothing()
            case Play.CROWD | Play.BELL | Play.CLAP:
                loop = noise_loop(SpectrumShape.VOICE, self.sample_count, self.rate_hz)
        return np.asarray(loop * np.float32(ratio_from_db(average)), dtype=np.float32)

    def _nothing(self) -> NoiseLoop:
        return np.zeros(self.sample_count, dtype=np.float32)

    def _passage(self, sound: NoiseLoop, at: StageKey) -> WavePassage:
        return WavePassage(sound, at, self.rate_hz, gusty=self._play is Play.WIND)

    def _lead(self, stage: Stage) -> StageLevel[NoiseLoop]:
        """With what the lead picks up on its way, and with its plug where that is loose."""
        level = super()._lead(stage)
        stray = self._strays.get(stage.name) if level.unit == "dBu" else None
        sound = level.sound
        if stray is not None:
            mains_hz = self.index.plan.defaults.mains_hz
            sound = sound + picked_up(stray, stage.name, mains_hz, self.sample_count, self.rate_hz)
        if stage.name == self._faults.loose:
            sound = through_loose_plug(sound, stage.name, self.rate_hz)
        return level if sound is level.sound else level._replace(sound=sound)

    def _input(self, stage: Stage) -> StageLevel[NoiseLoop]:
        """Counted by the device's own clock, and with what one side of a camera's socket hears of the other."""
        level = super()._input(stage)
        if self._faults.clocks and level.unit == "dBu":
            sender = next((lead.run.sending.device for lead, _ in stage.feeds if lead.run is not None), stage.device)
            clocks = (clock_ppm(self.index, device) for device in (sender, stage.device))
            level = level._replace(sound=recorded_by(level.sound, *clocks))
        placed = self.index.placed(stage.device)
        port = placed.input(stage.name)
        stereo = port.circuit is Circuit.UNBALANCED_STEREO and placed.device_class.kind is DeviceKind.CAMERA
        if not (self._faults.strays and (stereo or port.bleed_db is not None)) or level.unit != "dBu":
            return level
        others = [
            self._tracer.input(stage.device, stage.name, channel)
            for channel in range(len(port.channels))
            if channel != stage.channel
        ]
        share = np.float32(ratio_from_db(BLEED_DB if port.bleed_db is None else port.bleed_db.value))
        sound = level.sound
        for other in others:
            if other.feeds:
                sound = sound + super()._input(other).sound * share
        return level._replace(sound=sound)

    def _mixed(self, sounds: Sequence[NoiseLoop]) -> NoiseLoop:
        total = self._nothing()
        for sound in sounds:
            total = total + sound
        return total

    def _together(self, stage: Stage, sounds: Sequence[NoiseLoop], signs: Sequence[float]) -> NoiseLoop:
        return self._mixed([sound if sign > 0 else -sound for sound, sign in zip(sounds, signs, strict=True)])

    def _against(
        self,
        stage: Stage,
        unit: str,
        sound: NoiseLoop,
        ceiling: float,
        steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS,
    ) -> StageLevel[NoiseLoop]:
        return StageLevel(stage=stage, unit=unit, sound=sound, ceiling=ceiling)


def _in_wind(index: PlanIndex) -> PlanIndex:
    """The same plan where the wind blows: as much as the plan says, and not less than a windy day."""
    defaults = index.plan.defaults
    windy = replace(defaults, rumble_db_spl=max(defaults.rumble_db_spl, WIND_DB_SPL))
    return PlanIndex(replace(index.plan, defaults=windy), index)
