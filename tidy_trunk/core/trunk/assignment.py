"""Which piece serves which run: as few joins, as little waste and as much that was tested as the trunk allows.

An integer programme, solved by HiGHS through scipy: pieces that are alike are counted, not told apart, so that it stays small.
"""

from collections import defaultdict
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from tidy_trunk.core.gear.catalogue import LeadClass, mates
from tidy_trunk.core.trunk.needs import CableNeed
from tidy_trunk.core.trunk.stock import Piece

JUST_M: Final = 0.05
"""ASSUMED_ by how much a cable may be shorter than it was asked for: a hand's breadth is in the slack."""

SHORT_COST: Final = 100_000.0
"""ASSUMED_ cost of a run that nothing is left for: more than anything else together."""

SHORT_COST_PER_M: Final = 100.0
"""ASSUMED_ cost of each metre of it: if one has to be bought, it is the shortest."""

NO_SPARE_COST: Final = 1_000.0
"""ASSUMED_ cost of a run that cannot be repeated, without a spare: less than a run without a cable, more than joins."""

JOIN_COST: Final = 100.0
"""ASSUMED_ cost of a join: every one is a fault to come, and worth twenty metres of waste."""

UNTESTED_COST, UNTESTED_ONCE_COST = 3.0, 30.0
"""ASSUMED_ cost of a piece that nobody has tested; on what happens only once more."""

WASTE_COST_PER_M: Final = 1.0
"""ASSUMED_ cost of each metre too many: it lies about, and is missing elsewhere."""

TIME_S: Final = 10.0
"""ASSUMED_ longest time that the best answer is looked for: what has been found until then is taken."""

