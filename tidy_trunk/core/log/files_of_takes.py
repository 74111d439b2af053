"""The day's files held against its log: which file is of which take, and what does not agree."""

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from itertools import pairwise
from typing import Final

from tidy_trunk.core.log.file_sound import sound_findings
from tidy_trunk.core.log.files import (
    LOST,
    OF_WORDS,
    DayFile,
    DayTake,
    ExpectedFile,
    FileFinding,
    FileTrouble,
    MatchedFiles,
)

LATE_S: Final = 3.0
"""ASSUMED_ by how much a file may begin after its take was logged, or end before it was cut: taps are that late themselves."""

SHARE: Final = 0.5
"""ASSUMED_ share of the shorter of both that take and file must have in common to be one by their times."""

GAP_S: Final = 0.1
"""ASSUMED_ longest gap between two files of one take: a recorder goes on without one where a file is full."""

OFF_FRAMES: Final = 1.5
"""ASSUMED_ by how many frames a picture's timecode may miss what its microphone hears: one is within a jam, and sound is late by
a few metres."""

DRIFT_FRAMES: Final = 0.5
"""By how much pictures and sound may part within one file: half a frame. [PRACTICE]"""

DAY_S: Final = 86_400.0
"""Seconds of a day: then every clock begins again. [ST12-1]"""


def match_files_to_takes(files: Sequence[DayFile], takes: Sequence[DayTake], expected: ExpectedFile) -> MatchedFiles:
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
            findings += _against_recorder(file, take, expected)
            findings += sound_findings(file, take, expected.tracks.get(file.source, ()))
        findings += _against_job(file, expected)
    for take_id, mine in found.items():
        mine.sort(key=lambda file: (file.source, file.begins_s if file.begins_s is not None else 0.0, file.path))
        findings += _parts(take_id, mine)
    findings += _missing(files, takes, found)
    findings += _user_bits(files)
    order = {what: number for number, what in enumerate(FileTrouble)}
    findings.sort(
        key=lambda item: (item.what not in LOST, item.what in OF_WORDS, order[item.what], item.path, item.take)
    )
    return MatchedFiles(takes={key: tuple(mine) for key, mine in found.items()}, findings=tuple(findings))


def _take_of(file: DayFile, takes: Sequence[DayTake]) -> DayTake | None:
    by_time = max(takes, key=lambda take: _common(file, take), default=None)
    if by_time is not None and _common(file, by_time) <= 0:
        by_time = None
    labelled = [take for take in takes if _is_labelled(file, take)] or [take for take in takes if is_named(file, take)]
    if labelled:
        # Two takes may be called the same; of those the one whose time it has.
        return by_time if by_time in labelled else labelled[0] if by_time is None or not file.begins_s else by_time
    return by_time


def _is_labelled(file: DayFile, take: DayTake) -> bool:
    return file.scene.casefold() == take.slate.casefold() and file.take.isdigit() and int(file.take) == take.number


def is_named(file: DayFile, take: DayTake) -> bool:
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
    shorter = min(file.seconds, take.seconds)
    return common / shorter if shorter > 0 and common / shorter >= SHARE else 0.0


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


def _against_recorder(file: DayFile, take: DayTake, expected: ExpectedFile) -> Iterator[FileFinding]:
    """What both hear tells where the pictures lie, whatever their timecode says."""
    frame_rate = float(Fraction(expected.rate))
    if file.off_s is not None and abs(file.off_s) * frame_rate > OFF_FRAMES:
        facts = {"frames": abs(file.off_s) * frame_rate}
        yield FileFinding(what=FileTrouble.OFF_CLOCK, path=file.path, take=take.id, facts=facts)
    drifted = 0.0 if file.drift_ppm is None else abs(file.drift_ppm) * 1e-6 * file.seconds * frame_rate
    if drifted > DRIFT_FRAMES:
        facts = {"frames": drifted, "ppm": file.drift_ppm or 0.0}
        yield FileFinding(what=FileTrouble.DRIFT, path=file.path, take=take.id, facts=facts)


def _against_job(file: DayFile, expected: ExpectedFile) -> Iterator[FileFinding]:
    if file.rate and file.rate != expected.rate:
        yield FileFinding(what=FileTrouble.RATE, path=file.path, facts={"is": file.rate, "wanted": expected.rate})
    elif file.rate and file.drop != expected.drop:
        yield FileFinding(what=FileTrouble.FLAG, path=file.path, facts={"is": float(file.drop)})
    if file.rate_hz and file.rate_hz != expected.rate_hz:
        facts = {"is": float(file.rate_hz), "wanted": float(expected.rate_hz)}
        yield FileFinding(what=FileTrouble.SAMPLE_RATE, path=file.path, facts=facts)
    if file.date and expected.date and file.date != expected.date:
        yield FileFinding(what=FileTrouble.DATE, path=file.path, facts={"is": file.date, "wanted": expected.date})
    names = {name for track in expected.tracks.get(file.source, ()) for name in track.names}
    if names and file.tracks and not file.is_picture:
        strange = [name for _, name in sorted(file.tracks) if name and name not in names]
        if strange:
            yield FileFinding(what=FileTrouble.TRACKS, path=file.path, facts={"is": ", ".join(strange)})


def _user_bits(files: Sequence[DayFile]) -> Iterator[FileFinding]:
    """A device fills its user bits once in the morning: a file that has others than most of it was set otherwise."""
    for source in sorted({file.source for file in files}):
        said = Counter(file.user_bits for file in files if file.source == source and file.user_bits)
        if len(said) < 2:
            continue
        usual, count = said.most_common(1)[0]
        for file in files:
            if file.source == source and file.user_bits and file.user_bits != usual and count > sum(said.values()) / 2:
                facts = {"is": file.user_bits, "wanted": usual}
                yield FileFinding(what=FileTrouble.USER_BITS, path=file.path, facts=facts)


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
