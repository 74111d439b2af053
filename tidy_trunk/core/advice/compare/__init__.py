"""Ways to match a run beside each other: what was recorded, and what was predicted of it."""

from tidy_trunk.core.advice.compare.compare import (
    MOST_WAYS,
    Compared,
    NoiseKind,
    Recorded,
    Surprise,
    WayPlan,
    compare,
    track_reached,
    way_plans,
)

__all__ = [
    "MOST_WAYS",
    "Compared",
    "NoiseKind",
    "Recorded",
    "Surprise",
    "WayPlan",
    "compare",
    "track_reached",
    "way_plans",
]
