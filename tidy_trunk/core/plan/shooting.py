"""The day as it is to be shot: set-ups with their takes, and company moves."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, NamedTuple

BETWEEN_TAKES_MIN: Final = 3.0
"""ASSUMED_ time from the end of one take to the beginning of the next in one set-up."""

MOST_SET_UPS: Final = 100
"""ASSUMED_ most set-ups of a day: a fast day of drama has 40."""

MOST_TAKES: Final = 60
"""ASSUMED_ most takes of one set-up."""

LONGEST_TAKE_MIN: Final = 12 * 60
"""ASSUMED_ longest take: a whole day of talks in one."""

MOST_MOVES: Final = 12
"""ASSUMED_ most company moves of a day."""

MOST_HANDS: Final = 12
"""ASSUMED_ most people of a sound crew."""

LONGEST_DAY_MIN: Final = 30 * 60
"""ASSUMED_ longest day, from call to wrap: days of 26 hours have been worked."""


class Slating(StrEnum):
    """How slates are named. SCENE: scene and letter of the set-up, `12C`; NUMBERS: each set-up has the next number."""

    SCENE = "scene"
    NUMBERS = "numbers"


@dataclass(frozen=True, slots=True, kw_only=True)
class SetUp:
    """A set-up: from when on, how many takes of what length in minutes, and how long between them.

    label: as the slate has it, such as `12C`; first_take: the number of its first one here.
    """

    id: str
    label: str
    at_min: int
    takes: int
    take_min: float
    between_min: float = BETWEEN_TAKES_MIN
    first_take: int = 1

    @property
    def ends_min(self) -> float:
        """The end of its last take."""
        return self.at_min + self.takes * self.take_min + (self.takes - 1) * self.between_min


@dataclass(frozen=True, slots=True, kw_only=True)
class CompanyMove:
    """A company move: everything is unplugged, carried, and put up again at the place that `label` names."""

    id: str
    label: str
    at_min: int
    length_min: int


class PlannedTake(NamedTuple):
    """One take of a set-up, in minutes since midnight."""

    set_up: str
    number: int
    begins_min: float
    ends_min: float


def planned_takes(set_ups: Iterable[SetUp]) -> Iterator[PlannedTake]:
    """Every take of a day, in the order of its set-ups."""
    for item in sorted(set_ups, key=lambda one: (one.at_min, one.id)):
        for number in range(item.takes):
            begins = item.at_min + number * (item.take_min + item.between_min)
            yield PlannedTake(item.id, item.first_take + number, begins, begins + item.take_min)
