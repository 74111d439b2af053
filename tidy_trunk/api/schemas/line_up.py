"""Lining up: steps and readings."""

from datetime import datetime
from typing import Annotated

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.levels import Report
from tidy_trunk.core.line_up import LineUpStep, State
from tidy_trunk.core.plan import DropLineUp, Edit, ReadFrom
from tidy_trunk.document import AnyEdit, edit_document

Dbfs = Annotated[float, Field(allow_inf_nan=False, ge=-120, le=24)]


class ReadingIn(In):
    """What a track showed while the tone was sent; `sent_dbfs` is the job's tone level unless it is given."""

    read_dbfs: Dbfs
    read_from: ReadFrom = ReadFrom.METER
    sent_dbfs: Dbfs | None = None

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"read_dbfs": -20.3, "read_from": "recording"}]}
    )


class ReadingOut(Out):
    """The edits that take a reading over."""

    sentence: str
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, edit: Edit, sentence: str) -> "ReadingOut":
        return cls(sentence=sentence, edits=[edit_document(edit)])


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


class LineUpStepOut(Out):
    """Send tone from one device, read it on a track of another: what must be read, within so many dB."""

    track: str
    device: str
    label: str
    sender: str
    sender_label: str
    sent_dbfs: float
    shows_dbfs: Level
    within_db: float
    state: State
    found: FoundOut | None
    turn: TurnOut | None
    drop: list[AnyEdit]
    warning: str

    @classmethod
    def from_core(cls, report: Report, step: LineUpStep) -> "LineUpStepOut":
        rig = report.rig
        found = step.line_up
        return cls(
            track=step.track,
            device=step.device,
            label=rig.unit(step.device).bus_label(step.bus),
            sender=step.sender,
            sender_label=rig.unit(step.sender).label,
            sent_dbfs=step.sent_dbfs,
            shows_dbfs=step.shows_dbfs,
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
            turn=None if step.turn is None else TurnOut(words=step.turn.words, edits=[edit_document(step.turn.edit)]),
            drop=[] if found is None else [edit_document(DropLineUp(track=step.track))],
            warning=step.warning,
        )
