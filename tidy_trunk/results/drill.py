"""A drill as it is played and judged: what was looked at, what it showed, and the shortest order beside one's own."""

from collections.abc import Mapping, Sequence
from typing import Final
from uuid import UUID

from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.advice.walk import WalkItem, walk_items
from tidy_trunk.core.drill import Drill, HiddenFault
from tidy_trunk.results.numbers import Out
from tidy_trunk.words import said
from tidy_trunk.words.drill import (
    SETTINGS_SHEET,
    answer_words,
    probe_words,
    short_probe_words,
    shown_words,
    sound_names,
)
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


class ProbedOut(Out):
    """What was done, and what it showed. sounds: tracks that can be listened to, by their names; lines then say the same in words."""

    probe: str
    label: str
    minutes: float
    lines: list[str]
    sounds: list[str]


class DrillChoiceOut(Out):
    id: str
    label: str


class DrillStepOut(Out):
    """A step of a search. left: possibilities that were left open after it."""

    label: str
    minutes: float
    left: int


class DrillJudgedOut(Out):
    """truth: what was wrong; minutes, best_minutes: of one's own search, and of the shortest order for this rig; score: 100 for that
    or less; lost: what would have been wrong on the day; prevents: the line of the checklist."""

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
    prevents: str


class DrillOut(Out):
    """A drill. seed: that draws the same for others; devices: of the rig, in the order of the sound; judged: once it was answered."""

    id: str
    seed: int
    title: str
    devices: list[str]
    cables: list[str]
    probes: list[ProbeOut]
    seen: list[ProbedOut]
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


WRONG_FIX_MIN: Final = 5.0
"""ASSUMED_ what a wrong fix costs: a take that is recorded with the fault in it."""


def drill_out(
    drill_id: str, title: str, drill: Drill, done: Sequence[str], wrong: Sequence[str], answer: str | None
) -> DrillOut:
    """done: ids of what was looked at, in order; wrong: ids of wrong answers; answer: the last one, None while it is open."""
    index, faulty = drill.rig.index, drill.faulty
    probes = {probe.id: probe for probe in drill.rig.probes}
    minutes = sum(probes[name].minutes for name in done) + WRONG_FIX_MIN * len(wrong)
    return DrillOut(
        id=drill_id,
        seed=drill.seed,
        title=title,
        devices=[unit.label for unit in drill.rig.chain],
        cables=[begun(index.run_label(run)) for run in drill.rig.runs],
        probes=[
            ProbeOut(
                id=probe.id,
                group=index.unit(probe.device).label if probe.device else f"Cable {index.plan.runs[probe.run].number}",
                label=probe_words(probe, index),
                short=short_probe_words(probe, index),
                minutes=probe.minutes,
                has_sound=probe.is_heard,
            )
            for probe in drill.rig.probes
        ],
        seen=[
            ProbedOut(
                probe=name,
                label=probe_words(probes[name], index),
                minutes=probes[name].minutes,
                lines=shown_words(faulty, probes[name]),
                sounds=sound_names(faulty, probes[name]),
            )
            for name in done
        ],
        answers=[
            DrillChoiceOut(id=name, label=answer_words(drill, name))
            for name in (*(fault.id for fault in drill.found.faults), "")
        ],
        wrong=[answer_words(drill, name) for name in wrong],
        minutes=round(minutes, 1),
        judged=None if answer is None else _judged(drill, done, wrong, answer, minutes),
    )


def _judged(drill: Drill, done: Sequence[str], wrong: Sequence[str], answer: str, minutes: float) -> DrillJudgedOut:
    index, order = drill.rig.index, drill.found.order
    probes = {probe.id: probe for probe in drill.rig.probes}
    left, own = order.all, []
    for name in done:
        probe = probes[name]
        left = order.after(left, probe, drill.found.shown[name][drill.truth])
        own.append(DrillStepOut(label=probe_words(probe, index), minutes=probe.minutes, left=len(left)))
    best = [
        DrillStepOut(label=probe_words(step.probe, index), minutes=step.probe.minutes, left=len(step.left))
        for step in order.steps_to(drill.truth)
    ]
    best_minutes = sum(step.minutes for step in best)
    is_right = answer in drill.found.alike(drill.truth)
    return DrillJudgedOut(
        truth=answer_words(drill, drill.truth),
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
        prevents="" if drill.fault is None else _prevents(drill, drill.fault),
    )


def _lost(drill: Drill) -> list[str]:
    """Stops and cautions that the fault brings, as the plan would have told them."""
    known = {finding.id for finding in check(drill.rig.report)}
    return [
        words.text
        for finding in check(drill.faulty.report)
        if finding.severity is not Severity.NOTE and finding.id not in known
        for words in [said(finding, drill.faulty.index)]
    ]


def _prevents(drill: Drill, fault: HiddenFault) -> str:
    """The line of the checklist that would have shown it."""
    items = walk_items(drill.rig.report)
    found = next(
        (item for what in _LINES[fault.code] for item in items if item.what == what and _is_of(item, fault)), None
    )
    return SETTINGS_SHEET if found is None else walk_words(found, drill.rig.index).text


_LINES: Final[Mapping[str, tuple[str, ...]]] = {
    "automatic": ("automatic-level",),
    "phantom": ("phantom",),
    "mode": ("settings",),
    "gain": ("settings", "tone"),
    "pad": ("settings",),
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


def _is_of(item: WalkItem, fault: HiddenFault) -> bool:
    if fault.run:
        return item.facts.get("run") == fault.run
    port = fault.control.partition(".")[0]
    return item.device == fault.device and item.facts.get("port", port) == port
