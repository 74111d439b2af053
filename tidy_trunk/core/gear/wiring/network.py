"""A network of resistors, sources and transformers, solved node by node."""

from collections.abc import Hashable, Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

Node = Hashable
"""Whatever names a point of the circuit."""

LEAK_S: Final = 1e-10
"""ASSUMED_ conductance from every node to ground, 10 GΩ: what hangs free has a voltage then, and no other is moved."""

COPPER_OHM: Final = 1e-6
"""ASSUMED_ resistance of an ideal winding: only so that one that is shorted at both ends has an answer."""


class Network:
    """Built part by part, then solved once for several sets of sources side by side.

    A plain wire makes two nodes one. The first ground that is named is at 0 V.
    """

    def __init__(self, sets: int) -> None:
        """`sets`: how many sets of sources there are; each has its own column of voltages."""
        self._sets = sets
        self._above: dict[Node, Node] = {}
        self._resistors: list[tuple[Node, Node, float]] = []
        self._currents: list[tuple[Node, Node, float, int]] = []
        self._windings: list[tuple[Node, Node, Node, Node]] = []

    def wire(self, first: Node, second: Node) -> None:
        self._above[self.net(first)] = self.net(second)

    def resistor(self, first: Node, second: Node, ohm: float) -> None:
        """Above 0 Ω; a wire is no resistor."""
        self._resistors.append((self._seen(first), self._seen(second), ohm))

    def source(self, plus: Node, minus: Node, volts: float, ohm: float, which: int) -> None:
        """A voltage behind a resistance above 0 Ω, active in one set and at 0 V in all others."""
        self.resistor(plus, minus, ohm)
        self.current(minus, plus, volts / ohm, which)

    def current(self, out_of: Node, into: Node, amperes: float, which: int) -> None:
        self._currents.append((self._seen(out_of), self._seen(into), amperes, which))

    def winding(self, near: tuple[Node, Node], far: tuple[Node, Node]) -> None:
        """An ideal 1:1 transformer."""
        self._windings.append((*map(self._seen, near), *map(self._seen, far)))  # type: ignore[arg-type]

    def _seen(self, node: Node) -> Node:
        self._above.setdefault(node, node)
        return node

    def net(self, node: Node) -> Node:
        """The one node that stands for all that are wired together with this one."""
        way = [node]
        while (above := self._above.setdefault(way[-1], way[-1])) != way[-1]:
            way.append(above)
        for passed in way[:-1]:
            self._above[passed] = way[-1]
        return way[-1]

    def joined(self, first: Node, second: Node) -> bool:
        """Whether plain copper joins two nodes."""
        return self.net(first) == self.net(second)

    def solve(self, ground: Node, wanted: Sequence[Node]) -> NDArray[np.float64]:
        """Volts above ground: float array, shape (wanted, sets)."""
        nets = {
            net: index for index, net in enumerate(dict.fromkeys(self.net(node) for node in [*self._above, *wanted]))
        }
        size, extra = len(nets), len(self._windings)
        matrix = np.zeros((size + extra, size + extra))
        right = np.zeros((size + extra, self._sets))
        matrix[range(size), range(size)] = LEAK_S
        for first, second, ohm in self._resistors:
            a, b = nets[self.net(first)], nets[self.net(second)]
            if a != b:
                matrix[[a, b, a, b], [a, b, b, a]] += np.array([1, 1, -1, -1]) / ohm
        for out_of, into, amperes, which in self._currents:
            right[nets[self.net(out_of)], which] -= amperes
            right[nets[self.net(into)], which] += amperes
        for row, ends in enumerate(self._windings, start=size):
            # The row says that both windings hold the same voltage; the column carries the current that sees to it.
            for node, sign in zip(ends, (1.0, -1.0, -1.0, 1.0), strict=True):
                matrix[row, nets[self.net(node)]] += sign
                matrix[nets[self.net(node)], row] += sign
            matrix[row, row] = -COPPER_OHM
        earth = nets[self.net(ground)]
        matrix[earth] = 0.0
        matrix[earth, earth] = 1.0
        right[earth] = 0.0
        volts = np.linalg.solve(matrix, right).astype(np.float64)
        return np.take(volts, [nets[self.net(node)] for node in wanted], axis=0)
