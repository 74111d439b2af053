"""What goes wrong on a simulated day: which fault, on which device, in which take; alike for one seed."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from random import Random
from typing import Final

SHORTEST_S: Final = 8.0
"""ASSUMED_ least length of a take that a battery can spoil: what is lost of a shorter one is not told from a late tap."""


class DayFault(StrEnum):
    """What can be wrong with a file, as it happens on a set. Source: [PRACTICE]"""

    MISSED_BUTTON = "missed-button"
    DEAD_BATTERY = "dead-battery"
    WRONG_RATE = "wrong-rate"
    CLIPPED = "clipped"
    SILENT_TRACK = "silent-track"
    CUT_SHORT = "cut-short"
    WRONG_LABEL = "wrong-label"
    WRONG_DATE = "wrong-date"
    SWAPPED_NAMES = "swapped-names"
    LATE_CLOCK = "late-clock"


OF_PICTURES: Final = frozenset(
    {DayFault.MISSED_BUTTON, DayFault.DEAD_BATTERY, DayFault.WRONG_RATE, DayFault.LATE_CLOCK}
)
"""Faults of a camera's files: it labels no takes, and a movie that is cut short cannot be opened. [PRACTICE]"""

OF_SOUND: Final = frozenset(DayFault) - {DayFault.WRONG_RATE, DayFault.LATE_CLOCK}
"""Faults of a recorder's files: it has no pictures to be out of step with. [PRACTICE]"""


@dataclass(frozen=True, slots=True)
class StandInTake:
    """A take that was shot. seconds: its length; begins_s: since midnight, by its timecode."""

    id: str
    slate: str
    number: int
    begins_s: float
    seconds: float


@dataclass(frozen=True, slots=True)
class StandInDevice:
    """A device that recorded. tracks: how many it keeps to which something comes by the plan; names: how many
    of its tracks can be told apart by name."""

    label: str
    is_picture: bool
    tracks: int
    names: int


@dataclass(frozen=True, slots=True)
class PlannedFault:
    what: DayFault
    device: str
    take: str


def planned_faults(
    takes: Sequence[StandInTake], devices: Sequence[StandInDevice], count: int, seed: int
) -> list[PlannedFault]:
    """So many faults, each in a file of its own; fewer where there are not as many files. Kinds come again when all were."""
    by = Random(seed)
    free = [(device, take) for device in devices for take in takes]
    kinds: list[DayFault] = []
    found: list[PlannedFault] = []
    tries = 0
    while free and len(found) < count and tries < 4 * len(DayFault):
        tries += 1
        kinds = kinds or by.sample(list(DayFault), len(DayFault))
        what = kinds.pop()
        fitting = [pair for pair in free if _fits(what, *pair)]
        if what is DayFault.LATE_CLOCK:
            # It is told by what a recorder heard beside it: that has to be whole.
            beside = [device for device in devices if not device.is_picture]
            fitting = [pair for pair in fitting if beside and all((device, pair[1]) in free for device in beside)]
        if not fitting:
            continue
        chosen = by.choice(fitting)
        is_late = what is DayFault.LATE_CLOCK
        free = [
            pair
            for pair in free
            if pair != chosen and not (is_late and pair[1] == chosen[1] and not pair[0].is_picture)
        ]
        found.append(PlannedFault(what, chosen[0].label, chosen[1].id))
    return found


def _fits(what: DayFault, device: StandInDevice, take: StandInTake) -> bool:
    if what not in (OF_PICTURES if device.is_picture else OF_SOUND):
        return False
    if what in (DayFault.DEAD_BATTERY, DayFault.LATE_CLOCK) and take.seconds < SHORTEST_S:
        return False
    if what in (DayFault.CLIPPED, DayFault.SILENT_TRACK):
        return device.tracks > 0
    return device.names > 1 if what is DayFault.SWAPPED_NAMES else True
