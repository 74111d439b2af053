"""Where a job wants its levels, for each thing that a track is kept for."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final


class Role(StrEnum):
    """What a track is kept for: how loud it ought to be depends on it. [HANDBOOK] §§6, 8"""

    DIALOGUE = "dialogue"
    EFFECTS = "effects"
    GUIDE = "guide"  # only to find sync, or in an emergency
    TIMECODE = "timecode"


@dataclass(frozen=True, slots=True)
class Target:
    """Range in dBFS for the average (or, where `of_peaks`, for the peaks) of a recorded track."""

    id: str
    label: str
    low_dbfs: float
    high_dbfs: float
    of_peaks: bool = False

    @property
    def words(self) -> str:
        what = "peaks" if self.of_peaks else "average"
        return f"{what} {self.low_dbfs:g} to {self.high_dbfs:g} dBFS".replace("-", "−")

    def miss_db(self, average_dbfs: float, peak_dbfs: float) -> float:
        """How far outside the range: positive above it, negative below, 0 inside."""
        level = peak_dbfs if self.of_peaks else average_dbfs
        return max(level - self.high_dbfs, 0.0) + min(level - self.low_dbfs, 0.0)


TARGETS: Final[Mapping[str, Target]] = {
    target.id: target
    for target in (
        Target("film", "film", -20, -12),
        Target("broadcast", "broadcast", -18, -9, of_peaks=True),
        Target("wide", "wide margin", -24, -12),
        Target("unrehearsed", "unrehearsed", -23, -17),
        Target("direct", "direct to camera", -12, -6, of_peaks=True),
        Target("top", "close to the top", -10, -3, of_peaks=True),
        Target("guide", "guide", -36, -12),
        Target("timecode", "timecode", -20, -6, of_peaks=True),
    )
}
"""Targets of handbook §6. [PRACTICE]; that broadcast, direct and top are read on peaks is ASSUMED_ (their averages would
clip); guide and timecode [MEMORY]: loud enough to be found and decoded, with room"""
