"""Rules on a plan, what they find, and the fixes they offer."""

from tidy_trunk.core.checks.rule import RULES, Finding, Fix, Severity
from tidy_trunk.core.checks.run import check

__all__ = ["RULES", "Finding", "Fix", "Severity", "check"]
