"""The files of a day's folders: what their heads tell, and how loud they are where that is asked for. Each is read in a process of
its own, so that one that hangs or breaks its reader is no more than a file that cannot be read."""

import struct
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import BinaryIO, Final

from tidy_trunk.core.log import DayFile
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.formats import is_wave, movie_facts, read_broadcast, read_labels, sound_chunk
from tidy_trunk.media.channel_levels import heard_channels
from tidy_trunk.media.file_clocks import movie_began
from tidy_trunk.media.files import size_of
from tidy_trunk.media.isolation import each_in_a_process
from tidy_trunk.media.manifests import files_below

SOUNDS: Final = frozenset({".wav", ".bwf", ".rf64"})
MOVIES: Final = frozenset({".mov", ".mp4", ".mxf", ".m4v", ".avi", ".mts"})
"""Ends of names of what recorders and cameras write; what else lies in a folder is left out. [PRACTICE]"""


def day_files(
    folder: Path, tell: Callable[[float], None] = lambda share: None, *, with_sound: bool = False
) -> list[DayFile]:
    """Every recording below a folder. Its source is the folder at the top that it lies in; else what it says of its recorder.

    with_sound: decoded too, for levels, flat tops and silence.

    Raises InputError: as `files_below`.
    """
    paths = [path for path in files_below(folder) if Path(path).suffix.lower() in SOUNDS | MOVIES]
    sizes = {path: size_of(folder / path) if with_sound else 1 for path in paths}
    whole, done = max(sum(sizes.values()), 1), 0
    found = {}
    for path, file in each_in_a_process(paths, lambda path: day_file(folder, path, with_sound=with_sound)):
        done += sizes[path]
        tell(done / whole)
        found[path] = file or _unreadable(path, "whoever read it came to no end: it is damaged")
    tell(1.0)
    return [found[path] for path in paths]


def day_file(folder: Path, path: str, *, with_sound: bool = False) -> DayFile:
    """One of them; one that cannot be read says why."""
    source, is_picture = _source(path), _is_picture(path)
    try:
        with (folder / path).open("rb") as stream:
            file = _movie(stream, path, source) if is_picture else _sound(stream, path, source)
            has_sound = with_sound and (not is_picture or movie_facts(stream).has_sound)
            stream.seek(0)
            return replace(file, heard=heard_channels(stream)) if has_sound else file
    except (OSError, TidyTrunkError, ValueError, struct.error) as error:
        words = error.message if isinstance(error, TidyTrunkError) else str(error)
        return _unreadable(path, words or "it is damaged")


def _unreadable(path: str, problem: str) -> DayFile:
    return DayFile(path=path, source=_source(path), is_picture=_is_picture(path), seconds=0.0, problem=problem)


def _source(path: str) -> str:
    head, _, rest = path.partition("/")
    return head if rest else ""


def _is_picture(path: str) -> bool:
    return Path(path).suffix.lower() in MOVIES


def _sound(stream: BinaryIO, path: str, source: str) -> DayFile:
    if not is_wave(stream):
        return DayFile(path=path, source=source, is_picture=False, seconds=0.0, problem="it is no WAV")
    written, chunk = sound_chunk(stream)
    rate_hz, block = written.rate_hz, written.block
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
        channels=written.channels,
        date=said.date if said is not None else "",
        user_bits=labels.user_bits if labels is not None and labels.user_bits.strip("0") else "",
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
        rate_hz=facts.rate_hz,
        channels=facts.channels,
        drop=";" in facts.timecode,
    )
