"""Jobs, their states, tracks and findings."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from tidy_trunk.core.advice.checks import Finding, Severity
from tidy_trunk.core.base.text import is_plain
from tidy_trunk.core.gear.catalogue import DeviceKind, usual_distance_m
from tidy_trunk.document import AnyEdit, PlanDocument, PortRefModel
from tidy_trunk.results.advice import FindingOut, FixOut
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.results.rows import TrackRow, lead_row, row_of
from tidy_trunk.services.jobs import FixesByFinding, JobState


class In(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


Base = Annotated[int, Field(ge=1, description="Number of the revision that this was made on")]


class NewJobIn(In):
    """`id`: given by the sender, so that a job that is sent again is the same job."""

    name: Annotated[str, Field(min_length=1, max_length=80, examples=["Casting day"])]
    id: UUID | None = None


def _plain(text: str) -> str:
    if not is_plain(text):
        raise ValueError("control characters and those that turn the direction of writing are no part of a name")
    return text


RequestId = Annotated[
    UUID | None, Field(description="Given by the sender: sent again it is done once, and answered alike")
]

Who = Annotated[
    str, Field(max_length=80, description="Name of the one who does it; may be empty"), AfterValidator(_plain)
]


class EditsIn(In):
    base_revision: Base
    who: Who = ""
    request: RequestId = None
    edits: Annotated[tuple[AnyEdit, ...], Field(min_length=1, max_length=200)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [
                {
                    "base_revision": 3,
                    "edits": [{"kind": "set-control", "device": "bag", "control": "in1.mic.gain_db", "value": 40}],
                }
            ]
        },
    )


class PreviewIn(In):
    """Edits that are only tried: a knob that is still moving."""

    edits: Annotated[tuple[AnyEdit, ...], Field(max_length=200)] = ()

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [
                {"edits": [{"kind": "set-control", "device": "bag", "control": "line.line.trim_db", "value": -20.5}]}
            ]
        },
    )


class BaseIn(In):
    base_revision: Base
    who: Who = ""
    request: RequestId = None

    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_extra={"examples": [{"base_revision": 3}]})


class SayIn(In):
    text: Annotated[str, Field(max_length=200, examples=["boom to bag 1, 7 m"])]


class JoinIn(In):
    """Two sockets; length_m is empty where the usual one is meant."""

    sending: Annotated[PortRefModel, Field(examples=[{"device": "boom", "port": "out"}])]
    receiving: Annotated[PortRefModel, Field(examples=[{"device": "bag", "port": "in1"}])]
    length_m: Annotated[float | None, Field(gt=0, le=500, allow_inf_nan=False)] = None


class JobOut(Out):
    id: UUID
    name: str
    head: int
    created: datetime


class HistoryOut(Out):
    """A state in the history."""

    number: int
    sentence: str
    who: str
    created: datetime


class ReplaceIn(In):
    """A plan file in the place of a job's plan."""

    base_revision: Base
    who: Who = ""
    request: RequestId = None
    plan: Any

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"base_revision": 3, "plan": {"schema_version": 2, "name": "Casting day"}}]},
    )


class ChangesOut(Out):
    """What a plan file would change, in words, and what would then be found."""

    changes: list[str]
    counts: "CountsOut"


class AdviceOut(Out):
    """What mends the findings of a revision, by id of the finding, best first; those that nothing mends are not there."""

    revision: int
    fixes: dict[str, list[FixOut]]

    @classmethod
    def from_core(cls, advice: FixesByFinding) -> "AdviceOut":
        given = {
            finding: [FixOut.from_core(advice.plan, move) for move in moves]
            for finding, moves in advice.fixes.items()
            if moves
        }
        return cls.model_construct(revision=advice.revision, fixes=given)


class StopOut(Out):
    device: str
    label: str
    detail: str


class LeadOut(Out):
    run: str
    number: int
    tape: list[str]
    label: str
    parts: list[str]
    length_m: float
    plugs: str
    inside: str
    wireless: bool


TrackVerdict = Literal["clips", "silent", "no-source", "stop", "check", "ok"]


class TrackOut(Out):
    """A row: the way of the sound, and what the track will hold in dBFS."""

    id: str
    bus: str
    bus_label: str
    sources: list[str]
    others: int
    stops: list[StopOut]
    leads: list[LeadOut]
    average_dbfs: Level
    peak_dbfs: Level
    noise_dbfs: Level
    tolerance_db: Level
    over_db: Level
    miss_db: Level
    ruled_by: str
    provenance: str
    verdict: TrackVerdict
    severity: Severity | None

    @classmethod
    def from_core(cls, row: TrackRow, bus_label: str, sources: list[str], findings: list[Finding]) -> "TrackOut":
        track = row.track
        severity = _worst(track.trace.id, row, findings)
        noise = track.ruling_noise
        return cls(
            id=track.trace.id,
            bus=track.trace.bus,
            bus_label=bus_label,
            sources=sources,
            others=row.others,
            stops=[StopOut.model_validate(stop) for stop in row.stops],
            leads=[LeadOut.model_validate(lead) for lead in row.leads],
            average_dbfs=track.sound.average,
            peak_dbfs=track.sound.peak,
            noise_dbfs=track.sound.noise,
            tolerance_db=track.sound.tolerance_db,
            over_db=track.clips_by_db,
            miss_db=track.miss_db,
            ruled_by=noise.name if noise else "",
            provenance=track.provenance,
            verdict=_verdict(row, sources, severity),
            severity=severity,
        )


