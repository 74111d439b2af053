"""Which piece serves which run, against trying everything on small trunks, and against a plain greedy hand on larger ones."""

from collections import Counter
from itertools import combinations, count, permutations
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tidy_trunk.app.demo import foundry
from tidy_trunk.core.command import NotUnderstoodError
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.trunk import (
    CableNeed,
    OtherNeed,
    Piece,
    PieceKind,
    ServedNeed,
    assign,
    cable_needs,
    cost_of,
    described,
    device_needs,
    lengthens,
    packing_list,
    pieces_of,
    serves,
    stands_in_for,
    wanted,
)
from tidy_trunk.core.trunk.assignment import JUST_M, MOST_JOINED

LEADS = built_in().leads
KINDS = ("xlr", "trs", "trs-extension", "xlr-trs")


def need(number, kind, length_m, *, once=False):
    return CableNeed(id=f"n{number}", runs=(f"r{number}",), lead=LEADS[kind], length_m=length_m, is_once=once)


def cable(number, kind, length_m, **more):
    return Piece(id=f"p{number}", kind=PieceKind.CABLE, label=kind, what=kind, length_m=length_m, **more)


def drawn(seed, most_needs, most_pieces):
    by = Random(seed)
    lengths = (0.3, 1.0, 2.0, 3.0, 5.0, 10.0)
    needs = [
        need(number, by.choice(KINDS), by.choice(lengths), once=by.random() < 0.3)
        for number in range(by.randint(1, most_needs))
    ]
    pieces = [
        cable(
            number,
            by.choice(KINDS),
            by.choice(lengths),
            tested=by.choice(("", "2026-01-01")),
            fault="" if by.random() < 0.9 else "swapped",
        )
        for number in range(by.randint(0, most_pieces))
    ]
    return needs, pieces


def could_serve(one, pieces):
    """Every way in which pieces can lie in a run: the cable itself, and what lengthens it."""
    whole = [piece for piece in pieces if piece.is_whole]
    for size in range(1, MOST_JOINED + 1):
        for chosen in combinations(whole, size):
            heads = [piece for piece in chosen if stands_in_for(LEADS[piece.what], one.lead)]
            for head in heads:
                rest = [piece for piece in chosen if piece is not head]
                fits = all(lengthens(LEADS[piece.what], one.lead) for piece in rest)
                if fits and sum(piece.length_m for piece in chosen) >= one.length_m - JUST_M:
                    yield chosen
                    break


def cheapest(needs, pieces, tested):
    """By trying everything."""
    if not needs:
        return 0.0
    first, rest = needs[0], needs[1:]
    best = cost_of(ServedNeed(need=first, pieces=()), tested) + cheapest(rest, pieces, tested)
    for chosen in could_serve(first, pieces):
        left = [piece for piece in pieces if piece not in chosen]
        over_m = sum(piece.length_m for piece in chosen) - first.length_m
        ids = tuple(piece.id for piece in chosen)
        options = [("", left)]
        if first.is_once:
            options += [
                (piece.id, [one for one in left if one is not piece])
                for piece in left
                if piece.is_whole
                and stands_in_for(LEADS[piece.what], first.lead)
                and piece.length_m >= first.length_m - JUST_M
            ]
        for spare, still in options:
            served = ServedNeed(need=first, pieces=ids, spare=spare, over_m=over_m)
            best = min(best, cost_of(served, tested) + cheapest(rest, still, tested))
    return best


@settings(max_examples=25)
@given(st.integers(0, 10**6))
def test_on_small_trunks_nothing_is_cheaper(seed):
    needs, pieces = drawn(seed, 3, 5)
    tested = {piece.id for piece in pieces if piece.tested}
    found = assign(needs, pieces, LEADS)
    assert found.is_best
    # A spare that is kept costs a hundredth of its length, so that the shortest one is.
    assert found.cost == pytest.approx(cheapest(needs, pieces, tested), abs=0.5)


def greedy(needs, pieces, tested):
    """The longest need first, the shortest single cable that does."""
    left, cost = [piece for piece in pieces if piece.is_whole], 0.0
    for one in sorted(needs, key=lambda item: -item.length_m):
        does = [
            piece
            for piece in left
            if stands_in_for(LEADS[piece.what], one.lead) and piece.length_m >= one.length_m - JUST_M
        ]
        taken = min(does, key=lambda piece: piece.length_m, default=None)
        served = ServedNeed(
            need=one,
            pieces=() if taken is None else (taken.id,),
            over_m=0 if taken is None else taken.length_m - one.length_m,
        )
        left = [piece for piece in left if piece is not taken]
        cost += cost_of(served, tested)
    return cost


