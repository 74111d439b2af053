"""The day's files held against its log: which file is of which take, and what does not agree."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import pairwise
from typing import Final

LATE_S: Final = 3.0
"""ASSUMED_ by how much a file may begin after its take was logged, or end before it was cut: taps are that late themselves."""

SHARE: Final = 0.5
"""ASSUMED_ share of the shorter of both that take and file must have in common to be one by their times."""

GAP_S: Final = 0.1
"""ASSUMED_ longest gap between two files of one take: a recorder goes on without one where a file is full."""

DAY_S: Final = 86_400.0
"""Seconds of a day: then every clock begins again. [ST12-1]"""


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
    TRACKS = "tracks"


@dataclass(frozen=True, slots=True, kw_only=True)
class DayFile:
    """A file as far as its head tells. source: the device that wrote it, by the folder that it lies in or by what it says.

    begins_s: since midnight, by its own clock; None where it has none. scene, take: as it is labelled; "" where it is not.
    rate: of its timecode, `25/1`; date: ISO 8601; "" where nothing is said. tracks: names by channel.
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
    date: str = ""
    tracks: tuple[tuple[int, str], ...] = ()
    is_cut_short: bool = False
    problem: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class DayTake:
    """A take as the log has it. begins_s: since midnight, by its timecode; seconds: None where it was never cut."""

    id: str
    slate: str
    number: int
    begins_s: float
    seconds: float | None

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
class Expected:
    """What the job is set to: rate of its timecode as a fraction, drop-frame, sample rate, date (ISO 8601, "" for any)."""

    rate: str
    drop: bool
    rate_hz: int
    date: str
    tracks: Mapping[str, Sequence[str]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class Matched:
    """takes: the files of each take, in their order; findings: what does not agree, the gravest kinds first."""

    takes: Mapping[str, tuple[DayFile, ...]]
    findings: tuple[FileFinding, ...]


def match_files_to_takes(files: Sequence[DayFile], takes: Sequence[DayTake], expected: Expected) -> Matched:
    """Each file to the take that it is of: by what it is labelled, else by its name, else by the time that both have in common."""
    found: dict[str, list[DayFile]] = {take.id: [] for take in takes}
    findings: list[FileFinding] = []
    for file in files:
        if file.problem:
            findings.append(FileFinding(what=FileTrouble.UNREADABLE, path=file.path, facts={"problem": file.problem}))
            continue
        take = _take_of(file, takes)
        if take is None:
            findings.append(FileFinding(what=FileTrouble.NO_TAKE, path=file.path))
        else:
            found[take.id].append(file)
            findings += _against_take(file, take)
        findings += _against_job(file, expected)
    for take_id, mine in found.items():
        mine.sort(key=lambda file: (file.source, file.begins_s if file.begins_s is not None else 0.0, file.path))
        findings += _parts(take_id, mine)
    findings += _missing(files, takes, found)
    order = {what: number for number, what in enumerate(FileTrouble)}
    findings.sort(key=lambda item: (order[item.what], item.path, item.take))
    return Matched(takes={key: tuple(mine) for key, mine in found.items()}, findings=tuple(findings))


def _take_of(file: DayFile, takes: Sequence[DayTake]) -> DayTake | None:
    by_time = max(takes, key=lambda take: _common(file, take), default=None)
    if by_time is not None and _common(file, by_time) <= 0:
        by_time = None
    labelled = [take for take in takes if _is_labelled(file, take)] or [take for take in takes if _is_named(file, take)]
    if labelled:
        # Two takes may be called the same; of those the one whose time it has.
        return by_time if by_time in labelled else labelled[0] if by_time is None or not file.begins_s else by_time
    return by_time


def _is_labelled(file: DayFile, take: DayTake) -> bool:
    return file.scene.casefold() == take.slate.casefold() and file.take.isdigit() and int(file.take) == take.number


def _is_named(file: DayFile, take: DayTake) -> bool:
    """Its name holds slate and number: `12C-4.wav`, `12C_T04.WAV`, `12C take 4_2.wav`."""
    stem = file.path.rpartition("/")[2].rpartition(".")[0]
    wanted = rf"(?<![A-Za-z0-9]){re.escape(take.slate)}[\s_-]*(?:t|take)?[\s_-]*0*{take.number}(?!\d)"
    return re.search(wanted, stem, re.IGNORECASE) is not None


def _common(file: DayFile, take: DayTake) -> float:
    """Share of the shorter of both that they have in common, above what makes them one; 0 below that."""
    if file.begins_s is None or take.seconds is None:
        return 0.0
    late = (file.begins_s - take.begins_s + DAY_S / 2) % DAY_S - DAY_S / 2  # the nearer way round midnight
    common = min(late + file.seconds, take.seconds) - max(late, 0.0)
    shorter = max(min(file.seconds, take.seconds), 0.1)
    return common / shorter if common / shorter >= SHARE else 0.0


def _against_take(file: DayFile, take: DayTake) -> Iterator[FileFinding]:
    if file.scene and file.take and not _is_labelled(file, take):
        yield FileFinding(
            what=FileTrouble.LABELLED_OTHERWISE,
            path=file.path,
            take=take.id,
            facts={"says": f"{file.scene}-{file.take}", "is": take.label},
        )
    if file.is_cut_short:
        yield FileFinding(what=FileTrouble.CUT_SHORT, path=file.path, take=take.id, facts={"seconds": file.seconds})


def _against_job(file: DayFile, expected: Expected) -> Iterator[FileFinding]:
    if file.rate and file.rate != expected.rate:
        yield FileFinding(what=FileTrouble.RATE, path=file.path, facts={"is": file.rate, "wanted": expected.rate})
    elif file.rate and file.drop != expected.drop:
        yield FileFinding(what=FileTrouble.FLAG, path=file.path, facts={"is": float(file.drop)})
    if file.rate_hz and file.rate_hz != expected.rate_hz:
        facts = {"is": float(file.rate_hz), "wanted": float(expected.rate_hz)}
        yield FileFinding(what=FileTrouble.SAMPLE_RATE, path=file.path, facts=facts)
    if file.date and expected.date and file.date != expected.date:
        yield FileFinding(what=FileTrouble.DATE, path=file.path, facts={"is": file.date, "wanted": expected.date})
    names = expected.tracks.get(file.source)
    if names and file.tracks and not file.is_picture:
        said = [name for _, name in sorted(file.tracks)]
        strange = [name for name in said if name and name not in names]
        if strange:
            yield FileFinding(what=FileTrouble.TRACKS, path=file.path, facts={"is": ", ".join(strange)})


def _parts(take_id: str, files: Sequence[DayFile]) -> Iterator[FileFinding]:
    """Files of one take from one device go on where the one before has ended."""
    for earlier, later in pairwise(files):
        if earlier.source != later.source or earlier.begins_s is None or later.begins_s is None:
            continue
        gap = later.begins_s - earlier.begins_s - earlier.seconds
        if gap > GAP_S:
            yield FileFinding(what=FileTrouble.GAP, path=later.path, take=take_id, facts={"seconds": gap})
        elif gap < -GAP_S:
            yield FileFinding(what=FileTrouble.OVERLAP, path=later.path, take=take_id, facts={"seconds": -gap})


def _missing(
    files: Sequence[DayFile], takes: Sequence[DayTake], found: Mapping[str, Sequence[DayFile]]
) -> Iterator[FileFinding]:
    """Every device that recorded anything should have every take, from its beginning to its end."""
    sources = sorted({file.source for file in files if not file.problem})
    for take in takes:
        for source in sources:
            mine = [file for file in found[take.id] if file.source == source]
            if not mine:
                yield FileFinding(what=FileTrouble.NO_FILE, take=take.id, facts={"source": source})
                continue
            timed = [file for file in mine if file.begins_s is not None]
            if not timed or take.seconds is None:
                continue
            begins = min((file.begins_s or 0.0) - take.begins_s for file in timed)
            ends = max((file.begins_s or 0.0) - take.begins_s + file.seconds for file in timed)
            begins, ends = ((at + DAY_S / 2) % DAY_S - DAY_S / 2 for at in (begins, ends))
            if begins > LATE_S:
                yield FileFinding(
                    what=FileTrouble.STARTS_LATE, path=timed[0].path, take=take.id, facts={"seconds": begins}
                )
            if take.seconds - ends > LATE_S and not any(file.is_cut_short for file in timed):
                facts = {"seconds": take.seconds - ends}
                yield FileFinding(what=FileTrouble.ENDS_EARLY, path=timed[-1].path, take=take.id, facts=facts)
