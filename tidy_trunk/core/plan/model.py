"""The plan: one immutable document of devices, sources and runs. Everything refers by id."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final, NamedTuple

from tidy_trunk.core.base.radio import GUARD_MHZ
from tidy_trunk.core.base.timecode import HALF_A_FRAME
from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, LeadClass, Setting
from tidy_trunk.core.plan.clocks import DAY_BEGINS_MIN, DAY_ENDS_MIN, Break, Jam, PairDrift
from tidy_trunk.core.plan.line_ups import LineUp
from tidy_trunk.core.plan.measured import GainLaw, MeterError
from tidy_trunk.core.plan.rooms import OPEN
from tidy_trunk.core.plan.shooting import CompanyMove, SetUp, Slating
from tidy_trunk.core.plan.targets import Role, Target

SPEECH_PEAK_ABOVE_DB: Final = 14.0
"""Speech peaks 12 to 15 dB above its average. [PRACTICE]"""

BURST_ABOVE_DB: Final = 10.0
"""An unannounced laugh, cough or shout comes this far above the expected peaks, and more. [PRACTICE]"""

SPEECH_QUIET_BELOW_DB: Final = 12.0
"""ASSUMED_ how far the quiet words of speech lie below its average."""

SOURCE_TOLERANCE_DB: Final = 3.0
"""± of a source level that nobody measured. [MEMORY]"""

EFFORTS_DB_SPL: Final[Mapping[str, float]] = {
    "relaxed": 54.0,
    "normal": 60.0,
    "raised": 66.0,
    "loud": 72.0,
    "very loud": 78.0,
}
"""Vocal effort at 1 m, A-weighted. [ISO9921], from memory"""


WARM_C: Final = 20.0
"""Temperature in °C at which the capacity of a battery is stated. [PRACTICE]"""

WALK_MIN: Final = 2.0
"""ASSUMED_ minutes from the cart to a device that stands elsewhere."""

SLACK_SHARE: Final = 0.10
"""Share of a path that its lead is longer. [PRACTICE]"""

SLACK_END_M: Final = 1.0
"""What a lead needs at each end, to go down to the floor and up to the socket. [PRACTICE]"""


class School(StrEnum):
    """Two ways to judge a match; both are right somewhere. [HANDBOOK] §6"""

    CLEAN = "clean"  # always the quietest way
    GUIDE = "guide"  # what costs least, as long as the room hides its hiss


class PortRef(NamedTuple):
    """A port of a device in the plan."""

    device: str
    port: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Defaults:
    """What holds for the whole job.

    room_noise_db_spl: what a place makes of noise where the microphones stand, A-weighted, as a sound level meter reads
        it; a microphone that does not hear all round picks up less of it by its directivity.
    rumble_db_spl: wind, traffic and machines below the voice, unweighted, as the microphone in its windshield picks them
        up: they reach it as wind and through its stand, whatever its pattern; 0: none.
    room: id of the kind of place, of `ROOMS`.
    target, effects_target, guide_target, timecode_target: ids of the targets of tracks of each role; `target` is that
        of dialogue, and of a track of which nothing is said.
    school: how ways to match are ranked; their figures are the same.
    slack_share, slack_end_m: what a lead must be longer than its path, as a share of it and at each end.
    radio_guard_mhz: how near a product of intermodulation may come to a frequency in use.
    day_begins_min, day_ends_min: in minutes since midnight; beyond 24 h where it goes on past midnight.
    drift_limit_frames: by how much two clocks may part.
    date: of the day, ISO 8601; zone: of the place, by its name in the time zone database; "" where nobody has said.
    temperature_c: in which batteries work; hands: people who swap, jam and send tone; crew: their
        names, in their order, with commas between.
    slating: how slates are named.
    walk_min: from the cart to a device that stands elsewhere, in minutes.
    frequencies_cleared: somebody has asked whether the radio frequencies are legal where the job is.
    """

    frame_rate: str = "25"
    target: str = "film"
    effects_target: str = "wide"
    guide_target: str = "guide"
    timecode_target: str = "timecode"
    school: School = School.CLEAN
    room: str = OPEN
    alignment_dbfs: float = -20.0
    mains_hz: int = 50
    sample_rate_hz: int = 48_000
    room_noise_db_spl: float = 35.0
    rumble_db_spl: float = 0.0
    slack_share: float = SLACK_SHARE
    slack_end_m: float = SLACK_END_M
    frequencies_cleared: bool = False
    radio_guard_mhz: float = GUARD_MHZ
    day_begins_min: int = DAY_BEGINS_MIN
    day_ends_min: int = DAY_ENDS_MIN
    drift_limit_frames: float = HALF_A_FRAME
    date: str = ""
    zone: str = ""
    temperature_c: float = WARM_C
    hands: int = 1
    crew: str = ""
    slating: Slating = Slating.SCENE
    walk_min: float = WALK_MIN


LONGEST_CREW: Final = 400
"""ASSUMED_ letters of all names of a crew."""


def crew_names(crew: str) -> tuple[str, ...]:
    """`Ann, Ben` as names."""
    return tuple(name for part in crew.split(",") if (name := part.strip()))


@dataclass(frozen=True, slots=True, kw_only=True)
class Device:
    """One device of the job.

    settings: by control id; a control that is not named stands at its default.
    routing: bus id → channel references that feed it, where it differs from the class.
    feeds: output channel → bus id, where it differs from the class.
    roles: track → what it is kept for, where that is not dialogue.
    figures: figures of this very device, which beat those of its class.
    jam: by whom its clock is set, None where it is not, or stays on a lead.
    place: where it stands, by a name; "" at the cart.
    """

    id: str
    label: str
    class_id: str
    settings: Mapping[str, Setting] = field(default_factory=dict)
    routing: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    feeds: Mapping[str, str] = field(default_factory=dict)
    roles: Mapping[str, Role] = field(default_factory=dict)
    figures: Mapping[str, Figure] = field(default_factory=dict)
    jam: Jam | None = None
    place: str = ""


class Weighting(StrEnum):
    """What a source's levels are stated in. Source: [IEC61672-1]"""

    A = "A"  # speech as a sound level meter reads it; taken back to unweighted by the spectrum of speech
    Z = "Z"  # unweighted, for anything that has not the spectrum of speech


