"""What a recording says of a class of devices: what a knob really gives, and by how much a meter is wrong."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from statistics import fmean
from typing import Final

from tidy_trunk.core.base.signal import StepMeasure
from tidy_trunk.core.gear.catalogue import LawPoint, Span, gain_key, trim_key
from tidy_trunk.core.plan import (
    Edit,
    GainLaw,
    MeterError,
    MeterPair,
    ReadFrom,
    Scale,
    TakeGainLaw,
    TakeLineUp,
    TakeMeterError,
    apply_edits,
)
from tidy_trunk.core.sound.levels import LevelSolver, LineUpStanding, Report, sender_of
from tidy_trunk.core.sound.trace import Stage, StageKind, trace_plan
from tidy_trunk.errors import InputError, NotFoundError

LOUDEST_TRY_DBFS: Final = -5.0
"""ASSUMED_ loudest level worth a step: what devices stray by may cut off what is louder."""

QUIETEST_TRY_DBFS: Final = -50.0
"""ASSUMED_ quietest level worth a step: below it a room or a hiss begins to move it."""

MOST_TRIES: Final = 8
"""ASSUMED_ positions that are proposed: more is no fun to turn to."""


@dataclass(frozen=True, slots=True)
class Knob:
    """A knob on the way from the sender of a tone to a track: its device, the class of that, and the id of its control.

    kind: an input's gain or an output's trim.
    """

    kind: StageKind
    device: str
    class_id: str
    control: str
    label: str
    span: Span
    stands_db: float


def knobs_of(report: Report, track: Stage) -> tuple[Knob, ...]:
    """Every knob between the sender of a tone and a track, in the order in which the tone comes to them."""
    sender = sender_of(report.index, track)
    path = list(report.main_path(track))
    begins = [index for index, stage in enumerate(path) if sender is not None and stage.key == sender.stage.key]
    return tuple(knobs_along(report, path[begins[0] + 1 :])) if begins else ()


def knobs_along(report: Report, path: Sequence[Stage]) -> Iterable[Knob]:
    """Every knob on a way, in its order."""
    for stage in path:
        placed = report.index.placed(stage.device)
        if stage.kind is StageKind.OUTPUT:
            output = placed.output(stage.name)
            sends = placed.output_mode(output)
            control, span, stands_db = trim_key(output.id, sends.id), sends.trim, placed.trim_mark_db(output, sends)
            label = f"{placed.label} {output.label}, output level"
        elif stage.kind is StageKind.INPUT:
            port = placed.leader_of(placed.input(stage.name))
            takes = placed.input_mode(port)
            control, span, stands_db = gain_key(port.id, takes.id), takes.gain, placed.gain_mark_db(port, takes)
            label = f"{placed.label} {port.label}, gain"
        else:
            continue
        if span is not None:
            yield Knob(stage.kind, stage.device, placed.device.class_id, control, label, span, stands_db)


def knob_of(report: Report, track_id: str, device: str, control: str) -> Knob:
    """A knob on the way to a track. Raises NotFoundError: no such track, or no such knob on its way."""
    track = report.known_track(track_id)
    knobs = knobs_of(report, track.trace.stage)
    for knob in knobs:
        if (knob.device, knob.control) == (device, control):
            return knob
    known = "; ".join(knob.label for knob in knobs) or "none"
    raise NotFoundError(f"no such knob lies between the sender and this track; there are: {known}")


def law_edits(
    report: Report,
    knob: Knob,
    steps: Sequence[StepMeasure],
    *,
    noisy_from: float | None,
    scale: Scale | None,
    read_from: ReadFrom,
    when: str,
) -> tuple[Edit, ...]:
    """The edits that take over what a knob gave at each of its marks, and keep every line-up as it was read.

    How loud the whole of it is belongs to the full scale of its port, which is a figure of its own: the law is laid so
    that the marks are right on the average.

    Args:
        steps: One for each mark; those that are cut off are left out.
        noisy_from: Mark from which on it brings more noise than level; None where it does not.
        scale: What the device writes at the ends of the knob; None where it writes dB.
        when: Date and time, ISO 8601.

    Raises:
        InputError: A mark that is not on the knob, fewer than two clean ones, or levels that do not rise with the marks.
    """
    levels: dict[float, list[float]] = {}
    for step in steps:
        if not step.clipped:
            levels.setdefault(_position_db(knob, step.setting, scale), []).append(step.level_dbfs)
    if len(levels) < 2:
        raise InputError("fewer than two of the marks are clean: turn the sender down, and record the steps again")
    found = sorted((position_db, fmean(level)) for position_db, level in levels.items())
    if any(high <= low for (_, low), (_, high) in pairwise(found)):
        raise InputError(
            "the level does not rise from mark to mark: look whether the marks are named in the order of the recording, "
            "and whether automatic level is off"
        )
    offset_db = fmean(position for position, _ in found) - fmean(level for _, level in found)
    law = GainLaw(
        class_id=knob.class_id,
        control=knob.control,
        points=tuple(LawPoint(position, round(level + offset_db, 3)) for position, level in found),
        scale=scale,
        noisy_from_db=None if noisy_from is None else _position_db(knob, noisy_from, scale),
        read_from=read_from,
        when=when,
    )
    return keeping_line_ups(report, (TakeGainLaw(law=law),))


def _position_db(knob: Knob, mark: float, scale: Scale | None) -> float:
    span = knob.span
    if scale is not None and scale.lowest_mark == scale.highest_mark:
        raise InputError("a scale has two ends: give the lowest and the highest mark of the knob")
    position_db = mark if scale is None else scale.position_db(mark, span)
    if not span.minimum_db - 1e-6 <= position_db <= span.maximum_db + 1e-6:
        ends = (span.minimum_db, span.maximum_db) if scale is None else scale
        raise InputError(
            f"{mark:g} is not on {knob.label}, which goes from {ends[0]:g} to {ends[1]:g}: "
            "say what the device writes at both ends of the knob"
        )
    return round(min(max(position_db, span.minimum_db), span.maximum_db), 6)


def keeping_line_ups(report: Report, edits: Sequence[Edit]) -> tuple[Edit, ...]:
    """Edits that change what is known of a device, and not what it does: what was read by then stays as it was read."""
    plan = report.index.plan
    after = Report(trace_plan(apply_edits(plan, edits)))
    kept: list[Edit] = []
    for track_id, found in plan.line_ups.items():
        before, now = report.track(track_id), after.track(track_id)
        if before is None or now is None:
            continue
        if report.solver.correction(before.trace.stage, found).standing is not LineUpStanding.FRESH:
            continue
        tone = LevelSolver(after.index, oscillators={found.sender: found.sent_dbfs}, line_ups={})
        predicted_dbfs = round(tone.level(now.trace.stage).sound.average, 3)
        if math.isfinite(predicted_dbfs) and predicted_dbfs != found.predicted_dbfs:
            kept.append(TakeLineUp(line_up=replace(found, predicted_dbfs=predicted_dbfs)))
    return (*edits, *kept)


def meter_edit(report: Report, track_id: str, pairs: Sequence[MeterPair], when: str) -> TakeMeterError:
    """The edit that takes over how the meter of a track's device reads. Raises NotFoundError, InputError: no pair."""
    track = report.known_track(track_id)
    if not pairs:
        raise InputError("say what the meter showed while this was recorded")
    class_id = report.index.placed(track.trace.device).device.class_id
    return TakeMeterError(meter=MeterError(class_id=class_id, pairs=tuple(pairs), when=when))


def worth_trying(knob: Knob, shows_dbfs: float) -> tuple[float, ...]:
    """Positions of a knob at which a recording of the tone would tell something: neither cut off nor in the noise.

    Args:
        shows_dbfs: What the tone is thought to be where the knob stands now.
    """
    span = knob.span
    count = int((span.maximum_db - span.minimum_db) / span.step_db + 1e-9) + 1
    stands_db = span.gain_db(knob.stands_db)
    found = []
    for position_db in (span.snapped_db(span.minimum_db + number * span.step_db) for number in range(count)):
        if QUIETEST_TRY_DBFS <= shows_dbfs + span.gain_db(position_db) - stands_db <= LOUDEST_TRY_DBFS:
            found.append(position_db)
    most = min(MOST_TRIES, len(found))
    return tuple(found[round(number * (len(found) - 1) / max(most - 1, 1))] for number in range(most))