@given(st.integers(0, 10**6))
def test_it_is_never_worse_than_a_greedy_hand(seed):
    needs, pieces = drawn(seed, 14, 30)
    tested = {piece.id for piece in pieces if piece.tested}
    found = assign(needs, pieces, LEADS)
    assert found.cost <= greedy(needs, pieces, tested) + 0.5
    used = Counter(piece for one in found.served for piece in (*one.pieces, *([one.spare] if one.spare else [])))
    assert all(number == 1 for number in used.values()), "one piece for two runs"
    by_id = {piece.id: piece for piece in pieces}
    for one in found.served:
        lying = [by_id[piece] for piece in one.pieces]
        assert all(piece.is_whole for piece in lying)
        assert not lying or sum(piece.length_m for piece in lying) >= one.need.length_m - JUST_M
        assert one.joins < MOST_JOINED


def test_what_is_called_short_cannot_be_covered():
    """By exhaustion: no order in which the needs choose leaves fewer of them without a cable."""
    for seed in range(40):
        needs, pieces = drawn(seed, 3, 5)
        fewest = len(needs)
        for order in permutations(needs):
            fewest = min(fewest, _left_over(list(order), pieces))
        assert len(assign(needs, pieces, LEADS).short) == fewest


def _left_over(needs, pieces):
    if not needs:
        return 0
    best = 1 + _left_over(needs[1:], pieces)
    for chosen in could_serve(needs[0], pieces):
        best = min(best, _left_over(needs[1:], [piece for piece in pieces if piece not in chosen]))
    return best


def test_a_straight_adapter_never_stands_in_for_tip_and_ring():
    assert not stands_in_for(LEADS["xlr-trs-one-to-one"], LEADS["xlr-trs"])
    assert not stands_in_for(LEADS["xlr"], LEADS["xlr-crossed"])
    assert not stands_in_for(LEADS["xlr-trs-pad-25"], LEADS["xlr-trs"])
    assert lengthens(LEADS["xlr"], LEADS["xlr-trs"]) and lengthens(LEADS["trs-extension"], LEADS["trs"])
    assert not lengthens(LEADS["trs"], LEADS["trs"]), "two plugs do not go into each other"
    assert not lengthens(LEADS["trs-extension"], LEADS["xlr"])


def test_a_spare_is_kept_for_what_happens_only_once():
    pieces = [cable(1, "xlr", 10.0), cable(2, "xlr", 10.0), cable(3, "xlr", 5.0)]
    found = assign([need(1, "xlr", 10.0, once=True), need(2, "xlr", 5.0)], pieces, LEADS)
    assert found.served[0].spare in ("p1", "p2") and found.served[1].pieces == ("p3",) and not found.unspared
    alone = assign([need(1, "xlr", 10.0, once=True)], pieces[:1], LEADS)
    assert [one.id for one in alone.unspared] == ["n1"]


def test_a_choice_by_hand_shows_what_it_costs():
    pieces = [cable(1, "xlr", 10.0), cable(2, "xlr", 5.0), cable(3, "xlr", 5.0)]
    needs = [need(1, "xlr", 5.0), need(2, "xlr", 10.0)]
    free, forced = assign(needs, pieces, LEADS), assign(needs, pieces, LEADS, {"n1": ("p1",)})
    assert forced.served[0].pieces == ("p1",) and forced.served[1].joins == 1
    assert forced.cost > free.cost


def test_the_shortest_list_closes_what_is_short():
    needs = [need(1, "xlr", 9.0), need(2, "xlr", 9.5), need(3, "xlr-trs", 0.3)]
    lines = wanted(assign(needs, [], LEADS).short)
    assert [(line.count, line.lead.id, line.length_m) for line in lines] == [(2, "xlr", 10.0), (1, "xlr-trs", 0.3)]
    bought = [cable(number, line.lead.id, line.length_m) for number, line in enumerate(lines) for _ in range(1)]
    bought.append(cable(9, "xlr", 10.0))
    assert not assign(needs, bought, LEADS).short


