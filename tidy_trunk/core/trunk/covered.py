"""Chains of cables that pieces of the trunk cover whole."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue import LeadClass
from tidy_trunk.core.plan import Part, PlanIndex, PortRef, Run
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.trunk.assignment import Served, assign
from tidy_trunk.core.trunk.needs import WITHOUT_LEAD, CableNeed
from tidy_trunk.core.trunk.stock import Piece

MOST_TRIED: Final = 6
"""ASSUMED_ chains that are tried between two sockets: those behind are worse."""


@dataclass(frozen=True, slots=True)
class Covered:
    """Parts that bring the right signal, and what serves each of them."""

    parts: tuple[Part, ...]
    served: tuple[Served, ...]

    @property
    def pieces(self) -> tuple[str, ...]:
        return tuple(piece for one in self.served for piece in one.pieces)


def covered_chains(
    index: PlanIndex,
    run: Run,
    sending: PortRef,
    receiving: PortRef,
    usable: Sequence[Piece],
    leads: Mapping[str, LeadClass],
) -> Iterator[Covered]:
    """Chains of the run's length between two sockets of which every part is there, best first."""
    output = index.unit(sending.device).output(sending.port)
    port = index.unit(receiving.device).input(receiving.port)
    known = {piece.what for piece in usable}
    own = {key: lead for key, lead in leads.items() if key in known}
    tried = 0
    for chain in find_cable_chains(output, port, length_m=run.length_m, own=own):
        if not chain.is_right or not chain.parts or not {part.lead for part in chain.parts} <= known:
            continue
        tried += 1
        if tried > MOST_TRIED:
            return
        served = assign(
            [part_need(run.id, number, part, leads) for number, part in enumerate(chain.parts)], usable, leads
        )
        if not served.short:
            yield Covered(chain.parts, served.served)


def are_there(parts: Sequence[Part], run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]) -> bool:
    """Whether there is a piece for every part of a run."""
    lying = [(number, part) for number, part in enumerate(parts) if part.lead not in WITHOUT_LEAD]
    return not assign([part_need(run_id, number, part, leads) for number, part in lying], usable, leads).short


def part_need(run_id: str, number: int, part: Part, leads: Mapping[str, LeadClass]) -> CableNeed:
    return CableNeed(id=f"{run_id}/{number}", runs=(run_id,), lead=leads[part.lead], length_m=part.length_m)
