"""A drill as it is played and judged: what was looked at, what it showed, and the shortest order beside one's own."""

from collections.abc import Mapping, Sequence
from typing import Final
from uuid import UUID

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.advice.walk import WalkItem, walk_items
from tidy_trunk.core.drill import Drill, HiddenFault, Probe, faults_of
from tidy_trunk.core.plan import Disconnect, PlanIndex
from tidy_trunk.results.numbers import Out
from tidy_trunk.words import said
from tidy_trunk.words.drill import (
    PUT_RIGHT,
    RECORDED_RIGHT,
    SETTINGS_SHEET,
    SOMETHING_ELSE,
    drill_answer_words,
    probe_words,
    short_probe_words,
)
from tidy_trunk.words.drill_shown import DrawnAs, ShownLine, recorded_words, shown, sound_names
from tidy_trunk.words.names import begun
from tidy_trunk.words.walk import walk_words


class ProbeOut(Out):
    """Something that can be done. group: the device or cable that it is done at; short: what is left of its label beside that;
    has_sound: it can be listened to."""

    id: str
    group: str
    label: str
    short: str
    minutes: float
    has_sound: bool


class DrawnOut(Out):
    """What is drawn beside a line. positions: where it can stand, by name; at: where it stands among them; turned: how far a knob is,
    from 0 to 1."""

    drawing: DrawnAs
    positions: list[str]
    at: int
    turned: float

    @classmethod
    def from_shown(cls, line: ShownLine) -> "DrawnOut | None":
        if line.drawing is None:
            return None
        return cls(drawing=line.drawing, positions=list(line.positions), at=line.at, turned=round(line.turned, 3))


class ProbedOut(Out):
    """What was done, and what it showed. drawn: for each line what is drawn beside it, none where words say it all; sounds: tracks that can be listened to, by their names; lines then say the same in words."""

    probe: str
    label: str
    minutes: float
    lines: list[str]
    drawn: list[DrawnOut | None]
    sounds: list[str]


class DrillChoiceOut(Out):
    id: str
    label: str


class DrillStepOut(Out):
    """A step of a search. left: possibilities that were left open after it; told: what it showed."""

    label: str
    minutes: float
    left: int
    told: str


class DrillJudgedOut(Out):
    """truth: what was wrong; minutes, best_minutes: of one's own search, and of the shortest order for this rig; score: 100 for that
    or less; lost: what would have been wrong on the day; prevents: the lines of the checklist."""

    truth: str
    is_right: bool
    minutes: float
    best_minutes: float
    score: int
    takes_lost: int
    own: list[DrillStepOut]
    best: list[DrillStepOut]
    expected_minutes: float
    in_turn_minutes: float
    lost: list[str]
    prevents: list[str]


class DrillOut(Out):
    """A drill. seed: that draws the same for others; most: faults that there may be; devices: of the rig, in the order of the sound; judged: once it was answered."""

    id: str
    seed: int
    title: str
    devices: list[str]
    cables: list[str]
    probes: list[ProbeOut]
    seen: list[ProbedOut]
    most: int
    answers: list[DrillChoiceOut]
    wrong: list[str]
    minutes: float
    judged: DrillJudgedOut | None


class PlayedOut(Out):
    """A drill in the list of those that were played. score: None while it is open."""

    id: str
    seed: int
    title: str
    who: str
    begun: str
    score: int | None


class JobMadeOut(Out):
    """A job that was made of a drill. track: on which the fault is heard."""

    job: UUID
    track: str


class KindOut(Out):
    """A kind of fault. found: how often in a row it was found well; played: how often it was hidden; is_due: to be practised now."""

    kind: str
    label: str
    found: int
    played: int
    is_due: bool


class ResultOut(Out):
    """How somebody did."""

    who: str
    score: int


class SameDrillOut(Out):
    """One drill that several people have played. results: the best first."""

    seed: int
    title: str
    results: list[ResultOut]


class TrainingOut(Out):
    """What was played, the newest first; what several people played, side by side; what is to be practised, the most urgent first."""

    played: list[PlayedOut]
    side_by_side: list[SameDrillOut]
    kinds: list[KindOut]


