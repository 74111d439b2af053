"""What is logged on the day: one entry for each tap, never changed; what was wrong is corrected by a later one."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Final

LONGEST_TEXT: Final = 2000
"""ASSUMED_ most letters of a note: more is a letter, not a log."""

MOST_ENTRIES: Final = 20_000
"""ASSUMED_ most entries of one job's log: a week of long days has a quarter of it."""


MOST_PHOTOS: Final = 500
"""ASSUMED_ most photographs of one job's log: of about 150 kB each."""


class Act(StrEnum):
    """What somebody did.

    PHOTO: of a take, a device, or neither. Of a take: ROLL, CUT, STATUS, NOTE, FAULT, CORRECT, STRIKE. Of the day: DONE, HOLDS. Of the job's clock: CLOCK. Of a scene
    in rehearsal: MARK, UNMARK.
    """

    ROLL = "roll"
    CUT = "cut"
    STATUS = "status"
    NOTE = "note"
    FAULT = "fault"
    CORRECT = "correct"
    STRIKE = "strike"
    DONE = "done"
    HOLDS = "holds"
    CLOCK = "clock"
    MARK = "mark"
    UNMARK = "unmark"
    PHOTO = "photo"


class TakeStatus(StrEnum):
    """What a take is good for. Source: [PRACTICE]"""

    OPEN = "open"  # nobody has said yet
    CIRCLED = "circled"
    GOOD = "good"
    FALSE_START = "false-start"
    WILD = "wild"
    ROOM_TONE = "room-tone"


NOTES: Final = ("plane", "rustle", "clip", "dropout", "overlap", "phone", "generator", "wind")
"""What most often spoils a take, for a tap each. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LogEntry:
    """One tap. made: when, by the clock of whoever tapped, put right where that was known to be wrong; with a zone.

    take: the one that it is about, "" where it is about none. slate, number: of a take that rolls, or what is corrected.
    status, text: as the act says. track: of a note. kind, device, left: of what was done of the day, or holds so much still.
    timecode: as a label, where somebody read it; "" where it follows from the clock. level_dbfs: peaks that a mark was read at;
    its slate is the scene's, its text the part's.
    """

    id: str
    made: datetime
    act: Act
    who: str = ""
    take: str = ""
    slate: str = ""
    number: int = 0
    status: TakeStatus = TakeStatus.OPEN
    text: str = ""
    track: str = ""
    kind: str = ""
    device: str = ""
    left: float = 1.0
    timecode: str = ""
    ends: str = ""
    level_dbfs: float = 0.0
