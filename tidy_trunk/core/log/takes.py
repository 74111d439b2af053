"""A log read: its takes with what was said of them, in order, and what has been done in the course of the day."""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from enum import StrEnum
from itertools import pairwise
from typing import Final

from tidy_trunk.core.log.entries import NOTES, Act, LogEntry, TakeStatus
from tidy_trunk.core.log.slates import next_slate
from tidy_trunk.core.plan import Slating

MOMENT: Final = timedelta(seconds=1)
"""ASSUMED_ by how much two takes may overlap without being two at once: the length of a tap."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeNote:
    """Something that was noticed; at: when. track: on which; "" on all. device: at which a fault was seen; "" of a note."""

    at: datetime
    text: str
    track: str = ""
    device: str = ""
    who: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Correction:
    """What a take said before somebody corrected it."""

    at: datetime
    who: str
    what: str
    was: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Take:
    """A take. ends: None while it runs. timecode, end_timecode: as somebody read or typed them; "" where the clock tells.

    struck: somebody has taken it off the log, where it can still be read.
    """

    id: str
    slate: str
    number: int
    begins: datetime
    ends: datetime | None = None
    status: TakeStatus = TakeStatus.OPEN
    text: str = ""
    timecode: str = ""
    end_timecode: str = ""
    who: str = ""
    struck: bool = False
    notes: tuple[TakeNote, ...] = ()
    corrections: tuple[Correction, ...] = ()

    @property
    def label(self) -> str:
        """As it is called on the set: `12C-4`."""
        return f"{self.slate}-{self.number}"

    @property
    def seconds(self) -> float | None:
        return None if self.ends is None else (self.ends - self.begins).total_seconds()


@dataclass(frozen=True, slots=True, kw_only=True)
class RehearsalMark:
    """Peaks that a track's meter showed in one part of a scene when it was rehearsed; at: when, and so at which settings."""

    scene: str
    part: str
    track: str
    peak_dbfs: float
    at: datetime
    who: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Photo:
    """A photograph of a setting; take, device: what it was taken of, "" where that was not said."""

    id: str
    at: datetime
    take: str
    device: str
    text: str
    who: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Log:
    """A whole log, read. takes: by their beginning; done: entries of the day, by their moment; clock: the newest reading of timecode;
    marks: of every scene, its parts in the order in which they were first marked; photos: the earliest first."""

    takes: tuple[Take, ...]
    done: tuple[LogEntry, ...]
    clock: LogEntry | None
    marks: tuple[RehearsalMark, ...] = ()
    photos: tuple[Photo, ...] = ()

    @property
    def running(self) -> Take | None:
        """The take that rolls, the newest of them; None between takes."""
        return next((take for take in reversed(self.counted) if take.ends is None), None)

    @property
    def counted(self) -> tuple[Take, ...]:
        """Those that were not struck."""
        return tuple(take for take in self.takes if not take.struck)


def read_log(entries: Iterable[LogEntry]) -> Log:
    """What entries say together, whichever came first: they count by the moment at which they were made."""
    takes: dict[str, Take] = {}
    done: list[LogEntry] = []
    marks: dict[tuple[str, str, str], RehearsalMark] = {}
    photos: list[Photo] = []
    clock = None
    waiting = sorted(entries, key=lambda entry: (entry.made, entry.act is not Act.ROLL, entry.id))
    for entry in (one for one in waiting if one.act is Act.ROLL):
        # Taps on a take may carry an earlier moment than its roll, by another telephone's clock.
        takes.setdefault(
            entry.take,
            Take(
                id=entry.take,
                slate=entry.slate,
                number=entry.number,
                begins=entry.made,
                timecode=entry.timecode,
                who=entry.who,
            ),
        )
    for entry in waiting:
        if entry.act is Act.CLOCK:
            clock = entry
        elif entry.act in (Act.DONE, Act.HOLDS):
            done.append(entry)
        elif entry.act in (Act.MARK, Act.UNMARK):
            _mark(marks, entry)
        elif entry.act is Act.PHOTO:
            photos.append(
                Photo(id=entry.id, at=entry.made, take=entry.take, device=entry.device, text=entry.text, who=entry.who)
            )
        elif entry.act is not Act.ROLL and entry.take in takes:
            takes[entry.take] = _with(takes[entry.take], entry)
    ordered = sorted(takes.values(), key=lambda take: (take.begins, take.id))
    return Log(takes=tuple(ordered), done=tuple(done), clock=clock, marks=tuple(marks.values()), photos=tuple(photos))


def _mark(marks: dict[tuple[str, str, str], RehearsalMark], entry: LogEntry) -> None:
    """A part that is read again keeps its place in the scene."""
    key = (entry.slate.casefold(), entry.text.casefold(), entry.track)
    if entry.act is Act.UNMARK:
        marks.pop(key, None)
        return
    marks[key] = RehearsalMark(
        scene=entry.slate,
        part=entry.text,
        track=entry.track,
        peak_dbfs=entry.level_dbfs,
        at=entry.made,
        who=entry.who,
    )


