"""Where the devices and cables of a patch diagram lie: from left to right as sound goes, with few crossings.

Which device stands in which column, and in which order, comes from Sugiyama's method as the library fast-sugiyama has it; how far
apart they stand, from their heights: as near to what they are joined with as the order lets them, by isotonic regression.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np
from fast_sugiyama import from_edges
from numpy.typing import NDArray

ROW_MM: Final = 4.6
"""ASSUMED_ height of a socket's row: a line of 8 pt and some air."""

HEAD_MM: Final = 7.0
"""ASSUMED_ height of what stands above the sockets: the name of the device."""

GAP_MM: Final = 5.0
"""ASSUMED_ least distance between two devices of a column."""

STUB_MM: Final = 8.0
"""ASSUMED_ piece of a cable at each end that goes straight: its number stands there."""

CHANNEL_MM: Final = 14.0
"""ASSUMED_ least width between two columns, beside the stubs: for cables that go up or down."""

PASSING_MM: Final = 2.4
"""ASSUMED_ distance between cables that pass a column side by side."""

SWEEPS: Final = 6
"""ASSUMED_ times that all columns are drawn towards what they are joined with: after that nothing moves by a millimetre."""


@dataclass(frozen=True, slots=True)
class Station:
    """A device to be placed: its sockets by id, inputs left, outputs right."""

    id: str
    inputs: tuple[str, ...]
    outputs: tuple[str, ...]
    width: float

    @property
    def height(self) -> float:
        return HEAD_MM + ROW_MM * max(len(self.inputs), len(self.outputs), 1) + 1.5


@dataclass(frozen=True, slots=True)
class DrawnCable:
    """A cable to be drawn, from a socket to a socket."""

    id: str
    sender: str
    output: str
    receiver: str
    input: str


@dataclass(frozen=True, slots=True)
class PatchLayout:
    """Corners of devices, the order of their sockets, and cables as points; all in mm. width, height: of the whole."""

    corners: Mapping[str, tuple[float, float]]
    inputs: Mapping[str, tuple[str, ...]]
    outputs: Mapping[str, tuple[str, ...]]
    paths: Mapping[str, tuple[tuple[float, float], ...]]
    width: float
    height: float

    @property
    def crossings(self) -> int:
        """How often two cables cross."""
        return count_crossings(self.paths)


def lay_out(stations: Sequence[Station], wires: Sequence[DrawnCable]) -> PatchLayout:
    """A place for everything; the same input gives the same drawing."""
    layers, chains = _layers(stations, wires)
    known = {station.id: station for station in stations}
    sizes = {
        one: known[one].height if one in known else PASSING_MM * max(1, len(chains.through[one]))
        for layer in layers
        for one in layer
    }
    tops = _tops(layers, chains, sizes)
    inputs, outputs = _sockets(stations, wires, chains, tops, sizes)
    tops = _tops(layers, chains, sizes, inputs, outputs, known)
    lowest = min(tops.values(), default=0.0)
    tops = {one: top - lowest for one, top in tops.items()}
    widths = [max((known[one].width for one in layer if one in known), default=0.0) for layer in layers]
    lefts, at = [], STUB_MM
    for width in widths:
        lefts.append(at)
        at += width + 2 * STUB_MM + CHANNEL_MM
    bottom = max((top + sizes[one] for one, top in tops.items()), default=0.0)
    columns = {one: number for number, layer in enumerate(layers) for one in layer}
    corners = {one: (lefts[columns[one]], tops[one]) for one in known}
    paths: dict[str, tuple[tuple[float, float], ...]] = {}
    lowered = 0
    for wire in wires:
        begin = _socket_at(known[wire.sender], corners, outputs, wire.output, is_output=True)
        end = _socket_at(known[wire.receiver], corners, inputs, wire.input, is_output=False)
        via = chains.of_pair.get((wire.sender, wire.receiver), ())
        if columns[wire.receiver] <= columns[wire.sender]:  # it leads back: below all others
            lowered += 1
            depth = bottom + GAP_MM + PASSING_MM * lowered
            out, back = begin[0] + STUB_MM, end[0] - STUB_MM
            paths[wire.id] = (begin, (out, begin[1]), (out, depth), (back, depth), (back, end[1]), end)
            continue
        points = [begin, (begin[0] + STUB_MM, begin[1])]
        for dummy in via:
            lane = chains.through[dummy].index(wire.id)
            y = tops[dummy] + PASSING_MM * (lane + 0.5)
            left = lefts[columns[dummy]]
            points += [(left - STUB_MM, y), (left + widths[columns[dummy]] + STUB_MM, y)]
        paths[wire.id] = (*points, (end[0] - STUB_MM, end[1]), end)
    height = bottom + (GAP_MM + PASSING_MM * (lowered + 1) if lowered else 0.0)
    width = lefts[-1] + widths[-1] + STUB_MM if lefts else 0.0
    return PatchLayout(corners, inputs, outputs, paths, width, height)


