"""The trunk as a table, read and written: one line for pieces that are alike."""

import csv
import io
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import date
from typing import Final

from tidy_trunk.core.base.text import is_plain
from tidy_trunk.core.command import NotUnderstoodError
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.trunk import LONGEST_LEAD_M, MOST_OF_A_KIND, Piece, PieceKind, PieceLine, one_described
from tidy_trunk.errors import FormatError
from tidy_trunk.exports.cells import plain_cell

COLUMNS: Final = ("count", "what", "length_m", "kind", "number", "case", "tested", "fault", "wh", "weight_kg")
"""`what` is wanted; kind: of what is neither a cable nor a device. ASSUMED_"""

LARGEST_TABLE: Final = 4_000_000
"""ASSUMED_ largest table: that of a van full has a hundredth."""

MOST_ROWS: Final = 2_000
"""ASSUMED_ most lines of a table."""

LONGEST_CELL: Final = 120
"""ASSUMED_ letters of a cell."""


def read_stock_table(plan: Plan, data: bytes) -> list[PieceLine]:
    """The pieces of a table, each with its count.

    plan: with the user's own classes, by whose names they are found.

    Raises FormatError: no table, a column that is missing, or a cell that cannot be, with its line and column.
    """
    if len(data) > LARGEST_TABLE:
        raise FormatError("this is longer than the table of any trunk")
    text = _text(data)
    first = text.partition("\n")[0]
    delimiter = max(",;\t", key=first.count)
    rows = csv.reader(io.StringIO(text), delimiter=delimiter)
    names = [name.strip().casefold() for name in next(rows, [])]
    if "what" not in names:
        raise FormatError(f"line 1: the column 'what' is missing; columns are {', '.join(COLUMNS)}")
    unknown = [name for name in names if name and name not in COLUMNS]
    if unknown:
        raise FormatError(f"line 1: there is no column '{unknown[0][:30]}'; columns are {', '.join(COLUMNS)}")
    lines = list(rows)
    if len(lines) > MOST_ROWS:
        raise FormatError(
            f"there are more than {MOST_ROWS} lines: write pieces that are alike in one, with their count"
        )
    found: list[PieceLine] = []
    numbers: dict[str, int] = {}
    for line, row in enumerate(lines, start=2):
        values = {name: _unescaped(cell.strip()) for name, cell in zip(names, row, strict=False)}
        if not any(values.values()):
            continue
        one = _row(plan, values, line)
        number = one.piece.number
        if number and number in numbers:
            raise FormatError(f"line {line}, number: '{number[:20]}' stands on line {numbers[number]} too")
        if number:
            numbers[number] = line
        found.append(one)
    if not found:
        raise FormatError("there is no piece in this table")
    return found


def _text(data: bytes) -> str:
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise FormatError("this is no table: save it as CSV in UTF-8")


def _unescaped(cell: str) -> str:
    return cell[1:] if cell[:1] == "'" and cell[1:2] in ("=", "+", "-", "@") else cell


def _row(plan: Plan, values: Mapping[str, str], line: int) -> PieceLine:
    def wrong(column: str, why: str) -> FormatError:
        return FormatError(f"line {line}, {column}: {why}")

    for column, cell in values.items():
        if len(cell) > LONGEST_CELL or not is_plain(cell):
            raise wrong(column, f"at most {LONGEST_CELL} printable characters")
    count = _number(values.get("count", "") or "1", wrong, "count")
    if not (count.is_integer() and 1 <= count <= MOST_OF_A_KIND):
        raise wrong("count", f"a whole number from 1 to {MOST_OF_A_KIND}, not {values['count']}")
    length = values.get("length_m", "")
    length_m = _number(length, wrong, "length_m") if length else 0.0
    if not 0 <= length_m <= LONGEST_LEAD_M:
        raise wrong("length_m", f"metres from 0 to {LONGEST_LEAD_M:g}, not {length}")
    if not values.get("what"):
        raise wrong("what", "say what it is")
    piece = _piece(plan, values, length_m, wrong)
    tested = values.get("tested", "")
    if tested:
        try:
            date.fromisoformat(tested)
        except ValueError as error:
            raise wrong("tested", f"'{tested[:20]}' is no date: write 2026-11-28") from error
    number = values.get("number", "")
    if number and count > 1:
        raise wrong("number", "pieces that have numbers stand on a line each")
    more = {name: values.get(name, "") for name in ("number", "case", "fault")}
    figures = {
        name: _number(values[name], wrong, name) if values.get(name) else getattr(piece, name)
        for name in ("wh", "weight_kg")
    }
    for name, value in figures.items():
        if value is not None and not 0 <= value <= 10_000:
            raise wrong(name, f"from 0 to 10000, not {values[name]}")
    return PieceLine(replace(piece, tested=tested, **more, **figures), int(count))


def _piece(plan: Plan, values: Mapping[str, str], length_m: float, wrong):  # type: ignore[no-untyped-def]
    kind = values.get("kind", "").casefold()
    if kind and kind not in tuple(PieceKind):
        raise wrong("kind", f"'{kind[:20]}' is none of {', '.join(PieceKind)}")
    what = values["what"]
    if kind and kind not in (PieceKind.CABLE, PieceKind.DEVICE):
        return Piece(id="", kind=PieceKind(kind), label=what)
    try:
        one = one_described(plan, f"1 {what}{f' {length_m:g} m' if length_m else ''}")
    except NotUnderstoodError as error:
        raise wrong("what", error.message) from error
    if kind and one.piece.kind != kind:
        raise wrong("what", f"no {kind} is called '{what}'")
    return one.piece


def _number(cell: str, wrong, column: str) -> float:  # type: ignore[no-untyped-def]
    try:
        value = float(cell.replace(",", "."))
    except ValueError as error:
        raise wrong(column, f"'{cell[:20]}' is no number: write it without a unit") from error
    if value != value or value in (float("inf"), float("-inf")):
        raise wrong(column, f"'{cell[:20]}' is no number")
    return value


def write_stock_table(pieces: Sequence[Piece]) -> bytes:
    """As `read_stock_table` reads it; what a table would take for a formula is no formula. UTF-8."""
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(COLUMNS)
    for count, piece in _alike(pieces):
        kind = "" if piece.kind in (PieceKind.CABLE, PieceKind.DEVICE) else piece.kind
        length = f"{piece.length_m:g}" if piece.kind is PieceKind.CABLE else ""
        figures = ["" if value is None else f"{value:g}" for value in (piece.wh, piece.weight_kg)]
        cells = [str(count), piece.label, length, kind, piece.number, piece.case, piece.tested, piece.fault, *figures]
        out.writerow([plain_cell(cell) for cell in cells])
    return box.getvalue().encode()


def _alike(pieces: Sequence[Piece]) -> Iterator[tuple[int, Piece]]:
    found: dict[Piece, int] = {}
    for piece in pieces:
        key = replace(piece, id="", count=1)
        found[key] = found.get(key, 0) + piece.count
    for piece, count in found.items():
        yield count, piece