MENDED: Final = "mended "
"""Before the id of a fault that was put right, among what was done. ASSUMED_"""

WRONG_FIX_MIN: Final = 5.0
"""ASSUMED_ what a wrong fix costs: a take that is recorded with the fault in it."""


def drill_out(
    drill_id: str, title: str, drill: Drill, done: Sequence[str], wrong: Sequence[str], answer: str | None
) -> DrillOut:
    """done: ids of what was looked at, in order, and of faults that were put right; wrong: ids of wrong answers; answer: the last
    one, None while it is open."""
    index = drill.rig.index
    probes = {probe.id: probe for probe in drill.rig.probes}
    minutes = sum(probes[name].minutes for name in done if name in probes) + WRONG_FIX_MIN * len(wrong)
    return DrillOut(
        id=drill_id,
        seed=drill.seed,
        title=title,
        devices=[placed.label for placed in drill.rig.chain],
        cables=[begun(index.run_label(run)) for run in drill.rig.runs],
        probes=[
            ProbeOut(
                id=probe.id,
                group=_group(probe, index),
                label=probe_words(probe, index),
                short=short_probe_words(probe, index),
                minutes=probe.minutes,
                has_sound=probe.is_heard,
            )
            for probe in drill.rig.probes
        ],
        most=drill.found.most,
        seen=_seen(drill, done),
        answers=[
            DrillChoiceOut(id=name, label=drill_answer_words(drill, name))
            for name in (*(fault.id for fault in drill.found.faults), "")
        ],
        wrong=[drill_answer_words(drill, name) for name in wrong if not name or drill.found.named(name)],
        minutes=round(minutes, 1),
        judged=None if answer is None else _judged(drill, done, wrong, answer, minutes),
    )


def best_done(drill: Drill) -> list[str]:
    """What the shortest order does in it, as it would have been played."""
    return [
        name
        for step in drill.found.order.steps_to(drill.truth)
        for name in (step.probe.id, *(MENDED + fault for fault in sorted(step.mended)))
    ]


def with_mended(drill: Drill, done: Sequence[str]) -> Drill:
    """What is left of a drill after what was put right."""
    for name in done:
        if name.startswith(MENDED):
            drill = drill.without(name.removeprefix(MENDED))
    return drill


def _seen(drill: Drill, done: Sequence[str]) -> list[ProbedOut]:
    index = drill.rig.index
    probes = {probe.id: probe for probe in drill.rig.probes}
    seen = []
    for number, name in enumerate(done):
        if name.startswith(MENDED):
            words = drill_answer_words(drill, name.removeprefix(MENDED))
            lines = [words, SOMETHING_ELSE]
            seen.append(ProbedOut(probe=name, label=PUT_RIGHT, minutes=0.0, lines=lines, drawn=[None, None], sounds=[]))
            continue
        faulty = with_mended(drill, done[:number]).faulty
        told = shown(faulty, probes[name])
        seen.append(
            ProbedOut(
                probe=name,
                label=probe_words(probes[name], index),
                minutes=probes[name].minutes,
                lines=[line.text for line in told],
                drawn=[DrawnOut.from_shown(line) for line in told],
                sounds=sound_names(faulty, probes[name]),
            )
        )
    return seen


def _steps(drill: Drill, done: Sequence[str]) -> list[DrillStepOut]:
    """What was done, what each of it told, and what it left open."""
    index, order, here = drill.rig.index, drill.found.order, drill
    probes = {probe.id: probe for probe in drill.rig.probes}
    left, steps = order.all, list[DrillStepOut]()
    for name in done:
        if name.startswith(MENDED):
            here = here.without(fault := name.removeprefix(MENDED))
            left = frozenset(one for names in left if fault in (held := faults_of(names)) for one in held - {fault})
            continue
        probe = probes[name]
        left = order.after(left, probe, drill.found.shown[name][here.truth])
        told = [line.text for line in shown(here.faulty, probe)]
        steps.append(
            DrillStepOut(label=probe_words(probe, index), minutes=probe.minutes, left=len(left), told="; ".join(told))
        )
    return steps