@dataclass(frozen=True, slots=True)
class _Chains:
    """of_pair: what cables between two devices pass on their way, by the columns between; through: cables by what they pass."""

    of_pair: Mapping[tuple[str, str], tuple[str, ...]]
    through: Mapping[str, list[str]]


def _layers(stations: Sequence[Station], wires: Sequence[DrawnCable]) -> tuple[list[list[str]], _Chains]:
    devices = frozenset(station.id for station in stations)
    pairs = list(dict.fromkeys((wire.sender, wire.receiver) for wire in wires if wire.sender != wire.receiver))
    joined = {one for pair in pairs for one in pair}
    # Numbered without a gap: what lies between is numbered from there on by the library, which keeps numbers in their order.
    names = dict(enumerate(station.id for station in stations if station.id in joined))
    numbers = {name: number for number, name in names.items()}
    edges = [(numbers[sender], numbers[receiver]) for sender, receiver in pairs]
    columns: dict[int, list[tuple[float, str]]] = defaultdict(list)
    of_pair: dict[tuple[str, str], tuple[str, ...]] = {}
    shift = 0.0
    found = (
        from_edges(edges, vertex_spacing=1, dummy_vertices=True, crossing_minimization="barycenter") if edges else []
    )
    parts = sorted(found, key=lambda item: min(n for n, _ in item[0]))
    for part, (positions, across, _, drawn) in enumerate(parts):
        called = {n: names.get(int(n), f"{part}/{n}") for n, _ in positions}
        heights = sorted({round(y, 6) for _, (_, y) in positions}, reverse=True)
        for n, (x, y) in positions:
            columns[heights.index(round(y, 6))].append((shift + x, called[n]))
        onward = defaultdict(list)
        for one, other in drawn or []:
            onward[called[one]].append(called[other])
        for sender, receiver in pairs:
            if sender in onward:
                of_pair[sender, receiver] = _chain(sender, receiver, onward, devices)
        shift += across + 1
    placed = {name for column in columns.values() for _, name in column}
    alone = [station.id for station in stations if station.id not in placed]
    columns[0] += [(shift + number, name) for number, name in enumerate(alone)]
    layers = [[name for _, name in sorted(columns[number])] for number in range(max(columns) + 1)]
    through: dict[str, list[str]] = defaultdict(list)
    for wire in wires:
        for dummy in of_pair.get((wire.sender, wire.receiver), ()):
            through[dummy].append(wire.id)
    return layers, _Chains(of_pair, through)


def _chain(sender: str, receiver: str, onward: Mapping[str, list[str]], devices: frozenset[str]) -> tuple[str, ...]:
    """What lies between two devices: from the sender through what is no device to the receiver."""
    for first in onward[sender]:
        passed, at = [], first
        while at not in devices:
            passed.append(at)
            at = onward[at][0] if at in onward else receiver
        if at == receiver:
            return tuple(passed)
    return ()


def _tops(
    layers: Sequence[Sequence[str]],
    chains: _Chains,
    sizes: Mapping[str, float],
    inputs: Mapping[str, tuple[str, ...]] | None = None,
    outputs: Mapping[str, tuple[str, ...]] | None = None,
    known: Mapping[str, Station] | None = None,
) -> dict[str, float]:
    """The upper edge of each: level with what it is joined with, as far as its neighbours in the column let it."""
    joined: dict[str, list[str]] = defaultdict(list)
    for (sender, receiver), via in chains.of_pair.items():
        for one, other in pairwise((sender, *via, receiver)):
            joined[one].append(other)
            joined[other].append(one)
    middles: dict[str, float] = {}
    for layer in layers:
        at = 0.0
        for one in layer:
            middles[one] = at + sizes[one] / 2
            at += sizes[one] + GAP_MM
    for sweep in range(SWEEPS):
        for layer in layers if sweep % 2 == 0 else list(reversed(layers)):
            wanted = np.array(
                [np.mean([middles[two] for two in joined[one]]) if joined[one] else middles[one] for one in layer]
            )
            for one, middle in zip(layer, _apart(wanted, [sizes[one] for one in layer]), strict=True):
                middles[one] = float(middle)
    return {one: middle - sizes[one] / 2 for one, middle in middles.items()}


