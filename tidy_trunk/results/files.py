"""The files of a day beside its log."""

from collections.abc import Sequence

from tidy_trunk.core.base.timecode import FrameRate, Timecode, real_seconds
from tidy_trunk.core.log import DayFile, DayTake, Expected, FileTrouble, match_files_to_takes
from tidy_trunk.errors import TimecodeError
from tidy_trunk.results.log import LogOut
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.files import file_finding_words


class DayFileOut(Out):
    """begins_s: since midnight, by its own clock; null where it has none."""

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
    date: str


class FileFindingOut(Out):
    what: FileTrouble
    path: str
    take: str
    title: str
    text: str


class TakeFilesOut(Out):
    take: str
    files: list[str]


class FilesOut(Out):
    """files: as far as their heads tell; takes: the files of each; findings: what does not agree, the gravest first."""

    files: list[DayFileOut]
    takes: list[TakeFilesOut]
    findings: list[FileFindingOut]


def files_beside(files: Sequence[DayFile], log: LogOut | None) -> FilesOut:
    """The files of a day, held against a log where there is one."""
    takes = [] if log is None else _takes(log)
    labels = {take.id: take.label for take in takes}
    matched = match_files_to_takes(files, takes, _expected(log)) if log is not None else None
    findings = []
    for finding in matched.findings if matched is not None else ():
        title, text = file_finding_words(finding, labels)
        findings.append(
            FileFindingOut(
                what=finding.what, path=finding.path, take=labels.get(finding.take, ""), title=title, text=text
            )
        )
    return FilesOut(
        files=[DayFileOut.model_validate(file) for file in files],
        takes=[
            TakeFilesOut(take=labels[key], files=[file.path for file in mine])
            for key, mine in (matched.takes.items() if matched is not None else ())
        ],
        findings=findings,
    )


def _takes(log: LogOut) -> list[DayTake]:
    """Those that were shot; room tone and wild tracks too, as they are files."""
    rate, found = FrameRate.parse(log.rate), []
    for take in log.takes:
        if take.struck:
            continue
        try:
            begins = float(real_seconds(Timecode.parse(take.timecode, rate)))
        except TimecodeError:
            continue
        found.append(DayTake(id=take.id, slate=take.slate, number=take.number, begins_s=begins, seconds=take.seconds))
    return found


def _expected(log: LogOut) -> Expected:
    rate = FrameRate.parse(log.rate)
    tracks: dict[str, list[str]] = {}
    for track in log.tracks:
        tracks.setdefault(track.device, []).extend([track.track, *track.sources])
    return Expected(
        rate=f"{rate.ratio.numerator}/{rate.ratio.denominator}",
        drop=rate.drop,
        rate_hz=log.sample_rate_hz,
        date=log.day,
        tracks=tracks,
    )
