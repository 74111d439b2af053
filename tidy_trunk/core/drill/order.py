"""The shortest sound order of search: which probe to do next, whatever the ones before have shown.

Each fault, each two of them, and that there is none, has its likelihood; each probe parts what is left by what it would show. A
fault that all that is left has in common is known, and put right at once. The order is a tree, and its worth the expected time until
all faults are known, or only such are left as no probe tells apart.
"""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final

from tidy_trunk.core.drill.rig import Observation, Probe

NO_FAULT: Final = ""
"""Id of the possibility that nothing is wrong. ASSUMED_"""

AND: Final = " and "
"""Between the ids of two faults that are there together. ASSUMED_"""

NO_FAULT_SHARE: Final = 0.1
"""ASSUMED_ how likely it is that a rig of a drill has no fault."""

EXACT: Final = 9
"""ASSUMED_ possibilities up to which every order is tried: beyond, the number of orders explodes."""


@dataclass(frozen=True, slots=True)
class SearchStep:
    """A probe of an order, and what it left open. left: ids of the possibilities after what it showed; mended: faults that are known then, and put right while another is left."""

    probe: Probe
    left: frozenset[str]
    mended: frozenset[str] = frozenset()


class SearchOrder:
    """The order of search on one rig.

    weights: of each possibility, by its id, two faults together by those of both with AND between; shown: by probe, what it shows
    for each possibility.
    """

    def __init__(
        self, probes: Sequence[Probe], weights: Mapping[str, float], shown: Mapping[str, Mapping[str, Observation]]
    ) -> None:
        total = sum(weights.values())
        self._weights = {name: weight / total for name, weight in weights.items()}
        self._shown = shown
        self._known: dict[frozenset[str], tuple[float, Probe | None]] = {}
        self.probes = tuple(probes)

    @cached_property
    def all(self) -> frozenset[str]:
        return frozenset(self._weights)

    def next(self, left: frozenset[str]) -> Probe | None:
        """What to do now; None where no probe tells any more apart."""
        left = self.mended(left)
        if len(left) <= EXACT:
            return self._best(left)[1]
        in_turn = self._in_turn(left)
        return (
            self._greedy(left) if self._expected(left, in_turn=False) <= self._expected(left, in_turn=True) else in_turn
        )

    def after(self, left: frozenset[str], probe: Probe, shown: Observation) -> frozenset[str]:
        """What is left where a probe has shown something."""
        return frozenset(name for name in left if self._shown[probe.id][name] == shown)

    def mended(self, left: frozenset[str]) -> frozenset[str]:
        """What is left once what all of it has in common is put right. Where something else is wrong too, one is told."""
        while len(left) > 1 or any(AND in name for name in left):
            common = frozenset.intersection(*(faults_of(name) for name in left))
            if not common:
                break
            rest = (faults_of(name) - common for name in left)
            left = frozenset(one for faults in rest for one in faults)
        return left

    def steps_to(self, truth: str) -> tuple[SearchStep, ...]:
        """What the order does where this is wrong."""
        left, here, steps = self.mended(self.all), faults_of(truth), list[SearchStep]()
        while (probe := self.next(left)) is not None:
            left = self.after(left, probe, self._shown[probe.id][AND.join(sorted(here, key=truth.index))])
            known = (
                here - frozenset().union(*map(faults_of, rest)) if (rest := self.mended(left)) != left else frozenset()
            )
            here -= known
            steps.append(SearchStep(probe, left, known if here else frozenset()))
            if known and not here:
                break  # it was alone
            left = rest
        return tuple(steps)

    def expected_minutes(self) -> float:
        """Until all is found out that can be."""
        return self._minutes(self.all)

    def _minutes(self, left: frozenset[str]) -> float:
        left = self.mended(left)
        probe = self.next(left)
        if probe is None:
            return 0.0
        parts = self._parted(left, probe)
        return probe.minutes + sum(self._share(part, left) * self._minutes(part) for part in parts)

    def in_turn_minutes(self) -> float:
        """The same for looking at everything from the source to the track."""
        return self._expected(self.all, in_turn=True)

    def _parted(self, left: frozenset[str], probe: Probe) -> list[frozenset[str]]:
        found: dict[Observation, set[str]] = defaultdict(set)
        shown = self._shown[probe.id]
        for name in left:
            found[shown[name]].add(name)
        return [frozenset(part) for part in found.values()]

    def _share(self, part: frozenset[str], left: frozenset[str]) -> float:
        return sum(self._weights[name] for name in part) / sum(self._weights[name] for name in left)

    def _best(self, left: frozenset[str]) -> tuple[float, Probe | None]:
        """Over all orders: the least expected time, and its first probe. Remembered by what is left."""
        left = self.mended(left)
        if left in self._known:
            return self._known[left]
        best: tuple[float, Probe | None] = (math.inf, None)
        for probe in self.probes:
            parts = self._parted(left, probe)
            if len(parts) < 2:
                continue
            minutes = probe.minutes
            for part in sorted(parts, key=len):
                if minutes >= best[0]:
                    break
                minutes += self._share(part, left) * self._best(part)[0]
            if minutes < best[0]:
                best = (minutes, probe)
        self._known[left] = best if best[1] is not None else (0.0, None)
        return self._known[left]

    def _greedy(self, left: frozenset[str]) -> Probe | None:
        """The probe that takes most uncertainty away for each minute. Source: [SHANNON48]"""
        gains = [(self._bits(left, probe) / probe.minutes, probe) for probe in self.probes]
        gain, probe = max(gains, key=lambda item: item[0], default=(0.0, None))
        return probe if gain > 0 else None

    def _bits(self, left: frozenset[str], probe: Probe) -> float:
        shares = [self._share(part, left) for part in self._parted(left, probe)]
        return -sum(share * math.log2(share) for share in shares) if len(shares) > 1 else 0.0

    def _in_turn(self, left: frozenset[str]) -> Probe | None:
        return next((probe for probe in self.probes if len(self._parted(left, probe)) > 1), None)

    def _expected(self, left: frozenset[str], *, in_turn: bool) -> float:
        left = self.mended(left)
        probe = self._in_turn(left) if in_turn else self._greedy(left) if len(left) > EXACT else self._best(left)[1]
        if probe is None:
            return 0.0
        parts = self._parted(left, probe)
        return probe.minutes + sum(self._share(part, left) * self._expected(part, in_turn=in_turn) for part in parts)


def faults_of(possibility: str) -> frozenset[str]:
    """The ids of the faults of a possibility; none where nothing is wrong."""
    return frozenset(possibility.split(AND)) if possibility else frozenset()
