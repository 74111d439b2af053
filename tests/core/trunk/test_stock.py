"""Lines that say what lies in the trunk."""

import pytest

from tidy_trunk.app.demo import foundry
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import Plan, PlanIndex
from tidy_trunk.core.trunk import (
    OtherNeed,
    Piece,
    PieceKind,
    assign,
    cell_needs,
    described,
    kit_of,
    packing_list,
)
from tidy_trunk.core.trunk.needs import WITHOUT_LEAD

EMPTY = Plan(name="Trunk")


@pytest.mark.parametrize("lead", [lead for lead in built_in().leads.values() if lead.id not in WITHOUT_LEAD])
def test_every_cable_is_known_by_its_own_name(lead):
    """Names with a comma were taken apart."""
    length = "" if lead.is_adapter else " 5 m"
    (found,) = described(EMPTY, f"2 {lead.label}{length}")
    assert (found.piece.what, found.count) == (lead.id, 2)


@pytest.mark.parametrize(
    ("line", "found"),
    [
        # Said before: the pair of plugs, whose name is shorter.
        ("1 XLR to 3.5 mm with 25 dB", [(1, "xlr-trs-pad-25", "")]),
        (
            "XLR to 3.5 mm with 25 dB, mono to both sides, 6 XLR 5 m, blue case",
            [(1, "xlr-trs-pad-25", "blue case"), (6, "xlr", "blue case")],
        ),
        ("2 XLR 10 m, red bag, 3 cells, grey box", [(2, "xlr", "red bag"), (3, "", "grey box")]),
    ],
)
def test_what_a_line_means(line, found):
    assert [(one.count, one.piece.what, one.piece.case) for one in described(EMPTY, line)] == found


@pytest.mark.parametrize(
    ("case", "whose"),
    [
        ("Ben's bag", "Ben"),
        ("ben’s grey bag", "Ben"),
        ("Anna case", "Anna"),
        ("Ann case", "Ann"),
        ("blue case", ""),
        ("Bennet's bag", ""),
        ("", ""),
    ],
)
def test_whose_kit_a_case_is(case, whose):
    assert kit_of(case, ("Ann", "Ben", "Anna")) == whose


def test_batteries_of_one_line_are_counted_for_several_devices():
    """Said before: a line of four served one device, and the others had none."""
    four = Piece(id="b", kind=PieceKind.BATTERY, label="battery", count=4, wh=50.0)
    needs = [
        OtherNeed(kind=PieceKind.BATTERY, what="", label=f"battery for {name}", count=count, device=name, wh=50.0)
        for name, count in (("bag", 2), ("camera", 3))
    ]
    there, missing = sorted(packing_list(assign([], [four], {}), needs, [four]), key=lambda line: line.missing)
    assert (there.count, there.pieces) == (4, ("b",))
    assert (missing.label, missing.missing) == ("battery for camera", 1)


def test_a_fresh_cell_for_each_microphone_that_runs_on_one():
    """The foundry's hall microphone has a cell of its own."""
    (need,) = cell_needs(PlanIndex(foundry()))
    assert (need.kind, need.count, need.label) == (PieceKind.CELL, 1, "cell for Hall mic")
