"""Lining up: steps and readings."""

from datetime import datetime
from typing import Annotated

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.advice.line_up import Knob, LinedUpPair, LineUpStep, State, Turn, VoiceStep, keeping_line_ups
from tidy_trunk.core.plan import MOST_LAW_POINTS, DropGainLaw, DropLineUp, DropMeterError, MeterError, ReadFrom, law_key
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.document import AnyEdit, KnobMark, edit_document
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.services.line_up import LineUpChange
from tidy_trunk.words import worded
from tidy_trunk.words.numbers import marked

Dbfs = Annotated[float, Field(allow_inf_nan=False, ge=-120, le=24)]
Position = Annotated[float, Field(allow_inf_nan=False, ge=-120, le=120)]
"""ASSUMED_ range of what may stand at a knob, in dB: whether it does there is asked of its class."""
NamedId = Annotated[str, Field(min_length=1, max_length=120)]


class ReadingIn(In):
    """What a track showed while the tone was sent; `sent_dbfs` is the job's tone level unless it is given."""

    read_dbfs: Dbfs
    read_from: ReadFrom = ReadFrom.METER
    sent_dbfs: Dbfs | None = None

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"read_dbfs": -20.3, "read_from": "recording"}]}
    )


class ReadingOut(Out):
    """The edits that take over what was found."""

    sentence: str
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, taken: LineUpChange) -> "ReadingOut":
        return cls(sentence=taken.sentence, edits=[edit_document(edit) for edit in taken.edits])


class SimulatedStepsIn(In):
    """A knob on the way to a track, the positions in dB to which it is turned, and where the tone is wanted."""

    device: NamedId
    control: NamedId
    positions: Annotated[list[Position], Field(max_length=MOST_LAW_POINTS)] = Field(default_factory=list)
    target_dbfs: Annotated[float, Field(allow_inf_nan=False, ge=-120, le=0)] = -20.0

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"device": "camera-a", "control": "in.line.gain_db", "target_dbfs": -20}]},
    )


class LawIn(In):
    """The knob that was turned in a recording of steps. `scale`: what the device writes at its ends, where that is no dB."""

    device: NamedId
    control: NamedId
    scale: tuple[KnobMark, KnobMark] | None = None

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"device": "camera-a", "control": "in.line.gain_db", "scale": [0, 100]}]},
    )


class MeterIn(In):
    """What a meter showed for each tone or step of a recording, null where nobody looked."""

    track: NamedId
    shown_dbfs: Annotated[list[Dbfs | None], Field(min_length=1, max_length=MOST_LAW_POINTS)]

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"track": "camera-a.1", "shown_dbfs": [-18.0]}]}
    )


class FoundOut(Out):
    """What was read there last. off_db: away from what the figures alone had said."""

    read_dbfs: float
    read_from: ReadFrom
    when: datetime
    off_db: float | None


class TurnOut(Out):
    """A knob that would bring the tone to where it was wanted."""

    words: str
    edits: list[AnyEdit]


class MeterOut(Out):
    """How a meter reads: by how much too high, within how many dB, and how to believe it again, where the job says it."""

    reads_high_db: float
    within_db: float
    when: datetime | None
    drop: list[AnyEdit]

    @classmethod
    def from_core(cls, report: Report, meter: MeterError) -> "MeterOut":
        of_job = meter.class_id in report.index.plan.meters  # else its class says so, and keeps saying so
        return cls(
            reads_high_db=meter.reads_high_db,
            within_db=meter.within_db,
            when=datetime.fromisoformat(meter.when) if meter.when else None,
            drop=[edit_document(DropMeterError(class_id=meter.class_id))] if of_job else [],
        )


class KnobOut(Out):
    """A knob on the way, in dB as it is marked. measured: when its law was, None where it never was; drop: back to its marks."""

    device: str
    control: str
    label: str
    minimum_db: float
    maximum_db: float
    measured: datetime | None
    drop: list[AnyEdit]

    @classmethod
    def from_core(cls, report: Report, knob: Knob) -> "KnobOut":
        law = report.index.plan.gain_laws.get(law_key(knob.class_id, knob.control))
        drop = (
            () if law is None else keeping_line_ups(report, (DropGainLaw(class_id=law.class_id, control=law.control),))
        )
        return cls(
            device=knob.device,
            control=knob.control,
            label=knob.label,
            minimum_db=knob.span.minimum_db,
            maximum_db=knob.span.maximum_db,
            measured=None if law is None else datetime.fromisoformat(law.when),
            drop=[edit_document(edit) for edit in drop],
        )


