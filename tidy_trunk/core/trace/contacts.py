"""What arrives at a socket through leads: worked out from the contacts that they join, not from their names."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from tidy_trunk.core.catalogue import PINOUTS, Circuit, LeadClass, Leg, Port, Wires, mates


@dataclass(frozen=True, slots=True)
class Arrival:
    """A sending channel as one receiving channel hears it; the coefficient is a voltage ratio, negative if inverted."""

    channel: int
    coefficient: float


@dataclass(frozen=True, slots=True)
class Mismatch:
    """Two ends that do not go together, named as a recordist would."""

    first: str
    second: str


def unmated(sending: Port, leads: Sequence[LeadClass], receiving: Port) -> Mismatch | None:
    """The first joint of a run whose plugs do not mate; None where all do."""
    ends = [(sending.plug, sending.label)]
    for lead in leads:
        if not mates(ends[-1][0], lead.sending):
            return Mismatch(f"{ends[-1][1]} ({ends[-1][0].words})", f"{lead.label} ({lead.sending.words})")
        ends.append((lead.receiving, lead.label))
    if not mates(ends[-1][0], receiving.plug):
        return Mismatch(f"{ends[-1][1]} ({ends[-1][0].words})", f"{receiving.label} ({receiving.plug.words})")
    return None


def arrivals(sending: Port, leads: Sequence[tuple[LeadClass, str]], receiving: Port) -> tuple[tuple[Arrival, ...], ...]:
    """For each channel of the receiving port, which sending channels it hears and how.

    A balanced output is taken to float: what lies between hot and whatever is the return arrives in full. Where its
    two legs go to two different channels, each gets half against the screen [PRACTICE]. An unbalanced output drives
    hot against the screen.

    Args:
        sending, receiving: The ports at the ends.
        leads: (lead, branch) in order; empty where the plugs mate directly.

    Returns:
        One tuple for each receiving channel; empty where nothing arrives.

    Source: [HANDBOOK] §4
    """
    wires = tuple(lead.wires[branch] for lead, branch in leads)
    start, end = (sending.plug.connector, sending.circuit), (receiving.plug.connector, receiving.circuit)
    return _arrivals(start, wires, end, len(receiving.channels))


End = tuple[str, Circuit]
"""A connector and what it is used for. [HANDBOOK] §4"""


@lru_cache(maxsize=4096)
def _arrivals(start: End, wires: tuple[Wires, ...], end: End, channels: int) -> tuple[tuple[Arrival, ...], ...]:
    """The same for sockets of a kind, whichever device they are in: a job joins few kinds many times over."""
    sent, heard = PINOUTS[start], PINOUTS[end]
    carried: dict[Leg, set[Leg]] = {}  # receiving leg → legs of the sender on it
    for near, far in _joined_contacts(tuple(sent), wires):
        if far in heard:
            carried.setdefault(heard[far], set()).add(sent[near])
    places: dict[Leg, set[int]] = {}  # leg of the sender → receiving channels whose signal contacts it reaches
    for leg, senders in carried.items():
        for sender in senders:
            if leg.role != "screen":
                places.setdefault(sender, set()).add(leg.channel)
    return tuple(_channel(index, carried, places) for index in range(channels))


def _joined_contacts(contacts: tuple[str, ...], wires: tuple[Wires, ...]) -> tuple[tuple[str, str], ...]:
    """Pairs (contact of the sending socket, contact of the receiving socket) that the leads join."""
    pairs = tuple((contact, contact) for contact in contacts)
    for lead in wires:
        pairs = tuple((first, far) for first, here in pairs for near, far in lead if near == here)
    return pairs


def _channel(index: int, carried: dict[Leg, set[Leg]], places: dict[Leg, set[int]]) -> tuple[Arrival, ...]:
    found: dict[int, float] = {}
    for sign, leg in ((1.0, Leg(index, "hot")), (-1.0, Leg(index, "cold"))):
        for sender in carried.get(leg, ()):
            if sender.role == "screen":
                continue
            polarity = 1.0 if sender.role == "hot" else -1.0
            other = Leg(sender.channel, "cold" if sender.role == "hot" else "hot")
            # Each leg carries half where its partner drives something too, all of it where the partner is the return.
            share = 0.5 if places.get(other) else 1.0
            found[sender.channel] = found.get(sender.channel, 0.0) + sign * polarity * share
    return tuple(Arrival(channel, value) for channel, value in sorted(found.items()) if value)
