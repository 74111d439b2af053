"""The log of a day: takes as a report, a screen and a file have them."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from pydantic import Field

from tidy_trunk.core.advice.fault_search import symptom_in
from tidy_trunk.core.log import NOTES, Log, Slate, Take, TakeNote, TakeStatus, log_findings, next_slate, next_takes
from tidy_trunk.core.plan import Slating
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.log import STATUS_WORDS, log_finding_words, seconds_words

SET_UPS_AHEAD: Final = 6
"""ASSUMED_ set-ups that a telephone knows of when it loses the connection: an hour or two of them."""


class TakeNoteOut(Out):
    """at: ISO 8601; where: the track or device, by its name; "" where it is said of all. track: that one's id, or that of one on
    whose way the device is.

    symptom: that What is wrong? searches by; "" of what nobody's equipment is to blame for.
    """

    at: str
    clock: str
    text: str
    where: str
    track: str = ""
    symptom: str = ""
    is_fault: bool
    who: str


class CorrectionOut(Out):
    at: str
    who: str
    what: str
    was: str


class LoggedTakeOut(Out):
    """A take. begins, ends: ISO 8601; clock: when it began, by the clock of the place; revision: of the plan in force then."""

    id: str
    label: str
    slate: str
    number: int
    begins: str
    ends: str
    clock: str
    timecode: str
    end_timecode: str
    seconds: Level
    length: str
    status: TakeStatus
    status_words: str
    text: str
    who: str
    struck: bool
    revision: int
    notes: list[TakeNoteOut]
    corrections: list[CorrectionOut]


class LoggedTrackOut(Out):
    """A track that is recorded, and whom it holds. edit: what the edit does with it; "" where that goes without saying.

    level_dbfs: of what is spoken, by the plan; null in silence. safety_of: the track that it is kept beside; "" of others.
    """

    id: str
    device: str
    track: str
    sources: list[str]
    edit: str = ""
    level_dbfs: Level = None
    is_timecode: bool = False
    safety_of: str = ""


class LoggedDeviceOut(Out):
    """A device that a fault can be told of. track: the first that is recorded by way of it; "" where none is."""

    id: str
    label: str
    track: str


class LogFindingOut(Out):
    what: str
    take: str
    title: str
    text: str


class SlateOut(Out):
    slate: str
    number: int
    label: str


class SinceOut(Out):
    """Minutes since something was done last; null where it was not done today."""

    room_tone_min: Level
    line_up_min: Level
    jam_min: Level


class ClockReadOut(Out):
    """Timecode as somebody read it last; clock: when, by the clock of the place."""

    timecode: str
    clock: str
    who: str


class HeardTimecodeOut(Out):
    """timecode: at the end of what was heard."""

    timecode: str


class PhotoOut(Out):
    """A photograph. take, device: ids of what it shows, "" where that was not said; what: the same in words; clock: when."""

    id: str
    take: str
    device: str
    what: str
    text: str
    clock: str
    who: str


class LogOut(Out):
    """A log as far as it is. seq: rises with each entry; day: the date that it is of; rate: of its timecode; words: notes that
    are a tap each; set_ups_to_come: the next one and those behind it, for a telephone without a connection; read: what timecode
    counts on from, null where it is time of day."""

    seq: int
    summary: str
    job: str
    day: str
    zone: str
    rate: str
    sample_rate_hz: int
    running: str
    next: SlateOut
    next_set_up: SlateOut
    set_ups_to_come: list[SlateOut] = Field(default_factory=list)
    since: SinceOut
    takes: list[LoggedTakeOut]
    tracks: list[LoggedTrackOut]
    devices: list[LoggedDeviceOut] = Field(default_factory=list)
    words: tuple[str, ...] = NOTES
    read: ClockReadOut | None = None
    photos: list[PhotoOut] = Field(default_factory=list)
    findings: list[LogFindingOut]


@dataclass(frozen=True, slots=True, kw_only=True)
class LocalTime:
    """Time where the job is: a moment as its clock has it, and as its timecode."""

    clock: Mapping[datetime, str]
    timecode: Mapping[datetime, str]


def logged_takes(
    log: Log,
    place: LocalTime,
    revisions: Mapping[str, int],
    names: Mapping[str, str],
    devices: Iterable[LoggedDeviceOut],
) -> list[LoggedTakeOut]:
    """Every take, the earliest first. `revisions`: by take; `names`: of tracks, by their ids."""
    known = {device.id: device for device in devices}
    return [_take(take, place, revisions.get(take.id, 0), names, known) for take in log.takes]


def _take(
    take: Take, place: LocalTime, revision: int, names: Mapping[str, str], devices: Mapping[str, LoggedDeviceOut]
) -> LoggedTakeOut:
    ended = "" if take.ends is None else place.timecode[take.ends]
    return LoggedTakeOut(
        id=take.id,
        label=take.label,
        slate=take.slate,
        number=take.number,
        begins=take.begins.isoformat(),
        ends="" if take.ends is None else take.ends.isoformat(),
        clock=place.clock[take.begins],
        timecode=take.timecode or place.timecode[take.begins],
        end_timecode=take.end_timecode or ended,
        seconds=take.seconds,
        length=seconds_words(take.seconds),
        status=take.status,
        status_words=STATUS_WORDS[take.status],
        text=take.text,
        who=take.who,
        struck=take.struck,
        revision=revision,
        notes=[_note(note, place, names, devices) for note in take.notes],
        corrections=[
            CorrectionOut(at=item.at.isoformat(), who=item.who, what=item.what, was=item.was)
            for item in take.corrections
        ],
    )


def logged_photos(
    log: Log, there: Iterable[str], place: LocalTime, devices: Iterable[LoggedDeviceOut]
) -> list[PhotoOut]:
    """Photographs that were not removed. `there`: their ids."""
    kept, labels = frozenset(there), {device.id: device.label for device in devices}
    takes = {take.id: take.label for take in log.takes}
    return [
        PhotoOut(
            id=photo.id,
            take=photo.take,
            device=photo.device,
            what=", ".join(filter(None, [labels.get(photo.device, photo.device), takes.get(photo.take, "")])),
            text=photo.text,
            clock=place.clock[photo.at],
            who=photo.who,
        )
        for photo in log.photos
        if photo.id in kept
    ]


def _note(
    note: TakeNote, place: LocalTime, names: Mapping[str, str], devices: Mapping[str, LoggedDeviceOut]
) -> TakeNoteOut:
    device = devices.get(note.device)
    return TakeNoteOut(
        at=note.at.isoformat(),
        clock=place.clock[note.at],
        text=note.text,
        where=names.get(note.track, note.track) or (device.label if device is not None else note.device),
        track=note.track or (device.track if device is not None else ""),
        symptom=symptom_in(note.text) or "",
        is_fault=bool(note.device),
        who=note.who,
    )


def log_finding_list(log: Log) -> list[LogFindingOut]:
    found = []
    for finding in log_findings(log):
        title, text = log_finding_words(log, finding)
        found.append(LogFindingOut(what=finding.what, take=finding.take, title=title, text=text))
    return found


def slates(log: Log, slating: Slating, planned: Sequence[str]) -> tuple[SlateOut, list[SlateOut]]:
    """What the next take is called in this set-up, and in those to come. `planned`: slates of the plan, in order.

    What is planned comes first; behind that, what the slates count on to.
    """
    now, following = next_takes(log, slating, planned[0] if planned else "1A")
    shot = {take.slate.casefold() for take in log.counted} | {now.slate.casefold()}
    order = [slate.casefold() for slate in planned]
    at = order.index(now.slate.casefold()) if now.slate.casefold() in order else -1
    to_come = [slate for slate in planned[at + 1 :] if slate.casefold() not in shot] if at >= 0 else []
    slate = to_come[-1] if to_come else now.slate
    while len(to_come) < SET_UPS_AHEAD:
        slate = next_slate(slate, slating) if to_come else following.slate
        if slate.casefold() not in shot:
            to_come.append(slate)
    return _slate(now), [_slate(Slate(one, 1)) for one in to_come]


def _slate(item: Slate) -> SlateOut:
    return SlateOut(slate=item.slate, number=item.number, label=f"{item.slate}-{item.number}")
