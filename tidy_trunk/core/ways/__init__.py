"""Ways to match the level of a run."""

from tidy_trunk.core.ways.candidates import PADDED_FROM_DB
from tidy_trunk.core.ways.rank import ALLOWED_MISS_DB, AUDIBLE_DB, Way, ways

__all__ = ["ALLOWED_MISS_DB", "AUDIBLE_DB", "PADDED_FROM_DB", "Way", "ways"]
