"""A plan, worked out: traces, levels and findings together."""

from functools import cached_property

from tidy_trunk.core.advice.checks import Finding, Severity, check
from tidy_trunk.core.plan import Plan, PlanIndex
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan


class Evaluation:
    """What there is to know about a plan; the findings are worked out when they are first asked for."""

    def __init__(self, plan: Plan) -> None:
        """Raises PlanError or InputError where the plan is not well formed."""
        self.plan = plan
        self.report = Report(trace_plan(plan))

    @property
    def index(self) -> PlanIndex:
        return self.report.index

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        return tuple(check(self.report))

    def count(self, severity: Severity) -> int:
        return sum(1 for finding in self.findings if finding.severity is severity)
