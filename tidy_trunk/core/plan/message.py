"""Something to be said about a plan, without its words: a code, and what the words need."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from tidy_trunk.core.plan.index import PlanIndex


@dataclass(frozen=True, slots=True)
class Message:
    """A code with the plan that it speaks of, and its facts: ids, ports, numbers. `words.messages` says it.

    code: a slug; facts: what the function of that name there takes.
    """

    code: str
    index: PlanIndex = field(compare=False)
    facts: Mapping[str, Any] = field(default_factory=dict)


def message(code: str, index: PlanIndex, **facts: Any) -> Message:
    return Message(code, index, facts)
