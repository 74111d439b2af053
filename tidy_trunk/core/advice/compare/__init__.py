"""Ways to match a run beside each other: what was recorded, and what was predicted of it."""

from tidy_trunk.core.advice.compare.compare import (
    MOST_OPTIONS,
    Comparison,
    Discrepancy,
    NoiseKind,
    OptionPlan,
    RecordedLevels,
    compare,
    option_plans,
    track_reached,
)

__all__ = [
    "MOST_OPTIONS",
    "Comparison",
    "Discrepancy",
    "NoiseKind",
    "OptionPlan",
    "RecordedLevels",
    "compare",
    "option_plans",
    "track_reached",
]
