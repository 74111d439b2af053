"""Ways to match the level of a run, and ways by another box."""

from tidy_trunk.core.ways.candidates import PADDED_FROM_DB
from tidy_trunk.core.ways.detours import detours
from tidy_trunk.core.ways.rank import gain_way, ways
from tidy_trunk.core.ways.trial import ALLOWED_MISS_DB, Trial, Upstream, by_hand, reached
from tidy_trunk.core.ways.wanted_pad import FREE, WantedPad, wanted_pad
from tidy_trunk.core.ways.way import AUDIBLE_DB, NOTHING, Way

__all__ = [
    "ALLOWED_MISS_DB",
    "AUDIBLE_DB",
    "FREE",
    "NOTHING",
    "PADDED_FROM_DB",
    "Trial",
    "Upstream",
    "WantedPad",
    "Way",
    "by_hand",
    "detours",
    "gain_way",
    "reached",
    "wanted_pad",
    "ways",
]
