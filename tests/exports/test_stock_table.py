"""The trunk as a table: read, written and read again; what is wrong with one is said with line and column."""

from itertools import count

import pytest

from tidy_trunk.core.plan import Plan
from tidy_trunk.core.trunk import Piece, PieceKind, pieces_of
from tidy_trunk.errors import FormatError
from tidy_trunk.exports import read_stock_table, write_stock_table

PLAN = Plan(name="x")
TABLE = """count,what,length_m,kind,number,case,tested,fault,wh,weight_kg
6,XLR,5,,,blue case,2026-11-01,,,0.4
1,XLR,10,,X7,blue case,,hot lost,,
2,battery for the recorder,,battery,,black case,,,98,0.6
1,Bag recorder,,device,,black case,,,,
"""


def read(text):
    return read_stock_table(PLAN, text.encode() if isinstance(text, str) else text)


def test_it_comes_back_as_it_was():
    pieces = pieces_of(read(TABLE), map(str, count()))
    assert len(pieces) == 6 + 1 + 1 + 1 and pieces[6].fault == "hot lost" and pieces[7].count == 2
    again = pieces_of(read(write_stock_table(pieces).decode()), map(str, count()))
    assert again == pieces


@pytest.mark.parametrize("encoding", ["utf-8-sig", "cp1252"])
@pytest.mark.parametrize("delimiter", [",", ";", "\t"])
def test_other_delimiters_and_encodings(delimiter, encoding):
    text = f"what{delimiter}length_m{delimiter}case\nXLR{delimiter}2.5{delimiter}größere Kiste\n"
    (one,) = read(text.encode(encoding))
    assert (one.piece.length_m, one.piece.case) == (2.5, "größere Kiste")


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("count,length_m\n6,5\n", "line 1: the column 'what' is missing"),
        ("what,colour\nXLR,red\n", "line 1: there is no column 'colour'"),
        ("what,length_m\nXLR,5 m\n", "line 2, length_m: '5 m' is no number: write it without a unit"),
        ("count,what,length_m\n-2,XLR,5\n", "line 2, count: a whole number from 1 to 999"),
        ("count,what,length_m\n1,XLR,5\n1,nonsense,3\n", "line 3, what: no cable is called 'nonsense'"),
        ("what,length_m,number\nXLR,5,X1\nXLR,5,X1\n", "line 3, number: 'X1' stands on line 2 too"),
        ("what,length_m,tested\nXLR,5,yesterday\n", "line 2, tested: 'yesterday' is no date"),
        ("what,length_m\nXLR,nan\n", "line 2, length_m: 'nan' is no number"),
        ("what,length_m\nXLR,inf\n", "line 2, length_m: 'inf' is no number"),
        ("what,kind\nXLR,rope\n", "line 2, kind: 'rope' is none of"),
        ("what,length_m\n" + "XLR,5\n" * 5_000, "more than 2000 lines"),
        ("what\n", "no piece in this table"),
        (b"\xff\xfe\x00\x81\x8d", "the column 'what' is missing|no table"),
    ],
)
def test_what_is_wrong_is_said_with_its_place(text, says):
    with pytest.raises(FormatError, match=says):
        read(text)


def test_a_cell_that_looks_like_a_formula_is_none():
    piece = Piece(id="1", kind=PieceKind.OTHER, label="=HYPERLINK(1)", case="@case")
    data = write_stock_table([piece]).decode()
    assert "'=HYPERLINK" in data and "'@case" in data
    (one,) = read(data)
    assert (one.piece.label, one.piece.case) == ("=HYPERLINK(1)", "@case")
