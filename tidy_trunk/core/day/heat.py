"""How warm a camera gets that records take after take, and where it would switch off."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.plan import PlannedTake

COOLS_LIKE: Final = 1.0
"""ASSUMED_ time constant, as a share of the time after which it overheats: a camera cools about as fast as it warms up."""

AT_FULL: Final = 1 / (1 - math.exp(-1 / COOLS_LIKE))
"""How hot it would get in the end, where 1 is too hot: so that a take as long as its limit just reaches that. ASSUMED_ with the time constant"""


@dataclass(frozen=True, slots=True)
class Overheating:
    """The take in which a camera gets too hot, when, and how much longer it has to cool before it; None where no pause helps."""

    take: PlannedTake
    at_min: float
    pause_min: float | None


def overheated(takes: Iterable[PlannedTake], limit_min: float) -> Overheating | None:
    """The first take that a camera does not last; None where it lasts the day.

    One lump that is warmed while it records and cools between takes, by Newton's law of cooling (textbook).

    Args:
        takes: In their order.
        limit_min: How long it records in one go, from cold.
    """
    constant_min = COOLS_LIKE * limit_min
    heat, until = 0.0, -math.inf
    for take in takes:
        heat *= math.exp(-max(take.begins_min - until, 0.0) / constant_min)
        length = take.ends_min - take.begins_min
        after = _warmed(heat, length, constant_min)
        if after > 1 + 1e-9:
            at_min = take.begins_min + constant_min * math.log((AT_FULL - heat) / (AT_FULL - 1))
            allowed = AT_FULL - (AT_FULL - 1) * math.exp(length / constant_min)
            pause_min = constant_min * math.log(heat / allowed) if 0 < allowed < heat else None
            return Overheating(take, at_min, pause_min)
        heat, until = after, take.ends_min
    return None


def _warmed(heat: float, minutes: float, constant_min: float) -> float:
    return AT_FULL + (heat - AT_FULL) * math.exp(-minutes / constant_min)
