"""The log: what a take is good for, what was noticed, what cannot be right."""

from typing import Final

from tidy_trunk.core.log import Log, LogFinding, LogTrouble, TakeStatus
from tidy_trunk.core.plan import Role
from tidy_trunk.words.numbers import many

STATUS_WORDS: Final = {
    TakeStatus.OPEN: "",
    TakeStatus.CIRCLED: "circled",
    TakeStatus.GOOD: "good",
    TakeStatus.FALSE_START: "false start",
    TakeStatus.WILD: "wild track",
    TakeStatus.ROOM_TONE: "room tone",
}
"""What a take is good for, as a report says it. [PRACTICE]"""


EDIT_WORDS: Final = {
    Role.DIALOGUE: "",
    Role.EFFECTS: "effects",
    Role.GUIDE: "guide: mute it once the recorder's sound lies under it",
    Role.TIMECODE: "timecode: never audible",
}
"""What the edit does with a track, by what it is kept for. [HANDBOOK] §14"""

ONE_OF_TWO: Final = "safety of {}: never sum both"
"""Of the same source on two tracks of one device. [HANDBOOK] §14"""


def log_finding_words(log: Log, finding: LogFinding) -> tuple[str, str]:
    """Title and text of what cannot be right in a log."""
    takes = {take.id: take for take in log.takes}
    label = takes[finding.take].label
    other = takes[finding.other].label if finding.other in takes else ""
    match finding.what:
        case LogTrouble.TWO_AT_ONCE:
            return (
                f"{other} and {label} ran at once",
                f"{label} begins before {other} ends. Strike one of them, or correct the end of {other}.",
            )
        case LogTrouble.SAME_NAME:
            return f"Two takes are called {label}", "Correct the number of one, or strike one that was logged twice."
        case LogTrouble.NO_END:
            return f"{label} was never cut", "The next take began while it ran. Correct its end."
        case LogTrouble.NUMBER_LEFT_OUT:
            first, last = finding.facts["first"], finding.facts["last"]
            missing = f"take {first} is" if first == last else f"takes {first} to {last} are"
            return f"Before {label}, {missing} missing", "Log what is missing, or correct the number."


def seconds_words(seconds: float | None) -> str:
    """`1:22`, `1:02:05`; "" of what still runs."""
    if seconds is None:
        return ""
    whole = int(seconds + 0.5)
    hours, rest = divmod(whole, 3600)
    head = f"{hours}:{rest // 60:02}" if hours else f"{rest // 60}"
    return f"{head}:{rest % 60:02}"


def log_summary(log: Log) -> str:
    """A log in one line."""
    takes = log.counted
    circled = sum(take.status is TakeStatus.CIRCLED for take in takes)
    minutes = sum(take.seconds or 0.0 for take in takes) / 60
    return f"{many(len(takes), 'take')}, {circled} circled, {minutes:.0f} min recorded"
