"""The line-up of a job, step by step, in the order in which sound goes through it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.line_up.measured import Knob, knobs_of
from tidy_trunk.core.gear.catalogue import Signal, ToneTrigger
from tidy_trunk.core.plan import Edit, LineUp, Message, MeterError, PlanIndex, ReadFrom, SetControl, TakeLineUp, message
from tidy_trunk.core.sound.levels import (
    LevelSolver,
    LineUpStanding,
    Report,
    TrackLevel,
    known_sender,
    sender_of,
    way_between,
)
from tidy_trunk.core.sound.trace import Stage, StageKind
from tidy_trunk.errors import InputError

WORTH_TURNING_DB: Final = 0.5
"""ASSUMED_ difference from which a knob is worth turning: meters of cameras show no less."""

OFF_DB: Final = 6.0
"""ASSUMED_ how far a reading may be from what was wanted and still come from typical figures: their ± together. Beyond it
something stands wrong, and nothing is lined up."""


class State(StrEnum):
    """How far a step is."""

    OPEN = "open"
    DONE = "done"
    OFF = "off"  # read, and too far from what was wanted for the figures to be why
    EARLIER = "earlier"  # taken from another job: to be verified
    STALE = "stale"  # a setting, or the way itself, has changed since


@dataclass(frozen=True, slots=True)
class Turn:
    """What would bring the tone to where the plan thought it to be: which knobs where to, and the edits."""

    does: Message
    edits: tuple[Edit, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LineUpStep:
    """Send tone from one device, and read it on a track of another.

    shows_dbfs: what it must record, as far as it is known, within `within_db`; once it was read, what it does record, unless
        that was too far off.
    meter: how its meter reads, where that is known; meter_shows_dbfs: what that one must show.
    run: the one that goes into its device.
    like: the track of its device whose reading counts for this one too, until it is read itself; "" where none does.
    knobs: those on the way, of which a recording at several positions would say what they really give.
    off_db: by how much its last reading was away from what the figures alone had said; None where there is none.
    alike: what would make both meters read the same, where the plan wants another reading: many line up so. [PRACTICE]
    look_at: what to look at where it was far off, in its order. [PRACTICE]
    warning: what spoils it, None where nothing does.
    how: what the sender wants to give its tone, None where it has a switch for it.
    """

    track: str
    device: str
    bus: str
    sender: str
    sent_dbfs: float
    shows_dbfs: float
    within_db: float
    state: State
    line_up: LineUp | None
    off_db: float | None
    turn: Turn | None
    alike: Turn | None
    look_at: Message
    warning: Message | None
    how: Message | None
    meter: MeterError | None
    knobs: tuple[Knob, ...]
    run: str
    like: str

    @property
    def meter_shows_dbfs(self) -> float:
        return self.shows_dbfs + (self.meter.reads_high_db if self.meter is not None else 0.0)


def line_up_steps(report: Report) -> tuple[LineUpStep, ...]:
    """Every track that a tone can be sent to, those first that others hang on."""
    found = [(track.trace.stage.depth, step) for track in report.tracks if (step := _step(report, track)) is not None]
    return tuple(step for _, step in sorted(found, key=lambda item: item[0]))


def _step(report: Report, track: TrackLevel) -> LineUpStep | None:
    index, stage = report.index, track.trace.stage
    sender = sender_of(index, stage)
    if sender is None:
        return None
    sent = index.tone_dbfs(sender.device)
    # With all that has been lined up so far, this very track too.
    tone = LevelSolver(index, oscillators={sender.device: sent}).level(stage).sound
    if not math.isfinite(tone.average):
        return None
    automatic = rides(report, sender.device, stage)
    read = report.solver.line_up(stage)
    line_up = read if read is not None and read.track == track.trace.id else None
    off_db, is_fresh = 0.0, False
    if read is not None:
        is_fresh = report.solver.correction(stage, read).standing is LineUpStanding.FRESH
        off_db = read.read_dbfs - read.predicted_dbfs
    is_off = is_fresh and abs(off_db) > OFF_DB
    state = State.OPEN
    if line_up is not None:
        state = (State.OFF if is_off else State.DONE) if is_fresh else State.STALE
        if line_up.read_from is ReadFrom.EARLIER:
            state = State.EARLIER
    return LineUpStep(
        track=track.trace.id,
        device=track.trace.device,
        bus=track.trace.bus,
        sender=sender.device,
        sent_dbfs=sent,
        # What was read and is no line-up does not become what is wanted.
        shows_dbfs=tone.average - off_db if is_off else tone.average,
        within_db=_within_db(report, track, sender.stage),
        state=state,
        line_up=line_up,
        off_db=off_db if line_up is not None else None,
        turn=_turn(report, stage, off_db) if is_fresh and line_up is not None and not automatic else None,
        alike=None if automatic or tone.clip is not None else _turn(report, stage, tone.average - sent),
        look_at=message("look-at-microphone-input", index)
        if _entry_signal(report, stage) is Signal.MIC
        else message("look-at-line-input", index),
        warning=message("tone-clips", index, where=tone.clip.where, by_db=tone.clip.over_db)
        if tone.clip is not None
        else automatic_warning(index, is_on=automatic),
        how=_how(index, sender.device),
        meter=index.meter_of(stage.device),
        knobs=knobs_of(report, stage),
        run=run.id if (run := report.run_into(stage)) is not None else "",
        like=read.track.removeprefix(f"{stage.device}.") if read is not None and line_up is None else "",
    )


def _how(index: PlanIndex, sender: str) -> Message | None:
    match index.placed(sender).device_class.traits.tone_by:
        case ToneTrigger.KEYS:
            return message("tone-by-keys", index, device=sender)
        case ToneTrigger.RECORDING:
            return message("tone-while-recording", index, device=sender)
        case ToneTrigger.SWITCH:
            return None


def _within_db(report: Report, track: TrackLevel, sent: Stage) -> float:
    """± of what the meter will show: all doubt that comes in behind the sender."""
    before = report.solver.level(sent).sound.variance_db2
    return math.sqrt(max(track.sound.variance_db2 - before, 0.0))


def automatic_warning(index: PlanIndex, *, is_on: bool) -> Message | None:
    """Tone and voice through automatic level say nothing. [PRACTICE]"""
    return message("automatic-level-is-on", index) if is_on else None


def rides(report: Report, sender: str, stage: Stage) -> bool:
    """Whether automatic level is on somewhere between the sender and the track, or on the track."""
    if stage.kind is StageKind.BUS and stage.device != sender:
        placed = report.index.placed(stage.device)
        if placed.automatic_level_on(placed.bus(stage.name)):
            return True
    for feed, _ in stage.feeds:
        if feed.kind is StageKind.BUS and feed.device == sender:
            continue
        placed = report.index.placed(feed.device)
        if feed.kind is StageKind.INPUT and placed.automatic_level_on(placed.input(feed.name)):
            return True
        if rides(report, sender, feed):
            return True
    return False


def _turn(report: Report, stage: Stage, off_db: float) -> Turn | None:
    """What would bring the tone to where it was wanted; None where no knob reaches that far."""
    if abs(off_db) < WORTH_TURNING_DB:
        return None
    rest_db, turns, edits = off_db, [], []
    for knob, lowest_db in _in_order(report, stage, too_hot=off_db > 0):
        turned_db = knob.span.nearest_db(max(knob.span.gain_db(knob.stands_db) - rest_db, lowest_db))
        by_db = knob.span.gain_db(turned_db) - knob.span.gain_db(knob.stands_db)
        if by_db * rest_db >= 0:
            continue  # it stands where it ends, or its steps are coarser than what is left
        turns.append((knob.label, knob.stands_db, turned_db))
        edits.append(SetControl(device=knob.device, control=knob.control, value=turned_db))
        rest_db += by_db
        if abs(rest_db) < max(knob.span.step_db, WORTH_TURNING_DB):
            return Turn(message("turn-knobs", report.index, turns=tuple(turns)), tuple(edits))
    return None


def _in_order(report: Report, stage: Stage, *, too_hot: bool) -> Iterator[tuple[Knob, float]]:
    """The knobs that are turned for a track, in their order, each with the lowest that it is turned to.

    Where a camera takes microphones only, its gain stays low and the sender makes the level; its line inputs, and whatever
    follows a sender without an output level, are set to the tone themselves. [PRACTICE]
    """
    knobs = knobs_of(report, stage)
    own = next((knob for knob in reversed(knobs) if knob.device == stage.device and knob.kind is StageKind.INPUT), None)
    sent = next((knob for knob in reversed(knobs) if knob.kind is StageKind.OUTPUT), None)
    low_db = own.span.above_lowest_db(1) if own is not None else 0.0
    takes_line = _entry_signal(report, stage) is not Signal.MIC
    if own is not None and too_hot and not takes_line and sent is not None:
        yield own, min(low_db, own.span.gain_db(own.stands_db))
    if own is not None and takes_line:
        yield own, -math.inf
    if sent is not None:
        yield sent, -math.inf
    if own is not None and not takes_line:
        yield own, -math.inf


def _entry_signal(report: Report, stage: Stage) -> Signal | None:
    """What the input by which a track gets its sound is set to take."""
    for item in reversed(report.main_path(stage)):
        if item.kind is StageKind.INPUT and item.device == stage.device:
            placed = report.index.placed(item.device)
            return placed.input_mode(placed.input(item.name)).signal
    return None


def taken(
    report: Report, track_id: str, *, sent_dbfs: float | None, read_dbfs: float, read_from: ReadFrom, when: str
) -> TakeLineUp:
    """The edit that takes a reading over.

    Args:
        track_id: The track on which the tone was read.
        sent_dbfs, read_dbfs: The tone at the sender, None for what it sends by the plan, and on the track's meter or in its recording; of a meter of which
            is known by how much it is wrong, that is taken off.
        when: Date and time, ISO 8601.

    Raises:
        NotFoundError: No such track.
        InputError: A track that no tone can be sent to.
    """
    track = report.known_track(track_id)
    sender = known_sender(report.index, track.trace.stage)
    if sent_dbfs is None:
        sent_dbfs = report.index.tone_dbfs(sender.device)
    meter = report.index.meter_of(track.trace.device) if read_from is ReadFrom.METER else None
    if meter is not None:
        read_dbfs -= meter.reads_high_db
    tone = LevelSolver(report.index, oscillators={sender.device: sent_dbfs}, line_ups={})
    predicted = tone.level(track.trace.stage).sound.average
    if not math.isfinite(predicted):
        raise InputError("a tone does not reach this track: look at its cable and routing first")
    return TakeLineUp(
        line_up=LineUp(
            track=track_id,
            sender=sender.device,
            sent_dbfs=sent_dbfs,
            read_dbfs=round(read_dbfs, 2),
            predicted_dbfs=round(predicted, 3),
            way=way_between(report.index, sender.device, track.trace.stage),
            read_from=read_from,
            when=when,
        )
    )