class EarlierOut(Out):
    """What was found of the pair in another job, and what its knobs would be turned to."""

    job: str
    when: datetime
    sent_dbfs: float
    read_dbfs: float
    off_db: float
    settings: list[str]


def _turn(turn: Turn | None) -> TurnOut | None:
    if turn is None:
        return None
    return TurnOut(words=worded(turn.does), edits=[edit_document(edit) for edit in turn.edits])


class LineUpStepOut(Out):
    """Send tone from one device, read it on a track of another: what must be read, within so many dB.

    like: the track on the other side of the socket whose reading counts here too, in words; "" where none does.
    """

    track: str
    device: str
    label: str
    sender: str
    sender_label: str
    sent_dbfs: float
    shows_dbfs: Level
    meter_shows_dbfs: Level
    within_db: float
    state: State
    found: FoundOut | None
    turn: TurnOut | None
    alike: TurnOut | None
    look_at: str
    drop: list[AnyEdit]
    warning: str
    how: str
    meter: MeterOut | None
    knobs: list[KnobOut]
    run: str
    like: str
    earlier: EarlierOut | None

    @classmethod
    def from_core(cls, report: Report, step: LineUpStep, pair: LinedUpPair | None) -> "LineUpStepOut":
        index = report.index
        found = step.line_up
        return cls(
            track=step.track,
            device=step.device,
            label=index.placed(step.device).bus_label(step.bus),
            sender=step.sender,
            sender_label=index.placed(step.sender).label,
            sent_dbfs=step.sent_dbfs,
            shows_dbfs=step.shows_dbfs,
            meter_shows_dbfs=step.meter_shows_dbfs,
            within_db=round(step.within_db, 2),
            state=step.state,
            found=None
            if found is None
            else FoundOut(
                read_dbfs=found.read_dbfs,
                read_from=found.read_from,
                when=datetime.fromisoformat(found.when),
                off_db=None if step.off_db is None else round(step.off_db, 2),
            ),
            turn=_turn(step.turn),
            alike=_turn(step.alike),
            look_at=worded(step.look_at),
            drop=[] if found is None else [edit_document(DropLineUp(track=step.track))],
            warning=worded(step.warning) if step.warning else "",
            how=worded(step.how) if step.how else "",
            meter=None if step.meter is None else MeterOut.from_core(report, step.meter),
            knobs=[KnobOut.from_core(report, knob) for knob in step.knobs],
            run=step.run,
            like=index.placed(step.device).place_label(step.like) if step.like else "",
            earlier=None
            if pair is None
            else EarlierOut(
                job=pair.job,
                when=datetime.fromisoformat(pair.when),
                sent_dbfs=pair.sent_dbfs,
                read_dbfs=pair.read_dbfs,
                off_db=pair.off_db,
                settings=[
                    f"{knob.label} {marked(pair.settings[key])} dB"
                    for knob in step.knobs
                    if (key := f"{knob.class_id} {knob.control}") in pair.settings
                ],
            ),
        )


class VoiceStepOut(Out):
    """Let the sources of a track be heard as in the take: what it must record, within so many dB."""

    track: str
    label: str
    sources: list[str]
    average_dbfs: Level
    peak_dbfs: Level
    within_db: float
    is_heard: bool
    warning: str

    @classmethod
    def from_core(cls, report: Report, step: VoiceStep) -> "VoiceStepOut":
        return cls(
            track=step.track,
            label=report.index.placed(step.device).bus_label(step.bus),
            sources=list(step.sources),
            average_dbfs=step.average_dbfs,
            peak_dbfs=step.peak_dbfs,
            within_db=round(step.within_db, 2),
            is_heard=step.is_heard,
            warning=worded(step.warning) if step.warning else "",
        )
