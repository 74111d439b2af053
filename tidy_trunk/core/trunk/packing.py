"""What is packed for a job: pieces by case, and what else has to come along."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.trunk.assignment import Assignment
from tidy_trunk.core.trunk.needs import OtherNeed
from tidy_trunk.core.trunk.stock import Piece, PieceKind

CABIN_WH: Final = 100.0
"""What a lithium battery may hold in cabin baggage without anybody's leave; airlines and local rules decide. [HANDBOOK] §10"""

ALWAYS: Final = frozenset({PieceKind.TAPE, PieceKind.CELL, PieceKind.STAND})
"""What comes along whatever the plan says. [PRACTICE]"""


ALIKE_WH: Final = (0.7, 1.5)
"""ASSUMED_ from what share to what share of a device's own battery another one is taken to fit it: its plug is not known."""


def serves(piece: Piece, need: OtherNeed) -> bool:
    """Whether a piece does for a need: a device of that class, a card; a battery that is named after the device, or is alike."""
    if piece.kind is not need.kind or not piece.is_whole or need.what not in ("", piece.what):
        return False
    if piece.kind is not PieceKind.BATTERY:
        return True
    words = set(piece.label.casefold().split()) - {"battery", "batteries", "for", "the", "a"}
    if words & {word.strip(",") for name in need.names for word in name.casefold().split()}:
        return True
    return bool(piece.wh and need.wh) and ALIKE_WH[0] <= (piece.wh or 0.0) / (need.wh or 1.0) <= ALIKE_WH[1]


@dataclass(frozen=True, slots=True, kw_only=True)
class PackingLine:
    """A line of the list. id: of it, the same each time; pieces: ids; count: how many of them; need: what is asked for, where it is
    more than there is; case: where they lie; runs: that they are for; is_spare: none of them lies anywhere yet."""

    id: str
    label: str
    count: int
    case: str = ""
    pieces: tuple[str, ...] = ()
    runs: tuple[str, ...] = ()
    kind: PieceKind = PieceKind.CABLE
    is_spare: bool = False
    missing: int = 0
    weight_kg: float | None = None
    wh: float | None = None

    @property
    def wants_leave(self) -> bool:
        """Whether it may be refused on a flight."""
        return self.wh is not None and self.wh > CABIN_WH


def packing_list(found: Assignment, others: Sequence[OtherNeed], pieces: Sequence[Piece]) -> tuple[PackingLine, ...]:
    """By case, then by kind: what serves a run, spares, devices, what the day uses up, and what always comes along."""
    by_id = {piece.id: piece for piece in pieces}
    lines: dict[tuple[object, ...], PackingLine] = {}

    def add(piece: Piece, runs: Iterable[str], *, is_spare: bool = False) -> None:
        key = (piece.case, piece.kind, piece.what or piece.label, piece.length_m, piece.number, is_spare)
        before = lines.get(key)
        lines[key] = PackingLine(
            id="/".join(str(part) for part in key),
            label=_label(piece),
            count=(before.count if before else 0) + piece.count,
            case=piece.case,
            pieces=(*(before.pieces if before else ()), piece.id),
            runs=tuple(dict.fromkeys((*(before.runs if before else ()), *runs))),
            kind=piece.kind,
            is_spare=is_spare,
            weight_kg=_sum(before.weight_kg if before else 0.0, piece),
            wh=piece.wh,
        )

    for served in found.served:
        for piece_id in served.pieces:
            add(by_id[piece_id], served.need.runs)
        if served.spare:
            add(by_id[served.spare], served.need.runs, is_spare=True)
    there = {piece.id: piece.count for piece in pieces}
    for need in others:
        left = need.count
        for piece in pieces:
            if left <= 0 or there[piece.id] <= 0 or not serves(piece, need):
                continue
            if there[piece.id] == piece.count:
                add(piece, ())
            taken = min(left, there[piece.id])
            there[piece.id] -= taken
            left -= taken
        if left > 0:
            key = ("", need.kind, need.label, "missing")
            lines[key] = PackingLine(
                id="/".join(str(part) for part in key), label=need.label, count=left, kind=need.kind, missing=left
            )
    for piece in pieces:
        if piece.kind in ALWAYS and there[piece.id] == piece.count:
            add(piece, ())
    return tuple(
        sorted(lines.values(), key=lambda line: (line.missing == 0, line.case.casefold(), line.kind, line.label))
    )


def kit_of(case: str, crew: Sequence[str]) -> str:
    """Who of the crew takes a case: the one whose name it bears, as `Ben's bag` does; "" where it bears none."""
    called = case.casefold()
    return next((name for name in crew if re.match(rf"{re.escape(name.casefold())}(?:['’]s?)?\s", called)), "")


def _label(piece: Piece) -> str:
    length = f"{piece.length_m:g} m " if piece.kind is PieceKind.CABLE else ""
    number = f" no. {piece.number}" if piece.number else ""
    wh = f", {piece.wh:g} Wh" if piece.wh else ""
    return f"{length}{piece.label}{wh}{number}"


def _sum(before: float | None, piece: Piece) -> float | None:
    """Together; None as soon as one is not known."""
    return None if before is None or piece.weight_kg is None else before + piece.count * piece.weight_kg


def weight_kg(lines: Sequence[PackingLine]) -> tuple[float, int]:
    """What all together weighs as far as that is known, and of how many lines it is not."""
    known = [line.weight_kg for line in lines if line.weight_kg is not None]
    return sum(known), len(lines) - len(known) - sum(line.missing > 0 for line in lines)
