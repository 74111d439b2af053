"""What is short: the shortest list that closes it, and changes of the plan that need nothing to be bought."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.gear.catalogue import LeadClass
from tidy_trunk.core.plan import Part, SetParts, edited
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.trunk.assignment import Assignment, Served, assign
from tidy_trunk.core.trunk.needs import WITHOUT_LEAD, CableNeed
from tidy_trunk.core.trunk.stock import Piece

SOLD_M: Final = (0.3, 0.5, 1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 50.0, 100.0)
"""ASSUMED_ lengths in which cables are sold and hired."""

MOST_TRIED: Final = 6
"""ASSUMED_ other chains that are tried for a run: those behind are worse."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """A line of the list of what to buy or hire. runs: that it is for."""

    lead: LeadClass
    length_m: float
    count: int
    runs: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class OtherWay:
    """Other cables for a run, of which all are there. pieces: that serve it; joins: between them."""

    run: str
    edit: SetParts
    pieces: tuple[str, ...]


def wanted(short: Sequence[CableNeed]) -> tuple[Wanted, ...]:
    """One cable for each that is short, in lengths that are sold; those that are alike in one line, the longest first."""
    count: Counter[tuple[str, float]] = Counter()
    runs: dict[tuple[str, float], list[str]] = {}
    leads = {need.lead.id: need.lead for need in short}
    for need in short:
        key = (need.lead.id, _sold_m(need))
        count[key] += 1
        runs.setdefault(key, []).extend(need.runs)
    ordered = sorted(count, key=lambda key: (-key[1], leads[key[0]].label))
    return tuple(Wanted(leads[key[0]], key[1], count[key], tuple(runs[key])) for key in ordered)


def _sold_m(need: CableNeed) -> float:
    if need.lead.short_m is not None:
        return need.length_m
    return next((length for length in SOLD_M if length >= need.length_m - 1e-9), need.length_m)


def other_ways(
    report: Report, found: Assignment, pieces: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> tuple[OtherWay, ...]:
    """For each run that is short, other cables that bring the right signal and are there; none that brings a new stop or caution.

    One piece is never promised to two runs.
    """
    before = _matters(report)
    free = {piece.id for piece in pieces} - {one for served in found.served for one in (*served.pieces, served.spare)}
    ways: list[OtherWay] = []
    for run_id in dict.fromkeys(run for need in found.short for run in need.runs if len(need.runs) == 1):
        mine = {piece for served in found.served if served.need.runs == (run_id,) for piece in served.pieces}
        usable = [piece for piece in pieces if piece.id in free | mine]
        for edit, served in _chains(report, run_id, usable, leads):
            if _matters(report.edited(edited(report.index.plan, [edit]))) <= before:
                taken = tuple(piece for one in served for piece in one.pieces)
                free = (free | mine) - set(taken)
                ways.append(OtherWay(run_id, edit, taken))
                break
    return tuple(ways)


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


def are_there(parts: Sequence[Part], run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]) -> bool:
    """Whether there is a piece for every part of a run."""
    lying = [(number, part) for number, part in enumerate(parts) if part.lead not in WITHOUT_LEAD]
    return not assign([_need(run_id, number, part, leads) for number, part in lying], usable, leads).short


def _chains(
    report: Report, run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> Iterator[tuple[SetParts, tuple[Served, ...]]]:
    """Other chains for a run whose every part is there."""
    index = report.index
    run = index.plan.runs[run_id]
    sending = index.unit(run.sending.device).output(run.sending.port)
    receiving = index.unit(run.receiving.device).input(run.receiving.port)
    known = {piece.what for piece in usable}
    own = {key: lead for key, lead in leads.items() if key in known}
    tried = 0
    for chain in find_cable_chains(sending, receiving, length_m=run.length_m, own=own):
        if not chain.is_right or not chain.parts or not {part.lead for part in chain.parts} <= known:
            continue
        tried += 1
        if tried > MOST_TRIED:
            return
        needs = [_need(run_id, number, part, leads) for number, part in enumerate(chain.parts)]
        served = assign(needs, usable, leads)
        if not served.short:
            yield SetParts(run=run_id, parts=chain.parts), served.served


def _need(run_id: str, number: int, part: Part, leads: Mapping[str, LeadClass]) -> CableNeed:
    return CableNeed(id=f"{run_id}/{number}", runs=(run_id,), lead=leads[part.lead], length_m=part.length_m)
