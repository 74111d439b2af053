"""Levels at every stage of a trace: what is there, what the stage can take, and what it adds."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.catalogue import (
    CAPSULE_PAD_KEY,
    InputMode,
    InputPort,
    PadPlace,
    Provenance,
    Signal,
    TrimKind,
    channel_refs,
)
from tidy_trunk.core.levels.sound import Noise, Sound, mixed
from tidy_trunk.core.plan import ROOMS, Rig, Run, Unit
from tidy_trunk.core.trace import Place, Stage, StageKey, run_link
from tidy_trunk.core.units import SILENCE_DB, db_from_ratio, microphone_dbu, sum_powers_db, thermal_noise_dbu

CEILING_OF_BUS_DBFS: Final = 0.0
"""Nothing on a fixed-point track is above full scale. [AES17]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class StageLevel:
    """One stage with its sound. `ceiling` is in the same unit, inf where nothing clips.

    over_db, burst_over_db: how far the expected peaks, and a burst, go above it; 0 or more.
    """

    stage: Stage
    unit: str
    sound: Sound
    ceiling: float = math.inf
    over_db: float = 0.0
    burst_over_db: float = 0.0


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
        directivity = capsule.pattern.directivity if capsule is not None else 1.0
        critical_m = ROOMS[self.rig.plan.defaults.room].critical_distance_m(directivity)
        # Direct sound loses 6 dB with each doubling of the distance; what the room gives back is the same everywhere.
        by_db = -db_from_ratio(source.heard_by[stage.device])
        if math.isfinite(critical_m):
            by_db = sum_powers_db((by_db, -db_from_ratio(critical_m)))
        sound = Sound(
            quiet=source.quiet_db_spl,
            average=source.average_db_spl,
            peak=source.peak_db_spl,
            burst=source.burst_db_spl,
            variance_db2=source.tolerance_db**2,
            weakest=Provenance.TYPICAL,
        )
        return StageLevel(stage=stage, unit="dB SPL", sound=sound.shifted(by_db))

    def _microphone(self, stage: Stage) -> StageLevel:
        unit = self.rig.unit(stage.device)
        capsule = unit.device_class.capsule
        sound = mixed([self.level(source).sound for source, _ in stage.feeds])
        sound = sound.with_noise(Noise("room", self.rig.plan.defaults.room_noise_db_spl, is_room=True))
        if capsule is not None and capsule.self_noise_db_a is not None:
            sound = sound.with_noise(Noise(f"{unit.label} self-noise", capsule.self_noise_db_a.value))
        return _against(stage, "dB SPL", sound, capsule.max_db_spl.value if capsule else math.inf)

    def _output(self, stage: Stage) -> StageLevel:
        unit = self.rig.unit(stage.device)
        port = unit.output(stage.name)
        mode = unit.output_mode(port)
        capsule = unit.device_class.capsule
        upstream = self.level(stage.feeds[0][0])
        sound = self._passed_on(upstream, unit)
        if capsule is not None:
            pad_db = float(unit.device.settings.get(CAPSULE_PAD_KEY, "0"))
            sensitivity = capsule.sensitivity_mv_per_pa
            sound = sound.shifted(microphone_dbu(sensitivity.value, 0.0) - pad_db, sensitivity)
            if capsule.self_noise_db_a is None:
                sound = sound.with_noise(Noise(f"{unit.label} coil", thermal_noise_dbu(mode.source_ohm.value)))
            return StageLevel(stage=stage, unit="dBu", sound=sound)
        if mode.full_scale_dbu is None:
            return StageLevel(stage=stage, unit="dBFS", sound=sound, ceiling=CEILING_OF_BUS_DBFS)
        trim_db = unit.trim_db(port, mode)
        sound = sound.shifted(mode.full_scale_dbu.value + trim_db, mode.full_scale_dbu)
        if mode.noise_dbu is not None:
            own = mode.noise_dbu.value + (trim_db if mode.trim_kind is TrimKind.ANALOGUE else 0.0)
            sound = sound.with_noise(Noise(f"{unit.label} {port.label} hiss", own))
        return StageLevel(stage=stage, unit="dBu", sound=sound, ceiling=mode.full_scale_dbu.value + trim_db)

    def _lead(self, stage: Stage) -> StageLevel:
        run = stage.run
        assert run is not None  # a lead stage is made with its run
        unit = self.rig.unit(run.receiving.device)
        port = unit.input(run.receiving.port)
        mode = unit.input_mode(port)
        levels = [self.level(upstream) for upstream, _ in stage.feeds]
        unit_sent = levels[0].unit
        if (unit_sent == "dBFS") != (mode.signal is Signal.DIGITAL) or _cancels(stage):
            # Numbers and voltages do not meet; and left minus right of one sound is nothing.
            return StageLevel(stage=stage, unit=unit_sent, sound=Sound())
        sound = mixed(
            [
                level.sound.shifted(db_from_ratio(abs(ratio)))
                for level, (_, ratio) in zip(levels, stage.feeds, strict=True)
            ]
        )
        losses = [loss for part in run.parts if (loss := self.rig.lead_of(part).loss_db) is not None]
        return StageLevel(stage=stage, unit=unit_sent, sound=sound.shifted(0.0, *losses) if losses else sound)

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
        sound = mixed([self._passed_on(self.level(feed), unit) for feed, _ in stage.feeds])
        ceiling = math.inf if unit.device_class.traits.is_float else CEILING_OF_BUS_DBFS
        return _against(stage, "dBFS", sound, ceiling)

    def _passed_on(self, level: StageLevel, unit: Unit) -> Sound:
        """What leaves a stage: cut at its ceiling and, behind an input, converted and with the input's noise."""
        stage = level.stage
        sound = level.sound.capped(level.ceiling, stage.device, self.place_words(stage))
        if level.unit == "dBFS" or stage.place is not Place.INPUT:
            return sound
        port = unit.input(stage.name)
        mode = unit.input_mode(port)
        if mode.full_scale_dbu is None:
            return sound
        gain_db = unit.gain_db(port, mode)
        limit = unit.limiter_dbfs(port)
        sound = sound.shifted(-_pad_at(PadPlace.FIRST, unit, port))
        if mode.ein_dbu is not None:
            sound = sound.with_noise(Noise(f"{unit.label} preamp", mode.ein_dbu.value))
        between_db = gain_db - _pad_at(PadPlace.BETWEEN, unit, port)
        sound = sound.shifted(between_db - mode.full_scale_dbu.value, mode.full_scale_dbu)
        if limit is not None:
            # One before the converter saves it; one behind it presses down what has been cut there already.
            sound = sound.limited(limit)
        if port.idle_noise_dbfs is not None:
            sound = sound.with_noise(Noise(f"{unit.label} converter", port.idle_noise_dbfs.value))
        return sound.shifted(-_pad_at(PadPlace.LAST, unit, port))  # acts on all of it

    def track_sound(self, stage: Stage) -> Sound:
        """What is written to the file."""
        return self._passed_on(self.level(stage), self.rig.unit(stage.device))

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


