"""What joins an output to an input: chains of leads and adapters that mate and bring the right signal."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from typing import Final

from tidy_trunk.core.gear.catalogue import (
    AES3_OHM,
    Circuit,
    InputPort,
    LeadClass,
    OutputPort,
    Plug,
    built_in,
    is_meant_for,
    mates,
)
from tidy_trunk.core.gear.wiring import Fault, end_of, faults, is_plug_of_its_own
from tidy_trunk.core.plan import Part, PlanIndex, Run

LONGEST_CHAIN: Final = 3
"""ASSUMED_ most leads that a proposal puts in a row: every join is a fault to come."""

UNBALANCED_LIMIT_M: Final = 1.0
"""Unbalanced length from which trouble has been met. [PRACTICE]"""

USUAL_LENGTH_M: Final = 3.0
"""ASSUMED_ length of a run when none is given."""

ON_CAMERA_M: Final = 0.5
"""ASSUMED_ length of a lead between a camera and what sits on it or beside it."""

SHORTEST_M: Final = 0.2
"""ASSUMED_ shortest lead that is made to length."""

JOINT_M: Final = 0.2
"""ASSUMED_ what a lead or joint bridges beyond its stated length."""

SHORT_M: Final = 0.3
"""Length of an adapter, and of the shortest lead worth having. [PRACTICE]"""

NO_LEADS: Final[Mapping[str, LeadClass]] = {}
"""ASSUMED_ that nobody has leads of his own unless he says so."""

_WIRELESS = ("radio", "shoe")


@dataclass(frozen=True, slots=True)
class CableChain:
    """A chain of leads. `faults` says what is wrong with the signal that arrives; empty where it is right."""

    parts: tuple[Part, ...]
    faults: tuple[Fault, ...]
    unbalanced_m: float

    @property
    def is_right(self) -> bool:
        """Whether what arrives is as it should be, if perhaps only one side of it."""
        return set(self.faults) <= {Fault.LOST}


def unbalanced_length_m(sending: OutputPort, leads: Iterable[tuple[LeadClass, float]]) -> float:
    """Length over which the signal is unbalanced: from an unbalanced output all of it, else from where a lead drops cold.

    `leads`: each with its length in m, in order.
    """
    total, lost = 0.0, not sending.circuit.is_balanced
    if sending.circuit.is_digital or not sending.circuit.is_analogue:
        return 0.0
    for lead, length_m in leads:
        lost = lost or not lead.balanced
        total += length_m if lost else 0.0
    return total


def find_cable_chains(
    sending: OutputPort,
    receiving: InputPort,
    *,
    length_m: float = USUAL_LENGTH_M,
    branch: str = "",
    shared: str = "",
    own: Mapping[str, LeadClass] = NO_LEADS,
    through: str = "",
) -> list[CableChain]:
    """Ways to join two ports, best first: the right signal, little of it unbalanced, few joins, then one's own leads.

    Args:
        sending, receiving: The ports.
        length_m: How far apart they are; leads made to length take it, short adapters add theirs.
        branch: "L" or "R" to use one way of two-way leads too; "" keeps to plain ones.
        shared: Name of the physical two-way lead, needed with `branch`.
        own: Leads of the user's own by id, beside those of the catalogue.
        through: Id of a lead that must be in the chain, even one that is never proposed; "" for any.

    Returns:
        At most ten joins; empty where nothing mates.

    Source: [HANDBOOK] §4
    """
    own = {key: lead.at_branch(branch) for key, lead in own.items()}
    known = {**_stock(branch), **own} if own else _stock(branch)
    as_sound = is_timecode_as_sound(sending, receiving)
    found = _padded(sending, receiving, length_m, branch, shared, own, known[through]) if through else []
    if found:
        return found
    chains = _chains(sending.plug, receiving.plug, branch, as_sound)
    if own or through:
        wanted = [known[through]] if through else []
        usable = [*wanted, *_usable(own, branch), *_usable(_stock(branch), branch, as_sound)]
        found_chains = _searched(sending.plug, receiving.plug, usable)
        chains = tuple(chain for chain in found_chains if all(lead in chain for lead in wanted))
    for chain in chains:
        if any(branch not in lead.ways and "" not in lead.ways for lead in chain):
            continue
        leads = [(lead, branch if len(lead.ways) > 1 else "") for lead in chain]
        parts = _with_lengths(leads, length_m, shared)
        if not leads and not _plugs_in_directly(sending, length_m):
            continue
        if sending.circuit is not Circuit.AES3 and any(lead.characteristic_ohm == AES3_OHM for lead in chain):
            continue
        if parts is not None:
            found.append(_join(sending, receiving, parts, known))
    found.sort(
        key=lambda join: (
            len(join.faults),
            _off_impedance(sending, join, known),
            max(0.0, join.unbalanced_m - UNBALANCED_LIMIT_M),
            len(join.parts),
            _behind_loss_m(join, known),
            join.unbalanced_m,
            -sum(part.lead in own for part in join.parts),
            sum(part.length_m for part in join.parts),
        )
    )
    return found[:10]


def _join(
    sending: OutputPort, receiving: InputPort, parts: tuple[Part, ...], known: Mapping[str, LeadClass]
) -> CableChain:
    wrong = faults(sending, [(known[part.lead], part.branch) for part in parts], receiving)
    if is_timecode_as_sound(sending, receiving):  # which belongs on one side, so that the other is left for sound
        wrong = tuple(fault for fault in wrong if fault is not Fault.ONE_SIDE)
    return CableChain(parts, wrong, unbalanced_length_m(sending, ((known[part.lead], part.length_m) for part in parts)))


def _padded(
    sending: OutputPort,
    receiving: InputPort,
    length_m: float,
    branch: str,
    shared: str,
    own: Mapping[str, LeadClass],
    lead: LeadClass,
) -> list[CableChain]:
    """Chains that end in a lead with an attenuator, in place of its plain twin: it stays at the receiving end. [PRACTICE]"""
    if not lead.replaces:
        return []
    plain = find_cable_chains(
        sending, receiving, length_m=length_m, branch=branch, shared=shared, own=own, through=lead.replaces[0]
    )
    found = []
    for *before, last in (join.parts for join in plain):
        if last.lead == lead.replaces[0]:
            is_short = not before and length_m <= (lead.short_m or 0.0) + JOINT_M
            part = replace(last, lead=lead.id, length_m=(is_short and lead.short_m) or last.length_m)
            found.append(_join(sending, receiving, (*before, part), {**built_in().leads, **own}))
    return found


def keeping_loss(parts: tuple[Part, ...], loss_db: float, receiving: InputPort) -> tuple[Part, ...]:
    """A chain of the catalogue's leads with an attenuator of that loss in or behind its last; as it is where none is made so."""
    leads = [built_in().leads.get(part.lead) for part in parts]
    if loss_db == 0 or any(lead is None or lead.loss_db is not None for lead in leads) or not leads:
        return parts
    last = built_in().leads[parts[-1].lead]
    for lead in built_in().leads.values():
        if lead.loss_db is None or lead.loss_db.value != loss_db:
            continue
        if last.id in lead.replaces:
            return (*parts[:-1], replace(parts[-1], lead=lead.id))
        if mates(last.receiving, lead.sending) and mates(lead.receiving, receiving.plug):
            return (*parts, Part(lead=lead.id, length_m=lead.short_m or SHORT_M))
    return parts


