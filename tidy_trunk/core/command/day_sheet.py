"""A day sheet from elsewhere, line by line: what is a set-up, a break, a company move, call or wrap."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.plan import BETWEEN_TAKES_MIN, Edit, Plan, SaveMove, SaveSetUp, SetBreak, SetJob
from tidy_trunk.errors import InputError

USUAL_TAKES: Final = 3
"""ASSUMED_ takes of a set-up of which only the time is said: they fill it."""

SHORTEST_TAKE_MIN: Final = 0.5
"""ASSUMED_ shortest take that is made of such a time."""

_BREAK: Final = re.compile(r"\b(break|lunch|dinner|breakfast|supper|tea|coffee|meal|pause)\b", re.IGNORECASE)
_MOVE: Final = re.compile(r"\b(?:company move|unit move|move|travel)\b(?:\s+to)?\s*(?P<to>.*)", re.IGNORECASE)
_CALL: Final = re.compile(r"\b(call|crew call)\b", re.IGNORECASE)
_WRAP: Final = re.compile(r"\bwrap\b", re.IGNORECASE)
_PREFIX: Final = re.compile(r"^\s*(?:set-?up|scene|sc\.?)\s+", re.IGNORECASE)


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetLine:
    """A line of a day sheet. takes, take_min: where they are said; 0 where not. Times in minutes."""

    title: str
    at_min: float
    length_min: float
    takes: int = 0
    take_min: float = 0.0


def sheet_edits(plan: Plan, lines: Sequence[SheetLine]) -> tuple[Edit, ...]:
    """The edits that bring a day sheet into a plan; what has a name that is there already is changed.

    Raises InputError: there is nothing in it.
    """
    found = tuple(edit for line in lines for edit in _edits(plan, line))
    if not found:
        raise InputError("there is nothing of a day in it: a line wants a name and a time")
    return found


def _edits(plan: Plan, line: SheetLine) -> Iterator[Edit]:
    title, at_min = " ".join(line.title.split())[:80], round(line.at_min)
    length = max(1, round(line.length_min))
    if not title:
        return
    move = _MOVE.search(title)
    if _WRAP.search(title):
        yield SetJob(day_ends_min=at_min)
    elif _CALL.search(title):
        yield SetJob(day_begins_min=at_min)
    elif _BREAK.search(title):
        known = {item.label.casefold(): item.id for item in plan.breaks.values()}
        yield SetBreak(label=title, at_min=at_min, length_min=length, id=known.get(title.casefold()))
    elif move is not None:
        label = move["to"].strip() or title
        known = {item.label.casefold(): item.id for item in plan.moves.values()}
        yield SaveMove(label=label, at_min=at_min, length_min=length, id=known.get(label.casefold()))
    else:
        label = _PREFIX.sub("", title) or title
        known = {item.label.casefold(): item.id for item in plan.set_ups.values()}
        takes, take_min = _takes(line)
        yield SaveSetUp(label=label, at_min=at_min, takes=takes, take_min=take_min, id=known.get(label.casefold()))


def _takes(line: SheetLine) -> tuple[int, float]:
    if line.takes and line.take_min:
        return line.takes, line.take_min
    takes = line.takes or USUAL_TAKES
    each = (line.length_min - (takes - 1) * BETWEEN_TAKES_MIN) / takes
    return (takes, round(each, 1)) if each >= SHORTEST_TAKE_MIN else (1, max(line.length_min, 1.0))
