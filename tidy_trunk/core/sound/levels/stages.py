"""Levels at every stage of a trace: what is there, what the stage can take, and what it adds."""

import math
from collections.abc import Mapping, Sequence

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio
from tidy_trunk.core.gear.catalogue import PlaybackLevel, Provenance
from tidy_trunk.core.plan import SPEECH_QUIET_BELOW_DB, LineUp, PlanIndex, Run, Source
from tidy_trunk.core.sound.levels.line_up import LineUpCorrection, correction_of, line_up_of
from tidy_trunk.core.sound.levels.passage import LevelPassage, Passage, Step
from tidy_trunk.core.sound.levels.sound import SignalLevels, in_step, mixed, weaker
from tidy_trunk.core.sound.levels.spectra import Cuts
from tidy_trunk.core.sound.levels.stage_solver import NO_OSCILLATORS, NO_STEPS, StageLevel, StageSolver
from tidy_trunk.core.sound.trace import Stage, StageKey, StageKind, run_link, upstream_of


class LevelSolver(StageSolver[SignalLevels]):
    """Works out the levels of every stage of a plan, each once."""

    def __init__(
        self,
        index: PlanIndex,
        known: Mapping[StageKey, StageLevel[SignalLevels]] | None = None,
        oscillators: Mapping[str, float] = NO_OSCILLATORS,
        *,
        line_ups: Mapping[str, LineUp] | None = None,
    ) -> None:
        """`line_ups`: by track, those of the plan unless others are given. While a tone is sent, nobody speaks."""
        super().__init__(index, known, oscillators)
        self._converted: dict[StageKey, LevelPassage] = {}
        self._line_ups = index.plan.line_ups if line_ups is None else line_ups

    def _begin(self, source: Source, device: str) -> SignalLevels:
        if self._oscillators:
            return SignalLevels()
        return SignalLevels(
            quiet=source.quiet_db_spl,
            average=source.average_db_spl,
            peak=source.peak_db_spl,
            burst=source.burst_db_spl,
            loudest=source.peak_db_spl,
            uncut=source.peak_db_spl,
            variance_db2=source.tolerance_db**2,
            weakest=Provenance.TYPICAL,
        )

    def _tone(self, level_dbfs: float) -> SignalLevels:
        return SignalLevels(
            quiet=level_dbfs,
            average=level_dbfs,
            peak=level_dbfs,
            burst=level_dbfs,
            loudest=level_dbfs,
            uncut=level_dbfs,
        )

    def _timecode(self) -> SignalLevels:
        # It is loud without a pause, and says nothing to the ear.
        return self._tone(0.0)

    def _played(self, playback: PlaybackLevel) -> SignalLevels:
        average, peak = playback.average_dbfs.value, playback.peak_dbfs.value
        return SignalLevels(
            quiet=average - SPEECH_QUIET_BELOW_DB,
            average=average,
            peak=peak,
            burst=peak,  # it was mastered: nothing comes unannounced
            loudest=peak,
            uncut=peak,
            variance_db2=playback.average_dbfs.tolerance**2,
            weakest=playback.average_dbfs.provenance,
        )

    def _nothing(self) -> SignalLevels:
        return SignalLevels()

    def _passage(self, sound: SignalLevels, at: StageKey) -> LevelPassage:
        return LevelPassage(sound, at)

    def _leaving(self, level: StageLevel[SignalLevels], *, clipping: bool = True) -> Passage[SignalLevels]:
        """As for any solver; what leaves an input is asked for by every mix that takes it, and worked out once."""
        if not clipping or level.stage.kind is not StageKind.INPUT:
            return super()._leaving(level, clipping=clipping)
        return self._left(level).copy()

    def _left(self, level: StageLevel[SignalLevels]) -> LevelPassage:
        left = self._converted.get(level.stage.key)
        if left is None:
            passage = super()._leaving(level)
            assert isinstance(passage, LevelPassage)  # that is what this solver passes on
            left = self._converted[level.stage.key] = passage
        return left

    def _with_idle(self, sound: SignalLevels, idle: Sequence[SignalLevels]) -> SignalLevels:
        return sound.with_more(noise for other in idle for noise in other.noises)

    def _mixed(self, sounds: Sequence[SignalLevels]) -> SignalLevels:
        return mixed(sounds)

    def _bus(self, stage: Stage) -> StageLevel[SignalLevels]:
        level = self._as_figured(stage)
        found = self.line_up(stage)
        return level if found is None else self._lined_up(level, found)

    def _as_figured(self, stage: Stage) -> StageLevel[SignalLevels]:
        """A track without a line-up of its own, behind all others."""
        return super()._bus(stage)

    def _lined_up(self, level: StageLevel[SignalLevels], found: LineUp) -> StageLevel[SignalLevels]:
        """A track as it was found to be: louder or softer than the figures say, and as sure as the reading.

        What is known of the sound up to the sender stays as sure as it was; all doubt behind it is gone.
        """
        stage = level.stage
        before = [item for item in upstream_of(stage) if item.kind is StageKind.BUS and item.device == found.sender]
        correction = self.correction(stage, found)
        if not before or not correction.holds:
            return level
        sent = max((self.level(item).sound for item in before), key=lambda sound: sound.average)
        sound = level.sound.shifted(correction.by_db)._replace(
            variance_db2=sent.variance_db2 + correction.within_db**2,
            weakest=weaker([sent.weakest, Provenance.MEASURED]),
        )
        step = (Step(f"lined up {found.when[:10]}", correction.by_db),)
        steps = {key: (*done, *step) for key, done in level.steps.items()}
        return self._against(stage, level.unit, sound, level.ceiling, steps)

    def line_up(self, stage: Stage) -> LineUp | None:
        """What was read on a track, or on the other side of its socket; None where nothing was."""
        return line_up_of(self.index, stage, self._line_ups)

    def correction(self, stage: Stage, found: LineUp) -> LineUpCorrection:
        """What a line-up says of its track today."""
        tone = {found.sender: found.sent_dbfs}
        bare = LevelSolver(self.index, oscillators=tone, line_ups={}).level(stage).sound.average
        behind = LevelSolver(self.index, oscillators=tone, line_ups=self._line_ups)
        without = behind._as_figured(stage).sound.average if len(self._line_ups) > 1 else bare
        return correction_of(self.index, found, stage, bare, without)

    def unclipped(self, stage: Stage) -> SignalLevels:
        """What a mix or track would hold if its own device's inputs could neither clip nor limit."""
        return self._mix(stage, clipping=False)[0]

    def _together(self, stage: Stage, sounds: Sequence[SignalLevels], signs: Sequence[float]) -> SignalLevels:
        """All that feeds a stage: what is one and the same sound adds as voltages do, all else by power."""
        if len(sounds) == 1:
            turned = sounds[0].polarity * signs[0]
            return sounds[0] if turned == sounds[0].polarity else sounds[0]._replace(polarity=turned)
        groups: dict[tuple[StageKey, ...], list[tuple[Stage, SignalLevels, float]]] = {}
        for (feed, _), sound, sign in zip(stage.feeds, sounds, signs, strict=True):
            groups.setdefault(feed.origin, []).append((feed, sound, sign))
        return mixed([same[0][1] if len(same) == 1 else self._in_step(same) for same in groups.values()])

    def _in_step(self, same: Sequence[tuple[Stage, SignalLevels, float]]) -> SignalLevels:
        """Several ways of one sound; noises that were there before they parted are one and the same too."""
        ways = [way_from_origin(feed) for feed, _, _ in same]
        return in_step([(sound, sign) for _, sound, sign in same], self._noises_of(parting(ways)))

    def _noises_of(self, stage: Stage) -> frozenset[tuple[str, Cuts]]:
        """Names and low cuts of the noises that were there already where a sound began to go several ways."""
        return frozenset((noise.name, noise.cuts) for noise in self.track_sound(stage).noises)

    def _input(self, stage: Stage) -> StageLevel[SignalLevels]:
        level = super()._input(stage)
        if level.unit != "dBu":
            return level
        passage = self._left(level)
        return StageLevel(
            stage=stage,
            unit="dBu",
            sound=level.sound,
            ceiling=level.ceiling,
            over_db=max(-passage.margin_db, 0.0),
            burst_over_db=max(-passage.burst_margin_db, 0.0),
            steps=level.steps,
        )

    def _against(
        self,
        stage: Stage,
        unit: str,
        sound: SignalLevels,
        ceiling: float,
        steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS,
    ) -> StageLevel[SignalLevels]:
        over = max(sound.loudest - ceiling, 0.0) if sound.loudest > SILENCE_DB else 0.0
        burst_over = max(sound.burst - ceiling, 0.0) if sound.burst > SILENCE_DB else 0.0
        return StageLevel(
            stage=stage, unit=unit, sound=sound, ceiling=ceiling, over_db=over, burst_over_db=burst_over, steps=steps
        )


