"""The line-up of a job, step by step, in the order in which sound goes through it."""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.catalogue import Span, gain_key, trim_key
from tidy_trunk.core.levels import Clip, Reckoner, Report, Standing, TrackLevel, known_sender, sender_of, way_between
from tidy_trunk.core.line_up.measured import Knob, knobs_of
from tidy_trunk.core.plan import Edit, LineUp, MeterError, ReadFrom, SetControl, TakeLineUp
from tidy_trunk.core.trace import Place, Stage
from tidy_trunk.errors import InputError

WORTH_TURNING_DB: Final = 0.5
"""ASSUMED_ difference from which a knob is worth turning: meters of cameras show no less."""

OFF_DB: Final = 6.0
"""ASSUMED_ how far a reading may be from what was wanted and still come from typical figures: their ± together. Beyond it
something stands wrong, and nothing is lined up."""

AUTOMATIC_WORDS: Final = "Automatic level is on: switch it off first, or the meter shows what it likes."
"""ASSUMED_ sentence: tone through automatic level says nothing."""


class State(StrEnum):
    """How far a step is."""

    OPEN = "open"
    DONE = "done"
    OFF = "off"  # read, and too far from what was wanted for the figures to be why
    STALE = "stale"  # a setting, or the way itself, has changed since


@dataclass(frozen=True, slots=True)
class Turn:
    """A knob that would bring the tone to where the plan thought it to be: where to, in words, and the edit."""

    words: str
    edit: Edit


