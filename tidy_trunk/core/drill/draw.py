"""A drill drawn by a number: a rig, and the fault that is hidden in it. The same number gives the same drill everywhere."""

from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cached_property
from itertools import combinations
from random import Random
from typing import Final

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.drill.hidden import LIKELY, HiddenFault
from tidy_trunk.core.drill.misset import of_device
from tidy_trunk.core.drill.miswired import of_run
from tidy_trunk.core.drill.observed import DrillRig, FaultyRig, Impression, Observation
from tidy_trunk.core.drill.order import AND, NO_FAULT, NO_FAULT_SHARE, SearchOrder, faults_of
from tidy_trunk.core.gear.catalogue import POWER_KEY, Circuit, Kind, Power, frequency_key
from tidy_trunk.core.plan import Edit, Plan, SetControl, edited
from tidy_trunk.core.rigs import first_rig, read_brief
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, PlanError, RangeError

LARGEST_SEED: Final = 999_999
"""ASSUMED_ largest number of a drill: six digits can be called across a room."""

FEWEST_FAULTS: Final = 3
"""ASSUMED_ faults that a rig must be good for: of fewer there is nothing to search."""

MOST_FAULTS: Final = 30
"""ASSUMED_ faults of which one is hidden: more nobody keeps in mind."""

MOST_PAIRED: Final = 10
"""ASSUMED_ faults of which two may be hidden: of ten there are 45 pairs."""

TWO_SHARE: Final = 0.6
"""ASSUMED_ how often there are two where two are allowed."""


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

MOST_TRIED: Final = 120
"""ASSUMED_ faults of a rig that are worked out: large jobs have hundreds."""


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
    found = [fault for unit in rig.index.units() for fault in of_device(rig.index, unit)]
    return [*found, *(fault for run in rig.runs for fault in of_run(rig.index, run))]


def _of_all_kinds(possible: Sequence[HiddenFault]) -> list[HiddenFault]:
    """One of each kind first, the likeliest kind before the others, then a second of each: a large rig has a hundred knobs."""
    before: Counter[str] = Counter()
    ranks = {}
    for fault in possible:
        ranks[fault.id] = before[fault.code]
        before[fault.code] += 1
    return sorted(possible, key=lambda fault: (ranks[fault.id], -fault.weight))


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
        if index.unit(run.sending.device).output(run.sending.port).circuit is Circuit.RADIO
    ]
    for number, run in enumerate(radios, by.randrange(MOST_STEPS)):
        frequency = round(LOWEST_MHZ + SPACING_MHZ * number, 3)
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
