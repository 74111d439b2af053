"""What a job asks for: who is heard, by which microphones, on which recorders and cameras, and what matters."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Final

MOST_PEOPLE: Final = 8
"""ASSUMED_ most people of a rig: more inputs than that no recorder here has."""

MOST_MICROPHONES: Final = 8
"""ASSUMED_ the same of microphones."""

MOST_CAMERAS: Final = 4
"""ASSUMED_ most cameras of a rig: more are planned one by one in the job."""


class Subject(StrEnum):
    """What is recorded."""

    TALK = "talk"
    MUSIC = "music"
    EFFECTS = "effects"


class SourcePlacing(StrEnum):
    """Where those are who are heard."""

    SITTING = "sitting"
    WALKING = "walking"
    FAR = "far"  # nobody comes near with a microphone


class Delivery(StrEnum):
    """When the sound must be with its picture."""

    LATER = "later"
    TONIGHT = "tonight"
    LIVE = "live"


@dataclass(frozen=True, slots=True)
class Microphone:
    """A microphone that is wanted: its class, and whether it goes by radio."""

    class_id: str
    by_radio: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """What is asked for. Classes stand in the order in which they were named, one for each piece; None: not said.

    recorders: () for none. devices: what else is at hand: mixers, boxes, clocks, a switcher. alone: one person does all of it.
    separate: each microphone on a track of its own matters. small: little to carry and quick to set up matters. in_camera: the
    recorder's or mixer's sound shall be in the camera too. no_timecode: somebody said that there is none.
    """

    subject: Subject = Subject.TALK
    people: int = 1
    placing: SourcePlacing | None = None
    microphones: tuple[Microphone, ...] | None = None
    recorders: tuple[str, ...] | None = None
    cameras: tuple[str, ...] | None = None
    devices: tuple[str, ...] = ()
    once: bool | None = None
    alone: bool | None = None
    delivery: Delivery | None = None
    separate: bool = False
    small: bool = False
    in_camera: bool = False
    no_timecode: bool = False


@dataclass(frozen=True, slots=True)
class BriefProblem:
    """What of a question cannot be answered as it was put. `words.rigs` says it."""

    code: str
    facts: Mapping[str, Any] = field(default_factory=dict)
