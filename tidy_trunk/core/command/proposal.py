"""What a line would do, and what is said where it cannot be understood."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.checks import PlacedFinding
from tidy_trunk.core.plan import Edit, Plan, apply_edits, sentences
from tidy_trunk.errors import TidyTrunkError

MOST_IN_TITLE: Final = 2
"""ASSUMED_ how many sentences still read as one line."""


@dataclass(frozen=True, slots=True)
class Proposal:
    """What a line would do: one sentence for each edit, the result, and the edits; and the stops that it brings."""

    title: str
    steps: tuple[str, ...]
    outcome: str
    edits: tuple[Edit, ...]
    stops: tuple[PlacedFinding, ...] = ()


class NotUnderstoodError(TidyTrunkError):
    """A line that means nothing here; the message says what of it was understood."""

    default_code = "say"


def single(plan: Plan, *edits: Edit) -> Proposal:
    """A proposal of edits whose sentences say it all. Raises PlanError or InputError where they cannot be done."""
    steps = tuple(sentences(plan, edits))
    apply_edits(plan, edits)
    if len(edits) <= MOST_IN_TITLE:
        return Proposal("; ".join(steps), (), "", tuple(edits))
    return Proposal(steps[0], steps, "", tuple(edits))


def possible(plan: Plan, *edits: Edit) -> Iterator[Proposal]:
    """The same as an iterator, empty where it cannot be done: for one candidate among several."""
    try:
        yield single(plan, *edits)
    except TidyTrunkError:
        return
