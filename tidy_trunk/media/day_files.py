"""The files of a day's folders, as far as their heads tell: nothing is decoded."""

import struct
from collections.abc import Callable
from pathlib import Path
from typing import BinaryIO, Final

from tidy_trunk.core.log import DayFile
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.formats import is_wave, movie_facts, read_broadcast, read_labels, sound_chunk
from tidy_trunk.media.file_clocks import movie_began
from tidy_trunk.media.manifests import files_below

SOUNDS: Final = frozenset({".wav", ".bwf", ".rf64"})
MOVIES: Final = frozenset({".mov", ".mp4", ".mxf", ".m4v", ".avi", ".mts"})
"""Ends of names of what recorders and cameras write; what else lies in a folder is left out. [PRACTICE]"""


def day_files(folder: Path, tell: Callable[[float], None] = lambda share: None) -> list[DayFile]:
    """Every recording below a folder. Its source is the folder at the top that it lies in; else what it says of its recorder.

    Raises InputError: as `files_below`.
    """
    paths = [path for path in files_below(folder) if Path(path).suffix.lower() in SOUNDS | MOVIES]
    found = []
    for number, path in enumerate(paths):
        tell(number / len(paths))
        found.append(day_file(folder, path))
    tell(1.0)
    return found


def day_file(folder: Path, path: str) -> DayFile:
    """One of them; one that cannot be read says why."""
    head, _, rest = path.partition("/")
    source = head if rest else ""
    is_picture = Path(path).suffix.lower() in MOVIES
    try:
        with (folder / path).open("rb") as stream:
            return _movie(stream, path, source) if is_picture else _sound(stream, path, source)
    except (OSError, TidyTrunkError, ValueError, struct.error) as error:
        words = error.message if isinstance(error, TidyTrunkError) else str(error)
        return DayFile(path=path, source=source, is_picture=is_picture, seconds=0.0, problem=words or "it is damaged")


def _sound(stream: BinaryIO, path: str, source: str) -> DayFile:
    if not is_wave(stream):
        return DayFile(path=path, source=source, is_picture=False, seconds=0.0, problem="it is no WAV")
    rate_hz, block, chunk = sound_chunk(stream)
    said, labels = read_broadcast(stream), read_labels(stream)
    seconds = chunk.there / block / rate_hz
    begins = None if said is None or not said.time_reference else said.time_reference / rate_hz
    return DayFile(
        path=path,
        source=source or (said.originator if said is not None else ""),
        is_picture=False,
        seconds=seconds if chunk.promised is None else min(seconds, chunk.promised / block / rate_hz),
        begins_s=begins,
        scene=labels.scene if labels is not None else "",
        take=labels.take if labels is not None else "",
        rate=labels.rate if labels is not None else "",
        drop=labels.drop if labels is not None else False,
        rate_hz=rate_hz,
        date=said.date if said is not None else "",
        tracks=labels.tracks if labels is not None else (),
        is_cut_short=chunk.is_cut_short,
    )


def _movie(stream: BinaryIO, path: str, source: str) -> DayFile:
    facts = movie_facts(stream)
    began = movie_began(facts)
    rate = "" if facts.frame_rate is None else f"{facts.frame_rate.numerator}/{facts.frame_rate.denominator}"
    return DayFile(
        path=path,
        source=source,
        is_picture=True,
        seconds=facts.seconds,
        begins_s=None if began is None else float(began),
        rate=rate if facts.timecode else "",
        drop=";" in facts.timecode,
    )