def _behind_loss_m(join: CableChain, known: Mapping[str, LeadClass]) -> float:
    """Metres behind an attenuator: it belongs at the receiving end, so that the cable carries the higher level."""
    lossy = [at for at, part in enumerate(join.parts) if known[part.lead].loss_db is not None]
    return sum(part.length_m for part in join.parts[lossy[0] + 1 :]) if lossy else 0.0


def _off_impedance(sending: OutputPort, join: CableChain, known: Mapping[str, LeadClass]) -> int:
    """Leads made to length that are not made for the digital signal on them."""
    leads = [known[part.lead] for part in join.parts]
    wrong = [lead for lead in leads if lead.characteristic_ohm != AES3_OHM and not lead.is_adapter]
    return len(wrong) if sending.circuit is Circuit.AES3 else 0


@cache
def _chains(sending: Plug, receiving: Plug, branch: str, as_sound: bool) -> tuple[tuple[LeadClass, ...], ...]:
    """Chains of the catalogue. There are few pairs of plugs: each is searched once."""
    return tuple(_searched(sending, receiving, _usable(_stock(branch), branch, as_sound)))


@cache
def _stock(branch: str) -> Mapping[str, LeadClass]:
    """The catalogue's leads as they are from a branch."""
    return {key: lead.at_branch(branch) for key, lead in built_in().leads.items()}


