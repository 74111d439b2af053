"""What is short: the shortest list that closes it, and changes of the plan that need nothing to be bought."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import chain
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.gear.catalogue import LeadClass
from tidy_trunk.core.plan import Edit, Run, SetParts, edited
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.trunk.assignment import Assignment
from tidy_trunk.core.trunk.covered import covered_chains
from tidy_trunk.core.trunk.needs import CableNeed
from tidy_trunk.core.trunk.other_sockets import by_other_sockets, covered_ways
from tidy_trunk.core.trunk.stock import Piece

SOLD_M: Final = (0.3, 0.5, 1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 50.0, 100.0)
"""ASSUMED_ lengths in which cables are sold and hired."""


MOST_SHORT: Final = 24
"""ASSUMED_ runs for which another way is looked for: who has nothing yet is told what to get."""


@dataclass(frozen=True, slots=True)
class ShoppingLine:
    """A line of the list of what to buy or hire. runs: that it is for."""

    lead: LeadClass
    length_m: float
    count: int
    runs: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class OtherWay:
    """A run by cables that are there. run: as it is then; edits: that make it so; pieces: that serve it."""

    run: Run
    edits: tuple[Edit, ...]
    pieces: tuple[str, ...]


def wanted(short: Sequence[CableNeed]) -> tuple[ShoppingLine, ...]:
    """One cable for each that is short, in lengths that are sold; those that are alike in one line, the longest first."""
    count: Counter[tuple[str, float]] = Counter()
    runs: dict[tuple[str, float], list[str]] = {}
    leads = {need.lead.id: need.lead for need in short}
    for need in short:
        key = (need.lead.id, _sold_m(need))
        count[key] += 1
        runs.setdefault(key, []).extend(need.runs)
    ordered = sorted(count, key=lambda key: (-key[1], leads[key[0]].label))
    return tuple(ShoppingLine(leads[key[0]], key[1], count[key], tuple(runs[key])) for key in ordered)


def _sold_m(need: CableNeed) -> float:
    if need.lead.short_m is not None:
        return need.length_m
    return next((length for length in SOLD_M if length >= need.length_m - 1e-9), need.length_m)


def other_ways(
    report: Report, found: Assignment, pieces: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> tuple[OtherWay, ...]:
    """For each run that is short, other cables between its sockets, else other sockets of its devices, of which all is there.

    None brings a new stop or caution, and one piece is never promised to two runs.
    """
    free = {piece.id for piece in pieces} - {one for served in found.served for one in (*served.pieces, served.spare)}
    ways: list[OtherWay] = []
    short = list(dict.fromkeys(run for need in found.short for run in need.runs if len(need.runs) == 1))
    for run_id in short[:MOST_SHORT]:
        mine = {piece for served in found.served if served.need.runs == (run_id,) for piece in served.pieces}
        usable = [piece for piece in pieces if piece.id in free | mine]
        way = _way_of(report, run_id, usable, leads)
        if way is not None:
            free = (free | mine) - set(way.pieces)
            report = report.edited(edited(report.index.plan, way.edits))
            ways.append(way)
    return tuple(ways)


def _way_of(report: Report, run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]) -> OtherWay | None:
    """The first that leaves the plan no worse: other cables alone, then with what has to be set for them, then other sockets."""
    plan = report.index.plan
    before, run = _matters(report), plan.runs[run_id]
    for parts, pieces in covered_chains(report.index, run, usable, leads):
        edit = SetParts(run=run_id, parts=parts)
        if _matters(report.edited(edited(plan, [edit]))) <= before:
            return OtherWay(replace(run, parts=parts), (edit,), pieces)
    for found in chain(covered_ways(report, run_id, usable, leads), by_other_sockets(report, run, usable, leads)):
        if _matters(found.report) <= before:
            return OtherWay(found.report.index.plan.runs[run_id], found.edits, found.pieces)
    return None


def _matters(report: Report) -> frozenset[tuple[str, str, str]]:
    """Stops and cautions of a plan, each by its rule and place."""
    return frozenset((item.rule, item.run, item.device) for item in check(report) if item.severity is not Severity.NOTE)


def left_for(found: Assignment, run_id: str, pieces: Sequence[Piece]) -> list[Piece]:
    """Pieces that a run may take: what lies there already, and what serves no other run."""
    elsewhere = {
        piece
        for one in found.served
        if one.need.runs != (run_id,)
        for piece in (*one.pieces, *([one.spare] if one.spare else []))
    }
    return [piece for piece in pieces if piece.id not in elsewhere]