def full_scale_at_input_dbu(index: PlanIndex, run: Run) -> float | None:
    """What the sender's full scale is at the receiver's terminals; None where the sender states none, or nothing arrives."""
    sender = index.placed(run.sending.device)
    output = sender.output(run.sending.port)
    mode = sender.output_mode(output)
    if mode.full_scale_dbu is None:
        return None
    loss_db = run_loss_db(index, run)
    return None if math.isinf(loss_db) else mode.full_scale_dbu.value + sender.trim_db(output, mode) - loss_db


def run_loss_db(index: PlanIndex, run: Run) -> float:
    """From the open-circuit output to the input's terminals: bridging loss and every pad on the way; inf if cut.

    The ± of the impedances is not carried: into a bridging load 20 % of either moves the level by a tenth of a dB.
    """
    ratio = run_link(index, run).strongest
    return -db_from_ratio(ratio) if ratio else math.inf


def way_from_origin(stage: Stage) -> list[Stage]:
    """A stage and those before it through which all of its sound has come, back to its origin."""
    way = [stage]
    while stage.feeds and stage.kind is not StageKind.MICROPHONE:
        feeds = [feed for feed, _ in stage.feeds]
        if any(feed.origin != stage.origin for feed in feeds):
            break
        # Of several ways of one sound, it has come whole through what they have in common.
        stage = feeds[0] if len(feeds) == 1 else parting([way_from_origin(feed) for feed in feeds])
        way.append(stage)
    return way


def parting(ways: Sequence[Sequence[Stage]]) -> Stage:
    """The last stage that several ways of one sound have in common; the origin of the first where only the mix is alike."""
    first, *others = ways
    shared = set.intersection(*({stage.key for stage in way} for way in others))
    return next((stage for stage in first if stage.key in shared), first[-1])
