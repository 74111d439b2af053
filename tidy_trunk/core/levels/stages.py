"""Levels at every stage of a trace: what is there, what the stage can take, and what it adds."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from tidy_trunk.core.catalogue import (
    Pattern,
    Provenance,
    Signal,
    channel_refs,
)
from tidy_trunk.core.levels.gear import a_weighted, breathing, convert, drive, hear_voltage, input_ceiling_dbu
from tidy_trunk.core.levels.passage import Passage, Step
from tidy_trunk.core.levels.sound import Sound, in_step, mixed, noise_in
from tidy_trunk.core.levels.spectra import Spectrum
from tidy_trunk.core.plan import ROOMS, Rig, Run, Unit
from tidy_trunk.core.trace import Place, Stage, StageKey, run_link
from tidy_trunk.core.units import SILENCE_DB, db_from_ratio, sum_powers_db

CEILING_OF_BUS_DBFS: Final = 0.0
"""Nothing on a fixed-point track is above full scale. [AES17]"""

NO_STEPS: Final[Mapping[StageKey, tuple[Step, ...]]] = {}
"""ASSUMED_ account of a stage that does nothing to what feeds it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StageLevel:
    """One stage with its sound. `ceiling` is in the same unit, inf where nothing clips.

    over_db, burst_over_db: how far the expected peaks, and a burst, go above it; 0 or more.
    steps: by stage that feeds it, what became of the average on the way from there.
    """

    stage: Stage
    unit: str
    sound: Sound
    ceiling: float = math.inf
    over_db: float = 0.0
    burst_over_db: float = 0.0
    steps: Mapping[StageKey, tuple[Step, ...]] = field(default_factory=dict)


