"""A gain plan for a whole job."""

from typing import Annotated

from pydantic import Field

from tidy_trunk.api.schemas.jobs import FindingOut, In
from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.advice.adviser import JUST_DB, GainPlan, Step, TrackChange
from tidy_trunk.core.sound.levels import TrackLevel
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.words import why

_Name = Annotated[str, Field(min_length=1, max_length=120)]


class PinIn(In):
    device: _Name
    control: _Name


class GainIn(In):
    """Controls that are to be left as they are."""

    pins: Annotated[
        tuple[PinIn, ...],
        Field(max_length=2000, examples=[[{"device": "bag", "control": "in1.mic.gain_db"}]]),
    ] = ()


class StepOut(Out):
    """A control to move, and why."""

    device: str
    control: str
    label: str
    was: str
    now: str
    why: str
    edit: AnyEdit

    @classmethod
    def from_core(cls, step: Step) -> "StepOut":
        return cls(
            device=step.device,
            control=step.control,
            label=step.label,
            was=step.was,
            now=step.now,
            why=why(step.why),
            edit=edit_document(step.edit),
        )


class TrackFiguresOut(Out):
    """A track in dBFS; `clip_db` and `burst_clip_db` are null where nothing is cut."""

    average_dbfs: Level
    peak_dbfs: Level
    noise_dbfs: Level
    clip_db: Level
    burst_clip_db: Level

    @classmethod
    def from_core(cls, track: TrackLevel) -> "TrackFiguresOut":
        burst = track.sound.burst_clip
        return cls(
            average_dbfs=track.sound.average,
            peak_dbfs=track.sound.peak,
            noise_dbfs=track.sound.noise,
            clip_db=track.clips_by_db,
            burst_clip_db=burst.over_db if burst and burst.over_db >= JUST_DB else None,
        )


class TrackChangeOut(Out):
    track: str
    label: str
    before: TrackFiguresOut
    after: TrackFiguresOut

    @classmethod
    def from_core(cls, change: TrackChange) -> "TrackChangeOut":
        return cls(
            track=change.after.trace.id,
            label=change.label,
            before=TrackFiguresOut.from_core(change.before),
            after=TrackFiguresOut.from_core(change.after),
        )


class GainPlanOut(Out):
    """What to set, in the order of the work, and what each track would hold."""

    steps: list[StepOut]
    tracks: list[TrackChangeOut]
    stops_before: int
    stops_left: list[FindingOut]

    @classmethod
    def from_core(cls, plan: GainPlan) -> "GainPlanOut":
        return cls(
            steps=[StepOut.from_core(step) for step in plan.steps],
            tracks=[TrackChangeOut.from_core(change) for change in plan.tracks],
            stops_before=plan.stops_before,
            stops_left=[FindingOut.from_core(found.finding, found.index) for found in plan.stops_left],
        )
