"""A run tried out with other settings and leads, worked out no further than its own joint."""

from tidy_trunk.core.advice.ways.candidates import AS_IT_IS, PADDED_FROM_DB, Candidate, RunEnds, candidates, modes_for
from tidy_trunk.core.advice.ways.trial import (
    ALLOWED_MISS_DB,
    AUDIBLE_DB,
    JUST_DB,
    PEAK_MARGIN_DB,
    Trial,
    Upstream,
    arming,
    built_in_run,
    by_hand,
    reached,
    switched,
)
from tidy_trunk.core.advice.ways.wanted_pad import FREE, WantedPad, wanted_pad
from tidy_trunk.core.advice.ways.way import Way, way_of

__all__ = [
    "ALLOWED_MISS_DB",
    "AS_IT_IS",
    "AUDIBLE_DB",
    "FREE",
    "JUST_DB",
    "PADDED_FROM_DB",
    "PEAK_MARGIN_DB",
    "Candidate",
    "RunEnds",
    "Trial",
    "Upstream",
    "WantedPad",
    "Way",
    "arming",
    "built_in_run",
    "by_hand",
    "candidates",
    "modes_for",
    "reached",
    "switched",
    "wanted_pad",
    "way_of",
]