def _judged(drill: Drill, done: Sequence[str], wrong: Sequence[str], answer: str, minutes: float) -> DrillJudgedOut:
    order = drill.found.order
    own, best = _steps(drill, done), _steps(drill, best_done(drill))
    here = with_mended(drill, done)
    best_minutes = sum(step.minutes for step in best)
    is_right = answer == here.truth or bool(drill.found.is_answer(answer, here.truth))
    return DrillJudgedOut(
        truth=drill_answer_words(drill, drill.truth),
        is_right=is_right,
        minutes=round(minutes, 1),
        best_minutes=round(best_minutes, 1),
        score=min(round(100 * best_minutes / minutes), 100) if is_right and minutes else 0,
        takes_lost=len(wrong),
        own=own,
        best=best,
        expected_minutes=round(order.expected_minutes(), 1),
        in_turn_minutes=round(order.in_turn_minutes(), 1),
        lost=_lost(drill),
        prevents=list(dict.fromkeys(_prevents(drill, fault) for fault in drill.faults)),
    )


def _group(probe: Probe, index: PlanIndex) -> str:
    """The device or cable that it is done at, or that it is done at all of them."""
    if probe.device:
        return index.placed(probe.device).label
    return f"Cable {index.plan.runs[probe.run].number}" if probe.run else "All devices"


def _lost(drill: Drill) -> list[str]:
    """What would be wrong with the recordings; and stops and cautions that the fault brings, as the plan would have told them, unless it
    stands in the plan as a cable that is not there."""
    lines = recorded_words(drill.faulty)
    if not lines and drill.faults:
        return [RECORDED_RIGHT]
    if any(isinstance(edit, Disconnect) for fault in drill.faults for edit in fault.edits):
        return lines
    known = {finding.id for finding in check(drill.rig.report)}
    return lines + [
        words.text
        for finding in check(drill.faulty.report)
        if finding.severity is not Severity.NOTE and finding.id not in known
        for words in [said(finding, drill.faulty.index)]
    ]


def _prevents(drill: Drill, fault: HiddenFault) -> str:
    """The line of the checklist that would have shown it."""
    index = drill.rig.index
    items = walk_items(drill.rig.report)
    found = next(
        (item for what in _LINES[fault.code] for item in items if item.what == what and _is_of(item, fault, index)),
        None,
    )
    return SETTINGS_SHEET if found is None else walk_words(found, index).text


_LINES: Final[Mapping[str, tuple[str, ...]]] = {
    "automatic": ("automatic-level",),
    "phantom": ("phantom",),
    "mode": ("settings",),
    "gain": ("settings", "tone"),
    "pad": ("settings",),
    "limiter": ("settings",),
    "linked": ("settings",),
    "pan": ("settings",),
    "rolling": ("rolling", "counter"),
    "monitor": ("listen",),
    "crossed": ("cable",),
    "one-leg": ("cable",),
    "wrong-output": ("cable",),
    "wrong-mix": ("settings",),
    "timecode-out": ("timecode-label",),
    "timecode-beside": ("cable",),
    "not-jammed": ("timecode-label",),
    "timecode-rate": ("timecode-rate",),
    "timecode-run": ("timecode-rate",),
    "sample-rate": ("rate",),
    "armed": ("armed",),
    "frequency": ("frequency",),
    "cell": ("cell",),
    "mains": ("power",),
    "pad-missing": ("cable",),
    "wrong-cable": ("cable",),
    "wrong-input": ("cable",),
    "break": ("spare", "cable"),
    "loose": ("strain-relief", "cable"),
}
"""By kind of fault, what the checklist looks at. [HANDBOOK] §1"""


def _is_of(item: WalkItem, fault: HiddenFault, index: PlanIndex) -> bool:
    if "run" in item.facts:
        return bool(item.facts["run"] == fault.run)
    device = index.plan.runs[fault.run].receiving.device if fault.run else fault.device
    port = fault.control.partition(".")[0]
    return item.device in ("", device) and bool(item.facts.get("port", port) == port)
