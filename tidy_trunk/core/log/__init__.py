"""The log of the day: entries that only add up, and what they say of takes."""

from tidy_trunk.core.log.corrected import CorrectedFile, FileFix, corrected_files, file_fix
from tidy_trunk.core.log.entries import LONGEST_TEXT, MOST_ENTRIES, NOTES, Act, LogEntry, Status
from tidy_trunk.core.log.file_sound import tracks_by_channel
from tidy_trunk.core.log.files import (
    LOST,
    OF_WORDS,
    ChannelHeard,
    DayFile,
    DayTake,
    Expected,
    ExpectedTrack,
    FileFinding,
    FileTrouble,
    Matched,
)
from tidy_trunk.core.log.matching import match_files_to_takes
from tidy_trunk.core.log.slates import LETTERS, LONGEST_SLATE, next_slate
from tidy_trunk.core.log.stand_in_faults import (
    DayFault,
    PlannedFault,
    StandInDevice,
    StandInTake,
    planned_faults,
)
from tidy_trunk.core.log.takes import (
    Correction,
    Log,
    LogFinding,
    LogTrouble,
    Slate,
    Take,
    TakeNote,
    log_findings,
    next_takes,
    note_words,
    read_log,
)

__all__ = [
    "LETTERS",
    "LONGEST_SLATE",
    "LONGEST_TEXT",
    "LOST",
    "MOST_ENTRIES",
    "NOTES",
    "OF_WORDS",
    "Act",
    "ChannelHeard",
    "CorrectedFile",
    "Correction",
    "DayFault",
    "DayFile",
    "DayTake",
    "Expected",
    "ExpectedTrack",
    "FileFinding",
    "FileFix",
    "FileTrouble",
    "Log",
    "LogEntry",
    "LogFinding",
    "LogTrouble",
    "Matched",
    "PlannedFault",
    "Slate",
    "StandInDevice",
    "StandInTake",
    "Status",
    "Take",
    "TakeNote",
    "corrected_files",
    "file_fix",
    "log_findings",
    "match_files_to_takes",
    "next_slate",
    "next_takes",
    "note_words",
    "planned_faults",
    "read_log",
    "tracks_by_channel",
]
