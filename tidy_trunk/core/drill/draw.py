"""A drill drawn by a number: a rig, and the fault that is hidden in it. The same number gives the same drill everywhere."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from random import Random
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.drill.hidden import LIKELY, HiddenFault, possible_faults
from tidy_trunk.core.drill.observed import DrillRig, FaultyRig, Observation
from tidy_trunk.core.drill.order import NO_FAULT, NO_FAULT_SHARE, SearchOrder
from tidy_trunk.core.gear.catalogue import POWER_KEY, Circuit, Kind, Power, frequency_key
from tidy_trunk.core.plan import Edit, Plan, SetControl, edited
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


class DrillLevel(StrEnum):
    """How much stands about: from the first day to a night shoot."""

    FIRST_DAY = "first-day"
    UNIT = "unit"
    NIGHT_SHOOT = "night-shoot"


_RIGS: Final[Mapping[DrillLevel, tuple[tuple[str, ...], ...]]] = {
    DrillLevel.FIRST_DAY: (
        ("one person talking",),
        ("boom", "lavalier by cable", "handheld mic"),
        ("handheld recorder", "bag recorder"),
        ("1 camera mic socket only",),
    ),
    DrillLevel.UNIT: (
        ("one person talking", "interview, two people", "music"),
        ("boom", "lavalier by cable", "lavalier on radio", "two lavs on radio", "boom and lav on radio", "stereo pair"),
        ("handheld recorder", "bag recorder", "field mixer"),
        ("1 camera mic socket only", "cinema camera"),
    ),
    DrillLevel.NIGHT_SHOOT: (
        ("interview, two people, once", "four people, once"),
        ("boom and two lavs on radio", "four lavs on radio", "boom, two lavs on radio"),
        ("bag recorder",),
        ("two cinema cameras", "cinema camera", "1 camera mic socket only"),
    ),
}
"""Rigs of a level, in everyday words: who, by what, into what, on what. ASSUMED_"""

_TRIES: Final = 20

LOWEST_MHZ: Final = 520.0
"""ASSUMED_ frequency from which the radios of a drill are set; where one may transmit, the local regulator says."""

SPACING_MHZ: Final = 1.1
"""ASSUMED_ distance of the radios of a drill: no two of a few disturb each other."""

MOST_STEPS: Final = 8
"""ASSUMED_ steps by which a drill's first frequency differs from the next drill's."""

MOST_TRIED: Final = 120
"""ASSUMED_ faults of a rig that are worked out: large jobs have hundreds."""


class RigFaults:
    """The faults of a rig that can be heard on a recording, what each shows, and the order in which they are best looked for."""

    def __init__(self, rig: DrillRig) -> None:
        self.rig = rig
        planned = {probe.id: FaultyRig(rig, None).observe(probe) for probe in rig.probes}
        audible = [probe.id for probe in rig.probes if probe.is_heard]
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


def draw_drill(seed: int, plan: Plan | None = None, *, level: DrillLevel = DrillLevel.UNIT, kind: str = "") -> Drill:
    """The drill of a number: in a rig drawn from the catalogue, or in a plan of one's own.

    Args:
        seed: From 0 to 999999.
        plan: In which the fault is hidden.
        level: Of a rig that is drawn.
        kind: Of fault, a key of `LIKELY`; "" for any, and at times none.

    Raises:
        RangeError: No such number, or no such kind.
        PlanError: The plan has a stop already, or too little in it to hide a fault.
    """
    if not 0 <= seed <= LARGEST_SEED:
        raise RangeError(f"a drill has a number from 0 to {LARGEST_SEED}; {seed} is none")
    if kind and kind not in LIKELY:
        raise RangeError(f"no fault is of the kind '{kind[:20]}': use {', '.join(LIKELY)}")
    by = Random(seed)
    found, faults = _fit(by, plan, level, kind)
    if not kind and by.random() < NO_FAULT_SHARE:
        return Drill(seed, found, None)
    (fault,) = by.choices(faults, [fault.weight for fault in faults])
    return Drill(seed, found, fault)


def _fit(by: Random, plan: Plan | None, level: DrillLevel, kind: str) -> tuple[RigFaults, list[HiddenFault]]:
    """A rig in which there is enough to search, and its faults of a kind. Raises PlanError: there is none."""
    has_enough = False
    for _ in range(_TRIES if plan is None else 1):
        found = RigFaults(DrillRig(_drawn_rig(by, level) if plan is None else _own_rig(plan)))
        faults = [fault for fault in found.faults if kind in ("", fault.code)]
        has_enough |= len(found.faults) >= FEWEST_FAULTS
        if len(found.faults) >= FEWEST_FAULTS and faults:
            return found, faults
    if has_enough:
        raise PlanError("no fault of that kind can be hidden there: take another kind, or another level")
    raise PlanError("there is too little in this job to hide a fault: join a microphone, a recorder and a camera")


def drill_of(seed: int, plan: Plan, truth: str) -> Drill:
    """A drill as it was kept: its rig and its fault.

    Raises PlanError: The classes of its devices have changed since, and the fault is none of theirs any more.
    """
    found = RigFaults(DrillRig(Report(trace_plan(plan))))
    fault = next((fault for fault in found.faults if fault.id == truth), None)
    if fault is None and truth != NO_FAULT:
        raise PlanError("the devices of this drill are described otherwise since an update: draw a new one")
    return Drill(seed, found, fault)


def _drawn_rig(by: Random, level: DrillLevel) -> Report:
    """A rig of the catalogue in which nothing is wrong."""
    for _ in range(_TRIES):
        text = ", ".join(by.choice(words) for words in _RIGS[level])
        found = first_rig(read_brief(text, {}).brief, {})
        report = None if found is None else _as_on_a_set(found.built.report, by)
        if report is not None and _is_right(report):
            return report
    raise PlanError("no rig was found for this number: take another one")


def _as_on_a_set(report: Report, by: Random) -> Report:
    """With what a proposal leaves open: radios have their frequencies, and some cameras run from the mains."""
    index, edits = report.index, list[Edit]()
    radios = [
        run
        for run in index.plan.runs.values()
        if index.unit(run.sending.device).output(run.sending.port).circuit is Circuit.RADIO
    ]
    for number, run in enumerate(radios):
        frequency = round(LOWEST_MHZ + SPACING_MHZ * (number + by.randrange(MOST_STEPS)), 3)
        edits += [
            SetControl(device=ref.device, control=frequency_key(ref.port), value=frequency)
            for ref in (run.sending, run.receiving)
        ]
    on_mains = by.random() < 0.5
    for unit in index.units():
        if on_mains and unit.device_class.kind is Kind.CAMERA and Power.MAINS in unit.device_class.traits.powers:
            edits.append(SetControl(device=unit.device.id, control=POWER_KEY, value=Power.MAINS))
    return report.edited(edited(index.plan, edits)) if edits else report


def _own_rig(plan: Plan) -> Report:
    report = Report(trace_plan(plan))
    if not _is_right(report):
        raise PlanError("this job has something in it that will not work already: fix that first, or drill another job")
    return report


def _is_right(report: Report) -> bool:
    return not any(finding.severity is Severity.STOP for finding in check(report))
