"""Rules on a plan, and what they find. What mends it is the adviser's to say."""

from tidy_trunk.core.advice.checks.rule import (
    LOOKS_AT,
    RULES,
    STATIONS,
    Carrier,
    Finding,
    Joint,
    PlacedFinding,
    Severity,
    Situation,
)
from tidy_trunk.core.advice.checks.run import by_rule, check, in_order

__all__ = [
    "LOOKS_AT",
    "RULES",
    "STATIONS",
    "Carrier",
    "Finding",
    "Joint",
    "PlacedFinding",
    "Severity",
    "Situation",
    "by_rule",
    "check",
    "in_order",
]
