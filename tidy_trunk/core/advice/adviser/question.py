"""A plan about which advice is asked: all that rules look at, and what many moves are made from, worked out once."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from tidy_trunk.core.advice.adviser.matching_options import matching_options
from tidy_trunk.core.advice.checks import LOOKS_AT, RULES, Finding, Situation, by_rule, in_order
from tidy_trunk.core.advice.options import MatchingOption, Upstream
from tidy_trunk.core.plan import Edit, Plan, edited


@dataclass
class Question(Situation):
    """What makers of moves are given.

    settle: gives the plan that is asked about with every knob where it fits, also where this is one that is only tried; None
        where nobody asks for that.
    like: the question about the plan that this one was made from.
    """

    settle: Callable[[], Plan] | None = None
    like: "Question | None" = None
    _options: dict[str, list[MatchingOption]] = field(init=False, default_factory=dict)
    _upstream: dict[str, Upstream] = field(init=False, default_factory=dict)

    @cached_property
    def by_rule(self) -> Mapping[str, Sequence[Finding]]:
        """What each rule finds; where nothing has changed that it looks at, what it found before."""
        if self.like is None:
            return by_rule(self)
        known = self.like.by_rule
        return by_rule(self, {name: known[name] for name in RULES if not LOOKS_AT[name] & self.changed})

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """All that the rules have to say."""
        return tuple(in_order(self, self.by_rule))

    @property
    def settled(self) -> Plan:
        """The job with every knob where it fits."""
        return self.plan if self.settle is None else self.settle()

    def edited(self, edits: Sequence[Edit]) -> "Question":
        """The same about the plan with edits. Raises PlanError or InputError where it cannot be so."""
        return self.about(edited(self.plan, edits))

    def about(self, plan: Plan) -> "Question":
        """The same about another plan of the job: what both share is taken over. Raises as `edited`."""
        return Question(plan, self.report.edited(plan), settle=self.settle, like=self, before=self)

    def matching_options(self, run_id: str) -> list[MatchingOption]:
        """The matching options of a run, best first."""
        if run_id not in self._options:
            self._options[run_id] = matching_options(self.report, run_id, self.upstream(run_id))
        return self._options[run_id]

    def upstream(self, run_id: str) -> Upstream:
        """What no option of a run can change."""
        device = self.plan.runs[run_id].receiving.device
        if device not in self._upstream:
            self._upstream[device] = Upstream(self.report, device)
        return self._upstream[device]