@dataclass(frozen=True, slots=True, kw_only=True)
class Source:
    """Somebody or something to be heard: levels in dB SPL at 1 m, and the distance in m to each microphone.

    weighting: of all its levels.
    off_axis_deg: by microphone, from how far beside its axis it is heard; on axis where nothing is said.
    burst_db_spl: what comes unannounced, above the expected peaks.
    irreplaceable: it happens once, so that one recorder is not enough.
    """

    id: str
    label: str
    quiet_db_spl: float
    average_db_spl: float
    peak_db_spl: float
    burst_db_spl: float
    tolerance_db: float = SOURCE_TOLERANCE_DB
    heard_by: Mapping[str, float] = field(default_factory=dict)
    off_axis_deg: Mapping[str, float] = field(default_factory=dict)
    irreplaceable: bool = False
    weighting: Weighting = Weighting.A


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """One lead or adapter in a run. `branch` says which way of a two-way lead; `shared` names the physical lead."""

    lead: str
    length_m: float
    branch: str = ""
    shared: str = ""


class Hazard(StrEnum):
    """What a lead passes on its way. Source: [HANDBOOK] §§4, 9, 10"""

    WALKWAY = "walkway"
    DOORWAY = "doorway"
    OVERHEAD = "overhead"
    WET = "wet"
    HOT = "hot"
    BESIDE_MAINS = "beside-mains"
    ACROSS_MAINS = "across-mains"
    DIMMER = "dimmer"
    LED = "led-driver"
    MOTOR = "motor"
    FURNACE = "furnace"
    TRANSMITTER = "transmitter"


class Passing(NamedTuple):
    """Something that a lead passes: for how many metres beside mains, else how near in metres; None where not said."""

    what: Hazard
    metres: float | None = None


class Stretch(NamedTuple):
    """A stretch of a run's path: its length in m, and what it passes."""

    length_m: float
    passes: tuple[Passing, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """From an output to an input, through parts in order; none where the plugs mate directly.

    path: where the lead lies, as stretches; empty where nobody has said.
    strain_relief: its ends are tied up, so that no weight hangs on a socket.
    """

    id: str
    number: int
    sending: PortRef
    receiving: PortRef
    parts: tuple[Part, ...] = ()
    path: tuple[Stretch, ...] = ()
    strain_relief: bool = False

    @property
    def length_m(self) -> float:
        """All its leads together."""
        return sum(part.length_m for part in self.parts)


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """A whole job. `classes`, `leads`: of the user's own, whole; `line_ups`: by track; `gain_laws`: by class and knob; `meters`: by class, what was measured of them.

    set_ups, moves, breaks: of the day, in order; pair_drifts: by pair of clocks, how fast they were measured to part.
    """

    name: str
    defaults: Defaults = field(default_factory=Defaults)
    classes: Mapping[str, DeviceClass] = field(default_factory=dict)
    leads: Mapping[str, LeadClass] = field(default_factory=dict)
    targets: Mapping[str, Target] = field(default_factory=dict)
    devices: Mapping[str, Device] = field(default_factory=dict)
    sources: Mapping[str, Source] = field(default_factory=dict)
    runs: Mapping[str, Run] = field(default_factory=dict)
    line_ups: Mapping[str, LineUp] = field(default_factory=dict)
    gain_laws: Mapping[str, GainLaw] = field(default_factory=dict)
    meters: Mapping[str, MeterError] = field(default_factory=dict)
    set_ups: Mapping[str, SetUp] = field(default_factory=dict)
    moves: Mapping[str, CompanyMove] = field(default_factory=dict)
    breaks: Mapping[str, Break] = field(default_factory=dict)
    pair_drifts: Mapping[str, PairDrift] = field(default_factory=dict)
