"""A run tried out with other settings and leads, worked out no further than its own joint."""

from tidy_trunk.core.advice.options.candidates import (
    AS_IT_IS,
    PADDED_FROM_DB,
    Candidate,
    RunEnds,
    candidates,
    modes_for,
)
from tidy_trunk.core.advice.options.option import MatchingOption, option_of
from tidy_trunk.core.advice.options.trial import (
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
from tidy_trunk.core.advice.options.wanted_pad import FREE, WantedPad, wanted_pad

__all__ = [
    "ALLOWED_MISS_DB",
    "AS_IT_IS",
    "AUDIBLE_DB",
    "FREE",
    "JUST_DB",
    "PADDED_FROM_DB",
    "PEAK_MARGIN_DB",
    "Candidate",
    "MatchingOption",
    "RunEnds",
    "Trial",
    "Upstream",
    "WantedPad",
    "arming",
    "built_in_run",
    "by_hand",
    "candidates",
    "modes_for",
    "option_of",
    "reached",
    "switched",
    "wanted_pad",
]