class DeviceOut(Out):
    """A device with its tracks; `is_recording` devices are the blocks of Runs. usual_m: how far it usually is from who is heard."""

    id: str
    label: str
    class_id: str
    class_label: str
    kind: DeviceKind
    is_recording: bool
    usual_m: float
    tracks: list[TrackOut]


class CountsOut(Out):
    stop: int
    caution: int
    note: int

    @classmethod
    def from_core(cls, evaluation: Evaluation) -> "CountsOut":
        return cls(
            stop=evaluation.count(Severity.STOP),
            caution=evaluation.count(Severity.CAUTION),
            note=evaluation.count(Severity.NOTE),
        )


class JobStateOut(Out):
    """One revision, worked out: the answer to every edit."""

    job: UUID
    revision: int
    sentence: str
    who: str
    created: datetime
    can_undo: bool
    can_redo: bool
    plan: PlanDocument
    target: str
    devices: list[DeviceOut]
    runs: list[LeadOut]
    findings: list[FindingOut]
    counts: CountsOut

    @classmethod
    def from_core(cls, state: JobState) -> "JobStateOut":
        record, evaluation = state.revision, state.evaluation
        target = evaluation.index.targets[evaluation.plan.defaults.target]
        return cls.model_construct(
            job=record.job,
            revision=record.number,
            sentence=record.sentence,
            who=record.who,
            created=record.created,
            can_undo=record.can_undo,
            can_redo=record.can_redo,
            plan=PlanDocument.from_core(evaluation.plan),
            target=f"{target.label}, {target.words}",
            devices=_devices(evaluation),
            runs=[LeadOut.model_validate(lead_row(evaluation.index, run)) for run in evaluation.plan.runs.values()],
            findings=[FindingOut.from_core(finding, evaluation.index) for finding in evaluation.findings],
            counts=CountsOut.from_core(evaluation),
        )


def _devices(evaluation: Evaluation) -> list[DeviceOut]:
    rows: dict[str, list[TrackOut]] = {}
    sources = evaluation.plan.sources
    for track in evaluation.report.tracks:
        if not track.trace.stage.feeds:
            continue  # a track with nothing plugged in is no row
        row = row_of(evaluation.report, track)
        placed = evaluation.index.placed(track.trace.device)
        label = placed.bus(track.trace.bus).label
        names = [sources[source].label for source in track.sources]
        out = TrackOut.from_core(row, label, names, list(evaluation.findings))
        rows.setdefault(track.trace.device, []).append(out)
    return [
        DeviceOut(
            id=placed.device.id,
            label=placed.label,
            class_id=placed.device.class_id,
            class_label=placed.device_class.label,
            kind=placed.device_class.kind,
            is_recording=placed.device_class.is_recording,
            usual_m=usual_distance_m(placed.device_class),
            tracks=rows.get(placed.device.id, []),
        )
        for placed in evaluation.index.placed_devices()
    ]


_WORST_FIRST = (Severity.STOP, Severity.CAUTION, Severity.NOTE)


def _worst(track_id: str, row: TrackRow, findings: list[Finding]) -> Severity | None:
    """The gravest finding about this track or the last lead into it."""
    last = row.leads[-1].run if row.leads else ""
    mine = {
        finding.severity
        for finding in findings
        if track_id in finding.tracks or (last and last in (finding.run, *finding.more_runs))
    }
    return next((severity for severity in _WORST_FIRST if severity in mine), None)


def _verdict(row: TrackRow, sources: list[str], severity: Severity | None) -> TrackVerdict:
    track = row.track
    if track.clip is not None:
        return "clips"
    if track.is_silent:
        return "silent" if sources else "no-source"
    if severity is Severity.STOP:
        return "stop"
    if severity is Severity.CAUTION:
        return "check"
    return "ok"


class ProblemOut(Out):
    type: str
    title: str
    status: int
    detail: str
    code: str


PROBLEMS: dict[int | str, dict[str, Any]] = {
    status: {"model": ProblemOut, "description": words, "content": {"application/problem+json": {}}}
    for status, words in {
        404: "No such job, track or run",
        409: "The job has moved on, or there is nothing to undo",
        422: "It cannot be done; the detail says why",
    }.items()
}
