"""What a line would do, and what is said where it cannot be understood."""

from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.advice.checks import PlacedFinding
from tidy_trunk.core.plan import Edit, Message, Plan, apply_edits
from tidy_trunk.errors import TidyTrunkError


@dataclass(frozen=True, slots=True)
class Proposal:
    """What a line would do to a plan, and the stops that it brings.

    does: what it is called; None where its edits say it all. outcome: what is then heard at its end; None where nobody asks.
    """

    plan: Plan
    edits: tuple[Edit, ...]
    does: Message | None = None
    outcome: Message | None = None
    stops: tuple[PlacedFinding, ...] = ()


class NotUnderstoodError(TidyTrunkError):
    """A line that means nothing here; the message says what of it was understood."""

    default_code = "say"


def single(plan: Plan, *edits: Edit) -> Proposal:
    """A proposal of edits that say it all. Raises PlanError or InputError where they cannot be done."""
    apply_edits(plan, edits)
    return Proposal(plan, edits)


def possible(plan: Plan, *edits: Edit) -> Iterator[Proposal]:
    """The same as an iterator, empty where it cannot be done: for one candidate among several."""
    try:
        yield single(plan, *edits)
    except TidyTrunkError:
        return
