"""What a rule is, and what it finds. A new rule is one function with `@rule`, `@level_rule` or `@looks_at` in a module of `rules/`."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property
from typing import Any, Final, NamedTuple

from tidy_trunk.core.advice.options import RunEnds
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.gear.catalogue import (
    INSIDE,
    Circuit,
    Port,
    Supply,
    is_meant_for,
)
from tidy_trunk.core.gear.wiring import DeliveredSupply, Fault, Link, faults, unmated
from tidy_trunk.core.plan import NOTHING_CHANGED, Aspect, PlacedDevice, Plan, PlanIndex, Run, changed_aspects
from tidy_trunk.core.sound.cable_chains import unbalanced_length_m
from tidy_trunk.core.sound.hum import Loop, loops, ties
from tidy_trunk.core.sound.levels import Report, SignalLevels, TrackLevel, is_safety
from tidy_trunk.core.sound.trace import Stage, is_shared, run_delivery, run_link
from tidy_trunk.core.time.clock import (
    Clocks,
    LateScreen,
    TimecodeDevice,
    TimecodeTrack,
    late_screens,
    timecode_devices,
    timecode_tracks,
)


class Severity(StrEnum):
    """Stop: ruins the recording or harms something. Caution: likely to spoil it. Note: worth knowing."""

    STOP = "stop"
    CAUTION = "caution"
    NOTE = "note"


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """One thing that a rule has to say, without words. `source` is a tag of docs/sources.md; `tracks`, `run`, `device` say where.

    `facts`: the numbers, codes and names that its sentence needs beside these, by name.
    `more_runs`: beside `run`, those that it is about too.
    `has_inserted_devices`: another box between the ends would mend it.
    `beneath`: what follows from it, and is gone with it.
    `about` tells two findings at one place apart.
    """

    rule: str
    severity: Severity
    source: str
    device: str = ""
    run: str = ""
    more_runs: tuple[str, ...] = ()
    tracks: tuple[str, ...] = ()
    about: str = ""
    measured_db: float | None = None
    facts: Mapping[str, Any] = field(default_factory=dict)
    has_inserted_devices: bool = False
    beneath: tuple["Finding", ...] = ()
    id: str = field(default="", compare=False)

    def __post_init__(self) -> None:
        # Asked for at each comparison of two plans' findings. A finding stays the same with what follows from it.
        if not self.id:
            named = (self.rule, self.device, self.run, self.track, self.about)
            object.__setattr__(self, "id", ":".join(part for part in named if part))

    @property
    def station(self) -> str:
        """Where the question that it answers stands."""
        return STATIONS[self.rule]

    @property
    def track(self) -> str:
        """The first track that it is about; "" where it is about none."""
        return self.tracks[0] if self.tracks else ""

    def is_like(self, other: "Finding") -> bool:
        """Whether both say the same at the same place, be it of other tracks there."""
        mine = (self.rule, self.device, self.run, self.about)
        return mine == (other.rule, other.device, other.run, other.about)


@dataclass(frozen=True, slots=True)
class PlacedFinding:
    """A finding with the look-ups of the plan in which it was found: its words name what stands there."""

    finding: Finding
    index: PlanIndex


class Joint(RunEnds):
    """A run with both its ends and its leads looked up, as most rules want it."""

    def __init__(self, index: PlanIndex, run: Run) -> None:
        super().__init__(index, run)
        self.leads = [(index.lead_of(part), part.branch) for part in run.parts]
        self.mates = unmated(self.output, [lead for lead, _ in self.leads], self.input) is None

    @cached_property
    def link(self) -> Link:
        """What the leads do; nothing is heard where the plugs do not mate."""
        return run_link(self.index, self.run)

    @cached_property
    def faults(self) -> tuple[Fault, ...]:
        """What is wrong with what arrives; empty where the plugs do not mate, which is another matter."""
        return faults(self.output, self.leads, self.input, self.link) if self.mates else ()

    def delivery(self, supply: Supply) -> DeliveredSupply | None:
        """How a supply stands at the sender's contacts; None where no contacts carry it."""
        return run_delivery(self.index, self.run, supply)

    def can_power(self, need: Supply) -> bool:
        """Whether the input has a mode that gives a supply, and the leads pass that on to the microphone."""
        given = self.delivery(need)
        return given is not None and given.passes and any(need in mode.supplies for mode in self.input.modes)

    @cached_property
    def unbalanced_m(self) -> float:
        return unbalanced_length_m(self.output, self.index.leads_of(self.run))

    @cached_property
    def strange_plug(self) -> tuple[str, str] | None:
        """The first two ends that go together though they are not made for it, in words; None where all are."""
        if not self.mates or self.is_wireless:
            return None
        ends = [(self.output.plug, f"{self.sender.label} {self.output.label}")]
        for lead, _ in self.leads:
            ends += [(lead.sending, lead.label), (lead.receiving, lead.label)]
        ends.append((self.input.plug, self.socket))
        for (near, near_label), (far, far_label) in zip(ends[::2], ends[1::2], strict=True):
            names = (near.connector, far.connector)
            if names[0] != names[1] and "combo" not in names and not is_meant_for(near, far):
                return f"{near_label} ({near.words})", f"{far_label} ({far.words})"
        return None

    @property
    def is_wireless(self) -> bool:
        return self.output.plug.connector in ("air", "shoe", INSIDE)

    @property
    def sends_timecode(self) -> bool:
        """Whether timecode arrives, as the output is switched now."""
        given = self.sender.timecode_channels(self.output)
        return any(arrival.channel in given for heard in self.link.heard for arrival in heard)

    @property
    def pad_db(self) -> float:
        return sum(lead.loss_db.value for lead, _ in self.leads if lead.loss_db is not None)

    @property
    def socket(self) -> str:
        return f"{self.receiver.label} {self.input.label}"


