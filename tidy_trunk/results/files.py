"""The files of a day beside its log."""

import math
import re
from collections.abc import Sequence
from dataclasses import replace
from typing import Final, Literal

from pydantic import Field

from tidy_trunk.core.base.timecode import FrameRate, Timecode, real_seconds
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.log import (
    LOST,
    OF_WORDS,
    ChannelHeard,
    DayFile,
    DayTake,
    ExpectedFile,
    ExpectedTrack,
    FileFix,
    FileTrouble,
    TakeStatus,
    corrected_files,
    file_fix,
    match_files_to_takes,
    recorded_beside,
)
from tidy_trunk.errors import TimecodeError
from tidy_trunk.formats import TakeLabels
from tidy_trunk.media.copying import CopyOrder
from tidy_trunk.results.log import LoggedTakeOut, LogOut
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.files import file_finding_words, files_summary, together_words
from tidy_trunk.words.log import seconds_words

NOT_SPOKEN: Final = frozenset({TakeStatus.FALSE_START, TakeStatus.WILD, TakeStatus.ROOM_TONE})
"""Takes in which nobody need speak as the plan has it. [PRACTICE]"""


class ChannelHeardOut(Out):
    """peak_dbfs: null in silence; level_dbfs: of what is spoken, null where nothing is."""

    peak_dbfs: Level
    level_dbfs: Level
    clipped: int
    is_timecode: bool


class DayFileOut(Out):
    """begins_s: since midnight, by its own clock; null where it has none. heard: its channels; none where nobody listened."""

    path: str
    source: str
    is_picture: bool
    seconds: float
    begins_s: Level
    scene: str
    take: str
    rate: str
    drop: bool
    rate_hz: int
    channels: int = 0
    date: str
    user_bits: str
    tracks: tuple[tuple[int, str], ...]
    heard: tuple[ChannelHeardOut, ...]
    off_s: Level
    drift_ppm: Level
    is_cut_short: bool
    problem: str

    def to_core(self) -> DayFile:
        heard = tuple(
            ChannelHeard(
                peak_dbfs=SILENCE_DB if one.peak_dbfs is None else one.peak_dbfs,
                level_dbfs=one.level_dbfs,
                clipped=one.clipped,
                is_timecode=one.is_timecode,
            )
            for one in self.heard
        )
        return DayFile(**{**dict(self), "heard": heard})


class FileFindingOut(Out):
    """take: as it is called; "" of none. can_be: what puts it right; "" where that is for people.

    severity: stop where something is lost, note where a file only says something wrong of itself.
    """

    severity: Literal["stop", "caution", "note"]
    what: FileTrouble
    path: str
    take: str
    title: str
    text: str
    can_be: FileFix


class TogetherOut(Out):
    """A picture's file whose guide can be heard together with the recorder's sound. off_ms: by how much it lies later than its
    timecode says, null where that is not known."""

    picture: str
    sound: str
    title: str
    words: str
    off_ms: Level


class TakeFilesOut(Out):
    """files: of it, by their paths; by_source: the same, for each of the sources; together: what can be played together."""

    take: str
    length: str
    files: list[str]
    by_source: list[list[str]]
    together: list[TogetherOut] = Field(default_factory=list)


class FilesOut(Out):
    """files: as far as they were looked at; takes: the files of each; findings: what does not agree, the gravest first.

    sources: the devices that wrote them, by the folders that they lie in.
    """

    summary: str
    sources: list[str]
    files: list[DayFileOut]
    takes: list[TakeFilesOut]
    findings: list[FileFindingOut]


def files_beside(files: Sequence[DayFile], log: LogOut | None) -> FilesOut:
    """The files of a day, held against a log where there is one."""
    takes = [] if log is None else takes_of(log)
    labels, by_path = {take.id: take.label for take in takes}, {file.path: file for file in files}
    matched = match_files_to_takes(files, takes, expected_of(log)) if log is not None else None
    found = matched.takes if matched is not None else {}
    findings = []
    for finding in matched.findings if matched is not None else ():
        title, text = file_finding_words(finding, labels)
        findings.append(
            FileFindingOut(
                severity=_severity(finding.what),
                what=finding.what,
                path=finding.path,
                take=labels.get(finding.take, ""),
                title=title,
                text=text,
                can_be=file_fix(finding, by_path.get(finding.path)),
            )
        )
    sources = sorted({file.source for file in files})
    lengths = {take.id: seconds_words(take.seconds) for take in takes}
    return FilesOut(
        summary=files_summary(len(files), len(takes), sum(bool(mine) for mine in found.values()), len(findings)),
        sources=sources,
        files=[DayFileOut.model_validate(file) for file in files],
        takes=[
            TakeFilesOut(
                take=labels[key],
                length=lengths[key],
                files=[file.path for file in mine],
                by_source=[[file.path for file in mine if file.source == source] for source in sources],
                together=[
                    _together(file, sound)
                    for file in mine
                    if file.is_picture and not file.problem and (sound := recorded_beside(file, mine)) is not None
                ],
            )
            for key, mine in found.items()
        ],
        findings=findings,
    )


