"""Rooms: how far their reverberation lets one go from a source, and how loud they are when nobody speaks."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, slots=True)
class Room:
    """A kind of place; volume and reverberation 0 in the open.

    noise_db_a, rumble_db_spl: usual at a microphone when nobody speaks; what lies below the voice, unweighted.
    """

    id: str
    label: str
    volume_m3: float
    reverberation_s: float
    noise_db_a: float
    rumble_db_spl: float

    def critical_distance_m(self, directivity: float) -> float:
        """Where a microphone hears as much of the room as of a source that radiates all round; inf in the open.

        0.057 · √(V · Q / T60), V in m³, T60 in s, Q the directivity of the microphone: 1 for an omnidirectional one.

        Source: [HANDBOOK] §15.6
        """
        if not self.reverberation_s:
            return math.inf
        return CRITICAL_FACTOR * math.sqrt(self.volume_m3 * directivity / self.reverberation_s)


CRITICAL_FACTOR: Final = 0.057
"""Of the critical distance in metric units. [HANDBOOK] §15.6"""

OPEN: Final = "open"
"""The place without walls: 6 dB for each doubling, however far. [HANDBOOK] §2"""

ROOMS: Final[Mapping[str, Room]] = {
    room.id: room
    for room in (
        Room(OPEN, "in the open", 0, 0, 45, 60),
        Room("stage", "treated stage", 1_000, 0.5, 25, 35),
        Room("furnished", "furnished room", 75, 0.5, 32, 45),
        Room("office", "bare office", 100, 0.9, 40, 50),
        Room("hall", "hall", 2_000, 1.6, 38, 50),
        Room("church", "church", 8_000, 4.0, 35, 45),
        Room("works", "workshop", 5_000, 2.5, 60, 70),
    )
}
"""Usual sizes, reverberation and noise of places. [MEMORY]"""
