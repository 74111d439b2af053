"""Files that are laid over each other: by their timecode where both have one, else by what both hear."""

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from typing import BinaryIO, Final

from tidy_trunk.core.sync import align, common_lag
from tidy_trunk.formats import Recording
from tidy_trunk.services.mixdown import opened, sound_of
from tidy_trunk.services.moments import apart, began

FOUND: Final = 0.5
"""Confidence from which something is found: half of it is right. `docs/craft/sync.md`. ASSUMED_"""

BY_TIMECODE: Final = 0.95
"""ASSUMED_ confidence of two files that bear the same clock: somebody may have forgotten to jam one."""


CLAPS_CONFIDENCE: Final = (0.4, 0.75, 0.9, 0.97)
"""ASSUMED_ confidence of so many claps that lie on each other: one on each may be two different ones."""


class Method(StrEnum):
    """By what two files were laid over each other."""

    TIMECODE = "timecode"
    WAVEFORM = "waveform"
    CLAP = "clap"


@dataclass(frozen=True, slots=True, kw_only=True)
class Synced:
    """offset_s: from the reference's first sample to the other's, positive where that begins later, and in its samples.

    drift_ppm: positive where the other's clock runs fast; None where nobody can tell. polarity: 1, or -1 for opposite.
    """

    offset_s: float
    offset_samples: int
    drift_ppm: float | None
    polarity: int
    method: Method
    confidence: float
    reference_hz: int

    @property
    def is_found(self) -> bool:
        return self.confidence >= FOUND


def sync_files(reference: BinaryIO, other: BinaryIO) -> Synced | None:
    """Where the other lies in the reference; None where nothing at all can be said.

    Raises:
        FormatError, InputError: One of them is no recording, or holds no sound.
    """
    with opened(reference) as first, opened(other) as second:
        for recording in (first, second):
            recording.prepare()
        by_clock = _by_timecode((reference, first), (other, second))
        if by_clock is not None:
            return Synced(
                offset_s=float(by_clock),
                offset_samples=round(by_clock * first.rate_hz),
                drift_ppm=None,
                polarity=1,
                method=Method.TIMECODE,
                confidence=BY_TIMECODE,
                reference_hz=first.rate_hz,
            )
        with ThreadPoolExecutor(2) as pool:
            one, two = pool.map(sound_of, (first, second))
        found = align(one, two)
        if found is None or found.confidence < FOUND:
            clapped = by_claps(one.profile.claps, two.profile.claps)
            if clapped is not None:
                return Synced(
                    offset_s=clapped[0],
                    offset_samples=round(clapped[0] * first.rate_hz),
                    drift_ppm=None,
                    polarity=1,
                    method=Method.CLAP,
                    confidence=clapped[1],
                    reference_hz=first.rate_hz,
                )
        if found is None:
            return None
        return Synced(
            offset_s=found.offset_s,
            offset_samples=round(found.offset_s * first.rate_hz),
            drift_ppm=found.drift_ppm,
            polarity=found.polarity,
            method=Method.WAVEFORM,
            confidence=found.confidence,
            reference_hz=first.rate_hz,
        )


def by_claps(reference: Sequence[float], other: Sequence[float]) -> tuple[float, float] | None:
    """The lag at which most first edges of claps lie on each other, in seconds, and its confidence; None where none does.

    One on each is a guess, and the more of them agree the surer it is.
    """
    found = common_lag(reference, other)
    if found is None:
        return None
    lag_s, agree = found
    return lag_s, CLAPS_CONFIDENCE[min(agree, len(CLAPS_CONFIDENCE)) - 1]


def _by_timecode(*files: tuple[BinaryIO, Recording]) -> Fraction | None:
    """By how much the second begins later, as both clocks have it."""
    first, second = (began(stream, recording) for stream, recording in files)
    return None if first is None or second is None else apart(first, second)
