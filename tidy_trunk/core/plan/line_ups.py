"""What was found when a chain was lined up: tone sent here, read there. Measured beats typical."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final


class ReadFrom(StrEnum):
    """Where the level of the tone was read."""

    METER = "meter"
    RECORDING = "recording"
    EARLIER = "earlier"  # of the same pair in another job: to be verified
    SIMULATION = "simulation"  # simulated devices: for practice, and for the demo


READ_WITHIN_DB: Final[Mapping[ReadFrom, float]] = {
    ReadFrom.METER: 1.0,
    ReadFrom.RECORDING: 0.1,
    ReadFrom.SIMULATION: 0.1,
    ReadFrom.EARLIER: 3.0,
}
"""± of a reading: a recording is measured, and a meter is read by eye; what another job found holds within what one device of
a family differs from the next, until it is toned. [PRACTICE], [HANDBOOK] §6"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LineUp:
    """A tone that was sent through a chain, and what the track at its end showed.

    track: device and bus, as a trace is named; sender: the device that sent the tone, at `sent_dbfs`.
    predicted_dbfs: what the figures of the plan said then: what moves it since then makes the line-up stale.
    way: ports with their modes, and leads, between the two; another way is another line-up.
    when: date and time, ISO 8601.
    """

    track: str
    sender: str
    sent_dbfs: float
    read_dbfs: float
    predicted_dbfs: float
    way: tuple[str, ...]
    read_from: ReadFrom
    when: str
