"""The faults of a rig: which of those that are possible show, what each shows, alone or two together, and how they are looked for."""

from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from functools import cached_property
from itertools import combinations
from typing import Final

from tidy_trunk.core.drill.hidden import HiddenFault
from tidy_trunk.core.drill.misset import of_device
from tidy_trunk.core.drill.miswired import of_run
from tidy_trunk.core.drill.observed import FaultyRig
from tidy_trunk.core.drill.order import AND, NO_FAULT, NO_FAULT_SHARE, SearchOrder, faults_of
from tidy_trunk.core.drill.rig import DrillRig, Observation
from tidy_trunk.errors import InputError, PlanError

MOST_FAULTS: Final = 30
"""ASSUMED_ faults of which one is hidden: more nobody keeps in mind."""

MOST_PAIRED: Final = 10
"""ASSUMED_ faults of which two may be hidden: of ten there are 45 pairs."""

MOST_TRIED: Final = 120
"""ASSUMED_ faults of a rig that are worked out: large jobs have hundreds."""

TWO_SHARE: Final = 0.6
"""ASSUMED_ how often there are two where two are allowed."""

ShownByProbe = Mapping[str, Observation]
"""What each probe shows, by its id. ASSUMED_"""


class RigFaults:
    """The faults of a rig that show on a recording, what each shows, and the order in which they are best looked for.

    most: how many may be there at once, 1 or 2. known: ids of faults that are among them in any case.
    """

    def __init__(self, rig: DrillRig, most: int = 1, known: Collection[str] = ()) -> None:
        self.rig = rig
        self.most = most
        planned = _seen(FaultyRig(rig))
        of_files = [probe.id for probe in rig.probes if probe.is_of_files]
        found: dict[str, ShownByProbe] = {}
        possible = _possible(rig)
        ranked = sorted(_of_all_kinds(possible), key=lambda fault: fault.id not in known)
        for fault in ranked[:MOST_TRIED]:
            if len(found) == (MOST_FAULTS if most == 1 else MOST_PAIRED):
                break
            try:
                shows = _seen(FaultyRig(rig, [fault]))
            except (InputError, PlanError):
                continue  # that plug is of another kind of socket
            if any(shows[name] != planned[name] for name in of_files):
                found[fault.id] = shows
        self.faults = tuple(fault for fault in possible if fault.id in found)
        self._seen = {NO_FAULT: planned, **{fault.id: found[fault.id] for fault in self.faults}}

    def named(self, possibility: str) -> tuple[HiddenFault, ...]:
        """The faults of a possibility, in the order of the rig."""
        ids = faults_of(possibility)
        return tuple(fault for fault in self.faults if fault.id in ids)

    def seen(self, possibility: str) -> ShownByProbe | None:
        """What the probes show with these faults; None for two that cannot both be there, or of which one hides the other."""
        if possibility not in self._seen:
            pair = self.named(possibility)
            try:
                shows = _seen(FaultyRig(self.rig, pair))
            except (InputError, PlanError):
                return None
            if any(shows == self._seen[fault.id] for fault in pair):
                return None
            self._seen[possibility] = shows
        return self._seen[possibility]

    @cached_property
    def shown(self) -> Mapping[str, Mapping[str, Observation]]:
        """By probe, what it shows for each possibility."""
        pairs = (AND.join((first.id, second.id)) for first, second in self._pairs()) if self.most > 1 else iter(())
        known = {name: seen for name in (*self._seen, *pairs) if (seen := self.seen(name)) is not None}
        return {probe.id: {name: seen[probe.id] for name, seen in known.items()} for probe in self.rig.probes}

    def _pairs(self) -> Iterator[tuple[HiddenFault, HiddenFault]]:
        """Two at different places: of one switch or one cable, one is enough."""
        for first, second in combinations(self.faults, 2):
            if (first.device, first.control, first.run) != (second.device, second.control, second.run):
                yield first, second

    @cached_property
    def order(self) -> SearchOrder:
        single = {fault.id: fault.weight for fault in self.faults}
        known = next(iter(self.shown.values()))
        weights = {name: _product(single[one] for one in faults_of(name)) for name in known if name != NO_FAULT}
        alone, together = (
            sum(weight for name, weight in weights.items() if (AND in name) is two) for two in (False, True)
        )
        for name in weights:
            if together:
                weights[name] *= TWO_SHARE / together if AND in name else (1 - TWO_SHARE) / alone
        weights[NO_FAULT] = sum(weights.values()) * NO_FAULT_SHARE / (1 - NO_FAULT_SHARE)
        return SearchOrder(self.rig.probes, weights, self.shown)

    def alike(self, possibility: str) -> frozenset[str]:
        """What nothing tells apart from it; it is among them."""
        return frozenset(
            name for name in self.order.all if all(shown[name] == shown[possibility] for shown in self.shown.values())
        )

    def is_answer(self, answer: str, truth: str) -> str:
        """The fault that an answer names, of those that are there, or that nothing tells apart from one; "" where it names none."""
        return next((one for one in sorted(faults_of(truth)) if self._seen[one] == self._seen.get(answer)), "")


def _product(weights: Iterator[float]) -> float:
    found = 1.0
    for weight in weights:
        found *= weight
    return found


def _seen(faulty: FaultyRig) -> ShownByProbe:
    return {probe.id: faulty.observe(probe) for probe in faulty.rig.probes}


def _possible(rig: DrillRig) -> list[HiddenFault]:
    """All that can be hidden in a rig, in the order of its devices and cables. What of it shows is for others to find out."""
    found = [fault for placed in rig.index.placed_devices() for fault in of_device(rig.index, placed)]
    return [*found, *(fault for run in rig.runs for fault in of_run(rig.index, run))]


def _of_all_kinds(possible: Sequence[HiddenFault]) -> list[HiddenFault]:
    """One of each kind first, the likeliest kind before the others, then a second of each: a large rig has a hundred knobs."""
    before: Counter[str] = Counter()
    ranks = {}
    for fault in possible:
        ranks[fault.id] = before[fault.code]
        before[fault.code] += 1
    return sorted(possible, key=lambda fault: (ranks[fault.id], -fault.weight))
