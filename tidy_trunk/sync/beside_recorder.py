"""The day's pictures beside the day's sound: where each camera file really lies, and how its clock drifts, by what both hear."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

from tidy_trunk.core.log import DayFile, common_s
from tidy_trunk.core.time.sync import Alignment, Sound, match_many
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.media.day_files import day_files
from tidy_trunk.media.isolation import each_in_a_process
from tidy_trunk.sync.methods import FOUND, heard_near
from tidy_trunk.sync.profiles import Sidecars, profile_file

Off = tuple[float, float | None]
"""By how much a camera's file lies later than its clock says, in seconds, and how fast its clock runs, in ppm."""

TOGETHER_S: Final = 3.0
"""ASSUMED_ least that two files must have in common for what both hear to say anything."""


ENOUGH: Final = 0.5
"""ASSUMED_ share of the shorter of two files that they must have in common elsewhere than their clocks say: a few words that are
alike are found in every conversation."""

NEAR_S: Final = 2.0
"""ASSUMED_ by how much a clock that was jammed in the morning can be off: more is another place, which is looked for last."""

MOST_BESIDE: Final = 3
"""ASSUMED_ recorders that a camera is held against: the others hear what these hear."""

LISTENING: Final = 0.5
"""ASSUMED_ share of the work that is done when all files of a day were listened to."""


@dataclass(frozen=True, slots=True)
class FilePair:
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
    pairs = {file.path: _pairs(file, heard) for file in heard if file.is_picture}
    pairs = {path: found for path, found in pairs.items() if found}
    side: dict[str, Sidecars] = {}
    rates: dict[str, int] = {}

    def profile(wanted: Sequence[str]) -> None:
        new = sorted(set(wanted) - set(side))
        side.update({path: Sidecars(scratch / f"{len(side) + number}") for number, path in enumerate(new)})
        for path, rate_hz in each_in_a_process(new, lambda path: _profiled(folder / path, side[path])):
            rates[path] = rate_hz or 0
            tell(0.7 * min(len(rates) / len(new), 1.0))

    def laid(path: str, found_at: Callable[[Sound, Sound, FilePair], Alignment | None]) -> Off | None:
        for pair in pairs[path]:
            if rates.get(pair.recorder.path) and rates[path]:
                one, two = (side[file.path].sound(rates[file.path]) for file in (pair.recorder, pair.camera))
                found = found_at(one, two, pair)
                if found is not None and pair.says_enough(found.offset_s):
                    return found.offset_s - pair.offset_s, found.drift_ppm
        return None

    def answers(paths: Sequence[str], found_at: Callable[[Sound, Sound, FilePair], Alignment | None]) -> dict[str, Off]:
        told = each_in_a_process(paths, lambda path: laid(path, found_at))
        return {path: off for path, off in told if off is not None}

    try:
        # Where their clocks say, beside the recorder that ran longest; then beside the others, as one may have been cut off, or
        # have heard something else; and only then elsewhere.
        profile([file.path for mine in pairs.values() for file in (mine[0].recorder, mine[0].camera)])
        found = answers(list(pairs), _near)
        left = [path for path in pairs if path not in found]
        profile([pair.recorder.path for path in left for pair in pairs[path]])
        found |= answers(left, _near)
        found |= answers([path for path in left if path not in found], _elsewhere)
    finally:
        for one in side.values():
            one.mix.unlink(missing_ok=True)
            one.profile.unlink(missing_ok=True)
    tell(1.0)
    return [_with(file, found.get(file.path)) for file in files]


def _pairs(camera: DayFile, heard: Sequence[DayFile]) -> list[FilePair]:
    """A camera's file with those of recorders that ran beside it, the longest first."""
    beside = [file for file in heard if not file.is_picture and common_s(file, camera) >= TOGETHER_S]
    beside.sort(key=lambda file: (-common_s(file, camera), file.path))
    return [FilePair(recorder, camera) for recorder in beside[:MOST_BESIDE]]


def _near(one: Sound, two: Sound, pair: FilePair) -> Alignment | None:
    found = heard_near(one, two, pair.offset_s)
    return found if found is not None and abs(found.offset_s - pair.offset_s) <= NEAR_S else None


def _elsewhere(one: Sound, two: Sound, pair: FilePair) -> Alignment | None:
    found = match_many([one], [two], FOUND, lambda share: None)
    return found[0].alignment if found else None


def _profiled(path: Path, side: Sidecars) -> int:
    """Sample rate of a file whose profile was made; 0 where it cannot be."""
    try:
        return int(profile_file(path, lambda share: None, side)["rate_hz"])
    except (TidyTrunkError, OSError):
        return 0


def _with(file: DayFile, found: Off | None) -> DayFile:
    return file if found is None else replace(file, off_s=found[0], drift_ppm=found[1])
