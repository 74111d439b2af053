"""What an edit does to a plan, in a sentence."""

from collections.abc import Iterator, Sequence
from functools import singledispatch
from typing import Final

from tidy_trunk.core.plan import Edit, Plan

MOST_SENTENCES: Final = 5
"""ASSUMED_ what one line of the history holds: the rest is told by comparing states."""


@singledispatch
def sentence(edit: Edit, plan: Plan) -> str:
    """What an edit does to a plan (the state before), which must be able to take it."""
    raise NotImplementedError(f"nothing is said of {type(edit).__name__}")


def sentences(plan: Plan, edits: Sequence[Edit]) -> Iterator[str]:
    """What each of several edits does, each to the plan that the ones before it have made."""
    for edit in edits:
        yield sentence(edit, plan)
        plan = edit.apply(plan)


def in_one(plan: Plan, edits: Sequence[Edit]) -> str:
    """One line for all of several edits."""
    told = list(sentences(plan, edits))
    shown = told if len(told) <= MOST_SENTENCES else told[: MOST_SENTENCES - 1]
    more = f"; and {len(told) - len(shown)} more" if len(shown) < len(told) else ""
    return "; ".join(shown) + more
