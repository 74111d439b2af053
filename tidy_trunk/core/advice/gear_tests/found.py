"""What is said to a test of one's own gear, and what was found out by it."""

from dataclasses import dataclass
from typing import NamedTuple

from tidy_trunk.core.base.signal import StepMeasure
from tidy_trunk.core.gear.catalogue import Figure, PadPlace
from tidy_trunk.core.plan import Edit, ReadFrom, Scale


class RecordedChannel(NamedTuple):
    """What was measured of one channel of a recording: its tone and noise in dBFS, and whether tops of it are cut off.

    tone_dbfs: None where no tone is heard.
    """

    tone_dbfs: float | None
    noise_dbfs: float
    is_cut: bool


@dataclass(frozen=True, slots=True)
class GearRecording:
    """What was measured of a recording. steps: of a knob that was turned; bleed_db: of one of two channels in the other."""

    channels: tuple[RecordedChannel, ...]
    steps: tuple[StepMeasure, ...] = ()
    noisy_from: float | None = None
    bleed_db: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class GearAnswer:
    """What somebody saw, measured or recorded.

    yes: to the question of a test that has one; None where a recording tells it.
    value: in the unit of the test: dBFS that a meter showed, dB, or frames.
    scale: what the device writes at the ends of a knob, where that is no dB.
    when: date and time, ISO 8601.
    """

    yes: bool | None = None
    value: float | None = None
    recording: GearRecording | None = None
    scale: Scale | None = None
    read_from: ReadFrom = ReadFrom.RECORDING
    when: str


@dataclass(frozen=True, slots=True)
class LowestFound:
    """Whether the lowest position of a knob is off."""

    is_off: bool


@dataclass(frozen=True, slots=True)
class PadFound:
    """Where an attenuator sits."""

    place: PadPlace


@dataclass(frozen=True, slots=True)
class LegsFound:
    """Whether the legs of a lead are what they are marked."""

    are_as_marked: bool


@dataclass(frozen=True, slots=True)
class FigureFound:
    """A figure at a path of a class. is_at_most: nothing could be heard that tells more."""

    path: str
    figure: Figure
    is_at_most: bool = False


@dataclass(frozen=True, slots=True)
class MeterFound:
    """By how much a meter shows more than was recorded."""

    high_db: float


@dataclass(frozen=True, slots=True)
class KnobFound:
    """At how many marks a knob was measured."""

    marks: int


GearFinding = LowestFound | PadFound | LegsFound | FigureFound | MeterFound | KnobFound


@dataclass(frozen=True, slots=True)
class GearTestOutcome:
    """What was found out, and the edits that keep it. class_id: of the class, or the lead, that knows it then."""

    what: GearFinding
    edits: tuple[Edit, ...]
    class_id: str
