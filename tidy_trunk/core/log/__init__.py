"""The log of the day: entries that only add up, and what they say of takes."""

from tidy_trunk.core.log.entries import LONGEST_TEXT, MOST_ENTRIES, NOTES, Act, LogEntry, Status
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
    "Log",
    "LogEntry",
    "LogFinding",
    "LogTrouble",
    "Slate",
    "Status",
    "Take",
    "TakeNote",
    "log_findings",
    "next_slate",
    "next_takes",
    "read_log",
]
