"""The way of sound through a plan: every track traced back to its sources."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property
from typing import Final

from tidy_trunk.core.gear.catalogue import INSIDE, channel_refs
from tidy_trunk.core.plan import Plan, PlanIndex, PortRef, Run, validate
from tidy_trunk.core.sound.trace.links import run_link
from tidy_trunk.errors import PlanError, SignalLoopError

StageKey = tuple[str, str, str, int]
"""Kind, device, name and channel: what tells one stage of a plan from all others."""

DEEPEST_CHAIN: Final = 120
"""ASSUMED_ most stages in a row, four or five a device: more than any set has, less than would exhaust the machine."""


class StageKind(StrEnum):
    """What a stage of a trace is."""

    SOUND = "sound"
    MICROPHONE = "microphone"
    OUTPUT = "output"
    LEAD = "lead"
    INPUT = "input"
    BUS = "bus"


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """One point on the way, with what feeds it: the stages upstream, each with the voltage ratio at which it arrives.

    idle: inputs that a mix or track takes, and at which nothing arrives: they make their noise all the same.
    key: tells it from all other stages of the plan.
    depth: how many stages lie in a row up to it, itself included.
    sources: ids of the sources that reach it, each once.
    origin: where its sound was last mixed from several, or began: stages with one origin carry the same sound. Mixes of the
        same feeds are the same sound, and so is a mix of nothing but one sound.
    """

    kind: StageKind
    device: str
    name: str  # port id, bus id, or run id
    channel: int = 0
    run: Run | None = None
    feeds: tuple[tuple["Stage", float], ...] = ()
    idle: tuple["Stage", ...] = ()
    key: StageKey = field(init=False, compare=False)
    depth: int = field(init=False, compare=False)
    sources: tuple[str, ...] = field(init=False, compare=False)
    origin: tuple[StageKey, ...] = field(init=False, compare=False)

    def __post_init__(self) -> None:
        # Known once and for all: every look at a trace asks for these.
        object.__setattr__(self, "key", (self.kind, self.device, self.name, self.channel))
        if len(self.feeds) == 1:
            sources, depth = self.feeds[0][0].sources, 1 + self.feeds[0][0].depth
        else:
            heard = (self.name,) if self.kind is StageKind.SOUND else ()
            sources = heard or tuple(dict.fromkeys(source for feed, _ in self.feeds for source in feed.sources))
            depth = 1 + max((feed.depth for feed, _ in self.feeds), default=0)
        object.__setattr__(self, "origin", self._origin())
        object.__setattr__(self, "sources", sources)
        object.__setattr__(self, "depth", depth)
        if depth > DEEPEST_CHAIN:
            raise PlanError(f"a chain of more than {DEEPEST_CHAIN} stages in a row cannot be traced: shorten it")

    def _origin(self) -> tuple[StageKey, ...]:
        if self.kind is StageKind.BUS and not self.feeds and self.idle:
            return tuple(stage.key for stage in self.idle)  # two mixes of nothing make the noise of the same inputs
        if not self.feeds or self.kind is StageKind.MICROPHONE:
            return (self.key,)
        origin = self.feeds[0][0].origin
        if all(feed.origin == origin for feed, _ in self.feeds):
            return origin
        return tuple(feed.key for feed, _ in self.feeds) if self.kind is StageKind.BUS else (self.key,)


@dataclass(frozen=True, slots=True)
class Trace:
    """A recorded track and the stage that stands for it."""

    device: str
    bus: str
    stage: Stage

    @property
    def id(self) -> str:
        return f"{self.device}.{self.bus}"


_AT_A_CONTROL = (StageKind.INPUT, StageKind.OUTPUT, StageKind.MICROPHONE, StageKind.BUS)


def trace_plan(plan: Plan) -> "Tracer":
    """Refuse a plan that is not well formed or in which sound would run in a circle; else give its traces.

    Raises:
        PlanError, InputError: As `validate`; SignalLoopError names the devices on the circle.
    """
    tracer = Tracer(validate(plan))
    tracer.traces()
    return tracer


class Tracer:
    """Builds the stages of a plan, each once, however many tracks share it."""

    def __init__(self, index: PlanIndex, known: Mapping[StageKey, Stage] | None = None) -> None:
        """`known`: stages of another plan that are the same in this one, taken over instead of built again."""
        self.index = index
        self._stages: dict[StageKey, Stage] = dict(known or {})
        self._open: list[StageKey] = []
        self._traces: list[Trace] | None = None

    def stages_outside(self, stages: Collection[StageKey]) -> dict[StageKey, Stage]:
        """Every stage that was built, but some."""
        return {key: stage for key, stage in self._stages.items() if key not in stages}

    def carried_to(self, index: PlanIndex) -> "Tracer":
        """The same stages for a plan in which nothing leads elsewhere, however loud it is."""
        carried = Tracer(index, self._stages)
        carried._traces = self._traces
        return carried

    def downstream_of(self, ports: Collection[tuple[str, str]]) -> set[StageKey]:
        """Stages at some ports, given as device and port, "" for a microphone itself, and all that hangs on them."""
        return self._behind({key for key in self._feeds_into if (key[1], key[2]) in ports and key[0] in _AT_A_CONTROL})

    def downstream_of_devices(self, devices: Collection[str]) -> set[StageKey]:
        """All stages of some devices, and all that hangs on them."""
        return self._behind({key for key in self._feeds_into if key[1] in devices})

    def _behind(self, found: set[StageKey]) -> set[StageKey]:
        waiting = list(found)
        for key in waiting:
            fresh = [after for after in self._feeds_into[key] if after not in found]
            found.update(fresh)
            waiting += fresh
        return found

    @cached_property
    def _feeds_into(self) -> Mapping[StageKey, list[StageKey]]:
        """Each stage with those that it feeds, or that hear its noise."""
        found: dict[StageKey, list[StageKey]] = {key: [] for key in self._stages}
        waiting, seen = list(self._stages.values()), set(self._stages)
        for stage in waiting:
            for feed in (*(feed for feed, _ in stage.feeds), *stage.idle):
                found.setdefault(feed.key, []).append(stage.key)
                if feed.key not in seen:
                    seen.add(feed.key)
                    waiting.append(feed)
        return found

    def traces(self) -> list[Trace]:
        """Every track of every recording device, in the order of the plan; worked out once.

        Raises:
            SignalLoopError: Sound would come back to where it started.
        """
        if self._traces is None:
            self._traces = self._all_traces()
        return self._traces

    def _all_traces(self) -> list[Trace]:
        found = []
        for placed in self.index.placed_devices():
            for bus in placed.device_class.buses:
                stage = self.bus(placed.device.id, bus.id)
                if placed.is_recorded(bus):
                    found.append(Trace(placed.device.id, bus.id, stage))
            for port in placed.device_class.inputs:
                # Inputs that feed nothing take part too, so that no circle hides behind an unused one.
                for channel in range(len(port.channels)):
                    self.input(placed.device.id, port.id, channel)
        return found

    def _once(self, key: StageKey) -> Stage | None:
        if key in self._open:
            circle = list(dict.fromkeys(device for _, device, _, _ in self._open[self._open.index(key) :]))
            names = " → ".join(self.index.placed(device).label for device in [*circle, circle[0]])
            raise SignalLoopError(f"sound would run in a circle: {names}. Take one of these cables out.")
        if len(self._open) > DEEPEST_CHAIN:
            raise PlanError(f"a chain of more than {DEEPEST_CHAIN} stages in a row cannot be traced: shorten it")
        return self._stages.get(key)

    def bus(self, device: str, bus_id: str) -> Stage:
        """The stage of one track or mix, with all that feeds it. Raises SignalLoopError."""
        key = (StageKind.BUS, device, bus_id, 0)
        done = self._once(key)
        if done is not None:
            return done
        self._open.append(key)
        placed = self.index.placed(device)
        feeds, idle = [], []
        for ref in placed.bus_inputs(placed.bus(bus_id)):
            port, channel = self.index.input_channel(placed, ref)
            stage = self.input(device, port.id, channel)
            if stage.feeds:
                feeds.append((stage, 1.0))
            elif self.index.is_cut_off(device, port.id):
                continue
            elif port.circuit.is_analogue and port.plug.connector != INSIDE:
                idle.append(stage)
        self._open.pop()
        stage = Stage(kind=StageKind.BUS, device=device, name=bus_id, feeds=tuple(feeds), idle=tuple(idle))
        self._stages[key] = stage
        return stage

    def input(self, device: str, port_id: str, channel: int) -> Stage:
        """The stage of one channel of an input, with all that feeds it. Raises SignalLoopError."""
        key = (StageKind.INPUT, device, port_id, channel)
        done = self._once(key)
        if done is not None:
            return done
        self._open.append(key)
        feeds = [] if self.index.is_cut_off(device, port_id) else list(self._arriving(device, port_id, channel))
        self._open.pop()
        stage = Stage(kind=StageKind.INPUT, device=device, name=port_id, channel=channel, feeds=tuple(feeds))
        self._stages[key] = stage
        return stage

    def _arriving(self, device: str, port_id: str, channel: int) -> Iterator[tuple[Stage, float]]:
        """What comes in at one channel of an input: by cables, or from the device's own microphone."""
        for run in self.index.arriving.get(PortRef(device, port_id), ()):
            lead = self._lead(run, channel)
            if lead is not None:
                yield lead, 1.0
        device_class = self.index.placed(device).device_class
        own = device_class.built_in_out
        heard = any(device in source.heard_by for source in self.index.plan.sources.values())
        if heard and own is not None and device_class.port_of[port_id].plug == own.plug.opposite:
            yield self._from_capsule(device, own.id, min(channel, len(own.channels) - 1)), 1.0

    def _from_capsule(self, device: str, port_id: str, channel: int) -> Stage:
        feeds = ((self.microphone(device), 1.0),)
        return Stage(kind=StageKind.OUTPUT, device=device, name=port_id, channel=channel, feeds=feeds)

    def _lead(self, run: Run, channel: int) -> Stage | None:
        feeds = tuple(
            (stage, arrival.ratio)
            for arrival in run_link(self.index, run).heard[channel]
            if (stage := self._output(run.sending.device, run.sending.port, arrival.channel)) is not None
        )
        if not feeds:
            return None
        return Stage(
            kind=StageKind.LEAD, device=run.receiving.device, name=run.id, channel=channel, run=run, feeds=feeds
        )

    def _output(self, device: str, port_id: str, channel: int) -> Stage | None:
        placed = self.index.placed(device)
        if channel in placed.timecode_channels(placed.output(port_id)):
            feeds: tuple[tuple[Stage, float], ...] = ()  # it begins here
        elif placed.device_class.playback is not None:
            feeds = ()
        elif placed.device_class.is_capsule_out(placed.output(port_id)):
            return self._from_capsule(device, port_id, channel)
        else:
            bus = placed.fed_bus(channel_refs(placed.output(port_id))[channel])
            if bus is None:
                return None
            feeds = ((self.bus(device, bus.id), 1.0),)
        return Stage(kind=StageKind.OUTPUT, device=device, name=port_id, channel=channel, feeds=feeds)

    def microphone(self, device: str) -> Stage:
        key = (StageKind.MICROPHONE, device, "", 0)
        if key not in self._stages:
            heard = tuple(
                (Stage(kind=StageKind.SOUND, device=device, name=source.id), 1.0)
                for source in self.index.plan.sources.values()
                if device in source.heard_by
            )
            self._stages[key] = Stage(kind=StageKind.MICROPHONE, device=device, name="", feeds=heard)
        return self._stages[key]


def upstream_of(stage: Stage) -> list[Stage]:
    """A stage and all that is upstream of it, each once, nearest first."""
    found = {stage.key: stage}
    waiting = [stage]
    for item in waiting:
        for feed, _ in item.feeds:
            if feed.key not in found:
                found[feed.key] = feed
                waiting.append(feed)
    return waiting
