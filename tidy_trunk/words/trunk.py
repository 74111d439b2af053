"""The trunk in words: pieces, which of them serves a run, what a test found."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.plan import MoveRun, PlanIndex, SetParts, edited
from tidy_trunk.core.trunk import CableFault, OtherWay, Piece, PieceKind, ServedNeed, TestedFault
from tidy_trunk.words.edits import sentence
from tidy_trunk.words.numbers import listed, many
from tidy_trunk.words.rows import parts_words


def piece_words(piece: Piece) -> str:
    """`5 m XLR`, `two XLR to XLR-5`, `battery, 98 Wh`, with its number."""
    length = f"{piece.length_m:g} m " if piece.kind is PieceKind.CABLE else ""
    wh = f", {piece.wh:g} Wh" if piece.wh else ""
    number = f" no. {piece.number}" if piece.number else ""
    return f"{length}{piece.label}{wh}{number}"


def served_words(one: ServedNeed, pieces: Mapping[str, Piece]) -> str:
    """What lies in a run, with what is left over; or that nothing is left for it."""
    if not one.pieces:
        return "short"
    told = " + ".join(piece_words(pieces[piece]) for piece in one.pieces)
    where = listed(list(dict.fromkeys(case for piece in one.pieces if (case := pieces[piece].case))) or [""])
    over = f", {one.over_m:g} m too many" if round(one.over_m, 1) >= 1 else ""
    joins = f", {many(one.joins, 'join')}" if one.joins else ""
    return f"{told}{joins}{over}{f' ({where})' if where else ''}"


def other_way_words(way: OtherWay, index: PlanIndex) -> str:
    """Other cables for a run, or other sockets with what has to be set there. index: of the plan as it is."""
    before = index.plan.runs[way.run.id]
    moves = [edit for edit in way.edits if isinstance(edit, MoveRun | SetParts)]
    plan = edited(index.plan, moves)
    told = "; ".join(sentence(edit, plan) for edit in way.edits if edit not in moves)
    is_moved = (way.run.sending, way.run.receiving) != (before.sending, before.receiving)
    ends = f"{index.port_label(way.run.sending)} to {index.port_label(way.run.receiving)}"
    how = f"go from {ends} with" if is_moved else "be"
    then = f" Then: {told}." if told else ""
    return f"Cable {before.number} can {how} {parts_words(index, way.run.parts)}, which is there.{then}"


_FAULTS: Final = {
    CableFault.OPEN: "{} does not reach {}",
    CableFault.LEG_LOST: "one leg lost: {} does not reach {}",
    CableFault.SHORTED: "{} reaches {} too",
    CableFault.SWAPPED: "{} and {} have changed places",
}
"""What a test found. [HANDBOOK] §4"""


def cable_fault_words(faults: tuple[TestedFault, ...]) -> str:
    """What is wrong with a cable; "" of one that is whole."""
    return "; ".join(_FAULTS[fault.what].format(*fault.contacts) for fault in faults)