MOST_JOINED: Final = 3
"""ASSUMED_ most pieces in place of one cable, as of leads in a proposal."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ServedNeed:
    """A need and what serves it. pieces: ids, from the sender on; none where it is short. spare: a piece kept for it, "" where
    none is wanted or left. over_m: by how much they are longer than asked for."""

    need: CableNeed
    pieces: tuple[str, ...]
    spare: str = ""
    over_m: float = 0.0

    @property
    def joins(self) -> int:
        return max(len(self.pieces) - 1, 0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Assignment:
    """cost: of the whole, by the costs above; is_best: none is cheaper."""

    served: tuple[ServedNeed, ...]
    cost: float
    is_best: bool

    @property
    def short(self) -> tuple[CableNeed, ...]:
        return tuple(one.need for one in self.served if not one.pieces)

    @property
    def unspared(self) -> tuple[CableNeed, ...]:
        return tuple(one.need for one in self.served if one.pieces and one.need.is_once and not one.spare)


@dataclass(frozen=True, slots=True)
class _Batch:
    """Pieces that are alike, by their ids."""

    lead: LeadClass
    length_m: float
    is_tested: bool
    pieces: tuple[str, ...]


def stands_in_for(piece: LeadClass, wanted: LeadClass) -> bool:
    """Whether a cable does just what another does: the same plugs, contacts and attenuation. [HANDBOOK] §4

    One that is wired one to one never stands in for one that feeds tip and ring.
    """
    return piece is wanted or (
        (piece.sending, piece.receiving, piece.tail) == (wanted.sending, wanted.receiving, wanted.tail)
        and _wiring(piece) == _wiring(wanted)
        and _loss(piece) == _loss(wanted)
        and (piece.balanced or not wanted.balanced)
        and piece.characteristic_ohm == wanted.characteristic_ohm
    )


def _wiring(lead: LeadClass) -> dict[str, tuple[frozenset[object], frozenset[object], frozenset[object]]]:
    return {
        branch: (frozenset(way.wires), frozenset(way.bridges), frozenset(way.windings))
        for branch, way in lead.ways.items()
    }


def _loss(lead: LeadClass) -> float:
    return 0.0 if lead.loss_db is None else lead.loss_db.value


def lengthens(piece: LeadClass, wanted: LeadClass) -> bool:
    """Whether a cable can be put before or behind another and only makes it longer: straight through, by plugs that mate."""
    if set(piece.ways) != {""} or piece.tail is not None or piece.loss_db is not None:
        return False
    way = piece.ways[""]
    if way.bridges or way.windings or any(wire.near != wire.far or wire.ohm for wire in way.wires):
        return False
    is_as_good = (piece.balanced or not wanted.balanced) and piece.characteristic_ohm == wanted.characteristic_ohm
    before = piece.sending == wanted.sending and mates(piece.receiving, wanted.sending)
    behind = piece.receiving == wanted.receiving and mates(wanted.receiving, piece.sending)
    return is_as_good and (before or behind)


def assign(
    needs: Sequence[CableNeed],
    pieces: Sequence[Piece],
    leads: Mapping[str, LeadClass],
    fixed: Mapping[str, Collection[str]] | None = None,
) -> Assignment:
    """The cheapest way to serve all needs from whole pieces.

    Args:
        leads: Classes of cables by id.
        fixed: By need, pieces that are to serve it whatever that costs; they serve nothing else.
    """
    fixed = fixed or {}
    held = {piece for chosen in fixed.values() for piece in chosen}
    batches = _batches([piece for piece in pieces if piece.id not in held], leads)
    open_needs = [need for need in needs if not fixed.get(need.id)]
    found, is_best = _solved(open_needs, batches)
    lengths = {piece.id: piece.length_m for piece in pieces}
    served = {
        need.id: ServedNeed(
            need=need,
            pieces=tuple(fixed[need.id]),
            over_m=sum(lengths[one] for one in fixed[need.id]) - need.length_m,
        )
        for need in needs
        if fixed.get(need.id)
    }
    served |= {one.need.id: one for one in found}
    whole = tuple(served[need.id] for need in needs)
    tested = {piece.id for piece in pieces if piece.tested}
    return Assignment(served=whole, cost=sum(cost_of(one, tested) for one in whole), is_best=is_best)


def cost_of(one: ServedNeed, tested: Collection[str]) -> float:
    """What serving a need costs. tested: ids of pieces that were."""
    if not one.pieces:
        return SHORT_COST + SHORT_COST_PER_M * one.need.length_m
    untested = UNTESTED_ONCE_COST if one.need.is_once else UNTESTED_COST
    return (
        JOIN_COST * one.joins
        + WASTE_COST_PER_M * max(one.over_m, 0.0)
        + untested * sum(piece not in tested for piece in one.pieces)
        + (NO_SPARE_COST if one.need.is_once and not one.spare else 0.0)
    )


def _batches(pieces: Sequence[Piece], leads: Mapping[str, LeadClass]) -> list[_Batch]:
    found: dict[tuple[str, float, bool], list[str]] = defaultdict(list)
    for piece in pieces:
        if piece.is_whole and piece.what in leads:
            found[piece.what, piece.length_m, bool(piece.tested)].append(piece.id)
    return [
        _Batch(leads[what], length_m, is_tested, tuple(ids))
        for (what, length_m, is_tested), ids in sorted(found.items())
    ]


def _solved(needs: Sequence[CableNeed], batches: Sequence[_Batch]) -> tuple[list[ServedNeed], bool]:
    """Variables: for each need and batch how many lie in it as the cable itself, and as what lengthens it; whether one of it is
    kept as its spare; whether the need is short, and whether it has no spare."""
    if not needs:
        return [], True
    costs: list[float] = []
    most: list[float] = []
    uses: dict[int, list[int]] = defaultdict(list)

    def variable(cost: float, upper: float, batch: int | None = None) -> int:
        costs.append(cost)
        most.append(upper)
        if batch is not None:
            uses[batch].append(len(costs) - 1)
        return len(costs) - 1

    rows: list[tuple[dict[int, float], float, float]] = []
    heads: list[dict[int, int]] = []
    longer: list[dict[int, int]] = []
    spares: list[dict[int, int]] = []
    for need in needs:
        untested = UNTESTED_ONCE_COST if need.is_once else UNTESTED_COST
        as_head, as_longer, as_spare = {}, {}, {}
        for number, batch in enumerate(batches):
            each = WASTE_COST_PER_M * batch.length_m + (0.0 if batch.is_tested else untested)
            count = float(min(len(batch.pieces), MOST_JOINED))
            if stands_in_for(batch.lead, need.lead):
                as_head[number] = variable(each, 1.0, number)
                if need.is_once and batch.length_m >= need.length_m - JUST_M:
                    as_spare[number] = variable(0.01 * batch.length_m, 1.0, number)
            if lengthens(batch.lead, need.lead):
                as_longer[number] = variable(each + JOIN_COST, count, number)
        short = variable(SHORT_COST + SHORT_COST_PER_M * need.length_m + WASTE_COST_PER_M * need.length_m, 1.0)
        # One cable, or none and it is short.
        rows.append(({**dict.fromkeys(as_head.values(), 1.0), short: 1.0}, 1.0, 1.0))
        parts = {**{at: batches[number].length_m for number, at in as_head.items()}}
        parts |= {at: batches[number].length_m for number, at in as_longer.items()}
        wanted = max(need.length_m - JUST_M, 0.0)
        rows.append(({**parts, short: wanted}, wanted, np.inf))
        if as_longer:
            # What lengthens nothing is not laid there.
            rows.append(
                ({**dict.fromkeys(as_longer.values(), 1.0), short: float(MOST_JOINED - 1)}, 0.0, MOST_JOINED - 1.0)
            )
        if need.is_once:
            alone = variable(NO_SPARE_COST, 1.0)
            rows.append(({**dict.fromkeys(as_spare.values(), 1.0), alone: 1.0, short: 1.0}, 1.0, np.inf))
        heads.append(as_head)
        longer.append(as_longer)
        spares.append(as_spare)
    for number, at in uses.items():
        rows.append((dict.fromkeys(at, 1.0), 0.0, float(len(batches[number].pieces))))
    solution = _milp(costs, most, rows)
    left = {number: list(batch.pieces) for number, batch in enumerate(batches)}

    def taken(chosen: Mapping[int, int]) -> list[str]:
        return [left[number].pop(0) for number, at in chosen.items() for _ in range(round(solution.x[at]))]

    found = []
    for number, need in enumerate(needs):
        cable = taken(heads[number])
        more = taken(longer[number]) if cable else []
        lengths = {piece: batch.length_m for batch in batches for piece in batch.pieces}
        pieces = tuple([*more, *cable] if _goes_before(more, batches, need) else [*cable, *more])
        over_m = sum(lengths[piece] for piece in pieces) - need.length_m if pieces else 0.0
        spare = taken(spares[number]) if need.is_once and cable else []
        found.append(ServedNeed(need=need, pieces=pieces, spare=spare[0] if spare else "", over_m=over_m))
    return found, solution.status == 0


def _milp(costs: Sequence[float], most: Sequence[float], rows: Sequence[tuple[Mapping[int, float], float, float]]):  # type: ignore[no-untyped-def]
    from scipy.optimize import Bounds, LinearConstraint, milp  # half a second: only where something is packed
    from scipy.sparse import coo_array

    places = [(row, column, value) for row, (weights, _, _) in enumerate(rows) for column, value in weights.items()]
    matrix = coo_array(
        ([value for *_, value in places], ([row for row, _, _ in places], [column for _, column, _ in places])),
        shape=(len(rows), len(costs)),
    )
    limits = LinearConstraint(matrix.tocsr(), [low for _, low, _ in rows], [high for _, _, high in rows])
    return milp(
        np.array(costs),
        integrality=np.ones(len(costs)),
        bounds=Bounds(np.zeros(len(costs)), np.array(most)),
        constraints=limits,
        options={"time_limit": TIME_S, "mip_rel_gap": 0.0},
    )


def _goes_before(more: Sequence[str], batches: Sequence[_Batch], need: CableNeed) -> bool:
    """Whether what lengthens a cable is put before it: it takes the sender's plug."""
    first = next((batch.lead for batch in batches if more and more[0] in batch.pieces), None)
    return first is not None and first.sending == need.lead.sending and mates(first.receiving, need.lead.sending)
