"""Time on a set as it is planned: the day, its breaks, who is jammed by whom and when, and how fast two clocks part."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

DAY_BEGINS_MIN, DAY_ENDS_MIN = 8 * 60, 18 * 60
"""ASSUMED_ a day of ten hours: minutes since midnight."""

MOST_JAMS: Final = 100
"""ASSUMED_ most jams of one device in a day: what needs more stays on the lead."""

MOST_BREAKS: Final = 20
"""ASSUMED_ most breaks of a day."""

LAST_MIN: Final = 48 * 60
"""ASSUMED_ latest minute of a day: one that began yesterday evening may go on through today."""

SURE_WITHIN_PPM: Final = 0.5
"""ASSUMED_ how far a measured drift changes again with the temperature: half of what a compensated clock is good for."""


class JamOver(StrEnum):
    """Over what timecode is handed on before the device runs alone."""

    LEAD = "lead"
    RADIO = "radio"


@dataclass(frozen=True, slots=True, kw_only=True)
class Jam:
    """From whom a device is set, over what, and when; then it runs alone. at_min: minutes since midnight, rising."""

    giver: str
    over: JamOver = JamOver.LEAD
    at_min: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Break:
    """A time of the day at which jamming costs nobody anything."""

    id: str
    label: str
    at_min: int
    length_min: int


def longest_stretch_min(begins_min: int, ends_min: int, breaks: Iterable[Break]) -> int:
    """The longest time of a day without a break."""
    longest, begun = 0, begins_min
    for item in sorted(breaks, key=lambda item: item.at_min):
        longest = max(longest, min(item.at_min, ends_min) - begun)
        begun = max(begun, item.at_min + item.length_min)
    return max(longest, ends_min - begun)


@dataclass(frozen=True, slots=True, kw_only=True)
class PairDrift:
    """How fast two clocks were measured to part. ppm: positive where the second runs fast against the first."""

    first: str
    second: str
    ppm: float
    within_ppm: float = SURE_WITHIN_PPM
    when: str

    @property
    def key(self) -> str:
        """There is one for each pair, whichever is named first."""
        return pair_key(self.first, self.second)

    @property
    def worst_ppm(self) -> float:
        """As far as they may part, either way."""
        return abs(self.ppm) + self.within_ppm


def pair_key(first: str, second: str) -> str:
    return " ".join(sorted((first, second)))


def clock_words(minutes: int) -> str:
    """Minutes since midnight as a watch shows them: `08:00`; the day after begins again at midnight."""
    return f"{minutes // 60 % 24:02}:{minutes % 60:02}"
