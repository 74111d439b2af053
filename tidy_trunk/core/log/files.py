"""The day's files beside its log: what a file says and holds, what a take and the plan expect, and what does not agree."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final


class FileTrouble(StrEnum):
    """What does not agree between files and log, or within the files."""

    NO_FILE = "no-file"
    NO_TAKE = "no-take"
    CUT_SHORT = "cut-short"
    UNREADABLE = "unreadable"
    LABELLED_OTHERWISE = "labelled-otherwise"
    STARTS_LATE = "starts-late"
    ENDS_EARLY = "ends-early"
    RATE = "rate"
    FLAG = "flag"
    SAMPLE_RATE = "sample-rate"
    DATE = "date"
    GAP = "gap"
    OVERLAP = "overlap"
    SILENT = "silent"
    CLIPPED = "clipped"
    SWAPPED = "swapped"
    LEVEL = "level"
    OFF_CLOCK = "off-clock"
    DRIFT = "drift"
    TRACKS = "tracks"
    USER_BITS = "user-bits"


LOST: Final = frozenset(
    {FileTrouble.NO_FILE, FileTrouble.CUT_SHORT, FileTrouble.UNREADABLE, FileTrouble.ENDS_EARLY, FileTrouble.SILENT}
)
"""Differences by which sound or pictures are lost: to be looked after before a card is formatted. ASSUMED_"""

OF_WORDS: Final = frozenset({FileTrouble.DATE, FileTrouble.TRACKS, FileTrouble.USER_BITS})
"""Differences in what a file says of itself: nothing is lost by them. ASSUMED_"""


@dataclass(frozen=True, slots=True)
class ChannelHeard:
    """What a channel of a file holds. level_dbfs: of what is spoken [P56], None where nothing is; clipped: flat tops."""

    peak_dbfs: float
    level_dbfs: float | None
    clipped: int
    is_timecode: bool

    @property
    def is_silent(self) -> bool:
        return self.peak_dbfs == float("-inf")


@dataclass(frozen=True, slots=True, kw_only=True)
class DayFile:
    """A file as far as its head tells. source: the device that wrote it, by the folder that it lies in or by what it says.

    begins_s: since midnight, by its own clock; None where it has none. scene, take: as it is labelled; "" where it is not.
    rate: of its timecode, `25/1`; date: ISO 8601; user_bits: eight digits; "" where nothing is said. tracks: names by channel.
    channels: of sound; 0 where the head does not tell.
    heard: its channels, in order; none where its sound was not looked at. off_s, drift_ppm: of a camera's against the recorder
    that ran beside it: by how much it lies later than its clock says, and how fast its clock runs; None where that is not known.
    """

    path: str
    source: str
    is_picture: bool
    seconds: float
    begins_s: float | None = None
    scene: str = ""
    take: str = ""
    rate: str = ""
    drop: bool = False
    rate_hz: int = 0
    channels: int = 0
    date: str = ""
    user_bits: str = ""
    tracks: tuple[tuple[int, str], ...] = ()
    heard: tuple[ChannelHeard, ...] = ()
    off_s: float | None = None
    drift_ppm: float | None = None
    is_cut_short: bool = False
    problem: str = ""


def common_s(first: DayFile, second: DayFile) -> float:
    """How long two files ran at one time, by their own clocks; 0 or less where they did not, or one has no clock."""
    if first.begins_s is None or second.begins_s is None:
        return 0.0
    ends = min(first.begins_s + first.seconds, second.begins_s + second.seconds)
    return ends - max(first.begins_s, second.begins_s)


def recorded_beside(picture: DayFile, files: Iterable[DayFile]) -> DayFile | None:
    """The sound file that ran longest beside a picture's; None where none did."""
    sounds = [file for file in files if not file.is_picture and not file.problem and common_s(file, picture) > 0]
    return max(sounds, key=lambda file: common_s(file, picture), default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class DayTake:
    """A take as the log has it. begins_s: since midnight, by its timecode; seconds: None where it was never cut.

    is_spoken: the plan's levels hold in it; not those of a false start, a wild track or room tone.
    """

    id: str
    slate: str
    number: int
    begins_s: float
    seconds: float | None
    is_spoken: bool = True

    @property
    def label(self) -> str:
        return f"{self.slate}-{self.number}"


@dataclass(frozen=True, slots=True, kw_only=True)
class FileFinding:
    """path, take: what it is about; "" where it is about none. facts: numbers and texts for the sentence."""

    what: FileTrouble
    path: str = ""
    take: str = ""
    facts: Mapping[str, str | float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class ExpectedTrack:
    """A track as the plan has it. names: those that it may bear, its own first; level_dbfs: of its sources, None in silence.

    safety_of: the track that it is kept beside, more quietly; "" of all others.
    """

    names: tuple[str, ...]
    level_dbfs: float | None = None
    is_timecode: bool = False
    safety_of: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ExpectedFile:
    """What the job is set to: rate of its timecode as a fraction, drop-frame, sample rate, date (ISO 8601, "" for any).

    tracks: of each device, in its order.
    """

    rate: str
    drop: bool
    rate_hz: int
    date: str
    tracks: Mapping[str, Sequence[ExpectedTrack]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class MatchedFiles:
    """takes: the files of each take, in their order; findings: what does not agree, the gravest kinds first."""

    takes: Mapping[str, tuple[DayFile, ...]]
    findings: tuple[FileFinding, ...]
