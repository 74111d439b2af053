"""A gain plan for a whole job: what to set, in the order of the work, why, and the result."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from tidy_trunk.core.advice.adviser.judge import Judgement, judge
from tidy_trunk.core.advice.adviser.move import MAKERS, Maker
from tidy_trunk.core.advice.adviser.moves import LEVEL_RULES
from tidy_trunk.core.advice.adviser.moves.levels import (
    attenuator_off,
    automatic_off,
    inputs_down,
    limiter,
    low_cut_off,
    low_cut_on,
    other_ways,
    receiving_knob,
)
from tidy_trunk.core.advice.adviser.order import devices_in_order
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.adviser.settle import NO_PINS, Pins, settle
from tidy_trunk.core.advice.checks import Finding, PlacedFinding, Severity
from tidy_trunk.core.gear.catalogue import Control, ControlKind, InputPort, Setting, controls_of
from tidy_trunk.core.plan import Edit, PlacedDevice, Plan, PlanIndex, PortRef, SetControl, apply_edits
from tidy_trunk.core.sound.levels import Report, SignalLevels, TrackLevel
from tidy_trunk.errors import TidyTrunkError

JUST_DB: Final = 0.5
"""ASSUMED_ what is printed as no decibel at all."""

Cures = dict[tuple[str, str], PlacedFinding]
"""What each control ends that was thrown for it, by device and control. [HANDBOOK] §6"""

_MOST_CURES = 4
_MOST_ROUNDS = 40  # each betters the plan, and most plans need two


class Outcome(NamedTuple):
    """What a knob brings: a track or mix by name, and its sound with everything set."""

    label: str
    sound: SignalLevels


@dataclass(frozen=True, slots=True, kw_only=True)
class GainStep:
    """One control to move: `was` and `now` in words.

    why: the finding that it ends, or what it brings; None where it only keeps what follows from being driven too hard.
    """

    device: str
    control: str
    label: str
    was: str
    now: str
    why: PlacedFinding | Outcome | None
    edit: SetControl


@dataclass(frozen=True, slots=True)
class TrackChange:
    """A recorded track before and after; the stages are those of two different plans."""

    label: str
    before: TrackLevel
    after: TrackLevel


@dataclass(frozen=True, slots=True, kw_only=True)
class GainPlan:
    """Steps in the order of the work, the tracks with what they would hold, and the stops that no setting cures."""

    steps: tuple[GainStep, ...]
    tracks: tuple[TrackChange, ...]
    stops_before: int
    stops_left: tuple[PlacedFinding, ...]

    @property
    def edits(self) -> tuple[Edit, ...]:
        return tuple(step.edit for step in self.steps)


def gain_plan(report: Report, pins: Pins = NO_PINS) -> GainPlan:
    """Where every knob and level switch of a job should stand.

    Switches that end a stop, automatic level and low cut come first. Then, from the microphones on, device by device, every
    position is tried at each joint. The result is taken only if the judge calls it better than what stands. Last come
    limiters, where a burst still goes over.

    Args:
        report: The job as it stands.
        pins: Controls to leave alone, as (device, control).

    Source: [HANDBOOK] §6, order of work and where gain belongs.
    """
    question = _about(report)
    cures: Cures = {}
    after = question
    for _ in range(_MOST_ROUNDS):
        better = min(_choices(after, pins, cures), key=_judged)
        if _judged(better) >= _judged(after):
            break
        after = better
    return GainPlan(
        steps=tuple(_steps(report, after.report, cures)),
        tracks=tuple(_tracks(report, after.report)),
        stops_before=len(_stops(question)),
        stops_left=tuple(PlacedFinding(finding, after.index) for finding in _stops(after)),
    )


def _judged(question: Question) -> Judgement:
    return judge(question.report, question.findings)


def _choices(question: Question, pins: Pins, cures: Cures) -> Iterator[Question]:
    """What a gain plan may come to, what changes least first: limiters, the switches thrown, a single knob or level switch
    moved, every knob settled."""
    yield _limited(question, pins, cures)
    yield question.about(_cured(question, pins, cures))
    for finding, edits in small_moves(question):
        if any((edit.device, edit.control) in pins for edit in edits):
            continue
        for edit in edits:
            if isinstance(edit.value, bool):
                cures.setdefault((edit.device, edit.control), PlacedFinding(finding, question.index))
        yield question.edited(edits)
    yield _limited(question.about(settled(question, pins, cures)), pins, cures)


def small_moves(question: Question) -> Iterator[tuple[Finding, tuple[SetControl, ...]]]:
    """Knobs and switches that may better a plan one at a time, each with the finding that asks for it."""
    for finding in question.findings:
        for maker in _SINGLE.get(finding.rule, ()):
            for move in maker(question, finding):
                edits = tuple(edit for edit in move.edits if isinstance(edit, SetControl))
                if len(edits) == len(move.edits):
                    yield finding, edits


def settled(question: Question, pins: Pins = NO_PINS, cures: Cures | None = None) -> Plan:
    """The plan with every knob and level switch where it fits. `cures` is told which switch ended what."""
    cures = {} if cures is None else cures
    plan = settle(_cured(question, pins, cures), pins)
    return _cured(question.about(plan), pins, cures)


def _about(report: Report) -> Question:
    """A question of which only what throws switches is asked: that settles nothing."""
    return Question(report.index.plan, report)


def _stops(question: Question) -> list[Finding]:
    return [finding for finding in question.findings if finding.severity is Severity.STOP]


def _cured(question: Question, pins: Pins, cures: Cures) -> Plan:
    """The plan with every stop ended that switches alone can end, and what would undo a gain plan switched off."""
    for _ in range(_MOST_CURES):
        changed, ended = question.plan, dict(cures)
        for finding in question.findings:
            if finding.rule in LEVEL_RULES or (finding.severity is not Severity.STOP and finding.rule not in _SWITCHED):
                continue
            edits = _switches(question, finding, pins)
            try:
                changed = apply_edits(changed, edits)
            except TidyTrunkError:
                continue
            ended.update({(edit.device, edit.control): PlacedFinding(finding, question.index) for edit in edits})
        if changed is question.plan or changed == question.plan:
            break
        after = question.about(changed)
        if len(_stops(after)) > len(_stops(question)):
            break
        question = after
        cures.update(ended)
    return question.plan


def _limited(question: Question, pins: Pins, cures: Cures) -> Question:
    """The same with limiters on where a burst still goes over, and one of two in a row off, as far as the judge likes it."""
    asked = question
    for finding in asked.findings:
        if finding.rule not in ("burst-clips", "limiter"):
            continue
        for move in limiter(question, finding):
            (switch,) = (edit for edit in move.edits if isinstance(edit, SetControl))
            if (switch.device, switch.control) in pins:
                continue
            after = question.edited(move.edits)
            if judge(after.report, after.findings) < judge(question.report, question.findings):
                question = after
                cures[switch.device, switch.control] = PlacedFinding(finding, asked.index)
                break
    return question


_SINGLE: Final[Mapping[str, Sequence[Maker]]] = {
    **dict.fromkeys(LEVEL_RULES, (receiving_knob,)),
    "line-into-mic": (receiving_knob, other_ways),
    "clipping": (receiving_knob, inputs_down),
    "automatic-level": (automatic_off,),
    "pad-behind-converter": (attenuator_off,),
    "thin-voice": (low_cut_off,),
    "rumble": (low_cut_on,),
}
_SWITCHED: Final = ("automatic-level", "rumble")


def _switches(question: Question, finding: Finding, pins: Pins) -> list[SetControl]:
    """The first move for a finding that only throws switches; empty where there is none."""
    for maker in MAKERS.get(finding.rule, ()):
        for move in maker(question, finding):
            edits = [edit for edit in move.edits if isinstance(edit, SetControl)]
            if len(edits) == len(move.edits) and not any((edit.device, edit.control) in pins for edit in edits):
                return edits
    return []


def _steps(before: Report, after: Report, cures: Cures) -> Iterator[GainStep]:
    """What differs, in the order of the work: from the microphones on, and at each device the largest switch first."""
    for device in devices_in_order(after.index):
        was, placed = before.index.placed(device), after.index.placed(device)
        if was.device.settings == placed.device.settings:
            continue
        moved = [
            control
            for control in controls_of(placed.device_class).values()
            if _value(was, control) != _value(placed, control)
        ]
        for control in sorted(moved, key=lambda control: _WORK.index(control.kind)):
            port = f"{where} " if (where := placed.where_label(control.port)) else ""
            yield GainStep(
                device=device,
                control=control.id,
                label=f"{placed.label} {port}{control.label}",
                was=control.words(_value(was, control)),
                now=control.words(_value(placed, control)),
                why=_why(after, placed, control, cures),
                edit=SetControl(device=device, control=control.id, value=_value(placed, control)),
            )


_WORK: Final = (ControlKind.CHOICE, ControlKind.SWITCH, ControlKind.KNOB, ControlKind.FREQUENCY)


def _value(placed: PlacedDevice, control: Control) -> Setting:
    return placed.device.settings.get(control.id, control.default)


def _why(report: Report, placed: PlacedDevice, control: Control, cures: Cures) -> PlacedFinding | Outcome | None:
    cured = cures.get((placed.device.id, control.id))
    return cured if cured is not None else next(_reached(report, placed, control.port), None)


def _reached(report: Report, placed: PlacedDevice, port: str) -> Iterator[Outcome]:
    """Tracks, else mixes, that a port's own device or the one at the other end makes of it."""
    index = report.index
    track = next((bus for bus in placed.device_class.buses if bus.id == port), None)
    if track is not None and port not in placed.device_class.port_of:
        yield Outcome(placed.bus_label(port), report.solver.track_sound(report.tracer.bus(placed.device.id, port)))
        return
    sends = (placed.device.id, port or "out")  # a control of a microphone itself acts at its output
    ends = {run.receiving for run in index.plan.runs.values() if run.sending == sends}
    if port and isinstance(placed.port(port), InputPort):
        ends = {PortRef(placed.device.id, port)}
    for device in dict.fromkeys(end.device for end in ends):
        receiver = index.placed(device)
        for bus in sorted(receiver.device_class.buses, key=lambda bus: not bus.recorded):
            stage = report.tracer.bus(device, bus.id)
            if any((device, feed.name) in ends for feed, _ in stage.feeds):
                yield Outcome(receiver.bus_label(bus.id), report.solver.track_sound(stage))


def _tracks(before: Report, after: Report) -> Iterator[TrackChange]:
    for track in after.tracks:
        was = before.track(track.trace.id)
        if was is not None and not (track.is_silent and was.is_silent):
            yield TrackChange(_label(after.index, track), was, track)


def _label(index: PlanIndex, track: TrackLevel) -> str:
    return index.placed(track.trace.device).bus_label(track.trace.bus)
