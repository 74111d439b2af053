"""An option tried out: the plan with its edits, worked out no further than the joint in question."""

import math
from functools import cached_property
from typing import Final, NamedTuple, Protocol

from tidy_trunk.core.base.units import SILENCE_DB, combine_tolerances_db
from tidy_trunk.core.gear.catalogue import (
    Bus,
    InputMode,
    InputPort,
    Signal,
    Span,
    Supply,
    armed_key,
    bus_gain_key,
    channel_refs,
    digital_gain_key,
    gain_key,
    switch_key,
)
from tidy_trunk.core.plan import Edit, PlacedDevice, Plan, PlanIndex, PortRef, Run, SetControl, Target
from tidy_trunk.core.sound.levels import (
    LevelSolver,
    Report,
    SignalLevels,
    StageLevel,
    full_scale_at_input_dbu,
    input_stage_dbu,
)
from tidy_trunk.core.sound.trace import Stage, StageKey, Tracer

ALLOWED_MISS_DB: Final = 1.0
"""ASSUMED_ how far outside its target an average may lie before anything is said: less than a typical figure's ±."""

AUDIBLE_DB: Final = 10.0
"""Gear noise this far below the room's adds less than half a decibel to it. [HANDBOOK] §15.1: powers add"""

JUST_DB: Final = 0.05
"""ASSUMED_ distance from an edge of the target that is printed as none."""

PEAK_MARGIN_DB: Final = 3.0
"""ASSUMED_ what is left above the expected peaks when a knob is set."""


def by_hand(placed: PlacedDevice, port: InputPort) -> tuple[SetControl, ...]:
    """Automatic level of an input, and of the tracks that take it, switched off wherever it is on: what it does to a level is no match. [HANDBOOK] §6"""
    refs = set(channel_refs(port))
    tracks = [
        bus for bus in placed.device_class.buses if bus.automatic_level_places and refs & set(placed.bus_inputs(bus))
    ]
    places: list[InputPort | Bus] = [port, *tracks]
    return tuple(
        SetControl(device=placed.device.id, control=switch_key(at.id, "auto", place), value=False)
        for at in places
        for place in placed.automatic_level_on(at)
    )


def arming(placed: PlacedDevice, port: InputPort) -> tuple[SetControl, ...]:
    """The tracks of an input armed, where none that takes it is recorded: those that take nothing else, else the first."""
    refs = set(channel_refs(port))
    buses = [bus for bus in placed.device_class.buses if bus.recorded and refs & set(placed.bus_inputs(bus))]
    if any(placed.is_recorded(bus) for bus in buses):
        return ()
    off = [bus for bus in buses if bus.armed is not None]
    own = [bus for bus in off if set(placed.bus_inputs(bus)) <= refs]
    return tuple(SetControl(device=placed.device.id, control=armed_key(bus.id), value=True) for bus in own or off[:1])


def built_in_run(index: PlanIndex, device: str) -> Run | None:
    """The way from a device's own microphone to its own input, as a run without a number; None where nobody is before it, or
    a plug turns it off."""
    own = index.placed(device).device_class.built_in_out
    heard = any(device in source.heard_by for source in index.plan.sources.values())
    if own is None or not heard:
        return None
    inputs = index.placed(device).device_class.inputs
    port = next((port for port in inputs if port.plug == own.plug.opposite), None)
    if port is None or index.is_cut_off(device, port.id):
        return None
    return Run(id="", number=0, sending=PortRef(device, own.id), receiving=PortRef(device, port.id))


def switched(placed: PlacedDevice, port: InputPort, supply: Supply, *, on: bool) -> tuple[SetControl, ...]:
    """A supply switched on or off in every place where an input has a switch for it; none where its mode gives it."""
    what, places = port.switches_of(supply)
    return tuple(
        SetControl(device=placed.device.id, control=switch_key(port.id, what, place), value=on) for place in places
    )


class KnownUpstream(Protocol):
    """Whatever knows what lies upstream of a run."""

    def worked_out(self, plan: Plan) -> tuple[PlanIndex, Tracer, LevelSolver]:
        """Look-ups, stages and levels of a plan, with all that is known taken over."""