def _usable(leads: Mapping[str, LeadClass], branch: str, as_sound: bool = False) -> list[LeadClass]:
    """Leads that are proposed by themselves: of those with a loss only what takes timecode down to a microphone's level."""
    return [
        lead
        for lead in leads.values()
        if lead.proposed
        and (lead.loss_db is not None) == (as_sound and _leaves_bnc(lead))
        and ("" in lead.ways or branch in lead.ways)
    ]


def _leaves_bnc(lead: LeadClass) -> bool:
    return lead.sending.connector == "bnc" != lead.receiving.connector


def _searched(sending: Plug, receiving: Plug, usable: Sequence[LeadClass]) -> Iterable[tuple[LeadClass, ...]]:
    """Every chain whose plugs are made for each other, short ones first."""
    waiting: list[tuple[LeadClass, ...]] = [()]
    for chain in waiting:
        end = chain[-1].receiving if chain else sending
        if is_meant_for(end, receiving):
            yield chain
        if len(chain) < LONGEST_CHAIN:
            waiting += [
                (*chain, lead)
                for lead in usable
                if lead not in chain and is_meant_for(end, lead.sending) and not _turns_back(sending, (*chain, lead))
            ]


def _turns_back(sending: Plug, chain: Sequence[LeadClass]) -> bool:
    """Whether the last adapters of a chain do nothing but lead back to a connector where they began."""
    for at in range(len(chain) - 2, -1, -1):
        if not (chain[at].is_adapter and chain[at + 1].is_adapter):
            return False
        begins = chain[at - 1].receiving if at else sending
        if begins.connector == chain[-1].receiving.connector:
            return True
    return False


def _with_lengths(leads: list[tuple[LeadClass, str]], length_m: float, shared: str) -> tuple[Part, ...] | None:
    """Parts of which the balanced leads made to length take what the adapters leave; None where none reaches."""
    fixed = sum(lead.short_m or 0.0 for lead, _ in leads)
    free = [lead for lead, _ in leads if not lead.is_adapter]
    rest = max(length_m - fixed, 0.0)
    out_of_reach = bool(leads) and not free and rest > JOINT_M and not any(lead.id in _WIRELESS for lead, _ in leads)
    too_many = len(free) > 1 or (bool(free) and rest <= JOINT_M and len(leads) > 1)
    if out_of_reach or too_many:
        return None
    return tuple(
        Part(
            lead=lead.id,
            length_m=lead.short_m if lead.short_m is not None else round(max(rest, 0.5), 1),
            branch=branch,
            shared=shared if branch else "",
        )
        for lead, branch in leads
    )


def _plugs_in_directly(sending: OutputPort, length_m: float) -> bool:
    """A microphone's own cord, an aerial, a shoe, or two devices that sit on each other."""
    return is_plug_of_its_own(end_of(sending)) or sending.plug.connector in ("air", "shoe") or length_m <= JOINT_M


def is_timecode_as_sound(sending: OutputPort, receiving: InputPort) -> bool:
    """Whether timecode goes where sound is recorded."""
    return sending.circuit is Circuit.TIMECODE and receiving.circuit.is_analogue


def usual_length_m(sending: OutputPort, receiving: InputPort) -> float:
    """Length of a run where none is said: a plug on a cord of its own goes straight in, a timecode box sits on the camera, and
    what sends unbalanced stands beside its receiver, as it may not go far."""
    if Circuit.TIMECODE in (sending.circuit, receiving.circuit):
        return ON_CAMERA_M
    if any(is_plug_of_its_own(end_of(port)) for port in (sending, receiving)):
        return JOINT_M
    return ON_CAMERA_M if sending.circuit.is_analogue and not sending.circuit.is_balanced else USUAL_LENGTH_M


def with_length(index: PlanIndex, run: Run, length_m: float) -> tuple[Part, ...]:
    """The parts of a run with another total length: what is made to length takes what the adapters leave.

    Empty where nothing in it is made to length, or the adapters alone are longer.
    """
    leads = index.leads_of(run)
    # A lead with an attenuator is made at any length, as its plain twin is.
    free = [at for at, (lead, _) in enumerate(leads) if not lead.is_adapter or lead.replaces]
    if not free:
        return ()
    longest = max(free, key=lambda at: leads[at][1])
    rest = length_m - sum(length for at, (_, length) in enumerate(leads) if at != longest)
    if rest < SHORTEST_M:
        return ()
    parts = list(run.parts)
    parts[longest] = replace(parts[longest], length_m=round(rest, 2))
    return tuple(parts)