def input_ceiling_dbu(unit: Unit, port: InputPort, mode: InputMode) -> float:
    """dBu at the terminals at which an input begins to clip, in its first stage or at its converter."""
    if mode.full_scale_dbu is None:
        return math.inf
    stage = mode.clip_dbu.value if mode.clip_dbu is not None else math.inf
    converter = mode.full_scale_dbu.value - unit.gain_db(port, mode) + _pad_at(PadPlace.BETWEEN, unit, port)
    if port.limiter_place is not PadPlace.LAST and unit.limiter_dbfs(port) is not None:
        converter = math.inf
    return min(converter, stage) + _pad_at(PadPlace.FIRST, unit, port)


def _pad_at(place: PadPlace, unit: Unit, port: InputPort) -> float:
    """Loss of the input's attenuator in dB, if it sits there and is on."""
    return unit.pad_db(port) if port.pad_place is place else 0.0


def input_stage_dbu(unit: Unit, port: InputPort, mode: InputMode) -> float:
    """dBu at the terminals that the input takes with its gain turned down: what no knob can mend."""
    if mode.full_scale_dbu is None:
        return math.inf
    lowest = mode.gain.minimum_db if mode.gain is not None else 0.0
    converter = mode.full_scale_dbu.value - lowest + _pad_at(PadPlace.BETWEEN, unit, port)
    stage = mode.clip_dbu.value if mode.clip_dbu is not None else converter
    return stage + _pad_at(PadPlace.FIRST, unit, port)


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


def _against(stage: Stage, unit: str, sound: Sound, ceiling: float) -> StageLevel:
    over = max(sound.peak - ceiling, 0.0) if sound.peak > SILENCE_DB else 0.0
    burst_over = max(sound.burst - ceiling, 0.0) if sound.burst > SILENCE_DB else 0.0
    return StageLevel(stage=stage, unit=unit, sound=sound, ceiling=ceiling, over_db=over, burst_over_db=burst_over)


def _cancels(stage: Stage) -> bool:
    """Whether two arrivals in opposite polarity carry the same sound, so that nothing is left."""
    if len(stage.feeds) != 2:
        return False
    (first, up), (second, down) = stage.feeds
    same = [feed.key for feed, _ in first.feeds] == [feed.key for feed, _ in second.feeds]
    same_mix = _bus_inputs(first) == _bus_inputs(second)
    return up * down < 0 and (same or same_mix)


def _bus_inputs(output: Stage) -> list[StageKey]:
    return [feed.key for bus, _ in output.feeds for feed, _ in bus.feeds]


def _channel_label(unit: Unit, stage: Stage) -> str:
    port = unit.port(stage.name)
    if len(port.channels) == 1:
        return port.label
    return f"{port.label} {channel_refs(port)[stage.channel].split('.')[-1]}"