class Upstream:
    """What no option of a run into a device can change: the mixes and microphones from which the leads into it come.

    Worked out once, so that an option costs as much as its own joint, however long the chain before it.
    """

    def __init__(self, report: Report, device: str) -> None:
        self._report = report
        self.index = report.index
        self._stages: dict[StageKey, Stage] = {}
        self._levels: dict[StageKey, StageLevel[SignalLevels]] = {}
        for port in report.index.placed(device).device_class.inputs:
            for channel in range(len(port.channels)):
                for lead, _ in report.tracer.input(device, port.id, channel).feeds:
                    for output, _ in lead.feeds:
                        for stage, _ in output.feeds:
                            self._stages[stage.key] = stage
                            self._levels[stage.key] = report.solver.level(stage)

    def worked_out(self, plan: Plan) -> tuple[PlanIndex, Tracer, LevelSolver]:
        """Look-ups, stages and levels of a plan, with what this one shares; for the plan itself all that is known."""
        if plan is self.index.plan:
            return self.index, self._report.tracer, self._report.solver
        index = PlanIndex(plan, self.index)
        return index, Tracer(index, self._stages), LevelSolver(index, self._levels)


class _Knob(NamedTuple):
    """A knob, its control, where it stands and what it gives there."""

    span: Span
    control: str
    stands_db: float
    gives_db: float


