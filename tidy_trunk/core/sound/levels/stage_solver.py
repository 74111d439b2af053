"""How sound goes through a plan, stage by stage, whatever it is carried as: levels to calculate with, or samples to listen to."""

import math
from abc import ABC, abstractmethod
from collections.abc import Collection, Mapping, Sequence
from functools import partial
from typing import Final, Generic, NamedTuple, TypeVar

from tidy_trunk.core.base.text import spelled
from tidy_trunk.core.base.units import db_from_ratio, sum_powers_db
from tidy_trunk.core.gear.catalogue import Bus, Pattern, PlaybackLevel, Signal, channel_refs
from tidy_trunk.core.plan import ROOMS, PlacedDevice, PlanIndex, Source, Weighting
from tidy_trunk.core.sound.levels.gear import (
    AUTOMATIC_RANGE_DB,
    AUTOMATIC_TARGET_DBFS,
    a_weighted,
    digitise,
    drive,
    hear_voltage,
    input_ceiling_dbu,
)
from tidy_trunk.core.sound.levels.passage import Passage, Step
from tidy_trunk.core.sound.levels.sound import noise_in
from tidy_trunk.core.sound.levels.spectra import SpectrumShape, a_change_db
from tidy_trunk.core.sound.trace import Stage, StageKey, StageKind, is_powered

CEILING_OF_BUS_DBFS: Final = 0.0
"""Nothing on a fixed-point track is above full scale. [AES17]"""

RUMBLE: Final = "low-frequency noise"
"""ASSUMED_ name of what comes by wind and through the stand."""

NO_STEPS: Final[Mapping[StageKey, tuple[Step, ...]]] = {}
"""ASSUMED_ account of a stage that does nothing to what feeds it."""

NO_OSCILLATORS: Final[Mapping[str, float]] = {}
"""ASSUMED_ devices that send tone: none."""

S = TypeVar("S")


class StageLevel(NamedTuple, Generic[S]):
    """One stage with its sound. `ceiling` is in the same unit, inf where nothing clips; of an input that of a voice.

    over_db, burst_over_db: how far the peaks, noise included, and a burst are cut off here; 0 or more.
    steps: by stage that feeds it, what became of the average on the way from there.
    """

    stage: Stage
    unit: str
    sound: S
    ceiling: float = math.inf
    over_db: float = 0.0
    burst_over_db: float = 0.0
    steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS


class StageSolver(ABC, Generic[S]):
    """Works out every stage of a plan, each once. What is done to the sound there stands here, and only here.

    A solver says what the sound is carried as: how a source begins, how it passes through a stage, how several meet.
    """

    def __init__(
        self,
        index: PlanIndex,
        known: Mapping[StageKey, StageLevel[S]] | None = None,
        oscillators: Mapping[str, float] = NO_OSCILLATORS,
    ) -> None:
        """`known`: levels that another plan shares with this one, taken over instead of worked out again.

        `oscillators`: devices that send a tone of so many dBFS in place of everything that they mix or record.
        """
        self.index = index
        self._oscillators = oscillators
        self._levels: dict[StageKey, StageLevel[S]] = dict(known or {})

    def levels_outside(self, stages: Collection[StageKey]) -> dict[StageKey, StageLevel[S]]:
        """Every level that was worked out, but those of some stages."""
        return {key: level for key, level in self._levels.items() if key not in stages}

    def level(self, stage: Stage) -> StageLevel[S]:
        """The sound at a stage, in the stage's own unit, before it is cut at the stage's ceiling."""
        known = self._levels.get(stage.key)
        if known is None:
            known = self._work_out(stage)
            self._levels[stage.key] = known
        return known

    def _work_out(self, stage: Stage) -> StageLevel[S]:
        match stage.kind:
            case StageKind.SOUND:
                return self._sound(stage)
            case StageKind.MICROPHONE:
                return self._microphone(stage)
            case StageKind.OUTPUT:
                return self._output(stage)
            case StageKind.LEAD:
                return self._lead(stage)
            case StageKind.INPUT:
                return self._input(stage)
            case StageKind.BUS:
                return self._bus(stage)

    @abstractmethod
    def _begin(self, source: Source, device: str) -> S:
        """A source as it is stated for 1 m, in dB SPL of its own weighting, for the microphone that hears it."""

    @abstractmethod
    def _tone(self, level_dbfs: float) -> S:
        """A line-up tone."""

    @abstractmethod
    def _timecode(self) -> S:
        """Timecode that peaks at 0."""

    @abstractmethod
    def _played(self, playback: PlaybackLevel) -> S:
        """What a player plays, in dBFS."""

    @abstractmethod
    def _nothing(self) -> S:
        """No sound at all."""

    @abstractmethod
    def _passage(self, sound: S, at: StageKey) -> Passage[S]:
        """A sound on its way through a stage."""

    @abstractmethod
    def _mixed(self, sounds: Sequence[S]) -> S:
        """Sounds that have nothing to do with each other, on one wire or in one place."""

    @abstractmethod
    def _together(self, stage: Stage, sounds: Sequence[S], signs: Sequence[float]) -> S:
        """All that feeds a stage, each with its polarity; some of it may be one and the same sound."""

    @abstractmethod
    def _against(
        self, stage: Stage, unit: str, sound: S, ceiling: float, steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS
    ) -> StageLevel[S]:
        """A sound at a stage that cannot take more than its ceiling."""

    def _sound(self, stage: Stage) -> StageLevel[S]:
        source = self.index.plan.sources[stage.name]
        capsule = self.index.placed(stage.device).device_class.capsule
        pattern = capsule.pattern if capsule is not None else Pattern.OMNI
        distance_m, angle_deg = source.heard_by[stage.device], source.off_axis_deg.get(stage.device, 0.0)
        critical_m = ROOMS[self.index.plan.defaults.room].critical_distance_m(pattern.directivity)
        passage = self._passage(self._begin(source, stage.device), stage.key)
        if source.weighting is Weighting.A:
            passage.shift("A-weighted to unweighted, speech", -a_change_db(SpectrumShape.VOICE))
        # Direct sound loses 6 dB with each doubling of the distance; what the room gives back is the same everywhere.
        direct_db = pattern.off_axis_db(angle_deg) - db_from_ratio(distance_m)
        passage.shift(f"{distance_m:g} m away", -db_from_ratio(distance_m))
        if angle_deg:
            passage.shift(f"{angle_deg:g}° off axis, {spelled(pattern)}", pattern.off_axis_db(angle_deg))
        if math.isfinite(critical_m):
            back_db = -db_from_ratio(critical_m)
            passage.shift("what the room gives back", sum_powers_db((direct_db, back_db)) - direct_db)
        return StageLevel(stage=stage, unit="dB SPL", sound=passage.sound, steps={stage.key: tuple(passage.steps)})

    def _microphone(self, stage: Stage) -> StageLevel[S]:
        placed, defaults = self.index.placed(stage.device), self.index.plan.defaults
        capsule = placed.device_class.capsule
        steps = {feed.key: self.level(feed).steps[feed.key] for feed, _ in stage.feeds}
        passage = self._passage(self._mixed([self.level(source).sound for source, _ in stage.feeds]), stage.key)
        # A sound level meter hears the room from all sides; a microphone that does not hears less of it by its Q.
        pattern = capsule.pattern if capsule is not None else Pattern.OMNI
        room_db_a = defaults.room_noise_db_spl - pattern.diffuse_loss_db
        noises = [a_weighted("room", room_db_a, SpectrumShape.ROOM, is_room=True)]
        if defaults.rumble_db_spl:
            noises.append(
                noise_in(RUMBLE, defaults.rumble_db_spl, "dB SPL", spectrum=SpectrumShape.RUMBLE, is_room=True)
            )
        if capsule is not None and capsule.self_noise_db_a is not None:
            noises.append(a_weighted(f"{placed.label} self-noise", capsule.self_noise_db_a.value, SpectrumShape.FLAT))
        passage.add_noise(*noises)
        return self._against(stage, "dB SPL", passage.sound, capsule.max_db_spl.value if capsule else math.inf, steps)

    def _output(self, stage: Stage) -> StageLevel[S]:
        placed = self.index.placed(stage.device)
        port = placed.output(stage.name)
        mode = placed.output_mode(port)
        if stage.channel in placed.timecode_channels(port):
            passage = self._passage(self._timecode(), stage.key)
            drive(passage, placed, port, mode)
            return StageLevel(stage=stage, unit="dBu", sound=passage.sound, steps={stage.key: tuple(passage.steps)})
        if placed.device_class.playback is not None:
            passage = self._passage(self._played(placed.device_class.playback), stage.key)
            if mode.full_scale_dbu is None:
                return self._against(stage, "dBFS", passage.sound, CEILING_OF_BUS_DBFS, {stage.key: ()})
            drive(passage, placed, port, mode)
            return self._against(stage, "dBu", passage.sound, math.inf, {stage.key: tuple(passage.steps)})
        if not is_powered(self.index, stage.device):
            return StageLevel(stage=stage, unit="dBu", sound=self._nothing())
        upstream = self.level(stage.feeds[0][0])
        passage = self._leaving(upstream)
        passage.at = stage.key
        unit_out, ceiling = "dBu", math.inf
        capsule = placed.device_class.capsule
        if capsule is not None and placed.device_class.is_capsule_out(port):
            hear_voltage(passage, placed, capsule, mode)
        elif mode.full_scale_dbu is None:
            unit_out, ceiling = "dBFS", CEILING_OF_BUS_DBFS
            if mode.compander_db is not None:
                passage.compand(placed.label, mode.compander_db.value)
        else:
            ceiling = mode.full_scale_dbu.value + placed.trim_db(port, mode)
            drive(passage, placed, port, mode)
        side_db = placed.side_db(port, stage.channel)
        passage.shift("this side", side_db)
        ceiling += side_db
        steps = {upstream.stage.key: tuple(passage.steps)}
        return self._against(stage, unit_out, passage.sound, ceiling, steps)

    def _lead(self, stage: Stage) -> StageLevel[S]:
        run = stage.run
        assert run is not None  # a lead stage is made with its run
        placed = self.index.placed(run.receiving.device)
        mode = placed.input_mode(placed.input(run.receiving.port))
        levels = [self.level(upstream) for upstream, _ in stage.feeds]
        unit_sent = levels[0].unit
        if (unit_sent == "dBFS") != (mode.signal is Signal.DIGITAL):
            return StageLevel(stage=stage, unit=unit_sent, sound=self._nothing())  # numbers and voltages do not meet
        losses = [loss for part in run.parts if (loss := self.index.lead_of(part).loss_db) is not None]
        passages = []
        for level, (_, ratio) in zip(levels, stage.feeds, strict=True):
            passage = self._leaving(level)
            passage.at = stage.key
            if ratio != 1 or losses:
                passage.shift("cable, with what it is plugged into", db_from_ratio(abs(ratio)), *losses)
            passages.append(passage)
        steps = {feed.key: tuple(passage.steps) for (feed, _), passage in zip(stage.feeds, passages, strict=True)}
        signs = [math.copysign(1.0, ratio) for _, ratio in stage.feeds]
        return StageLevel(
            stage=stage,
            unit=unit_sent,
            sound=self._together(stage, [passage.sound for passage in passages], signs),
            steps=steps,
        )

    def _input(self, stage: Stage) -> StageLevel[S]:
        placed = self.index.placed(stage.device)
        port = placed.input(stage.name)
        mode = placed.input_mode(port)
        upstream = [self.level(lead) for lead, _ in stage.feeds]
        sound = self._mixed([level.sound for level in upstream])
        if mode.full_scale_dbu is None or any(level.unit == "dBFS" for level in upstream):
            return StageLevel(stage=stage, unit="dBFS", sound=sound, ceiling=CEILING_OF_BUS_DBFS)
        return self._against(stage, "dBu", sound, input_ceiling_dbu(placed, port, mode))

    def _bus(self, stage: Stage) -> StageLevel[S]:
        placed = self.index.placed(stage.device)
        ceiling = math.inf if placed.device_class.traits.is_float else CEILING_OF_BUS_DBFS
        if stage.device in self._oscillators:
            return self._against(stage, "dBFS", self._tone(self._oscillators[stage.device]), ceiling)
        sound, passages = self._mix(stage, clipping=True)
        steps = {feed.key: tuple(passage.steps) for (feed, _), passage in zip(stage.feeds, passages, strict=True)}
        return self._against(stage, "dBFS", sound, ceiling, steps)

    def _mix(self, stage: Stage, *, clipping: bool) -> tuple[S, list[Passage[S]]]:
        placed = self.index.placed(stage.device)
        bus = placed.bus(stage.name)
        passages = []
        for feed, _ in stage.feeds:
            passage = self._leaving(self.level(feed), clipping=clipping)
            passage.shift("pan", -placed.pan_loss_db(bus, placed.input(feed.name)))
            passages.append(passage)
        sound = self._together(stage, [passage.sound for passage in passages], [1.0] * len(passages))
        # What an open input makes by itself is in the mix too, though nothing arrives there.
        idle = [self._leaving(self.level(open_input)) for open_input in stage.idle]
        for passage, open_input in zip(idle, stage.idle, strict=True):
            passage.shift("pan", -placed.pan_loss_db(bus, placed.input(open_input.name)))
        mixed = self._with_idle(sound, [passage.sound for passage in idle]) if idle else sound
        return self._behind_track_knobs(placed, bus, stage, mixed), passages

    def _behind_track_knobs(self, placed: PlacedDevice, bus: Bus, stage: Stage, sound: S) -> S:
        """Gain and automatic level that a track has for itself, behind those of its inputs."""
        if bus.gain is None and not bus.automatic_level_places:
            return sound
        passage = self._passage(sound, stage.key)
        passage.shift("gain of the track", placed.bus_gain_db(bus))
        if placed.automatic_level_on(bus):
            passage.ride(AUTOMATIC_TARGET_DBFS, AUTOMATIC_RANGE_DB)
        return passage.sound

    def _with_idle(self, sound: S, idle: Sequence[S]) -> S:
        """A mix with what its open inputs make."""
        return self._mixed([sound, *idle])

    def _leaving(self, level: StageLevel[S], *, clipping: bool = True) -> Passage[S]:
        """What leaves a stage: cut at its ceiling; behind an input, converted and with the input's noise."""
        stage = level.stage
        passage = self._passage(level.sound, stage.key)
        if level.unit == "dBu" and stage.kind is StageKind.INPUT:
            placed = self.index.placed(stage.device)
            microphone = any(
                self._is_from_capsule(output)
                for feed, _ in stage.feeds
                for output in ((feed,) if feed.kind is StageKind.OUTPUT else (output for output, _ in feed.feeds))
            )
            where = partial(self.place_words, stage)
            digitise(passage, placed, placed.input(stage.name), where, clipping=clipping, from_microphone=microphone)
        elif clipping and level.ceiling < math.inf:
            passage.cap(level.ceiling, stage.device, partial(self.place_words, stage))
        return passage

    def _is_from_capsule(self, output: Stage) -> bool:
        placed = self.index.placed(output.device)
        return placed.device_class.is_capsule_out(placed.output(output.name))

    def track_sound(self, stage: Stage) -> S:
        """What is written to the file."""
        return self._leaving(self.level(stage)).sound

    def place_words(self, stage: Stage) -> str:
        """A stage as it is named in sentences."""
        placed = self.index.placed(stage.device)
        if stage.kind in (StageKind.INPUT, StageKind.OUTPUT):
            return (
                placed.label if placed.device_class.is_microphone else f"{placed.label} {_channel_label(placed, stage)}"
            )
        if stage.kind is StageKind.BUS:
            return placed.bus_label(stage.name)
        if stage.kind is StageKind.LEAD and stage.run is not None:
            return f"cable {stage.run.number}"
        if stage.kind is StageKind.SOUND:
            return self.index.plan.sources[stage.name].label
        return placed.label


def _channel_label(placed: PlacedDevice, stage: Stage) -> str:
    port = placed.port(stage.name)
    if len(port.channels) == 1:
        return port.label
    return f"{port.label} {channel_refs(port)[stage.channel].split('.')[-1]}"