def _apart(wanted: NDArray[np.float64], heights: Sequence[float]) -> NDArray[np.float64]:
    """Middles nearest to the wanted ones, in their order and with a gap between each two."""
    from scipy.optimize import isotonic_regression  # half a second: only where a picture is drawn

    steps = [(one + other) / 2 + GAP_MM for one, other in pairwise(heights)]
    offsets = np.concatenate(([0.0], np.cumsum(steps)))
    found: NDArray[np.float64] = isotonic_regression(wanted - offsets).x + offsets
    return found


def _sockets(
    stations: Sequence[Station],
    wires: Sequence[DrawnCable],
    chains: _Chains,
    tops: Mapping[str, float],
    sizes: Mapping[str, float],
) -> tuple[dict[str, tuple[str, ...]], dict[str, tuple[str, ...]]]:
    """Sockets in the order in which their cables come and go, so that these do not cross before the device."""
    sent: dict[tuple[str, str], list[float]] = defaultdict(list)
    received: dict[tuple[str, str], list[float]] = defaultdict(list)
    for wire in wires:
        via = chains.of_pair.get((wire.sender, wire.receiver), ())
        first, last = (via[0], via[-1]) if via else (wire.receiver, wire.sender)
        sent[wire.sender, wire.output].append(tops[first] + sizes[first] / 2)
        received[wire.receiver, wire.input].append(tops[last] + sizes[last] / 2)
    inputs: dict[str, tuple[str, ...]] = {}
    outputs: dict[str, tuple[str, ...]] = {}
    for station in stations:
        for found, ends, sockets in ((inputs, received, station.inputs), (outputs, sent, station.outputs)):
            order = {socket: number for number, socket in enumerate(sockets)}
            found[station.id] = tuple(
                sorted(
                    sockets,
                    key=lambda socket, mine=ends, one=station.id, at=order: (  # type: ignore[misc]
                        float(np.mean(mine[one, socket])) if mine[one, socket] else 0.0,
                        at[socket],
                    ),
                )
            )
    return inputs, outputs


def _socket_at(
    station: Station,
    corners: Mapping[str, tuple[float, float]],
    order: Mapping[str, tuple[str, ...]],
    socket: str,
    *,
    is_output: bool,
) -> tuple[float, float]:
    left, top = corners[station.id]
    row = order[station.id].index(socket)
    return left + (station.width if is_output else 0.0), top + HEAD_MM + ROW_MM * (row + 0.5)


def count_crossings(paths: Mapping[str, Sequence[tuple[float, float]]]) -> int:
    """How often two of several ways cross; where they end at the same place they do not."""
    segments = [
        (number, *one, *other) for number, points in enumerate(paths.values()) for one, other in pairwise(points)
    ]
    if not segments:
        return 0
    owner = np.array([number for number, *_ in segments])
    x1, y1, x2, y2 = np.array([values for _, *values in segments], dtype=float).T

    def side(
        ax: NDArray[np.float64], ay: NDArray[np.float64], bx: NDArray[np.float64], by: NDArray[np.float64]
    ) -> NDArray[np.float64]:
        """On which side of each segment (rows) both ends of each other one (columns) lie."""
        turn: NDArray[np.float64] = (bx - ax)[:, None] * (y1[None, :] - ay[:, None]) - (by - ay)[:, None] * (
            x1[None, :] - ax[:, None]
        )
        other: NDArray[np.float64] = (bx - ax)[:, None] * (y2[None, :] - ay[:, None]) - (by - ay)[:, None] * (
            x2[None, :] - ax[:, None]
        )
        return np.asarray(turn * other)

    apart = side(x1, y1, x2, y2)
    crossing = (apart < -1e-9) & (apart.T < -1e-9) & (owner[:, None] != owner[None, :])
    return int(crossing.sum()) // 2
