"""A drill drawn by a number: a rig, and the fault that is hidden in it. The same number gives the same drill everywhere."""

from dataclasses import dataclass
from functools import cached_property
from random import Random
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.drill.hidden import HiddenFault, possible_faults
from tidy_trunk.core.drill.observed import DrillRig, FaultyRig, Observation
from tidy_trunk.core.drill.order import NO_FAULT, NO_FAULT_SHARE, SearchOrder
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.rigs import first_rig, read_brief
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import PlanError, RangeError

LARGEST_SEED: Final = 999_999
"""ASSUMED_ largest number of a drill: six digits can be called across a room."""

FEWEST_FAULTS: Final = 3
"""ASSUMED_ faults that a rig must be good for: of fewer there is nothing to search."""

MOST_FAULTS: Final = 30
"""ASSUMED_ faults of which one is hidden: more nobody keeps in mind."""

_WHO: Final = ("one person talking", "interview, two people", "music")
_BY: Final = (
    "boom",
    "lavalier by cable",
    "lavalier on radio",
    "two lavs on radio",
    "boom and lav on radio",
    "stereo pair",
)
_INTO: Final = ("handheld recorder", "bag recorder", "field mixer")
_ON: Final = ("1 camera mic socket only", "cinema camera", "1 camera mic socket only, no timecode")
_TRIES: Final = 20

MOST_TRIED: Final = 120
"""ASSUMED_ faults of a rig that are worked out: large jobs have hundreds."""


class RigFaults:
    """The faults of a rig that can be heard on a recording, what each shows, and the order in which they are best looked for."""

    def __init__(self, rig: DrillRig) -> None:
        self.rig = rig
        planned = {probe.id: FaultyRig(rig, None).observe(probe) for probe in rig.probes}
        audible = [probe.id for probe in rig.probes if probe.code in ("listen", "play-back")]
        found: dict[HiddenFault, dict[str, Observation]] = {}
        for fault in possible_faults(rig.index)[:MOST_TRIED]:
            faulty = FaultyRig(rig, fault)
            shows = {probe.id: faulty.observe(probe) for probe in rig.probes}
            if any(shows[name] != planned[name] for name in audible):
                found[fault] = shows
        likely = sorted(found, key=lambda fault: -fault.weight)[:MOST_FAULTS]
        self.faults = tuple(fault for fault in found if fault in likely)
        self.shown = {
            probe.id: {NO_FAULT: planned[probe.id], **{fault.id: found[fault][probe.id] for fault in self.faults}}
            for probe in rig.probes
        }

    @cached_property
    def order(self) -> SearchOrder:
        total = sum(fault.weight for fault in self.faults)
        weights = {fault.id: fault.weight for fault in self.faults}
        weights[NO_FAULT] = total * NO_FAULT_SHARE / (1 - NO_FAULT_SHARE)
        return SearchOrder(self.rig.probes, weights, self.shown)

    def alike(self, fault_id: str) -> frozenset[str]:
        """What nothing tells apart from a fault; it is among them."""
        return frozenset(
            name for name in self.order.all if all(shown[name] == shown[fault_id] for shown in self.shown.values())
        )


@dataclass(frozen=True, slots=True)
class Drill:
    """seed: that it was drawn by. fault: None where nothing is wrong."""

    seed: int
    found: RigFaults
    fault: HiddenFault | None

    @property
    def rig(self) -> DrillRig:
        return self.found.rig

    @property
    def truth(self) -> str:
        """Id of the fault, or that there is none."""
        return NO_FAULT if self.fault is None else self.fault.id

    @property
    def faulty(self) -> FaultyRig:
        return FaultyRig(self.rig, self.fault)


def draw_drill(seed: int, plan: Plan | None = None) -> Drill:
    """The drill of a number: in a rig drawn from the catalogue, or in a plan of one's own.

    Raises:
        RangeError: The number is none from 0 to 999999.
        PlanError: The plan has a stop already, or too little in it to hide a fault.
    """
    if not 0 <= seed <= LARGEST_SEED:
        raise RangeError(f"a drill has a number from 0 to {LARGEST_SEED}; {seed} is none")
    by = Random(seed)
    found = RigFaults(DrillRig(_drawn_rig(by) if plan is None else _own_rig(plan)))
    if len(found.faults) < FEWEST_FAULTS:
        raise PlanError("there is too little in this job to hide a fault: join a microphone, a recorder and a camera")
    if by.random() < NO_FAULT_SHARE:
        return Drill(seed, found, None)
    (fault,) = by.choices(found.faults, [fault.weight for fault in found.faults])
    return Drill(seed, found, fault)


def drill_of(seed: int, plan: Plan, truth: str) -> Drill:
    """A drill as it was kept: its rig and its fault.

    Raises PlanError: The classes of its devices have changed since, and the fault is none of theirs any more.
    """
    found = RigFaults(DrillRig(Report(trace_plan(plan))))
    fault = next((fault for fault in found.faults if fault.id == truth), None)
    if fault is None and truth != NO_FAULT:
        raise PlanError("the devices of this drill are described otherwise since an update: draw a new one")
    return Drill(seed, found, fault)


def _drawn_rig(by: Random) -> Report:
    """A rig of the catalogue in which nothing is wrong."""
    for _ in range(_TRIES):
        text = ", ".join(by.choice(words) for words in (_WHO, _BY, _INTO, _ON))
        found = first_rig(read_brief(text, {}).brief, {})
        if found is not None and _is_right(found.built.report):
            return found.built.report
    raise PlanError("no rig was found for this number: take another one")


def _own_rig(plan: Plan) -> Report:
    report = Report(trace_plan(plan))
    if not _is_right(report):
        raise PlanError("this job has something in it that will not work already: fix that first, or drill another job")
    return report


def _is_right(report: Report) -> bool:
    return not any(finding.severity is Severity.STOP for finding in check(report))
