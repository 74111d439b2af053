"""The day's pictures beside the day's sound: where each camera file really lies, and how its clock drifts, by what both hear."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

from tidy_trunk.core.log import DayFile, common_s, recorded_beside
from tidy_trunk.core.time.sync import match_many
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.media.apart import each_in_a_process
from tidy_trunk.media.day_files import day_files
from tidy_trunk.sync.methods import FOUND, heard_near
from tidy_trunk.sync.profiles import Sidecars, profile_file

TOGETHER_S: Final = 3.0
"""ASSUMED_ least that two files must have in common for what both hear to say anything."""


ENOUGH: Final = 0.5
"""ASSUMED_ share of the shorter of two files that they must have in common elsewhere than their clocks say: a few words that are
alike are found in every conversation."""

LISTENING: Final = 0.5
"""ASSUMED_ share of the work that is done when all files of a day were listened to."""


@dataclass(frozen=True, slots=True)
class Pair:
    """A camera's file and that of the recorder that ran beside it."""

    recorder: DayFile
    camera: DayFile

    @property
    def offset_s(self) -> float:
        return (self.camera.begins_s or 0.0) - (self.recorder.begins_s or 0.0)

    def says_enough(self, offset_s: float) -> bool:
        """Whether two files have enough in common where they are said to lie, that a clock may be told to be wrong by it."""
        common_s = min(self.recorder.seconds, offset_s + self.camera.seconds) - max(0.0, offset_s)
        return common_s >= max(TOGETHER_S, ENOUGH * min(self.recorder.seconds, self.camera.seconds))


def read_day(folder: Path, scratch: Path, tell: Callable[[float], None], *, with_sound: bool) -> list[DayFile]:
    """The recordings below a folder; with_sound: listened to, and pictures held against the recorder that ran beside them.

    Raises InputError: as `day_files`.
    """
    share = LISTENING if with_sound else 1.0
    files = day_files(folder, lambda done: tell(share * done), with_sound=with_sound)
    if not with_sound:
        return files
    with TemporaryDirectory(dir=scratch) as own:
        return held_against_recorder(folder, files, Path(own), lambda done: tell(share + (1 - share) * done))


def held_against_recorder(
    folder: Path, files: Sequence[DayFile], scratch: Path, tell: Callable[[float], None] = lambda share: None
) -> list[DayFile]:
    """The same files; cameras' with how far they are off, where a recorder ran beside them and both hear the same.

    scratch: a folder for what is kept of each while it is looked at; it is empty again behind it.
    """
    heard = [file for file in files if file.begins_s is not None and any(not one.is_silent for one in file.heard)]
    recorders = [file for file in heard if not file.is_picture]
    pairs = {}
    for camera in (file for file in heard if file.is_picture):
        recorder = recorded_beside(camera, recorders)
        if recorder is not None and common_s(recorder, camera) >= TOGETHER_S:
            pairs[camera.path] = Pair(recorder, camera)
    if not pairs:
        return list(files)
    wanted = sorted({file.path for pair in pairs.values() for file in (pair.recorder, pair.camera)})
    side = {path: Sidecars(scratch / f"{number}") for number, path in enumerate(wanted)}
    rates: dict[str, int] = {}
    try:
        for path, rate_hz in each_in_a_process(wanted, lambda path: _profiled(folder / path, side[path])):
            tell(0.7 * len(rates) / len(wanted))
            rates[path] = rate_hz or 0

        def laid(path: str) -> tuple[float, float | None] | None:
            pair = pairs[path]
            one, two = (side[file.path].sound(rates[file.path]) for file in (pair.recorder, pair.camera))
            found = heard_near(one, two, pair.offset_s)
            if found is None:  # not where their clocks say: then somewhere else in the same file
                elsewhere = match_many([one], [two], FOUND, lambda share: None)
                found = elsewhere[0].alignment if elsewhere else None
            if found is None or not pair.says_enough(found.offset_s):
                return None
            return found.offset_s - pair.offset_s, found.drift_ppm

        known = [path for path, pair in pairs.items() if rates[path] and rates[pair.recorder.path]]
        found = dict(each_in_a_process(known, laid))
    finally:
        for one in side.values():
            one.mix.unlink(missing_ok=True)
            one.profile.unlink(missing_ok=True)
    tell(1.0)
    return [_with(file, found.get(file.path)) for file in files]


def _profiled(path: Path, side: Sidecars) -> int:
    """Sample rate of a file whose profile was made; 0 where it cannot be."""
    try:
        return int(profile_file(path, lambda share: None, side)["rate_hz"])
    except (TidyTrunkError, OSError):
        return 0


def _with(file: DayFile, found: tuple[float, float | None] | None) -> DayFile:
    return file if found is None else replace(file, off_s=found[0], drift_ppm=found[1])
