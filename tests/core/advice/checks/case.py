"""A rule's example: a plan that has what it looks for, and its nearest neighbour that has not."""

from dataclasses import dataclass

from tidy_trunk.core.advice.checks import Severity
from tidy_trunk.core.plan import Plan


@dataclass(frozen=True)
class Case:
    rule: str
    bad: Plan
    good: Plan
    severity: Severity
    says: str
    cured: bool = True  # whether its first fix makes it go away


STOP, CAUTION, NOTE = Severity.STOP, Severity.CAUTION, Severity.NOTE
