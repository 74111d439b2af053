"""The log of the day: entries that only add up, and what they say of takes."""

from tidy_trunk.core.log.entries import LONGEST_TEXT, MOST_ENTRIES, NOTES, Act, LogEntry, Status
from tidy_trunk.core.log.files import (
    DayFile,
    DayTake,
    Expected,
    FileFinding,
    FileTrouble,
    Matched,
    match_files_to_takes,
)
from tidy_trunk.core.log.slates import LETTERS, LONGEST_SLATE, next_slate
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
    read_log,
)

__all__ = [
    "LETTERS",
    "LONGEST_SLATE",
    "LONGEST_TEXT",
    "MOST_ENTRIES",
    "NOTES",
    "Act",
    "Correction",
    "DayFile",
    "DayTake",
    "Expected",
    "FileFinding",
    "FileTrouble",
    "Log",
    "LogEntry",
    "LogFinding",
    "LogTrouble",
    "Matched",
    "Slate",
    "Status",
    "Take",
    "TakeNote",
    "log_findings",
    "match_files_to_takes",
    "next_slate",
    "next_takes",
    "read_log",
]
