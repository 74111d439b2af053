"""An output and the leads to its inputs as one network: which contacts touch, and what lies in the cores."""

import math
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from tidy_trunk.core.gear.catalogue import PINOUTS, Circuit, Gender, LeadClass, Leg, Plug, Port, Side, Wiring, touching
from tidy_trunk.core.gear.wiring.network import Network, Node

COMMON: Node = "common of the sender"
"""Where the screen contacts of the sending port meet."""


PlugPosition = tuple[int | None, int]
"""A plug or socket of a network: its branch, and which in the row it is; the sender's belongs to none."""

SENDER: Final[PlugPosition] = (None, 0)
"""That of the output itself. ASSUMED_ name"""


def ground(branch: int = 0) -> Node:
    """Where the screen contacts of a branch's receiving port meet; that of the first branch is at 0 V."""
    return ("screen of the receiver", branch)


class End(NamedTuple):
    """A port as a circuit sees it."""

    plug: Plug
    circuit: Circuit
    channels: int


class LeadWay(NamedTuple):
    """One way of a lead."""

    sending: Plug
    receiving: Plug
    wiring: Wiring


class Branch(NamedTuple):
    """What leads from an output to one of the inputs that share it: leads in order, the input, and its impedance."""

    pieces: tuple[LeadWay, ...]
    receiver: End
    load_ohm: float = math.inf


def end_of(port: Port) -> End:
    return End(port.plug, port.circuit, len(port.channels))


def ways_of_leads(leads: Sequence[tuple[LeadClass, str]]) -> tuple[LeadWay, ...]:
    """The ways of leads, as (lead, branch), in order."""
    return tuple(LeadWay(lead.sending, lead.receiving, lead.ways[branch]) for lead, branch in leads)


def legs_at(end: End) -> Iterator[tuple[str, Leg]]:
    """The contacts of a port with what each carries."""
    yield from PINOUTS[end.plug.connector, end.circuit].items()


def wire_up(network: Network, sender: End, branches: Sequence[Branch], *, power: bool = False) -> None:
    """Put the contacts and leads of all branches of an output into a network.

    Nodes are (branch, place, contact); those of the sender belong to no branch: (None, 0, contact). A branch's receiver
    is its place -1. Plugs must mate.

    power: for direct current, which no capacitor and no transformer passes.
    """
    _screen(network, sender, SENDER, COMMON)
    for number, branch in enumerate(branches):
        ends = [sender.plug]
        for piece in branch.pieces:
            ends += [piece.sending, piece.receiving]
        ends.append(branch.receiver.plug)
        places: list[PlugPosition] = [SENDER, *((number, at) for at in range(1, len(ends) - 1)), (number, -1)]
        for joint in range(0, len(ends), 2):
            for near, far in touching(ends[joint], ends[joint + 1]) or ():
                network.wire((*places[joint], near), (*places[joint + 1], far))
        for index, piece in enumerate(branch.pieces):
            _put_inside(network, piece.wiring, places[2 * index + 1], places[2 * index + 2], power=power)
        _screen(network, branch.receiver, (number, -1), ground(number))


def _screen(network: Network, end: End, place: PlugPosition, screen: Node) -> None:
    for name, leg in legs_at(end):
        if leg.role == "screen":
            network.wire((*place, name), screen)


def _put_inside(network: Network, wiring: Wiring, near: PlugPosition, far: PlugPosition, *, power: bool) -> None:
    for wire in wiring.wires:
        if power and wire.blocks_dc:
            continue
        if wire.ohm:
            network.resistor((*near, wire.near), (*far, wire.far), wire.ohm)
        else:
            network.wire((*near, wire.near), (*far, wire.far))
    for bridge in wiring.bridges:
        place = near if bridge.end is Side.SENDING else far
        if bridge.ohm:
            network.resistor((*place, bridge.first), (*place, bridge.second), bridge.ohm)
        else:
            network.wire((*place, bridge.first), (*place, bridge.second))
    for winding in wiring.windings:
        first, second = ((*near, contact) for contact in winding.near)
        third, fourth = ((*far, contact) for contact in winding.far)
        if power:  # a winding is a piece of wire for direct current, and nothing joins the two
            network.wire(first, second)
            network.wire(third, fourth)
        else:
            network.winding((first, second), (third, fourth))


def contact(end: End, place: PlugPosition, leg: Leg) -> Node | None:
    """The node of the contact that carries a leg; None where the port has none."""
    return next(((*place, name) for name, carried in legs_at(end) if carried == leg), None)


def is_plug_of_its_own(end: End) -> bool:
    """Whether a port is a plug on a cord of its own, which needs no lead."""
    return end.plug.gender is Gender.MALE and end.plug.connector in ("trs35", "trrs35", "trrs35-older", "ts35", "usb-c")
