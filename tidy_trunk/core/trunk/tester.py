"""A cable tested contact by contact: which reaches which, held against its class."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import combinations
from random import Random
from typing import Final

from tidy_trunk.core.gear.catalogue import LeadClass, Side
from tidy_trunk.errors import InputError

SideContact = tuple[Side, str]
"""A contact of a plug: of which end, and its name."""

Reaches = frozenset[frozenset[SideContact]]
"""Pairs of contacts between which a tester beeps."""


class CableFault(StrEnum):
    """What is wrong with a cable. Source: [HANDBOOK] §4"""

    OPEN = "open"  # a contact that reaches nothing it should
    SHORTED = "shorted"  # contacts joined that should not be
    SWAPPED = "swapped"  # two that have changed places
    LEG_LOST = "leg-lost"  # one of a balanced pair reaches nothing


LEGS: Final = frozenset({"2", "3", "T", "R"})
"""Contacts of a pair: of an XLR hot and cold, of a phone plug tip and ring. [HANDBOOK] §4"""


@dataclass(frozen=True, slots=True)
class TestedFault:
    """contacts: it is about, of the sending end or as they are joined."""

    what: CableFault
    contacts: tuple[str, ...]


def reaches(lead: LeadClass) -> Reaches:
    """What a tester finds on a cable that is whole. What goes through a transformer is open to it."""
    joined: dict[SideContact, set[SideContact]] = {}

    def join(one: SideContact, other: SideContact) -> None:
        together = joined.get(one, {one}) | joined.get(other, {other})
        for contact in together:
            joined[contact] = together

    for way in lead.ways.values():
        for wire in way.wires:
            join((Side.SENDING, wire.near), (Side.RECEIVING, wire.far))
        for bridge in way.bridges:
            join((bridge.end, bridge.first), (bridge.end, bridge.second))
    return frozenset(frozenset(pair) for together in joined.values() for pair in combinations(sorted(together), 2))


def pairs_of(lead: LeadClass, said: Iterable[tuple[str, str]]) -> Reaches:
    """What somebody entered: pairs of contacts, `2` of the sending end reaches `3` of the receiving one.

    Raises InputError: a contact that the plugs have not.
    """
    known = {
        side: {name for way in lead.ways.values() for where, name in way.contacts() if where is side} for side in Side
    }
    found = set()
    for near, far in said:
        for side, name in ((Side.SENDING, near), (Side.RECEIVING, far)):
            if name not in known[side]:
                there = ", ".join(sorted(known[side]))
                raise InputError(f"this end of {lead.label} has no contact '{name[:10]}': it has {there}")
        found.add(frozenset({(Side.SENDING, near), (Side.RECEIVING, far)}))
    return frozenset(found)


def cable_faults(lead: LeadClass, found: Reaches) -> tuple[TestedFault, ...]:
    """What a test says of a cable. found: pairs from end to end, as `pairs_of` has them; none of one that is whole.

    A test goes from end to end: what only joins contacts of one plug is seen by what else they reach.
    """
    right = {pair for pair in reaches(lead) if len({side for side, _ in pair}) == 2}
    missing = {_ends(pair) for pair in right - found}
    more = {_ends(pair) for pair in found - right}
    faults: list[TestedFault] = []
    for (near, far), (other_near, other_far) in combinations(sorted(missing), 2):
        crossed = {(near, other_far), (other_near, far)}
        if crossed <= more and near != other_near and far != other_far:
            faults.append(TestedFault(CableFault.SWAPPED, (near, other_near)))
            missing -= {(near, far), (other_near, other_far)}
            more -= crossed
    for near, far in sorted(missing):
        what = CableFault.LEG_LOST if lead.balanced and near in LEGS else CableFault.OPEN
        faults.append(TestedFault(what, (near, far)))
    for near, far in sorted(more):
        faults.append(TestedFault(CableFault.SHORTED, (near, far)))
    return tuple(faults)


def _ends(pair: frozenset[SideContact]) -> tuple[str, str]:
    by_side: Mapping[Side, str] = dict(pair)
    return by_side[Side.SENDING], by_side[Side.RECEIVING]


def stand_in_test(lead: LeadClass, what: CableFault | None, seed: int) -> Reaches:
    """What a tester would show on a cable with one fault, drawn by the seed; None of one that is whole.

    Raises InputError: a cable that cannot have that fault.
    """
    right = {pair for pair in reaches(lead) if len({side for side, _ in pair}) == 2}
    ends = sorted(_ends(pair) for pair in right)
    by = Random(seed)
    legs = [pair for pair in ends if pair[0] in LEGS]
    if what is None:
        return frozenset(right)
    if what in (CableFault.OPEN, CableFault.LEG_LOST):
        choices = (
            legs
            if what is CableFault.LEG_LOST and lead.balanced
            else [pair for pair in ends if not lead.balanced or pair not in legs]
        )
        if not choices:
            raise InputError(f"{lead.label} cannot have this fault")
        lost = by.choice(choices)
        return frozenset(pair for pair in right if _ends(pair) != lost)
    apart = [(one, other) for one, other in combinations(ends, 2) if one[0] != other[0] and one[1] != other[1]]
    apart = [(one, other) for one, other in apart if (one[0], other[1]) not in ends and (other[0], one[1]) not in ends]
    if not apart:
        raise InputError(f"{lead.label} cannot have this fault")
    one, other = by.choice(apart)
    crossed = {_pair(one[0], other[1]), _pair(other[0], one[1])}
    if what is CableFault.SWAPPED:
        return frozenset({pair for pair in right if _ends(pair) not in (one, other)} | crossed)
    return frozenset(right | crossed)


def _pair(near: str, far: str) -> frozenset[SideContact]:
    return frozenset({(Side.SENDING, near), (Side.RECEIVING, far)})
