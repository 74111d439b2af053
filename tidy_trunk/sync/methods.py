"""By what one file is laid over another: their clocks, what both hear, claps."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.time.sync import Alignment, LagCandidate, Sound, best_of, claps_by_chance, common_lag

FOUND: Final = 0.5
"""Confidence from which something is found: half of it is right. `docs/craft/sync.md`. ASSUMED_"""

BY_TIMECODE: Final = 0.95
"""ASSUMED_ confidence of two files that bear the same clock: somebody may have forgotten to jam one."""

NOT_TOGETHER: Final = FOUND
"""ASSUMED_ confidence of two files that did not run at the same time by their clocks: what is heard or seen counts more, as
one of them was perhaps never jammed."""

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
class SyncResult:
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


def heard_near(reference: Sound, other: Sound, offset_s: float) -> Alignment | None:
    """What both hear where their clocks say, to the sample; None where they hear nothing in common there."""
    found = best_of(reference, other, [LagCandidate(offset_s, 0.0, tried=1)])
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


def likeliest_clap(reference: Sequence[float], other: Sequence[float]) -> tuple[float, float, float] | None:
    """Where a clap of one is likeliest the same as one of the other, in seconds of each, and how sure that is; None without
    claps.

    Where several places are as good the first clap of each is taken, as a slate comes first, and is the less sure the more there
    are. [PRACTICE]
    """
    if not reference or not other:
        return None
    found = by_claps(reference, other)
    if found is None:
        return min(reference), min(other), CLAPS_CONFIDENCE[0] / (len(reference) * len(other))
    lag_s, sure = found
    heard_s, seen_s = min(
        ((first, second) for first in reference for second in other),
        key=lambda pair: (round(abs(pair[0] - pair[1] - lag_s), 3), pair),
    )
    return heard_s, seen_s, sure
