"""Ways to match a run beside each other: what was recorded, and what was predicted of it."""

from tidy_trunk.core.advice.compare.compare import (
    MOST_WAYS,
    Comparison,
    Discrepancy,
    NoiseKind,
    RecordedLevels,
    WayPlan,
    compare,
    track_reached,
    way_plans,
)

__all__ = [
    "MOST_WAYS",
    "Comparison",
    "Discrepancy",
    "NoiseKind",
    "RecordedLevels",
    "WayPlan",
    "compare",
    "track_reached",
    "way_plans",
]
