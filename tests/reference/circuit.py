"""Leads as a circuit, a second time: every contact is a node of its own, every wire and winding a branch with a current.

Kirchhoff's laws over all contacts of one output and whatever hangs on it, solved by least squares in numpy, so that loops
of plain wire and contacts that hang free need no special care. Knows leads and connectors as data, and nothing else.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np

from tidy_trunk.core.gear.catalogue import PINOUTS, Circuit, Drive, Side, Supply, built_in, touching

SUPPLY_V = {Supply.P48: 48.0, Supply.PLUG_IN: 3.0, Supply.T_POWER: 12.0}
FEED_OHM = {Supply.P48: 6_800.0, Supply.PLUG_IN: 2_200.0, Supply.T_POWER: 180.0}
"""IEC 61938: 48 V by 2 x 6.8 kohm, T-power 12 V by 2 x 180 ohm; plug-in power 3 V by 2.2 kohm is from memory."""

LEAK_S = 1e-10


@dataclass
class Board:
    """Nodes by name, branches v(plus) - v(minus) = volts - ohm·i, currents into nodes, and 1:1 windings."""

    nodes: dict = field(default_factory=dict)
    branches: list = field(default_factory=list)
    windings: list = field(default_factory=list)
    drawn: list = field(default_factory=list)

    def node(self, name) -> int:
        return self.nodes.setdefault(name, len(self.nodes))

    def branch(self, plus, minus, ohm: float = 0.0, volts: float = 0.0) -> None:
        if plus != minus:
            self.branches.append((self.node(plus), self.node(minus), ohm, volts))

    def solve(self, ground) -> dict:
        earth, nodes, branches = self.node(ground), len(self.nodes), len(self.branches)
        rows = np.zeros((nodes + branches + len(self.windings) + 1, nodes + branches + len(self.windings)))
        right = np.zeros(len(rows))
        rows[range(nodes), range(nodes)] = LEAK_S
        for at, (plus, minus, ohm, volts) in enumerate(self.branches):
            rows[nodes + at, [plus, minus, nodes + at]] = 1, -1, ohm
            right[nodes + at] = volts
            rows[plus, nodes + at] -= 1
            rows[minus, nodes + at] += 1
        for at, ends in enumerate(self.windings):
            for name, sign in zip(ends, (1, -1, -1, 1), strict=True):
                rows[nodes + branches + at, self.node(name)] += sign
                rows[self.node(name), nodes + branches + at] += sign
        for name, ampere in self.drawn:
            right[self.node(name)] -= ampere
        rows[earth] = 0.0
        right[earth] = 0.0
        rows[-1, earth] = 1.0
        found, *_ = np.linalg.lstsq(rows, right, rcond=None)
        return {name: float(found[at]) for name, at in self.nodes.items()}


def legs(port) -> dict:
    """Contacts of a port by (channel, role)."""
    pinout = PINOUTS[port.plug.connector, port.circuit]
    found: dict = {}
    for contact, leg in pinout.items():
        found.setdefault((leg.channel, leg.role), contact)
    return found


def mates(sending, parts: list[dict], receiving) -> bool:
    return all(joint is not None for joint in _joints(sending, parts, receiving))


def _joints(sending, parts: list[dict], receiving) -> Iterator:
    plugs = [sending.plug]
    for part in parts:
        plugs += [built_in().leads[part["lead"]].sending, built_in().leads[part["lead"]].receiving]
    plugs.append(receiving.plug)
    for at in range(0, len(plugs), 2):
        yield touching(plugs[at], plugs[at + 1])


def wired(sending, ways: list[tuple[list[dict], object]], *, power: bool = False) -> Board:
    """An output with the leads to each of its inputs; contacts are ("out", contact) and (way, place, contact)."""
    board = Board()
    for contact, leg in PINOUTS[sending.plug.connector, sending.circuit].items():
        board.node(("out", contact))
        if leg.role == "screen":
            board.branch(("out", contact), "common")
    for way, (parts, receiving) in enumerate(ways):
        last = 2 * len(parts) + 1
        place = {0: lambda contact: ("out", contact)}
        for at in range(1, last + 1):
            place[at] = lambda contact, way=way, at=at: (way, at, contact)
        for at, pairs in enumerate(_joints(sending, parts, receiving)):
            for near, far in pairs:
                board.branch(place[2 * at](near), place[2 * at + 1](far))
        for at, part in enumerate(parts):
            _inside(
                board,
                built_in().leads[part["lead"]].ways[part.get("branch", "")],
                place[2 * at + 1],
                place[2 * at + 2],
                power,
            )
        for contact, leg in PINOUTS[receiving.plug.connector, receiving.circuit].items():
            if leg.role == "screen":
                board.branch(place[last](contact), ("ground", way))
    return board


def _inside(board: Board, wiring, near, far, power: bool) -> None:
    for wire in wiring.wires:
        if not (power and wire.blocks_dc):
            board.branch(near(wire.near), far(wire.far), wire.ohm)
    for bridge in wiring.bridges:
        end = near if bridge.end is Side.SENDING else far
        board.branch(end(bridge.first), end(bridge.second), bridge.ohm)
    for winding in wiring.windings:
        first, second, third, fourth = *map(near, winding.near), *map(far, winding.far)
        if power:
            board.branch(first, second)
            board.branch(third, fourth)
        else:
            board.windings.append((first, second, third, fourth))


def driven_board(sending, source_ohm: float, ways: list, loads: list[float], driven: int) -> tuple[Board, list]:
    """One volt of open circuit on one channel of an output, with all loads; and (way, channel, hot, cold) of each input."""
    board, out = wired(sending, ways), legs(sending)
    for channel in range(len(sending.channels)):
        volts = 1.0 if channel == driven else 0.0
        hot, cold = out.get((channel, "hot")), out.get((channel, "cold"))
        if hot is None:
            continue
        hot, cold = ("out", hot), None if cold is None else ("out", cold)
        if cold is None:
            board.branch(hot, "common", source_ohm, volts)
        elif sending.drive is Drive.FLOATING:
            board.branch(hot, cold, source_ohm, volts)
        else:
            half = source_ohm / 2
            share = 0.5 if sending.drive is Drive.SYMMETRIC else 1.0
            board.branch(hot, "common", half, volts * share)
            board.branch("common", cold, half, volts * (1 - share))
    ends = []
    for way, ((parts, receiving), load) in enumerate(zip(ways, loads, strict=True)):
        ground, last, taken = ("ground", way), 2 * len(parts) + 1, legs(receiving)
        for channel in range(len(receiving.channels)):
            hot, cold = taken.get((channel, "hot")), taken.get((channel, "cold"))
            if hot is None:
                continue
            hot, cold = (way, last, hot), None if cold is None else (way, last, cold)
            board.branch(hot, ground, load if cold is None else load / 2)
            if cold is not None:
                board.branch(cold, ground, load / 2)
            ends.append((way, channel, hot, cold or ground))
    return board, ends


def arrivals(sending, source_ohm: float, ways: list, loads: list[float]) -> list[list[dict[int, float]]]:
    """For each way and each channel of its input: by sending channel, volts for one volt of open circuit."""
    found = [[{} for _ in receiving.channels] for _, receiving in ways]
    for driven in range(len(sending.channels)):
        board, ends = driven_board(sending, source_ohm, ways, loads, driven)
        volts = board.solve(("ground", 0))
        for way, channel, hot, cold in ends:
            ratio = volts[hot] - volts[cold]
            if abs(ratio) > 1e-5:
                found[way][channel][driven] = ratio
    return found


def fed_board(sending, feeds: list) -> tuple[Board, list]:
    """What inputs give to an output; and the ends (hot, cold) of that, None where it has no such contact.

    feeds: leads, input, what it gives (None: off) and at how many volts.
    """
    board = wired(sending, [(parts, receiving) for parts, receiving, _, _ in feeds], power=True)
    for way, (parts, receiving, supply, volts) in enumerate(feeds):
        for (_, role), contact in legs(receiving).items():
            if supply is not None and role != "screen":
                emf = 0.0 if supply is Supply.T_POWER and role == "cold" else volts
                board.branch((way, 2 * len(parts) + 1, contact), ("ground", way), FEED_OHM[supply], emf)
    out = legs(sending)
    ends = [("out", out[0, role]) if (0, role) in out else None for role in ("hot", "cold")]
    for end in ends:
        if end is not None:
            board.branch(end, "common", 1e8)
    board.node("common")
    return board, ends


def volts_at(sending, feeds: list[tuple[list[dict], object, Supply | None, float]]) -> tuple[float, float]:
    """What inputs give on hot and cold of an output, above its screen, with nothing there that draws."""
    board, ends = fed_board(sending, feeds)
    found = board.solve(("ground", 0))
    hot, cold = (0.0 if end is None else found[end] - found["common"] for end in ends)
    return hot, cold


def is_analogue(circuit: Circuit) -> bool:
    return circuit in (Circuit.BALANCED, Circuit.BALANCED_STEREO, Circuit.UNBALANCED, Circuit.UNBALANCED_STEREO)