class Carrier(NamedTuple):
    """A transmitter that is set to a frequency."""

    placed: PlacedDevice
    port: Port
    mhz: float


@dataclass
class Situation:
    """All that a rule may look at. `before`: the situation in the plan that this one was made from, for what they share."""

    plan: Plan
    report: Report
    before: "Situation | None" = field(default=None, kw_only=True)
    joints: list[Joint] = field(init=False)
    _joint_of: dict[str, Joint] = field(init=False)

    def __post_init__(self) -> None:
        known = self.before._joint_of if self.before is not None else {}
        self.joints = [self._joint(run, known.get(run.id)) for run in self.plan.runs.values()]
        self._joint_of = {joint.run.id: joint for joint in self.joints}

    @property
    def index(self) -> PlanIndex:
        return self.report.index

    @cached_property
    def timecode_devices(self) -> tuple[TimecodeDevice, ...]:
        """Who keeps time: many rules ask."""
        return timecode_devices(self.report)

    @cached_property
    def clocks(self) -> Clocks:
        """How far they may be apart over the day."""
        return Clocks(
            self.index, {timecode_device.device: timecode_device for timecode_device in self.timecode_devices}
        )

    @cached_property
    def timecode_tracks(self) -> tuple[TimecodeTrack, ...]:
        """Tracks that take timecode as sound."""
        return timecode_tracks(self.report)

    @cached_property
    def screens(self) -> tuple[LateScreen, ...]:
        """Where late pictures come out."""
        return late_screens(self.report)

    @cached_property
    def first_tracks(self) -> tuple[TrackLevel, ...]:
        """All tracks but those that are kept lower beside another of the same device, for a burst. [PRACTICE]"""
        report = self.report
        return tuple(
            track
            for track in report.tracks
            if not any(is_safety(track, other) for other in report.tracks_of(track.trace.device))
        )

    @cached_property
    def loops(self) -> tuple[Loop, ...]:
        """Circles through the mains or a computer."""
        return tuple(loops(ties(self.index)))

    @cached_property
    def carriers(self) -> tuple[Carrier, ...]:
        """Transmitters that are set to a frequency."""
        return tuple(
            Carrier(placed, port, mhz)
            for placed in self.index.placed_devices()
            for port in placed.device_class.outputs
            if port.circuit is Circuit.RADIO and (mhz := placed.frequency_mhz(port)) is not None
        )

    @cached_property
    def changed(self) -> Aspect:
        """What is otherwise than before."""
        return changed_aspects(self.before.plan, self.plan) if self.before is not None else Aspect.WIRING

    def _joint(self, run: Run, known: Joint | None) -> Joint:
        if known is not None and known.run is run and is_shared(self.index, known.index, run.sending):
            return known
        return Joint(self.index, run)

    def joint(self, run_id: str) -> Joint:
        """Raises KeyError: no such run."""
        return self._joint_of[run_id]

    def mixes_of(self, run_id: str) -> Iterator[SignalLevels]:
        """The sound of every track and mix of the receiving device that a run feeds."""
        device = self.plan.runs[run_id].receiving.device
        for bus in self.index.placed(device).device_class.buses:
            stage = self.report.tracer.bus(device, bus.id)
            if self._feeds(run_id, stage):
                yield self.report.solver.track_sound(stage)

    def track_ids_of(self, run_id: str) -> tuple[str, ...]:
        """The tracks that a run feeds, those too that are not armed, or not there as the device is set now."""
        device = self.plan.runs[run_id].receiving.device
        return tuple(
            f"{device}.{bus.id}"
            for bus in self.index.placed(device).device_class.buses
            if bus.recorded and self._feeds(run_id, self.report.tracer.bus(device, bus.id))
        )

    @staticmethod
    def _feeds(run_id: str, stage: Stage) -> bool:
        return any(lead.run is not None and lead.run.id == run_id for feed, _ in stage.feeds for lead, _ in feed.feeds)

    def is_silent(self, run: Run) -> bool:
        """Whether nothing arrives at the end of a run, on any channel."""
        port = self.index.placed(run.receiving.device).input(run.receiving.port)
        stages = (self.report.tracer.input(*run.receiving, channel) for channel in range(len(port.channels)))
        return all(self.report.solver.level(stage).sound.average == SILENCE_DB for stage in stages)

    def tracks_of(self, run_id: str) -> Sequence[TrackLevel]:
        """The recorded tracks of the receiving device that a run feeds."""
        return self._tracks_by_run.get(run_id, ())

    @cached_property
    def _tracks_by_run(self) -> Mapping[str, list[TrackLevel]]:
        found: dict[str, list[TrackLevel]] = {}
        for track in self.report.tracks:
            leads = (lead for feed, _ in track.trace.stage.feeds for lead, _ in feed.feeds)
            for run_id in {lead.run.id: None for lead in leads if lead.run is not None}:
                if self.plan.runs[run_id].receiving.device == track.trace.device:
                    found.setdefault(run_id, []).append(track)
        return found


RuleFunction = Callable[[Situation], Iterable[Finding]]
RULES: dict[str, RuleFunction] = {}
LOOKS_AT: dict[str, Aspect] = {}
"""By rule, what has to change for it to find something else."""
STATIONS: dict[str, str] = {}
"""By rule, the station of the application at which its question is answered."""

_STATION_OF: Final = {"rumble": "levels", "levels": "levels", "radio": "levels", "clock": "clock"}
"""By module of the rules; all else is answered at Runs."""


def looks_at(aspects: Aspect) -> Callable[[RuleFunction], RuleFunction]:
    """Register a rule under its function's name, with dashes. `aspects`: what it looks at, beside the wiring."""

    def register(function: RuleFunction) -> RuleFunction:
        name = function.__name__.replace("_", "-")
        RULES[name], LOOKS_AT[name] = function, aspects | Aspect.WIRING
        STATIONS[name] = _STATION_OF.get(function.__module__.rsplit(".", 1)[-1], "runs")
        return function

    return register


rule = looks_at(NOTHING_CHANGED)
"""Registers a rule that looks at the wiring alone: devices, leads, modes, routing, where things stand."""

level_rule = looks_at(Aspect.LEVELS)
"""Registers a rule that looks at levels too, or at what sets them."""