class Reckoner:
    """Works out every stage of a plan, each once."""

    def __init__(self, rig: Rig, known: Mapping[StageKey, StageLevel] | None = None) -> None:
        """`known`: levels that another plan shares with this one, taken over instead of worked out again."""
        self.rig = rig
        self._levels: dict[StageKey, StageLevel] = dict(known or {})

    def level(self, stage: Stage) -> StageLevel:
        """The sound at a stage, in the stage's own unit, before it is cut at the stage's ceiling."""
        known = self._levels.get(stage.key)
        if known is None:
            known = self._work_out(stage)
            self._levels[stage.key] = known
        return known

    def _work_out(self, stage: Stage) -> StageLevel:
        match stage.place:
            case Place.SOUND:
                return self._sound(stage)
            case Place.MICROPHONE:
                return self._microphone(stage)
            case Place.OUTPUT:
                return self._output(stage)
            case Place.LEAD:
                return self._lead(stage)
            case Place.INPUT:
                return self._input(stage)
            case Place.BUS:
                return self._bus(stage)

    def _sound(self, stage: Stage) -> StageLevel:
        source = self.rig.plan.sources[stage.name]
        capsule = self.rig.unit(stage.device).device_class.capsule
        pattern = capsule.pattern if capsule is not None else Pattern.OMNI
        distance_m, angle_deg = source.heard_by[stage.device], source.off_axis_deg.get(stage.device, 0.0)
        critical_m = ROOMS[self.rig.plan.defaults.room].critical_distance_m(pattern.directivity)
        way = Passage(
            Sound(
                quiet=source.quiet_db_spl,
                average=source.average_db_spl,
                peak=source.peak_db_spl,
                burst=source.burst_db_spl,
                variance_db2=source.tolerance_db**2,
                weakest=Provenance.TYPICAL,
            )
        )
        # Direct sound loses 6 dB with each doubling of the distance; what the room gives back is the same everywhere.
        direct_db = pattern.off_axis_db(angle_deg) - db_from_ratio(distance_m)
        way.shift(f"{distance_m:g} m away", -db_from_ratio(distance_m))
        if angle_deg:
            way.shift(f"{angle_deg:g}° off axis, {pattern}", pattern.off_axis_db(angle_deg))
        if math.isfinite(critical_m):
            back_db = -db_from_ratio(critical_m)
            way.shift("what the room gives back", sum_powers_db((direct_db, back_db)) - direct_db)
        return StageLevel(stage=stage, unit="dB SPL", sound=way.sound, steps={stage.key: tuple(way.steps)})

    def _microphone(self, stage: Stage) -> StageLevel:
        unit, defaults = self.rig.unit(stage.device), self.rig.plan.defaults
        capsule = unit.device_class.capsule
        steps = {feed.key: self.level(feed).steps[feed.key] for feed, _ in stage.feeds}
        sound = mixed([self.level(source).sound for source, _ in stage.feeds])
        noises = [a_weighted("room", defaults.room_noise_db_spl, Spectrum.ROOM, is_room=True)]
        if defaults.rumble_db_spl:
            noises.append(noise_in("rumble", defaults.rumble_db_spl, "dB SPL", spectrum=Spectrum.RUMBLE, is_room=True))
        if capsule is not None and capsule.self_noise_db_a is not None:
            noises.append(a_weighted(f"{unit.label} self-noise", capsule.self_noise_db_a.value, Spectrum.FLAT))
        sound = sound.with_noise(*noises)
        return _against(stage, "dB SPL", sound, capsule.max_db_spl.value if capsule else math.inf, steps)

    def _output(self, stage: Stage) -> StageLevel:
        unit = self.rig.unit(stage.device)
        port = unit.output(stage.name)
        mode = unit.output_mode(port)
        upstream = self.level(stage.feeds[0][0])
        way = self._leaving(upstream, unit)
        unit_out, ceiling = "dBu", math.inf
        if unit.device_class.capsule is not None:
            hear_voltage(way, unit, unit.device_class.capsule, mode)
        elif mode.full_scale_dbu is None:
            unit_out, ceiling = "dBFS", CEILING_OF_BUS_DBFS
            if mode.compander_db is not None:
                way.hear(breathing(unit, way.sound, mode.compander_db.value))
        else:
            ceiling = mode.full_scale_dbu.value + unit.trim_db(port, mode)
            drive(way, unit, port, mode)
        steps = {upstream.stage.key: tuple(way.steps)}
        return StageLevel(stage=stage, unit=unit_out, sound=way.sound, ceiling=ceiling, steps=steps)

    def _lead(self, stage: Stage) -> StageLevel:
        run = stage.run
        assert run is not None  # a lead stage is made with its run
        unit = self.rig.unit(run.receiving.device)
        mode = unit.input_mode(unit.input(run.receiving.port))
        levels = [self.level(upstream) for upstream, _ in stage.feeds]
        unit_sent = levels[0].unit
        if (unit_sent == "dBFS") != (mode.signal is Signal.DIGITAL):
            return StageLevel(stage=stage, unit=unit_sent, sound=Sound())  # numbers and voltages do not meet
        losses = [loss for part in run.parts if (loss := self.rig.lead_of(part).loss_db) is not None]
        ways = []
        for level, (_, ratio) in zip(levels, stage.feeds, strict=True):
            way = Passage(level.sound)
            if ratio != 1 or losses:
                way.shift("lead, with what it is plugged into", db_from_ratio(abs(ratio)), *losses)
            ways.append(way)
        steps = {feed.key: tuple(way.steps) for (feed, _), way in zip(stage.feeds, ways, strict=True)}
        signs = [math.copysign(1.0, ratio) for _, ratio in stage.feeds]
        return StageLevel(
            stage=stage, unit=unit_sent, sound=self._together(stage, [way.sound for way in ways], signs), steps=steps
        )

    def _input(self, stage: Stage) -> StageLevel:
        unit = self.rig.unit(stage.device)
        port = unit.input(stage.name)
        mode = unit.input_mode(port)
        upstream = [self.level(lead) for lead, _ in stage.feeds]
        sound = mixed([level.sound for level in upstream])
        if not upstream or upstream[0].unit == "dBFS" or mode.full_scale_dbu is None:
            return StageLevel(stage=stage, unit="dBFS", sound=sound, ceiling=CEILING_OF_BUS_DBFS)
        return _against(stage, "dBu", sound, input_ceiling_dbu(unit, port, mode))

    def _bus(self, stage: Stage) -> StageLevel:
        unit = self.rig.unit(stage.device)
        sound, ways = self._mix(stage, clipping=True)
        steps = {feed.key: tuple(way.steps) for (feed, _), way in zip(stage.feeds, ways, strict=True)}
        ceiling = math.inf if unit.device_class.traits.is_float else CEILING_OF_BUS_DBFS
        return _against(stage, "dBFS", sound, ceiling, steps)

    def unclipped(self, stage: Stage) -> Sound:
        """What a mix or track would hold if its own device's inputs could neither clip nor limit."""
        return self._mix(stage, clipping=False)[0]

    def _mix(self, stage: Stage, *, clipping: bool) -> tuple[Sound, list[Passage]]:
        unit = self.rig.unit(stage.device)
        bus = unit.bus(stage.name)
        ways = []
        for feed, _ in stage.feeds:
            way = self._leaving(self.level(feed), unit, clipping=clipping)
            way.shift("pan", -unit.pan_loss_db(bus, unit.input(feed.name)))
            ways.append(way)
        return self._together(stage, [way.sound for way in ways], [1.0] * len(ways)), ways

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

    def _leaving(self, level: StageLevel, unit: Unit, *, clipping: bool = True) -> Passage:
        """What leaves a stage: cut at its ceiling and, behind an input, converted and with the input's noise."""
        stage = level.stage
        way = Passage(level.sound)
        if clipping and level.sound.burst > level.ceiling:
            way.cap(level.ceiling, stage.device, self.place_words(stage))
        if level.unit == "dBu" and stage.place is Place.INPUT:
            convert(way, unit, unit.input(stage.name), limiting=clipping)
        return way

    def track_sound(self, stage: Stage) -> Sound:
        """What is written to the file."""
        return self._leaving(self.level(stage), self.rig.unit(stage.device)).sound

    def place_words(self, stage: Stage) -> str:
        """A stage as it is named in sentences."""
        unit = self.rig.unit(stage.device)
        if stage.place in (Place.INPUT, Place.OUTPUT):
            return unit.label if unit.device_class.capsule else f"{unit.label} {_channel_label(unit, stage)}"
        if stage.place is Place.BUS:
            return unit.bus_label(stage.name)
        if stage.place is Place.LEAD and stage.run is not None:
            return f"run {stage.run.number}"
        if stage.place is Place.SOUND:
            return self.rig.plan.sources[stage.name].label
        return unit.label


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


