"""A knob: where it can stand, and what it really does there."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, NamedTuple

from tidy_trunk.errors import RangeError

OFF_DB: Final = 100.0
"""ASSUMED_ what a knob takes off that is off: nothing is left to be heard, and no arithmetic breaks."""


class LawPoint(NamedTuple):
    """What a knob that stands at `position_db` was measured to give."""

    position_db: float
    gain_db: float


@dataclass(frozen=True, slots=True)
class Span:
    """Range of a knob in dB as it is marked, and where it stands when nobody has touched it.

    law: what it really gives at some of its positions, lowest first, rising; empty where the marks are believed.
    Between two of them it is a straight line, and outside of them as the marks say.
    lowest_is_off: turned down all the way nothing comes through any more.

    Raises:
        RangeError: A knob that cannot stand where it stands, or a law that does not rise.
    """

    minimum_db: float
    maximum_db: float
    step_db: float
    default_db: float
    law: tuple[LawPoint, ...] = ()
    lowest_is_off: bool = False

    def __post_init__(self) -> None:
        if not (self.minimum_db <= self.default_db <= self.maximum_db and self.step_db > 0):
            raise RangeError(
                f"a knob from {self.minimum_db} to {self.maximum_db} dB cannot stand at {self.default_db} dB"
            )
        if any(
            not (low.position_db < high.position_db and low.gain_db < high.gain_db) for low, high in pairwise(self.law)
        ):
            raise RangeError("a knob that is turned up makes it louder: this law does not rise from mark to mark")

    def is_off(self, position_db: float) -> bool:
        """Whether nothing comes through at a position."""
        return self.lowest_is_off and position_db <= self.minimum_db

    def gain_db(self, position_db: float) -> float:
        """What it really gives at a position."""
        if self.is_off(position_db):
            return self.minimum_db - OFF_DB
        return _on_line(position_db, [(point.position_db, point.gain_db) for point in self.law])

    def snapped_db(self, position_db: float) -> float:
        """The position at which it can stand that is nearest to another."""
        steps = round((position_db - self.minimum_db) / self.step_db)
        last = int((self.maximum_db - self.minimum_db) / self.step_db + 1e-9)
        return round(self.minimum_db + min(max(steps, 0), last) * self.step_db, 6)

    def nearest_db(self, wanted_db: float) -> float:
        """The position that gives what is nearest to a wanted gain; not the lowest where that is off."""
        near = self.snapped_db(_on_line(wanted_db, [(point.gain_db, point.position_db) for point in self.law]))
        if self.lowest_is_off:
            near = max(near, self.snapped_db(self.minimum_db + self.step_db))
        if not self.law:
            return near
        around = [self.snapped_db(near + step * self.step_db) for step in (-1, 0, 1)]
        return min(around, key=lambda position_db: abs(self.gain_db(position_db) - wanted_db))

    def at_most_db(self, limit_db: float) -> float:
        """The highest position that gives no more than a limit; the lowest where all do."""
        nearest = self.nearest_db(limit_db)
        return self.snapped_db(nearest - self.step_db) if self.gain_db(nearest) > limit_db else nearest

    @property
    def lowest_db(self) -> float:
        """What it gives turned down as far as anything comes through."""
        return self.above_lowest_db(1 if self.lowest_is_off else 0)

    def above_lowest_db(self, steps: int) -> float:
        """What it gives so many steps above its lowest position."""
        return self.gain_db(self.minimum_db + steps * self.step_db)


def _on_line(at: float, points: Sequence[tuple[float, float]]) -> float:
    """Straight between points that rise; outside of them, one for one."""
    if not points:
        return at
    first, last = points[0], points[-1]
    if at <= first[0]:
        return first[1] + at - first[0]
    if at >= last[0]:
        return last[1] + at - last[0]
    (x0, y0), (x1, y1) = next((low, high) for low, high in pairwise(points) if at <= high[0])
    return y0 + (y1 - y0) * (at - x0) / (x1 - x0)