class Trial:
    """A plan in which a run is as an option would have it."""

    def __init__(self, plan: Plan, run: str | Run, upstream: KnownUpstream, track: str = "") -> None:
        """`run`: its id, or that of a built-in microphone. `track`: of the receiving device, where it is not the first that
        the run reaches."""
        self.plan = plan
        self._track = track
        self.index, self._tracer, self._solver = upstream.worked_out(plan)
        self.run: Run = plan.runs[run] if isinstance(run, str) else run
        self._upstream = upstream
        self.receiver: PlacedDevice = self.index.placed(self.run.receiving.device)
        self.port: InputPort = self.receiver.input(self.run.receiving.port)
        self.mode: InputMode = self.receiver.input_mode(self.port)

    @cached_property
    def stage(self) -> Stage | None:
        """The first track, or else mix, of the receiving device that the run reaches."""
        refs = set(channel_refs(self.port))
        placed = self.receiver
        buses = sorted(
            placed.device_class.buses,
            key=lambda bus: (bus.id != self._track, not bus.recorded, len(placed.bus_inputs(bus))),
        )
        for bus in buses:
            if refs & set(placed.bus_inputs(bus)):
                stage = self._tracer.bus(placed.device.id, bus.id)
                feeds = [lead for feed, _ in stage.feeds for lead, _ in feed.feeds if feed.name == self.port.id]
                if any(feed.run.id == self.run.id if feed.run else not self.run.number for feed in feeds):
                    return stage
        return None

    @property
    def has_source(self) -> bool:
        """Whether a source is planned that reaches that track."""
        return self.stage is not None and bool(self.stage.sources)

    @property
    def target(self) -> Target:
        """What that track is wanted at; the job's where the run reaches none."""
        if self.stage is None:
            return self.index.targets[self.plan.defaults.target]
        return self.index.target_of(self.stage.device, self.stage.name)

    @cached_property
    def sound(self) -> SignalLevels | None:
        """What that track would hold; None where the run reaches none."""
        return self._solver.track_sound(self.stage) if self.stage is not None else None

    def margin_db(self) -> tuple[float, float]:
        """From the sender's full scale to the receiver's clip point, and the ± of that; infinite where one is unknown."""
        sender = self.index.placed(self.run.sending.device)
        sends = sender.output_mode(sender.output(self.run.sending.port)).full_scale_dbu
        arrives = full_scale_at_input_dbu(self.index, self.run)
        if arrives is None or sends is None or self.mode.full_scale_dbu is None:
            return math.inf, 0.0
        doubt = combine_tolerances_db((sends.tolerance, self.mode.full_scale_dbu.tolerance))
        return input_stage_dbu(self.receiver, self.port, self.mode) - arrives, doubt

    def fitting_gain(self) -> SetControl | None:
        """The knob so that the average comes to the middle of the target, and the peaks keep a margin; None as it is.

        Where a burst would clip there, it goes down as far as the target lets it.
        The lowest position of a microphone input is often "off": one step above it is the least that is proposed.
        """
        sound = self._solver.unclipped(self.stage) if self.stage is not None else SignalLevels()
        target = self.target
        level = sound.peak if target.of_peaks else sound.average
        knob = self._knob
        if knob is None or self.mode.signal is Signal.DIGITAL:
            return None
        gain, now = knob.span, knob.gives_db
        if level == SILENCE_DB:
            return None if self.has_source else self._meters_alike(knob)
        lowest = target.low_dbfs - level
        shift = min((target.low_dbfs + target.high_dbfs) / 2 - level, -PEAK_MARGIN_DB - sound.peak)
        if not self.receiver.device_class.traits.is_float:
            # Room for a burst, as far as the target lets one go down.
            shift = max(min(shift, -sound.burst), min(lowest, shift))
        room_db = self._full_scale_room_db()
        if room_db < shift:
            # The sender's full scale comes before the middle of the target: the two meters then read alike.
            shift = max(room_db, min(lowest, shift))
        fits = abs(target.miss_db(sound.average, sound.peak)) <= JUST_DB and sound.peak <= -PEAK_MARGIN_DB
        if fits and (sound.burst <= 0 or shift > -ALLOWED_MISS_DB):
            return None
        wanted = gain.nearest_db(now + shift)
        if gain.gain_db(wanted) < now + min(lowest, shift) - JUST_DB:
            wanted = gain.snapped_db(wanted + gain.step_db)  # not below the target where a step more is left
        return self._turned_to(knob, wanted)

    def turned_down(self, by_db: float) -> SetControl | None:
        """The knob lower by at least so much, or as far as it goes; None where it can go no lower, or there is none."""
        knob = self._knob
        if knob is None:
            return None
        turn = self._turned_to(knob, knob.span.nearest_db(knob.gives_db - by_db - knob.span.step_db / 2))
        return turn if turn is not None and float(turn.value) < knob.stands_db else None

    @property
    def _knob(self) -> "_Knob | None":
        """The gain of the input, with that of the one that leads it where they are linked; else its digital gain, else that of
        the track."""
        leader = self.receiver.leader_of(self.port)
        mode = self.receiver.input_mode(leader)
        if mode.gain is not None:
            stands, gives = (
                self.receiver.gain_mark_db(self.port, self.mode),
                self.receiver.gain_db(self.port, self.mode),
            )
            return _Knob(mode.gain, gain_key(leader.id, mode.id), stands, gives)
        if self.port.digital_gain is not None:
            now = self.receiver.digital_gain_db(self.port)
            return _Knob(self.port.digital_gain, digital_gain_key(self.port.id), now, now)
        bus = self.receiver.bus(self.stage.name) if self.stage is not None else None
        if bus is not None and bus.gain is not None:
            stands, gives = self.receiver.bus_gain_mark_db(bus), self.receiver.bus_gain_db(bus)
            return _Knob(bus.gain, bus_gain_key(bus.id), stands, gives)
        return None

    def _meters_alike(self, knob: "_Knob") -> SetControl | None:
        """Without a voice: the sender's full scale at the receiver's, so that a tone reads the same on both meters."""
        shift = self._full_scale_room_db()
        return None if math.isinf(shift) else self._turned_to(knob, knob.span.nearest_db(knob.gives_db + shift))

    def _turned_to(self, knob: "_Knob", wanted: float) -> SetControl | None:
        """The knob at a position, and not at the lowest of a microphone input; None where it stands there."""
        if self.mode.signal is Signal.MIC and self.mode.gain is not None:
            wanted = max(wanted, knob.span.minimum_db + knob.span.step_db)
        if wanted == knob.stands_db:
            return None
        return SetControl(device=self.receiver.device.id, control=knob.control, value=wanted)

    def turned(self) -> tuple["Trial", tuple[Edit, ...]]:
        """The same with the knob where it fits, and the edit for it."""
        edit = self.fitting_gain()
        if edit is None:
            return self, ()
        turned = Trial(edit.apply(self.plan), self.run.id if self.run.number else self.run, self._upstream)
        turned.stage = self.stage  # a knob leads no sound elsewhere
        return turned, (edit,)

    def _full_scale_room_db(self) -> float:
        """By how much the receiving gain may rise until the sender's full scale reads 0 dBFS; negative above it."""
        arrives = full_scale_at_input_dbu(self.index, self.run)
        if arrives is None or self.mode.full_scale_dbu is None:
            return math.inf
        gain_db, pad_db = self.receiver.gain_db(self.port, self.mode), self.receiver.pad_db(self.port)
        if self.stage is not None:
            gain_db += self.receiver.bus_gain_db(self.receiver.bus(self.stage.name))
        return self.mode.full_scale_dbu.value - gain_db + pad_db - arrives


def reached(report: Report, run: Run) -> Stage | None:
    """The first track, or else mix, that a run reaches as the plan is; None where it reaches none."""
    return Trial(report.index.plan, run.id, Upstream(report, run.receiving.device)).stage
