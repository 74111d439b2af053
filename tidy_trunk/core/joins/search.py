"""What joins an output to an input: chains of leads and adapters that mate and bring the right signal."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Final

from tidy_trunk.core.catalogue import LEADS, Gender, InputPort, LeadClass, OutputPort, Plug, Signal, mates
from tidy_trunk.core.plan import Part
from tidy_trunk.core.trace import arrivals

LONGEST_CHAIN: Final = 3
"""ASSUMED_ most leads that a proposal puts in a row: every join is a fault to come."""

UNBALANCED_LIMIT_M: Final = 1.0
"""Unbalanced length from which trouble has been met. [PRACTICE]"""

USUAL_LENGTH_M: Final = 3.0
"""ASSUMED_ length of a run when none is given."""


JOINT_M: Final = 0.2
"""ASSUMED_ what a lead or joint bridges beyond its stated length."""

_ONLY_FOUND = ("xlr-crossed",)  # never proposed: it only turns up by mistake
_WIRELESS = ("radio", "shoe")


@dataclass(frozen=True, slots=True)
class Join:
    """A chain of leads. `faults` says what is wrong with the signal that arrives; empty where it is right."""

    parts: tuple[Part, ...]
    faults: tuple[str, ...]
    unbalanced_m: float


def signal_faults(sending: OutputPort, leads: Sequence[tuple[LeadClass, str]], receiving: InputPort) -> tuple[str, ...]:
    """What is wrong with what arrives through leads, in words; empty where each channel hears what it should."""
    if sending.circuit.is_digital:
        takes = any(mode.signal is Signal.DIGITAL for mode in receiving.modes)
        return () if takes else ("numbers into an analogue input",)
    if not receiving.circuit.is_analogue:
        return ("analogue into a digital input",)
    heard = arrivals(sending, leads, receiving)
    faults = []
    if not any(heard):
        faults.append("nothing arrives")
    signs = [arrival[0].coefficient > 0 for arrival in heard if len(arrival) == 1]
    if any(len(arrival) > 1 for arrival in heard):
        faults.append("left minus right: the middle vanishes")
    elif len(set(signs)) > 1:
        faults.append("the two sides are in opposite polarity")
    elif signs and not signs[0]:
        faults.append("polarity is inverted")
    branched = any(branch for _, branch in leads)
    if not branched and any(heard) and not all(heard):
        faults.append("one side stays silent")
    both_stereo = len(sending.channels) == 2 and len(receiving.channels) == 2 and not branched
    if both_stereo and [arrival[0].channel if arrival else -1 for arrival in heard] != [0, 1]:
        faults.append("left and right do not arrive as they were")
    return tuple(faults)


def unbalanced_length_m(sending: OutputPort, parts: Sequence[Part]) -> float:
    """Length over which the signal is unbalanced: from an unbalanced output all of it, else from where a lead drops cold."""
    total, lost = 0.0, not sending.circuit.is_balanced
    if sending.circuit.is_digital or not sending.circuit.is_analogue:
        return 0.0
    for part in parts:
        lost = lost or not LEADS[part.lead].balanced
        total += part.length_m if lost else 0.0
    return total


def find_joins(
    sending: OutputPort, receiving: InputPort, *, length_m: float = USUAL_LENGTH_M, branch: str = "", shared: str = ""
) -> list[Join]:
    """Ways to join two ports, best first: the right signal, long enough, little of it unbalanced, few joins.

    Args:
        sending, receiving: The ports.
        length_m: How far apart they are; leads made to length take it, short adapters add theirs.
        branch: "L" or "R" to use one way of two-way leads too; "" keeps to plain ones.
        shared: Name of the physical two-way lead, needed with `branch`.

    Returns:
        At most ten joins; empty where nothing in the catalogue mates.

    Source: [HANDBOOK] §4
    """
    found = []
    for chain in _chains(sending.plug, receiving.plug, branch):
        leads = [(lead, branch if len(lead.wires) > 1 else "") for lead in chain]
        parts = _with_lengths(leads, length_m, shared)
        if not leads and not _plugs_in_directly(sending, length_m):
            continue
        if parts is None:
            continue
        faults = signal_faults(sending, leads, receiving)
        found.append(Join(parts, faults, unbalanced_length_m(sending, parts)))
    found.sort(
        key=lambda join: (
            len(join.faults),
            max(0.0, join.unbalanced_m - UNBALANCED_LIMIT_M),
            len(join.parts),
            join.unbalanced_m,
            sum(part.length_m for part in join.parts),
        )
    )
    return found[:10]


@cache
def _chains(sending: Plug, receiving: Plug, branch: str) -> tuple[tuple[LeadClass, ...], ...]:
    """Every chain whose plugs mate, short ones first. There are few pairs of plugs: each is searched once."""
    usable = [
        lead
        for lead in LEADS.values()
        if lead.loss_db is None and lead.id not in _ONLY_FOUND and ("" in lead.wires or branch in lead.wires)
    ]
    found: list[tuple[LeadClass, ...]] = []
    waiting: list[tuple[LeadClass, ...]] = [()]
    for chain in waiting:
        end = chain[-1].receiving if chain else sending
        if mates(end, receiving):
            found.append(chain)
        if len(chain) < LONGEST_CHAIN:
            waiting += [(*chain, lead) for lead in usable if lead not in chain and mates(end, lead.sending)]
    return tuple(found)


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
    has_cord = sending.plug.connector == "trs35" and sending.plug.gender is Gender.MALE
    return has_cord or sending.plug.connector in ("air", "shoe") or length_m <= JOINT_M