@dataclass(frozen=True, slots=True, kw_only=True)
class LineUpStep:
    """Send tone from one device, and read it on a track of another.

    shows_dbfs: what it must record, as far as it is known, within `within_db`; once it was read, what it does record, unless
        that was too far off.
    meter: how its meter reads, where that is known; meter_shows_dbfs: what that one must show.
    run: the one that goes into its device.
    knobs: those on the way, of which a recording at several positions would say what they really give.
    off_db: by how much the last reading was away from what the figures alone had said; None where there is none.
    warning: what spoils it, "" where nothing does.
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
    warning: str
    meter: MeterError | None
    knobs: tuple[Knob, ...]
    run: str

    @property
    def meter_shows_dbfs(self) -> float:
        return self.shows_dbfs + (self.meter.reads_high_db if self.meter is not None else 0.0)


def line_up_steps(report: Report) -> tuple[LineUpStep, ...]:
    """Every track that a tone can be sent to, those first that others hang on."""
    found = [(track.trace.stage.depth, step) for track in report.tracks if (step := _step(report, track)) is not None]
    return tuple(step for _, step in sorted(found, key=lambda item: item[0]))


def _step(report: Report, track: TrackLevel) -> LineUpStep | None:
    rig, stage = report.rig, track.trace.stage
    sender = sender_of(rig, stage)
    if sender is None:
        return None
    sent = rig.plan.defaults.alignment_dbfs
    # With all that has been lined up so far, this very track too.
    tone = Reckoner(rig, oscillators={sender.device: sent}).level(stage).sound
    if not math.isfinite(tone.average):
        return None
    line_up = rig.plan.line_ups.get(track.trace.id)
    state, off_db, within_db = State.OPEN, None, _within_db(report, track, sender.stage)
    if line_up is not None:
        fresh = report.reckoner.correction(stage, line_up).standing is Standing.FRESH
        off_db = line_up.read_dbfs - line_up.predicted_dbfs
        state = (State.OFF if abs(off_db) > OFF_DB else State.DONE) if fresh else State.STALE
    return LineUpStep(
        track=track.trace.id,
        device=track.trace.device,
        bus=track.trace.bus,
        sender=sender.device,
        sent_dbfs=sent,
        shows_dbfs=tone.average if state is not State.OFF or off_db is None else tone.average - off_db,
        within_db=within_db,
        state=state,
        line_up=line_up,
        off_db=off_db,
        turn=_turn(report, stage, off_db) if state in (State.DONE, State.OFF) and off_db is not None else None,
        warning=_warning(report, sender.device, stage, tone.clip),
        meter=rig.meter_of(stage.device),
        knobs=knobs_of(report, stage),
        run=_run_into(report, stage),
    )


def _run_into(report: Report, stage: Stage) -> str:
    runs = [item.run.id for item in report.main_path(stage) if item.run is not None]
    return runs[-1] if runs else ""


def _within_db(report: Report, track: TrackLevel, sent: Stage) -> float:
    """± of what the meter will show: all doubt that comes in behind the sender."""
    before = report.reckoner.level(sent).sound.variance_db2
    return math.sqrt(max(track.sound.variance_db2 - before, 0.0))


def _warning(report: Report, sender: str, stage: Stage, clip: Clip | None) -> str:
    if clip is not None:
        return f"The tone is cut off in {clip.where}, {clip.over_db:.1f} dB too loud: match the levels first."
    return AUTOMATIC_WORDS if rides(report, sender, stage) else ""


def rides(report: Report, sender: str, stage: Stage) -> bool:
    """Whether automatic level is on somewhere between the sender and the track."""
    for feed, _ in stage.feeds:
        if feed.place is Place.BUS and feed.device == sender:
            continue
        unit = report.rig.unit(feed.device)
        if feed.place is Place.INPUT and unit.automatic_level_on(unit.input(feed.name)):
            return True
        if rides(report, sender, feed):
            return True
    return False


def _turn(report: Report, stage: Stage, off_db: float) -> Turn | None:
    """The knob that would bring the tone to where it was wanted: the sender's output, and only then the track's gain."""
    if abs(off_db) < WORTH_TURNING_DB:
        return None
    path = report.main_path(stage)[::-1]
    output = next((item for item in path if item.place is Place.OUTPUT), None)
    entry = next((item for item in path if item.place is Place.INPUT and item.device == stage.device), None)
    return (output and _trim_turn(report, output, off_db)) or (entry and _gain_turn(report, entry, off_db)) or None


def _trim_turn(report: Report, stage: Stage, off_db: float) -> Turn | None:
    unit = report.rig.unit(stage.device)
    port = unit.output(stage.name)
    mode = unit.output_mode(port)
    key, name = trim_key(port.id, mode.id), f"{unit.label} {port.label} output level"
    return _knob_turn(stage.device, key, name, mode.trim, unit.trim_mark_db(port, mode), off_db)


def _gain_turn(report: Report, stage: Stage, off_db: float) -> Turn | None:
    unit = report.rig.unit(stage.device)
    port = unit.input(stage.name)
    mode = unit.input_mode(port)
    key, name = gain_key(port.id, mode.id), f"{unit.label} {port.label} gain"
    return _knob_turn(stage.device, key, name, mode.gain, unit.gain_mark_db(port, mode), off_db)


def _knob_turn(device: str, key: str, name: str, span: Span | None, now_db: float, off_db: float) -> Turn | None:
    """Turned back by what the tone is off, where the knob reaches that far."""
    if span is None:
        return None
    gives_db = span.gain_db(now_db) - off_db
    wanted_db = span.nearest_db(gives_db)
    if wanted_db == now_db or abs(gives_db - span.gain_db(wanted_db)) >= max(span.step_db, WORTH_TURNING_DB):
        return None
    turned = f"{now_db:+g} to {wanted_db:+g} dB".replace("-", "−")
    return Turn(f"{name}: {turned}", SetControl(device=device, control=key, value=wanted_db))


def taken(
    report: Report, track_id: str, *, sent_dbfs: float, read_dbfs: float, read_from: ReadFrom, when: str
) -> TakeLineUp:
    """The edit that takes a reading over.

    Args:
        track_id: The track on which the tone was read.
        sent_dbfs, read_dbfs: The tone at the sender, and on the track's meter or in its recording; of a meter of which
            is known by how much it is wrong, that is taken off.
        when: Date and time, ISO 8601.

    Raises:
        NotFoundError: No such track.
        InputError: A track that no tone can be sent to.
    """
    track = report.known_track(track_id)
    sender = known_sender(report.rig, track.trace.stage)
    meter = report.rig.meter_of(track.trace.device) if read_from is ReadFrom.METER else None
    if meter is not None:
        read_dbfs -= meter.reads_high_db
    tone = Reckoner(report.rig, oscillators={sender.device: sent_dbfs}, line_ups={})
    predicted = tone.level(track.trace.stage).sound.average
    if not math.isfinite(predicted):
        raise InputError("a tone does not reach this track: look at its run and routing first")
    return TakeLineUp(
        line_up=LineUp(
            track=track_id,
            sender=sender.device,
            sent_dbfs=sent_dbfs,
            read_dbfs=round(read_dbfs, 2),
            predicted_dbfs=round(predicted, 3),
            way=way_between(report.rig, sender.device, track.trace.stage),
            read_from=read_from,
            when=when,
        )
    )
