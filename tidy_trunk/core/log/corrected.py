"""What the copy of a day's file is called and says: as the log has its take, and the plan its tracks."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

from tidy_trunk.core.log.file_sound import tracks_by_channel
from tidy_trunk.core.log.files import DayFile, DayTake, ExpectedFile, ExpectedTrack, FileFinding, FileTrouble
from tidy_trunk.core.log.files_of_takes import is_named


class FileFix(StrEnum):
    """What puts a difference right."""

    LOG_TAKE = "log-take"  # the file becomes a take of the log
    CORRECT_TAKE = "correct-take"  # the log takes the file's label; or the copy the log's
    COPY = "copy"  # the copy says what is right
    NOTHING = ""


def file_fix(finding: FileFinding, file: DayFile | None) -> FileFix:
    """What can be done about a difference here; the rest is for people at their devices."""
    match finding.what:
        case FileTrouble.NO_TAKE if file is not None and file.begins_s is not None:
            return FileFix.LOG_TAKE
        case FileTrouble.LABELLED_OTHERWISE if file is not None and file.take.isdigit():
            return FileFix.CORRECT_TAKE
        case FileTrouble.DATE | FileTrouble.TRACKS if file is not None and not file.is_picture:
            return FileFix.COPY
    return FileFix.NOTHING


@dataclass(frozen=True, slots=True, kw_only=True)
class CorrectedFile:
    """path, name: of the original and of its copy, below their folders. take: None of a file that stays as it is,
    and is split neither. is_picture: the file itself stays as it is; what is taken out of it says its take.

    tracks: channels from 1, and names; date: ISO 8601, "" where the one that it has is right.
    """

    path: str
    name: str
    take: DayTake | None = None
    tracks: tuple[tuple[int, str], ...] = ()
    date: str = ""
    is_picture: bool = False


def corrected_files(
    files: Sequence[DayFile], takes: Sequence[DayTake], found: Mapping[str, Sequence[DayFile]], expected: ExpectedFile
) -> list[CorrectedFile]:
    """Each file that can be read, in order. found: the files of each take.

    Pictures keep name and content: the edit finds them by these. Sound keeps a name that says its take, and is given one else.
    """
    by_id = {take.id: take for take in takes}
    take_of = {file.path: by_id[key] for key, mine in found.items() for file in mine}
    made: list[CorrectedFile] = []
    taken = {file.path.casefold() for file in files}
    for file in files:
        take = take_of.get(file.path)
        if file.problem:
            continue
        if take is None:
            made.append(CorrectedFile(path=file.path, name=file.path))
            continue
        tracks = _tracks(file, expected.tracks.get(file.source, ()))
        if file.is_picture:
            made.append(CorrectedFile(path=file.path, name=file.path, take=take, tracks=tracks, is_picture=True))
            continue
        name = file.path if is_named(file, take) else _free(file.path, take, taken)
        taken.add(name.casefold())
        made.append(
            CorrectedFile(
                path=file.path,
                name=name,
                take=take,
                tracks=tracks,
                date=expected.date if expected.date and file.date and file.date != expected.date else "",
            )
        )
    return made


def _free(path: str, take: DayTake, taken: set[str]) -> str:
    """`Bag/12C-04.wav`; the parts of a long take are numbered."""
    place, slash, old = path.rpartition("/")
    stem = f"{re.sub(r'[^A-Za-z0-9._-]', '_', take.slate)}-{take.number:02}"
    part, suffix = 1, "".join(old.rpartition(".")[1:])
    while (name := f"{place}{slash}{stem}{f'_{part}' if part > 1 else ''}{suffix}").casefold() in taken:
        part += 1
    return name


def _tracks(file: DayFile, expected: Sequence[ExpectedTrack]) -> tuple[tuple[int, str], ...]:
    """As the file names them where the plan knows all of these; else the plan's names, where its tracks are those of the file."""
    placed = tracks_by_channel(file, expected)
    known = {name for track in expected for name in track.names}
    if file.tracks and all(name in known for _, name in file.tracks if name):
        return file.tracks
    return tuple((number, track.names[-1]) for number, track in placed.items()) or file.tracks
