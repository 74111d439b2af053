"""Levels at every stage of a trace: what is there, what the stage can take, and what it adds."""

import math
from collections.abc import Mapping, Sequence

from tidy_trunk.core.catalogue import Provenance
from tidy_trunk.core.levels.passage import LevelPassage, Step
from tidy_trunk.core.levels.sound import Sound, in_step, mixed
from tidy_trunk.core.levels.walk import NO_STEPS, StageLevel, Walk
from tidy_trunk.core.plan import Rig, Run, Source
from tidy_trunk.core.trace import Place, Stage, StageKey, run_link
from tidy_trunk.core.units import SILENCE_DB, db_from_ratio


class Reckoner(Walk[Sound]):
    """Works out the levels of every stage of a plan, each once."""

    def _begin(self, source: Source, device: str) -> Sound:
        return Sound(
            quiet=source.quiet_db_spl,
            average=source.average_db_spl,
            peak=source.peak_db_spl,
            burst=source.burst_db_spl,
            variance_db2=source.tolerance_db**2,
            weakest=Provenance.TYPICAL,
        )

    def _tone(self, level_dbfs: float) -> Sound:
        return Sound(quiet=level_dbfs, average=level_dbfs, peak=level_dbfs, burst=level_dbfs)

    def _nothing(self) -> Sound:
        return Sound()

    def _passage(self, sound: Sound, at: StageKey) -> LevelPassage:
        return LevelPassage(sound, at)

    def _mixed(self, sounds: Sequence[Sound]) -> Sound:
        return mixed(sounds)

    def unclipped(self, stage: Stage) -> Sound:
        """What a mix or track would hold if its own device's inputs could neither clip nor limit."""
        return self._mix(stage, clipping=False)[0]

    def _together(self, stage: Stage, sounds: Sequence[Sound], signs: Sequence[float]) -> Sound:
        """All that feeds a stage: what is one and the same sound adds as voltages do, all else by power."""
        if len(sounds) == 1:
            return sounds[0]
        groups: dict[tuple[StageKey, ...], list[tuple[Sound, float]]] = {}
        begins: dict[tuple[StageKey, ...], Stage] = {}
        for (feed, _), sound, sign in zip(stage.feeds, sounds, signs, strict=True):
            origin = origin_of(feed)
            groups.setdefault(_keys(origin), []).append((sound, sign))
            begins[_keys(origin)] = origin
        return mixed(
            [
                same[0][0] if len(same) == 1 else in_step(same, self._noises_of(begins[key]))
                for key, same in groups.items()
            ]
        )

    def _noises_of(self, origin: Stage) -> frozenset[str]:
        """Names of the noises that were there already where a sound began to go several ways."""
        sound = self.level(origin).sound
        if origin.place is Place.BUS:
            sound = self.track_sound(origin)
        return frozenset(noise.name for noise in sound.noises)

    def _against(
        self,
        stage: Stage,
        unit: str,
        sound: Sound,
        ceiling: float,
        steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS,
    ) -> StageLevel[Sound]:
        over = max(sound.peak - ceiling, 0.0) if sound.peak > SILENCE_DB else 0.0
        burst_over = max(sound.burst - ceiling, 0.0) if sound.burst > SILENCE_DB else 0.0
        return StageLevel(
            stage=stage, unit=unit, sound=sound, ceiling=ceiling, over_db=over, burst_over_db=burst_over, steps=steps
        )


def full_scale_at_input_dbu(rig: Rig, run: Run) -> float | None:
    """What the sender's full scale is at the receiver's terminals; None where the sender states none, or nothing arrives."""
    sender = rig.unit(run.sending.device)
    output = sender.output(run.sending.port)
    mode = sender.output_mode(output)
    if mode.full_scale_dbu is None:
        return None
    loss_db = run_loss_db(rig, run)
    return None if math.isinf(loss_db) else mode.full_scale_dbu.value + sender.trim_db(output, mode) - loss_db


def run_loss_db(rig: Rig, run: Run) -> float:
    """From the open-circuit output to the input's terminals: bridging loss and every pad on the way; inf if cut.

    The ± of the impedances is not carried: into a bridging load 20 % of either moves the level by a tenth of a dB.
    """
    ratio = run_link(rig, run).strongest
    return -db_from_ratio(ratio) if ratio else math.inf


def origin_of(stage: Stage) -> Stage:
    """Where the sound of a stage was last mixed from several, or began: two with one origin carry the same sound."""
    while len(stage.feeds) == 1 and stage.place is not Place.MICROPHONE:
        stage = stage.feeds[0][0]
    return stage


def _keys(origin: Stage) -> tuple[StageKey, ...]:
    """What tells origins apart: two mixes of the same inputs are the same sound."""
    return tuple(feed.key for feed, _ in origin.feeds) if origin.place is Place.BUS else (origin.key,)
