"""Two files that are laid over each other: by their clocks, by what both hear, by claps."""

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from pathlib import Path
from typing import Final

from tidy_trunk.core.sync import Alignment, Place, Sound, align, best_of, claps_by_chance, common_lag
from tidy_trunk.errors import InputError
from tidy_trunk.formats import Recording
from tidy_trunk.services.files import at_file, reading
from tidy_trunk.services.mixdown import opened, sound_of
from tidy_trunk.services.moments import apart, began, facts_of, movie_began

FOUND: Final = 0.5
"""Confidence from which something is found: half of it is right. `docs/craft/sync.md`. ASSUMED_"""

BY_TIMECODE: Final = 0.95
"""ASSUMED_ confidence of two files that bear the same clock: somebody may have forgotten to jam one."""

DISPUTED_S: Final = 0.1
"""ASSUMED_ difference from which a timecode names another place, not the same one coarsely."""

CLAPS_CONFIDENCE: Final = (0.4, 0.75, 0.9, 0.97)
"""ASSUMED_ confidence of so many claps that lie on each other: one on each may be two different ones."""


class Method(StrEnum):
    """By what two files were laid over each other."""

    TIMECODE = "timecode"
    WAVEFORM = "waveform"
    CLAP = "clap"


@dataclass(frozen=True, slots=True, kw_only=True)
class Synced:
    """offset_s: from the reference's first sample to the other's, positive where that begins later.

    drift_ppm: positive where the other's clock runs fast; None where nobody can tell. polarity: 1, or -1 for opposite.
    reference_hz: in whose samples it is counted; 0 of a movie without sound. timecode_s: where their clocks put it, if that
    is another place.
    """

    offset_s: float
    method: Method
    confidence: float
    reference_hz: int
    drift_ppm: float | None = None
    polarity: int = 1
    timecode_s: float | None = None

    @property
    def is_found(self) -> bool:
        return self.confidence >= FOUND

    @property
    def offset_samples(self) -> int | None:
        return round(self.offset_s * self.reference_hz) if self.reference_hz else None


@dataclass(frozen=True, slots=True)
class _Look:
    """A file that is open. recording: None of a movie without sound; began_s: by its own clock, None where it has none."""

    path: Path
    recording: Recording | None
    began_s: Fraction | None


def sync_files(reference: Path, other: Path) -> Synced | None:
    """Where the other lies in the reference; None where nothing at all can be said.

    Raises:
        FormatError, InputError: One of them, which is named, is no recording or an empty one, or has neither sound nor a clock.
    """
    with ExitStack() as stack:
        first, second = looks = [_look(path, stack) for path in (reference, other)]
        clock_s = None
        if first.began_s is not None and second.began_s is not None:
            clock_s = float(apart(first.began_s, second.began_s))
        silent = next((look for look in looks if look.recording is None), None)
        if silent is not None:
            if clock_s is None:
                raise InputError(
                    f"{silent.path}: it has no sound, and not both have timecode: nothing tells where it lies"
                )
            rate_hz = 0 if first.recording is None else first.recording.rate_hz
            return _told(clock_s, Method.TIMECODE, BY_TIMECODE, rate_hz)
        with ThreadPoolExecutor(2) as pool:
            one, two = pool.map(_sound, looks)
        return _sync_sounds(one, two, clock_s)


def _look(path: Path, stack: ExitStack) -> _Look:
    """Open until the stack is done."""
    stream = stack.enter_context(reading(path))
    with at_file(path):
        facts = facts_of(stream)
        if facts is not None and facts.is_silent_movie:
            return _Look(path, None, movie_began(facts))
        recording = stack.enter_context(opened(stream))
        recording.prepare()
        return _Look(path, recording, began(stream, recording))


def _sound(look: _Look) -> Sound:
    assert look.recording is not None  # silent ones were told apart
    with at_file(look.path):
        return sound_of(look.recording)


def _sync_sounds(one: Sound, two: Sound, clock_s: float | None) -> Synced | None:
    """By their clocks, made sharp by what both hear there; else by the surest of clocks, of what both hear, and of claps."""
    if clock_s is not None and (near := heard_near(one, two, clock_s)) is not None:
        return _heard(near, Method.TIMECODE, max(near.confidence, BY_TIMECODE), one.rate_hz)
    ways = []
    if clock_s is not None:
        ways.append(_told(clock_s, Method.TIMECODE, BY_TIMECODE, one.rate_hz))
    if (found := align(one, two)) is not None:
        ways.append(_heard(found, Method.WAVEFORM, found.confidence, one.rate_hz))
    if (clapped := by_claps(one.profile.claps, two.profile.claps)) is not None:
        ways.append(_told(clapped[0], Method.CLAP, clapped[1], one.rate_hz))
    if not ways:
        return None
    best = max(ways, key=lambda way: way.confidence)
    disputed = clock_s is not None and abs(best.offset_s - clock_s) > DISPUTED_S
    return replace(best, timecode_s=clock_s if disputed else None)


def _told(offset_s: float, method: Method, confidence: float, reference_hz: int) -> Synced:
    return Synced(offset_s=offset_s, method=method, confidence=confidence, reference_hz=reference_hz)


def _heard(found: Alignment, method: Method, confidence: float, reference_hz: int) -> Synced:
    told = _told(found.offset_s, method, confidence, reference_hz)
    return replace(told, drift_ppm=found.drift_ppm, polarity=found.polarity)


def heard_near(reference: Sound, other: Sound, offset_s: float) -> Alignment | None:
    """What both hear where their clocks say, to the sample; None where they hear nothing in common there."""
    found = best_of(reference, other, [Place(offset_s, 0.0, tried=1)])
    return found if found is not None and found.confidence >= FOUND else None


def by_claps(reference: Sequence[float], other: Sequence[float]) -> tuple[float, float] | None:
    """The lag at which most first edges of claps lie on each other, in seconds, and its confidence; None where none does.

    One on each is a guess, and the more of them agree the surer it is; less where both are full of them.
    """
    found = common_lag(reference, other)
    if found is None:
        return None
    lag_s, agree = found
    sure = CLAPS_CONFIDENCE[min(agree, len(CLAPS_CONFIDENCE)) - 1]
    return lag_s, sure if agree == 1 else sure * (1.0 - claps_by_chance(reference, other, agree))