def _against(
    stage: Stage, unit: str, sound: Sound, ceiling: float, steps: Mapping[StageKey, tuple[Step, ...]] = NO_STEPS
) -> StageLevel:
    over = max(sound.peak - ceiling, 0.0) if sound.peak > SILENCE_DB else 0.0
    burst_over = max(sound.burst - ceiling, 0.0) if sound.burst > SILENCE_DB else 0.0
    return StageLevel(
        stage=stage, unit=unit, sound=sound, ceiling=ceiling, over_db=over, burst_over_db=burst_over, steps=steps
    )


def origin_of(stage: Stage) -> Stage:
    """Where the sound of a stage was last mixed from several, or began: two with one origin carry the same sound."""
    while len(stage.feeds) == 1 and stage.place is not Place.MICROPHONE:
        stage = stage.feeds[0][0]
    return stage


def _keys(origin: Stage) -> tuple[StageKey, ...]:
    """What tells origins apart: two mixes of the same inputs are the same sound."""
    return tuple(feed.key for feed, _ in origin.feeds) if origin.place is Place.BUS else (origin.key,)


def _channel_label(unit: Unit, stage: Stage) -> str:
    port = unit.port(stage.name)
    if len(port.channels) == 1:
        return port.label
    return f"{port.label} {channel_refs(port)[stage.channel].split('.')[-1]}"
