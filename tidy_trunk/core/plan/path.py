"""Where a lead lies, and how long it must be for that."""

import math
from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.plan.model import Defaults, Hazard, Passing, Run

LENGTH_STEP_M: Final = 0.5
"""ASSUMED_ step in which leads are ordered."""

ALONG: Final = (Hazard.BESIDE_MAINS,)
"""What is passed for a length; all else is passed at a distance. [HANDBOOK] §4"""

FIELDS: Final = (Hazard.DIMMER, Hazard.LED, Hazard.MOTOR, Hazard.FURNACE, Hazard.TRANSMITTER)
"""What radiates into leads, the more the nearer. [PRACTICE]"""


def path_m(run: Run) -> float:
    """Length of the path in m, 0 where nobody has said."""
    return sum(stretch.length_m for stretch in run.path)


def needed_m(run: Run, defaults: Defaults) -> float:
    """What the leads of a run must measure together: the path, a share of it, and slack at each end. [PRACTICE]"""
    length_m = path_m(run)
    return length_m * (1 + defaults.slack_share) + 2 * defaults.slack_end_m if length_m else 0.0


def order_m(run: Run, defaults: Defaults) -> float:
    """The length to take: what is needed, up to the next half metre."""
    return math.ceil(needed_m(run, defaults) / LENGTH_STEP_M) * LENGTH_STEP_M


def passed(run: Run) -> Iterator[Passing]:
    """All that a run passes."""
    for stretch in run.path:
        yield from stretch.passes
