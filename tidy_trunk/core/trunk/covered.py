"""Chains of cables that pieces of the trunk cover whole."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Final

from tidy_trunk.core.gear.catalogue import LeadClass
from tidy_trunk.core.plan import Part, PlanIndex, Run
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.trunk.assignment import assign
from tidy_trunk.core.trunk.needs import WITHOUT_LEAD, CableNeed
from tidy_trunk.core.trunk.stock import Piece

MOST_TRIED: Final = 6
"""ASSUMED_ chains that are tried between two sockets: those behind are worse."""


def covered_chains(
    index: PlanIndex, run: Run, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> Iterator[tuple[tuple[Part, ...], tuple[str, ...]]]:
    """Chains between the sockets of a run of which every part is there, best first; with the pieces that serve them."""
    output = index.placed(run.sending.device).output(run.sending.port)
    port = index.placed(run.receiving.device).input(run.receiving.port)
    known = {piece.what for piece in usable}
    own = {key: lead for key, lead in leads.items() if key in known}
    tried = 0
    for chain in find_cable_chains(output, port, length_m=run.length_m, own=own):
        if not chain.is_right or not chain.parts or not {part.lead for part in chain.parts} <= known:
            continue
        tried += 1
        if tried > MOST_TRIED:
            return
        if pieces := pieces_for(chain.parts, run.id, usable, leads):
            yield chain.parts, pieces


def pieces_for(
    parts: Sequence[Part], run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> tuple[str, ...]:
    """What serves the parts of a run, from the sender on; nothing where one of them is not there."""
    lying = [(number, part) for number, part in enumerate(parts) if part.lead not in WITHOUT_LEAD]
    needs = [
        CableNeed(id=f"{run_id}/{number}", runs=(run_id,), lead=leads[part.lead], length_m=part.length_m)
        for number, part in lying
    ]
    found = assign(needs, usable, leads)
    return () if found.short else tuple(piece for one in found.served for piece in one.pieces)
