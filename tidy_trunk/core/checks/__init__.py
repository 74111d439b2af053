"""Rules on a plan, and what they find. What mends it is the adviser's to say."""

from tidy_trunk.core.checks.rule import RULES, Carrier, Finding, Joint, Severity, Situation
from tidy_trunk.core.checks.run import check, findings

__all__ = ["RULES", "Carrier", "Finding", "Joint", "Severity", "Situation", "check", "findings"]