def _with(take: Take, entry: LogEntry) -> Take:
    match entry.act:
        case Act.CUT:
            return (
                take
                if take.ends is not None
                else replace(take, ends=max(entry.made, take.begins), end_timecode=entry.timecode)
            )
        case Act.STATUS:
            return replace(take, status=entry.status)
        case Act.NOTE | Act.FAULT:
            note = TakeNote(at=entry.made, text=entry.text, track=entry.track, device=entry.device, who=entry.who)
            return replace(take, notes=(*take.notes, note))
        case Act.CORRECT:
            return _corrected(take, entry)
        case Act.STRIKE:
            return replace(take, struck=not entry.text)
    return take


def _corrected(take: Take, entry: LogEntry) -> Take:
    """Each field that an entry fills is put in the place of what stood there; that is kept with who did it."""
    wanted: dict[str, object] = {}
    if entry.slate:
        wanted["slate"] = entry.slate
    if entry.number:
        wanted["number"] = entry.number
    if entry.text:
        wanted["text"] = entry.text
    if entry.timecode:
        wanted["timecode"] = entry.timecode
    if entry.ends:
        wanted["ends"] = max(datetime.fromisoformat(entry.ends), take.begins)
    changed = {name: value for name, value in wanted.items() if getattr(take, name) != value}
    said = tuple(
        Correction(at=entry.made, who=entry.who, what=name, was=_plain(getattr(take, name))) for name in changed
    )
    return replace(take, corrections=(*take.corrections, *said), **changed)  # type: ignore[arg-type]


def _plain(value: object) -> str:
    return value.isoformat() if isinstance(value, datetime) else "" if value is None else str(value)


class LogTrouble(StrEnum):
    """What cannot be right in a log."""

    TWO_AT_ONCE = "two-at-once"
    SAME_NAME = "same-name"
    NO_END = "no-end"
    NUMBER_LEFT_OUT = "number-left-out"


@dataclass(frozen=True, slots=True, kw_only=True)
class LogFinding:
    """take: the one that it is about; other: the one that it does not agree with, "" where there is none."""

    what: LogTrouble
    take: str
    other: str = ""
    facts: dict[str, int] = field(default_factory=dict)


def log_findings(log: Log) -> tuple[LogFinding, ...]:
    """What a log says that cannot be, or was forgotten."""
    return tuple(_findings(log.counted))


def _findings(takes: Sequence[Take]) -> Iterator[LogFinding]:
    named: dict[tuple[str, int], str] = {}
    highest: dict[str, int] = {}
    for take in takes:
        key = (take.slate.casefold(), take.number)
        if key in named:
            yield LogFinding(what=LogTrouble.SAME_NAME, take=take.id, other=named[key])
        named.setdefault(key, take.id)
        before = highest.get(key[0], 0)
        if take.number > before + 1:
            yield LogFinding(
                what=LogTrouble.NUMBER_LEFT_OUT, take=take.id, facts={"first": before + 1, "last": take.number - 1}
            )
        highest[key[0]] = max(before, take.number)
    for earlier, later in pairwise(takes):
        if earlier.ends is None:
            yield LogFinding(what=LogTrouble.NO_END, take=earlier.id)
        elif later.begins < earlier.ends - MOMENT:
            yield LogFinding(what=LogTrouble.TWO_AT_ONCE, take=later.id, other=earlier.id)


OWN_WORDS: Final = 8
"""ASSUMED_ most notes of one's own that become a tap: two rows of them under a thumb."""

LONGEST_TAP: Final = 24
"""ASSUMED_ most letters of a note that fits on a button."""


def note_words(log: Log) -> tuple[str, ...]:
    """Notes that are a tap each: the usual ones, then those that somebody typed in this log, the most frequent first."""
    typed = Counter(note.text for take in log.takes for note in take.notes if len(note.text) <= LONGEST_TAP)
    usual = {word.casefold() for word in NOTES}
    own = [text for text, _ in typed.most_common() if text.casefold() not in usual]
    return (*NOTES, *own[:OWN_WORDS])


@dataclass(frozen=True, slots=True)
class Slate:
    """What is written on the slate of a take."""

    slate: str
    number: int


def next_takes(log: Log, slating: Slating, first: str) -> tuple[Slate, Slate]:
    """What the next take is called in this set-up, and in the next one. `first`: of a log that has none yet.

    A false start has had its number; a take that was struck has not. Wild tracks and room tone do not count.
    """
    shot = [take for take in log.counted if take.status not in (TakeStatus.WILD, TakeStatus.ROOM_TONE)]
    if not shot:
        return Slate(first, 1), Slate(next_slate(first, slating), 1)
    slate = shot[-1].slate
    numbers = [take.number for take in shot if take.slate.casefold() == slate.casefold()]
    following = next_slate(slate, slating)
    known = {take.slate.casefold() for take in shot} - {slate.casefold()}
    while following.casefold() in known:
        following = next_slate(following, slating)
    return Slate(slate, max(numbers) + 1), Slate(following, 1)
