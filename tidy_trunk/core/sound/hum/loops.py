"""Circles through the mains in a graph of what is tied to what."""

from collections import deque
from collections.abc import Iterator, Mapping, Sequence
from enum import StrEnum
from typing import Final, NamedTuple

EARTH: Final = "earth"
"""The node where all that is on the mains meets. [HANDBOOK] §9"""

COMPUTER: Final = "computer"
"""The node of the computer that feeds devices by USB. [HANDBOOK] §9"""


IN, OUT = True, False
HumNode = tuple[str, bool]
"""A node as one comes to it, or as one leaves it; they differ for nodes that a way already takes."""

Around = Mapping[str, Sequence[tuple[int, str]]]
"""The ties at each node, as (index, other end)."""


Home = Mapping[str, tuple[int, str]]
"""For each node the first step of its way to a power node, and where that leads."""


class Tie(NamedTuple):
    """Two things joined by copper: by the screen of a run, or, where `run` is empty, by their power.

    insulated: by nothing but what leaks through a double-insulated adapter.
    """

    first: str
    second: str
    run: str = ""
    unbalanced: bool = False
    insulated: bool = False


class Grade(StrEnum):
    """What drives a current round a loop, the worst first."""

    COMPUTER = "computer"  # ticks and clicks, through any adapter
    EARTH = "earth"  # hum of a shared protective earth
    ADAPTERS = "adapters"  # what leaks through a double-insulated adapter: hardly heard


class Loop(NamedTuple):
    """A circle through an unbalanced run and through a power node; the ties in order, that run first."""

    run: str
    ties: tuple[Tie, ...]
    grade: Grade

    @property
    def cause(self) -> tuple[str, ...]:
        """The power that drives it: loops with the same cause are opened together."""
        return (self.grade, *sorted(f"{tie.first} {tie.second}" for tie in self.ties if not tie.run))

    @property
    def nodes(self) -> tuple[str, ...]:
        """What lies on it, from the far end of the run all round to its beginning."""
        here, passed = self.ties[0].second, []
        for tie in (*self.ties[1:], self.ties[0]):
            passed.append(here)
            here = tie.second if tie.first == here else tie.first
        return tuple(passed)


def loops(ties: Sequence[Tie]) -> list[Loop]:
    """For every unbalanced run that lies on a circle through the mains or a computer, the worst such circle.

    Loop current in a balanced lead flows in its screen alone, in an unbalanced one in the return of the signal: only
    those are told. Two leads side by side make a circle too, but nothing drives a current round it.

    Source: [HANDBOOK] §9. A circle through a tie and a node is two ways from the ends of the tie to the node that
    share nothing, as in Menger's theorem.
    """
    searches = [
        (Grade.COMPUTER, _Search(ties, COMPUTER, through_adapters=True)),
        (Grade.EARTH, _Search(ties, EARTH, through_adapters=False)),
        (Grade.ADAPTERS, _Search(ties, EARTH, through_adapters=True)),
    ]
    found = []
    for index, tie in enumerate(ties):
        if not tie.unbalanced or tie.first == tie.second:
            continue
        for grade, search in searches:
            steps = search.round(index)
            if steps:
                found.append(Loop(tie.run, (tie, *_in_order(ties, steps, tie)), grade))
                break
    return found


class _Search:
    """For circles through one power node."""

    def __init__(self, ties: Sequence[Tie], power: str, *, through_adapters: bool) -> None:
        self._ties = ties
        self._power = power
        self._around: dict[str, list[tuple[int, str]]] = {}
        for index, tie in enumerate(ties):
            if through_adapters or not tie.insulated:
                self._around.setdefault(tie.first, []).append((index, tie.second))
                self._around.setdefault(tie.second, []).append((index, tie.first))
        self._home = _ways_home(self._around, power) if power in self._around else {}
        # Two leads between the same devices have the same way round.
        self._known: dict[tuple[str, str], set[int]] = {}

    def round(self, index: int) -> set[int]:
        """Indices of the ties that lead from one end of a tie through the power node to its other end."""
        tie = self._ties[index]
        key = (tie.first, tie.second)
        if key not in self._known:
            self._known[key] = _round(self._around, self._home, index, tie, self._power)
        return self._known[key]


def _ways_home(around: Around, power: str) -> Home:
    """For each node, the step on a shortest way to the power node and where it leads; the power node stands at -1."""
    home = {power: (-1, "")}
    waiting = deque([power])
    while waiting:
        here = waiting.popleft()
        for step, there in around[here]:
            if there not in home:
                home[there] = (step, here)
                waiting.append(there)
    return home


def _home_from(home: Home, node: str) -> list[tuple[str, int]]:
    """The shortest way home as (node, step that leaves it), without the power node."""
    way = []
    while home[node][0] >= 0:
        way.append((node, home[node][0]))
        node = home[node][1]
    return way


def _round(around: Around, home: Home, index: int, tie: Tie, power: str) -> set[int]:
    """Indices of the ties from both ends of a tie to the power node that share nothing; empty where there are none.

    The nearer end takes its shortest way. The other searches for one of its own; where it meets the first way it may
    only walk back along it, which gives that stretch free again.
    """
    if tie.first not in home or tie.second not in home:
        return set()
    nearer, farther = sorted((_home_from(home, tie.first), _home_from(home, tie.second)), key=len)
    start, other = (tie.first, tie.second) if nearer and nearer[0][0] == tie.first else (tie.second, tie.first)
    taken, theirs = {step for _, step in nearer}, {step for _, step in farther}
    apart = {node for node, _ in nearer}.isdisjoint(node for node, _ in farther)
    if apart and taken.isdisjoint(theirs) and index not in theirs:
        return taken | theirs
    before = {
        there: (here, step) for (here, step), there in zip(nearer, [node for node, _ in nearer[1:]], strict=False)
    }
    came: dict[HumNode, tuple[HumNode, int] | None] = {(other, OUT): None}
    waiting: deque[HumNode] = deque(came)
    while waiting:
        place = waiting.popleft()
        node, side = place
        steps: list[tuple[HumNode, int]] = []
        if side is IN:
            there, step = before[node]
            steps.append(((there, OUT), step))
        else:
            for step, there in around[node]:
                if step != index and step not in taken and there not in (start, other):
                    steps.append(((there, IN if there in before else OUT), step))
            if node in before:
                steps.append(((node, IN), -1))
        for there_, step in steps:
            if there_ in came:
                continue
            came[there_] = (place, step)
            if there_[0] == power:
                return taken ^ _back(came, there_)
            waiting.append(there_)
    return set()


def _back(came: Mapping[HumNode, tuple[HumNode, int] | None], place: HumNode) -> set[int]:
    steps = set()
    while (before := came[place]) is not None:
        place, step = before
        if step >= 0:
            steps.add(step)
    return steps


def _in_order(ties: Sequence[Tie], steps: set[int], tie: Tie) -> Iterator[Tie]:
    """The ties of a circle as one walks round it, from the second end of its first tie to the first."""
    here, left = tie.second, set(steps)
    while left:
        step = next(step for step in left if here in ties[step][:2])
        left.remove(step)
        here = ties[step].second if ties[step].first == here else ties[step].first
        yield ties[step]
