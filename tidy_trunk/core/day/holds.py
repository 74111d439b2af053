"""Between which takes the set has to be held: a mixed-integer programme over all that runs out, solved by HiGHS."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from tidy_trunk.core.day.needs import Series
from tidy_trunk.core.day.timeline import CRUMB_MIN, Consumption, SlotKind, Timeline

SOLVER_S: Final = 0.4
"""ASSUMED_ seconds after which the best answer that was found counts."""

RENEWED: Final = 0.001
"""ASSUMED_ price of each renewal against that of holding the set once: as few as do, and never a hold for it."""

NOT_KEPT: Final = 20.0
"""ASSUMED_ price of what runs out, against that of holding the set once."""


@dataclass(frozen=True, slots=True)
class SetHolds:
    """Slots between two takes, by their place in the day; None where no answer was found in time."""

    slots: frozenset[int] | None
    is_proven: bool


def least_holds(line: Timeline, series: Sequence[Series], free_min: Sequence[float], *, hands: int) -> SetHolds:
    """The fewest times between two takes that have to be used so that nothing runs out that need not.

    One variable says of each thing and piece whether it is renewed there, one of each such time whether it is used. Of all pieces
    within which a thing must be renewed at least one is taken: rows of consecutive ones, which the relaxation solves almost
    whole. `free_min`: what is left of each slot for one pair of hands.
    """
    from scipy.optimize import Bounds, LinearConstraint, milp  # half a second: only where the set has to be held
    from scipy.sparse import csr_array

    model = _Model()
    used = {at: model.variable(1.0) for at, slot in enumerate(line.slots) if slot.kind is SlotKind.BETWEEN}
    minutes: dict[int, dict[int, float]] = {}
    for item in series:
        found = {}
        for number, piece in enumerate(line.pieces):
            slot = line.slots[piece.slot]
            fits = slot.kind is SlotKind.BETWEEN or slot.length_min >= item.minutes
            if fits and piece.begins_min >= item.not_before_min - CRUMB_MIN:
                found[number] = model.variable(RENEWED)
                minutes.setdefault(piece.slot, {})[found[number]] = item.minutes
                if piece.slot in used:
                    model.row({used[piece.slot]: 1.0, found[number]: -1.0}, 0.0, math.inf)
        for window in minimal(windows(line, item)):
            terms = {found[number]: 1.0 for number in window if number in found}
            terms[model.variable(NOT_KEPT)] = 1.0
            model.row(terms, 1.0, math.inf)
    for at, terms in minutes.items():
        if at not in used and sum(terms.values()) > hands * free_min[at]:
            model.row(terms, -math.inf, max(0.0, hands * free_min[at]))
    starts, columns, values = model.matrix()
    matrix = csr_array((values, columns, starts), shape=(len(model.rows), len(model.prices)))
    answer: Any = milp(
        np.array(model.prices),
        constraints=LinearConstraint(matrix, [row[1] for row in model.rows], [row[2] for row in model.rows]),
        integrality=np.ones(len(model.prices)),
        bounds=Bounds(0.0, 1.0),
        options={"time_limit": SOLVER_S},
    )
    if answer.x is None:
        return SetHolds(None, False)
    return SetHolds(
        frozenset(at for at, variable in used.items() if answer.x[variable] > 0.5), bool(answer.status == 0)
    )


class _Model:
    """Variables from 0 to 1 by their price, and rows as they come: terms, at least, at most."""

    def __init__(self) -> None:
        self.prices: list[float] = []
        self.rows: list[tuple[dict[int, float], float, float]] = []

    def variable(self, price: float) -> int:
        self.prices.append(price)
        return len(self.prices) - 1

    def row(self, terms: dict[int, float], low: float, high: float) -> None:
        self.rows.append((terms, low, high))

    def matrix(self) -> tuple[list[int], list[int], list[float]]:
        starts = [0]
        columns: list[int] = []
        values: list[float] = []
        for terms, _, _ in self.rows:
            columns.extend(terms)
            values.extend(terms.values())
            starts.append(len(columns))
        return starts, columns, values


def windows(line: Timeline, item: Series) -> list[range | None]:
    """Of which pieces one must renew it: from the day's beginning on, then after each piece in which it was renewed.

    None where it lasts to the end. What runs on whether it is used or not, as a clock's drift, is renewed by the next take that
    would suffer: it may be over in a pause. What is empty when the day begins, or the rest of it, is renewed in the first piece: nobody can do
    it earlier. That each such window holds a renewal says the same as that none runs out: whoever renews
    within one is later than its beginning, and lasts longer.
    """
    begins = item.used_all(line, np.array([piece.begins_min for piece in line.pieces]))
    ends = item.used_all(line, np.array([piece.ends_min for piece in line.pieces]))
    whole = item.used(line, line.last_take_ends_min)
    over_by = np.array([take.begins_min for take in line.takes if item.uses is Consumption.TIME])
    takes_end = item.used_all(line, np.array([take.ends_min for take in line.takes if item.uses is Consumption.TIME]))
    edges = [(0, item.left)]
    edges += [(number + 1, float(begun) + item.lasts.least_min) for number, begun in enumerate(begins)]
    found: list[range | None] = []
    for first, until in edges:
        if whole > until + CRUMB_MIN and len(over_by):
            suffers = int(np.searchsorted(takes_end, until + CRUMB_MIN, side="right"))
            until = max(until, item.used(line, float(over_by[suffers])))
        last = max(first, int(np.searchsorted(ends, until + CRUMB_MIN, side="right")))
        if first == last == 0 and item.left <= CRUMB_MIN:
            last = 1
        found.append(None if whole <= until + CRUMB_MIN else range(first, last))
    return found


def minimal(found: Iterable[range | None]) -> list[range]:
    """Those that contain no other one: what holds for them holds for all. One without a piece cannot be kept by anybody."""
    kept: list[range] = []
    for window in sorted({one for one in found if one}, key=lambda one: (one.stop, -one.start)):
        if not kept or window.start > kept[-1].start:
            kept.append(window)
    return kept
