"""What a rule is, and what it finds. A new rule is one function with `@rule` in a module of `rules/`; nothing else."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property
from typing import Final

from tidy_trunk.core.catalogue import InputMode, InputPort, OutputMode, OutputPort, Supply, is_meant_for
from tidy_trunk.core.clock import Clocks, Keeper, LateScreen, TimecodeTrack, keepers, late_screens, timecode_tracks
from tidy_trunk.core.joins import unbalanced_length_m
from tidy_trunk.core.levels import Report, Sound, TrackLevel
from tidy_trunk.core.plan import Edit, Plan, Rig, Run, Unit, apply_edits
from tidy_trunk.core.trace import accept, run_delivery, run_link
from tidy_trunk.core.ways import Upstream, Way, gain_way, ways
from tidy_trunk.core.wiring import Delivery, Fault, Link, faults, unmated
from tidy_trunk.errors import TidyTrunkError

SOURCE_WORDS: Final[Mapping[str, str]] = {
    "AES3": "AES3",
    "AES17": "AES17",
    "BT1359": "ITU-R BT.1359-1",
    "EBU-R37": "EBU R 37",
    "HANDBOOK": "textbook",
    "IEC60268-12": "IEC 60268-12",
    "IEC61938": "IEC 61938",
    "PRACTICE": "common practice",
    "ST12-1": "SMPTE ST 12-1",
}
"""Sources of the rules as a user reads them. [HANDBOOK]; the tags are those of docs/sources.md"""


class Severity(StrEnum):
    """Stop: ruins the recording or harms something. Caution: likely to spoil it. Note: worth knowing."""

    STOP = "stop"
    CAUTION = "caution"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Fix:
    """Edits that cure a finding, with the sentence on the button."""

    label: str
    edits: tuple[Edit, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """One thing that a rule has to say. `source` is a tag of docs/sources.md; `track`, `run`, `device` say where.

    `has_detours`: another box between the ends would mend it (`ways.detours`, which takes too long to ask for each time).
    `about` tells two findings at one place apart.
    `station` is where the question that it answers stands; `check` sets it by the rule's module.
    """

    rule: str
    severity: Severity
    title: str
    text: str
    source: str
    device: str = ""
    run: str = ""
    track: str = ""
    about: str = ""
    fixes: tuple[Fix, ...] = ()
    measured_db: float | None = None
    verify: str = ""
    has_detours: bool = False
    station: str = "runs"

    @property
    def source_words(self) -> str:
        return SOURCE_WORDS[self.source]

    @property
    def id(self) -> str:
        return ":".join(part for part in (self.rule, self.device, self.run, self.track, self.about) if part)


class Joint:
    """A run with both its ends looked up, as most rules want it."""

    def __init__(self, rig: Rig, run: Run) -> None:
        self.rig, self.run = rig, run
        self.sender: Unit = rig.unit(run.sending.device)
        self.receiver: Unit = rig.unit(run.receiving.device)
        self.output: OutputPort = self.sender.output(run.sending.port)
        self.input: InputPort = self.receiver.input(run.receiving.port)
        self.sends: OutputMode = self.sender.output_mode(self.output)
        self.takes: InputMode = self.receiver.input_mode(self.input)
        self.leads = [(rig.lead_of(part), part.branch) for part in run.parts]
        self.mates = unmated(self.output, [lead for lead, _ in self.leads], self.input) is None

    @cached_property
    def link(self) -> Link:
        """What the leads do; nothing is heard where the plugs do not mate."""
        return run_link(self.rig, self.run)

    @cached_property
    def faults(self) -> tuple[Fault, ...]:
        """What is wrong with what arrives; empty where the plugs do not mate, which is another matter."""
        return faults(self.output, self.leads, self.input, self.link) if self.mates else ()

    def delivery(self, supply: Supply) -> Delivery | None:
        """How a supply stands at the sender's contacts; None where no contacts carry it."""
        return run_delivery(self.rig, self.run, supply)

    @cached_property
    def unbalanced_m(self) -> float:
        return unbalanced_length_m(self.output, self.rig.leads_of(self.run))

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
        return self.output.plug.connector in ("air", "shoe", "inside")

    @property
    def pad_db(self) -> float:
        return sum(lead.loss_db.value for lead, _ in self.leads if lead.loss_db is not None)

    @property
    def socket(self) -> str:
        return f"{self.receiver.label} {self.input.label}"


@dataclass
class Situation:
    """All that a rule may look at."""

    plan: Plan
    report: Report
    joints: list[Joint] = field(init=False)
    _ways: dict[str, list[Way]] = field(init=False, default_factory=dict)
    _upstream: dict[str, Upstream] = field(init=False, default_factory=dict)

    def __post_init__(self) -> None:
        self.joints = [Joint(self.rig, run) for run in self.plan.runs.values()]

    @property
    def rig(self) -> Rig:
        return self.report.rig

    @cached_property
    def keepers(self) -> tuple[Keeper, ...]:
        """Who keeps time: many rules ask."""
        return keepers(self.report)

    @cached_property
    def clocks(self) -> Clocks:
        """How far they may be apart over the day."""
        return Clocks(self.rig, {keeper.device: keeper for keeper in self.keepers})

    @cached_property
    def timecode_tracks(self) -> tuple[TimecodeTrack, ...]:
        """Tracks that take timecode as sound."""
        return timecode_tracks(self.report)

    @cached_property
    def screens(self) -> tuple[LateScreen, ...]:
        """Where late pictures come out."""
        return late_screens(self.report)

    def gain_way(self, run_id: str) -> Edit | None:
        """Only the knob that a run ends at, where that is enough."""
        device = self.plan.runs[run_id].receiving.device
        if device not in self._upstream:
            self._upstream[device] = Upstream(self.report, device)
        return gain_way(self._upstream[device], run_id)

    def way_fixes(self, run_id: str, most: int = 3) -> tuple[Fix, ...]:
        """The best ways to match a run, as fixes."""
        if run_id not in self._ways:
            self._ways[run_id] = ways(self.report, run_id)
        return tuple(Fix(way.label, way.edits) for way in self._ways[run_id] if not way.clips and way.fits)[:most]

    def can(self, edits: Sequence[Edit]) -> bool:
        """Whether edits lead to a plan that is well formed and without circles."""
        try:
            accept(apply_edits(self.plan, edits)[0])
        except TidyTrunkError:
            return False
        return True

    def mixes_of(self, run_id: str) -> Iterator[Sound]:
        """The sound of every track and mix of the receiving device that a run feeds."""
        device = self.plan.runs[run_id].receiving.device
        for bus in self.rig.unit(device).device_class.buses:
            stage = self.report.tracer.bus(device, bus.id)
            if any(lead.run is not None and lead.run.id == run_id for feed, _ in stage.feeds for lead, _ in feed.feeds):
                yield self.report.reckoner.track_sound(stage)

    def tracks_of(self, run_id: str) -> Iterator[TrackLevel]:
        """The recorded tracks of the receiving device that a run feeds."""
        device = self.plan.runs[run_id].receiving.device
        for track in self.report.tracks:
            if track.trace.device != device:
                continue
            for feed, _ in track.trace.stage.feeds:
                if any(lead.run is not None and lead.run.id == run_id for lead, _ in feed.feeds):
                    yield track


RuleFunction = Callable[[Situation], Iterable[Finding]]
RULES: dict[str, RuleFunction] = {}


def rule(function: RuleFunction) -> RuleFunction:
    """Register a rule under its function's name, with dashes."""
    RULES[function.__name__.replace("_", "-")] = function
    return function
