"""A plan about which advice is asked: all that rules look at, and what many moves are made from, worked out once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

from tidy_trunk.core.advice.ways import ways
from tidy_trunk.core.checks import Finding, Situation, findings
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.ways import Upstream, Way


@dataclass
class Question(Situation):
    """What makers of moves are given. `settle`: how a job is settled, as far as these devices go."""

    settle: Callable[["Question", frozenset[str]], Plan]
    _settled: dict[frozenset[str], Plan] = field(init=False, default_factory=dict)
    _ways: dict[str, list[Way]] = field(init=False, default_factory=dict)
    _upstream: dict[str, Upstream] = field(init=False, default_factory=dict)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """All that the rules have to say."""
        return tuple(findings(self))

    def settled(self, devices: frozenset[str]) -> Plan:
        """The plan with every knob and level switch where it fits, from the microphones on up to these devices at least."""
        if devices not in self._settled:
            self._settled[devices] = self.settle(self, devices)
        return self._settled[devices]

    def ways(self, run_id: str) -> list[Way]:
        """The ways to match a run, best first."""
        if run_id not in self._ways:
            self._ways[run_id] = ways(self.report, run_id, self.upstream(run_id))
        return self._ways[run_id]

    def upstream(self, run_id: str) -> Upstream:
        """What no way of a run can change."""
        device = self.plan.runs[run_id].receiving.device
        if device not in self._upstream:
            self._upstream[device] = Upstream(self.report, device)
        return self._upstream[device]
