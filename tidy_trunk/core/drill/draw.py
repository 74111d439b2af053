"""A drill drawn by a number: a rig, and the fault that is hidden in it. The same number gives the same drill everywhere."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from random import Random
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.drill.hidden import LIKELY, HiddenFault
from tidy_trunk.core.drill.observed import FaultyRig
from tidy_trunk.core.drill.order import AND, NO_FAULT, NO_FAULT_SHARE, faults_of
from tidy_trunk.core.drill.rig import DrillRig, Impression
from tidy_trunk.core.drill.rig_faults import TWO_SHARE, RigFaults
from tidy_trunk.core.gear.catalogue import POWER_KEY, Circuit, DeviceKind, Power, frequency_key
from tidy_trunk.core.plan import Edit, Plan, SetControl, edited
from tidy_trunk.core.rigs import first_rig, read_brief
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import PlanError, RangeError

LARGEST_SEED: Final = 999_999
"""ASSUMED_ largest number of a drill: six digits can be called across a room."""

FEWEST_FAULTS: Final = 3
"""ASSUMED_ faults that a rig must be good for: of fewer there is nothing to search."""


class DrillLevel(StrEnum):
    """How much stands about: from the first day to a night shoot."""

    FIRST_DAY = "first-day"
    UNIT = "unit"
    NIGHT_SHOOT = "night-shoot"


_RIGS: Final[Mapping[DrillLevel, tuple[tuple[str, ...], ...]]] = {
    DrillLevel.FIRST_DAY: (
        ("one person talking",),
        ("boom", "lavalier by cable", "handheld mic", "on-camera mic", "lavalier on radio"),
        ("handheld recorder", "bag recorder", "no recorder"),
        ("1 camera mic socket only",),
    ),
    DrillLevel.UNIT: (
        ("one person talking", "interview, two people", "music"),
        ("boom", "lavalier by cable", "lavalier on radio", "two lavs on radio", "boom and lav on radio", "stereo pair"),
        ("handheld recorder", "bag recorder", "no recorder"),
        ("1 camera mic socket only", "cinema camera", "phone"),
    ),
    DrillLevel.NIGHT_SHOOT: (
        ("interview, two people, once", "four people, once"),
        ("boom and two lavs on radio", "four lavs on radio", "boom, two lavs on radio"),
        ("bag recorder",),
        (
            "two cinema cameras",
            "two cinema cameras, timecode boxes",
            "two cameras mic socket only, timecode boxes",
            "1 camera mic socket only",
        ),
    ),
}
"""Rigs of a level, in everyday words: who, by what, into what, on what. ASSUMED_"""

_TRIES: Final = 20

DESCRIBED_OTHERWISE: Final = "the devices of this drill are described otherwise since an update: draw a new one"
"""ASSUMED_ words: why a drill that was kept does not open any more."""

LOWEST_MHZ: Final = 520.0
"""ASSUMED_ frequency from which the radios of a drill are set; where one may transmit, the local regulator says."""

SPACING_MHZ: Final = 1.1
"""ASSUMED_ distance of the radios of a drill: no two of a few disturb each other."""

MOST_STEPS: Final = 8
"""ASSUMED_ steps by which a drill's first frequency differs from the next drill's."""


@dataclass(frozen=True, slots=True)
class Drill:
    """seed: that it was drawn by. truth: ids of its faults with AND between, NO_FAULT where nothing is wrong."""

    seed: int
    found: RigFaults
    truth: str

    @property
    def rig(self) -> DrillRig:
        return self.found.rig

    @property
    def faults(self) -> tuple[HiddenFault, ...]:
        return self.found.named(self.truth)

    @property
    def faulty(self) -> FaultyRig:
        return FaultyRig(self.rig, self.faults)

    def hit_track(self) -> str:
        """The track on which the faults are heard, else the first that was planned."""
        faulty = self.faulty
        tracks = [track for track in faulty.report.tracks if not self.rig.report.known_track(track.trace.id).is_silent]
        hit = next((one for one in tracks if faulty.heard(one) != {Impression.AS_PLANNED}), None)
        if hit is not None:
            return hit.trace.id
        devices = {fault.device for fault in self.faults}
        there = [track for track in tracks if track.trace.device in devices]
        return (there or tracks)[0].trace.id

    def without(self, fault_id: str) -> "Drill":
        """Once a fault was put right."""
        return replace(self, truth=AND.join(one.id for one in self.faults if one.id != fault_id))


def rungs_of(report: Report, track_id: str, faults: Sequence[HiddenFault]) -> tuple[int, ...]:
    """The rungs of a track's ladder at which faults are, by their places from the source on; none for what is elsewhere.

    What is wrong with a device as a whole is wrong with what it records.
    """
    track = report.known_track(track_id)
    stages = [rung.level.stage for rung in report.ladder(track.trace)]
    found = set()
    for fault in faults:
        port = fault.control.partition(".")[0]
        at = [
            place
            for place, stage in enumerate(stages)
            if (stage.run is not None and stage.run.id == fault.run)
            or (port and stage.device == fault.device and stage.name == port)
        ]
        if not at and fault.device == track.trace.device:
            at = [len(stages) - 1]
        found |= set(at[:1])
    return tuple(sorted(found))


def draw_drill(
    seed: int, plan: Plan | None = None, *, level: DrillLevel = DrillLevel.UNIT, kind: str = "", most: int = 1
) -> Drill:
    """The drill of a number: in a rig drawn from the catalogue, or in a plan of one's own.

    Args:
        seed: From 0 to 999999.
        plan: In which the fault is hidden.
        level: Of a rig that is drawn.
        kind: Of fault, a key of `LIKELY`; "" for any, and at times none.
        most: How many faults there may be, 1 or 2.

    Raises:
        RangeError: No such number, no such kind, or more than two.
        PlanError: The plan has a stop already, or too little in it to hide a fault.
    """
    if not 0 <= seed <= LARGEST_SEED:
        raise RangeError(f"a drill has a number from 0 to {LARGEST_SEED}; {seed} is none")
    if kind and kind not in LIKELY:
        raise RangeError(f"no fault is of the kind '{kind[:20]}': use {', '.join(LIKELY)}")
    if most not in (1, 2):
        raise RangeError(f"a drill has one fault or two, not {most}")
    by = Random(seed)
    found, faults = _fit(by, plan, level, kind, most)
    if not kind and by.random() < NO_FAULT_SHARE:
        return Drill(seed, found, NO_FAULT)
    (fault,) = by.choices(faults, [fault.weight for fault in faults])
    if most == 2 and by.random() < TWO_SHARE:
        return Drill(seed, found, _with_another(by, found, fault))
    return Drill(seed, found, fault.id)


def _with_another(by: Random, found: RigFaults, fault: HiddenFault) -> str:
    """A second fault beside one; the one alone where no other can be there too."""
    others = [one for one in found.faults if one is not fault]
    for other in sorted(others, key=lambda one: -one.weight * by.random()):
        pair = AND.join(one.id for one in found.faults if one in (fault, other))
        if found.seen(pair) is not None:
            return pair
    return fault.id


def _fit(by: Random, plan: Plan | None, level: DrillLevel, kind: str, most: int) -> tuple[RigFaults, list[HiddenFault]]:
    """A rig in which there is enough to search, and its faults of a kind. Raises PlanError: there is none."""
    has_enough = False
    for _ in range(_TRIES if plan is None else 1):
        found = RigFaults(DrillRig(_drawn_rig(by, level) if plan is None else _own_rig(plan)), most)
        faults = [fault for fault in found.faults if kind in ("", fault.code)]
        has_enough |= len(found.faults) >= FEWEST_FAULTS
        if len(found.faults) >= FEWEST_FAULTS and faults:
            return found, faults
    if has_enough:
        raise PlanError("no fault of that kind can be hidden there: take another kind, or another level")
    raise PlanError("there is too little in this job to hide a fault: join a microphone, a recorder and a camera")


def drill_of(seed: int, plan: Plan, truth: str, most: int = 1) -> Drill:
    """A drill as it was kept: its rig and its faults.

    Raises PlanError: The classes of its devices have changed since, and the fault is none of theirs any more.
    """
    found = RigFaults(DrillRig(Report(trace_plan(plan))), most, faults_of(truth))
    if len(found.named(truth)) != len(faults_of(truth)) or found.seen(truth) is None:
        raise PlanError(DESCRIBED_OTHERWISE)
    return Drill(seed, found, truth)


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
        if index.placed(run.sending.device).output(run.sending.port).circuit is Circuit.RADIO
    ]
    for number, run in enumerate(radios, by.randrange(MOST_STEPS)):
        frequency = round(LOWEST_MHZ + SPACING_MHZ * number, 3)
        edits += [
            SetControl(device=ref.device, control=frequency_key(ref.port), value=frequency)
            for ref in (run.sending, run.receiving)
        ]
    on_mains = by.random() < 0.5
    for placed in index.placed_devices():
        if (
            on_mains
            and placed.device_class.kind is DeviceKind.CAMERA
            and Power.MAINS in placed.device_class.traits.powers
        ):
            edits.append(SetControl(device=placed.device.id, control=POWER_KEY, value=Power.MAINS))
    return report.edited(edited(index.plan, edits)) if edits else report


def _own_rig(plan: Plan) -> Report:
    report = Report(trace_plan(plan))
    if not _is_right(report):
        raise PlanError("this job has something in it that will not work already: fix that first, or drill another job")
    return report


def _is_right(report: Report) -> bool:
    return not any(finding.severity is Severity.STOP for finding in check(report))