def _together(picture: DayFile, sound: DayFile) -> TogetherOut:
    off_ms = None if picture.off_s is None else 1000 * picture.off_s
    return TogetherOut(
        picture=picture.path,
        sound=sound.path,
        title=f"{picture.source or picture.path} and {sound.source or sound.path}",
        words=together_words(off_ms),
        off_ms=off_ms,
    )


def copy_orders(files: Sequence[DayFile], log: LogOut | None, *, mono: bool = False) -> list[CopyOrder]:
    """Every file that can be read, for copying: sound with what the log says of its take; all as they are where there is no log.

    mono: sound of a take as a file for each of its channels.
    """
    takes, expected = (
        ([], ExpectedFile(rate="", drop=False, rate_hz=0, date=""))
        if log is None
        else (takes_of(log), expected_of(log))
    )
    found = match_files_to_takes(files, takes, expected).takes
    by_id = {take.id: take for take in log.takes} if log is not None else {}
    by_path = {file.path: file for file in files}
    orders: list[CopyOrder] = []
    for item in corrected_files(files, takes, found, expected):
        labels = None if item.take is None else _labels(by_id[item.take.id], item.tracks)
        file = by_path[item.path]
        whole = CopyOrder(path=item.path, name=item.name, labels=labels, date=item.date)
        split = _mono(whole, file) if mono and labels is not None and file.channels > 1 else []
        if item.is_picture or not split:
            orders.append(replace(whole, labels=None) if item.is_picture else whole)
        orders += split
    return orders


FLOAT_BYTES: Final = 4
"""Of the widest sample that sound out of a movie is written with. [EBU3285]"""


def _mono(whole: CopyOrder, file: DayFile) -> list[CopyOrder]:
    """`Bag/12C-04_2_Ann.WAV`: a file for each channel, called by its number and its name."""
    assert whole.labels is not None  # only what has a take is split
    stem, dot, suffix = whole.name.rpartition(".")
    if file.is_picture:
        suffix = "WAV"
    # The file's own numbers may begin elsewhere, or have gaps where tracks were not armed: its order is that of the channels.
    names = dict(enumerate((name for _, name in sorted(whole.labels.tracks)), start=1))
    found = []
    for channel in range(1, file.channels + 1):
        name = names.get(channel, "")
        called = re.sub(r"[^\w.-]+", "-", name).strip("-")
        labels = replace(whole.labels, tracks=((1, name),) if name else ())
        found.append(
            replace(
                whole,
                name=f"{stem}_{channel}{f'_{called}' if called else ''}{dot}{suffix}",
                labels=labels,
                channel=channel,
                out_of_movie_bytes=math.ceil(file.seconds * file.rate_hz * FLOAT_BYTES) if file.is_picture else 0,
            )
        )
    return found


def _labels(take: LoggedTakeOut, tracks: tuple[tuple[int, str], ...]) -> TakeLabels:
    said = [*([take.text] if take.text else []), *(note.text for note in take.notes)]
    return TakeLabels(
        scene=take.slate,
        take=str(take.number),
        circled=take.status is TakeStatus.CIRCLED,
        note="; ".join(said),
        tracks=tracks,
    )


def _severity(what: FileTrouble) -> Literal["stop", "caution", "note"]:
    return "stop" if what in LOST else "note" if what in OF_WORDS else "caution"


def takes_of(log: LogOut) -> list[DayTake]:
    """Those that were shot; room tone and wild tracks too, as they are files."""
    rate, found = FrameRate.parse(log.rate), []
    for take in log.takes:
        if take.struck:
            continue
        try:
            begins = float(real_seconds(Timecode.parse(take.timecode, rate)))
        except TimecodeError:
            continue
        found.append(
            DayTake(
                id=take.id,
                slate=take.slate,
                number=take.number,
                begins_s=begins,
                seconds=take.seconds,
                is_spoken=take.status not in NOT_SPOKEN,
            )
        )
    return found


def expected_of(log: LogOut) -> ExpectedFile:
    rate = FrameRate.parse(log.rate)
    tracks: dict[str, list[ExpectedTrack]] = {}
    for track in log.tracks:
        names = (track.track, *track.sources, ", ".join(track.sources)) if track.sources else (track.track,)
        tracks.setdefault(track.device, []).append(
            ExpectedTrack(
                names=tuple(dict.fromkeys(names)),
                level_dbfs=track.level_dbfs,
                is_timecode=track.is_timecode,
                safety_of=track.safety_of,
            )
        )
    return ExpectedFile(
        rate=f"{rate.ratio.numerator}/{rate.ratio.denominator}",
        drop=rate.drop,
        rate_hz=log.sample_rate_hz,
        date=log.day,
        tracks=tracks,
    )