def test_a_line_says_what_lies_there():
    found = described(
        Plan(name="x"),
        "6 XLR 5 m, 2 XLR 10 m, blue case, 4 cells, 2 battery 98 Wh, gaffer tape, bag recorder, black box",
    )
    told = [(one.count, one.piece.kind, one.piece.label, one.piece.length_m, one.piece.case) for one in found]
    assert told[:3] == [
        (6, PieceKind.CABLE, "XLR", 5.0, "blue case"),
        (2, PieceKind.CABLE, "XLR", 10.0, "blue case"),
        (4, PieceKind.CELL, "cells", 0.0, "black box"),
    ]
    assert found[3].piece.wh == 98 and found[5].piece.what == "bag-recorder"
    pieces = pieces_of(found, map(str, count()))
    (foreign,) = described(Plan(name="x"), "3 \u4c68")
    assert (foreign.count, foreign.piece.kind, foreign.piece.label) == (3, PieceKind.OTHER, "\u4c68")
    assert len(pieces) == 6 + 2 + 1 + 1 + 1 + 1 and sum(piece.count for piece in pieces) == 8 + 4 + 2 + 1 + 1


@pytest.mark.parametrize(
    "line", ["4 XLR 10 m", "4x XLR 10m", "4 × 10 m XLR", "4 10m XLR cables", "4 xlr cable 10 m", "4 XLR 32.81 ft"]
)
def test_however_it_is_typed(line):
    (one,) = described(Plan(name="x"), line)
    assert (one.count, one.piece.what, one.piece.length_m) == (4, "xlr", 10.0)


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("XLR", "say how long it is: 1 XLR 5 m"),
        ("0 XLR 5 m", "from 1 to 999"),
        ("XLR 900 m", "at most 500 m"),
        ("", "say what lies in the trunk"),
        ("6", "say what it is"),
        ("frobnicator 3 m", "no cable is called 'frobnicator'"),
    ],
)
def test_a_line_that_cannot_be(line, says):
    with pytest.raises(NotUnderstoodError, match=says):
        described(Plan(name="x"), line)


def test_the_foundry_needs_its_cables_and_spares():
    report = Report(trace_plan(foundry()))
    needs = cable_needs(report)
    assert [one.runs for one in needs if len(one.runs) == 2] == [("run-9", "run-10")]
    assert not {"radio", "shoe"} & {one.lead.id for one in needs}
    assert all(one.is_once for one in needs if one.runs == ("run-8",)), "the bell is struck once"
    whole = [cable(number, one.lead.id, one.length_m) for number, one in enumerate(needs)]
    found = assign(needs, whole, LEADS)
    assert not found.short and all(one.over_m < 0.01 and one.joins == 0 for one in found.served)
    lines = packing_list(found, device_needs(foundry()), whole)
    assert sum(line.count for line in lines if line.kind is PieceKind.CABLE) == len(needs)
    assert all(line.missing for line in lines if line.kind is PieceKind.DEVICE)


def test_a_flight_is_warned_of_large_batteries():
    pieces = [
        Piece(id="b", kind=PieceKind.BATTERY, label="battery", count=2, wh=150.0),
        Piece(id="t", kind=PieceKind.TAPE, label="tape"),
    ]
    lines = packing_list(
        assign([], pieces, LEADS),
        [OtherNeed(kind=PieceKind.BATTERY, what="", label="battery", count=3, wh=140)],
        pieces,
    )
    assert [(line.label, line.count, line.missing, line.wants_leave) for line in lines] == [
        ("battery", 1, 1, False),
        ("battery, 150 Wh", 2, 0, True),
        ("tape", 1, 0, False),
    ]


def test_a_battery_is_for_the_device_that_it_is_like_or_called_after():
    """Nobody is told to take a battery of 98 Wh for a transmitter of 4."""
    pack = OtherNeed(kind=PieceKind.BATTERY, what="", label="battery for Pack A", count=1, wh=4, names=("Pack A",))
    bag = OtherNeed(kind=PieceKind.BATTERY, what="", label="battery for Bag", count=1, wh=98, names=("Bag recorder",))
    big = Piece(id="b", kind=PieceKind.BATTERY, label="battery", wh=98.0)
    named = Piece(id="n", kind=PieceKind.BATTERY, label="batteries for the pack")
    assert serves(big, bag) and not serves(big, pack)
    assert serves(named, pack) and not serves(named, bag)
