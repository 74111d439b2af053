"""The ladder of a track."""

from tidy_trunk.api.schemas.controls import ControlOut, port_controls
from tidy_trunk.core.base.units import combine_tolerances_db
from tidy_trunk.core.plan import Role
from tidy_trunk.core.sound.levels import (
    HeardSource,
    NoiseShare,
    Rung,
    Safety,
    Step,
    TrackLevel,
    Uncertainty,
    doubts,
    noise_budget,
    safeties,
    weaker,
)
from tidy_trunk.core.sound.trace import StageKind
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.results.rows import lead_row
from tidy_trunk.words import first_measurement, noise_words, safety_advice, safety_words, target_words, worded
from tidy_trunk.words.rows import input_words, output_words

MOST_SAFETIES = 5
"""Those that guard most: more are no choice."""


class NoiseOut(Out):
    """A contributor to a track's noise in dBFS, unweighted and A-weighted, and what its cure would bring.

    `born`: what it was where it came in, in `unit`.
    """

    name: str
    level: Level
    a_level: Level
    born: Level
    unit: str
    is_room: bool
    words: str

    @classmethod
    def from_core(cls, share: NoiseShare) -> "NoiseOut":
        noise = share.noise
        return cls(
            name=noise.name,
            level=noise.level,
            a_level=noise.a_level,
            born=noise.born,
            unit=noise.unit,
            is_room=noise.is_room,
            words=noise_words(share),
        )


class DoubtOut(Out):
    """A figure behind the track's level, and the ± that would be left if it were known."""

    what: str
    tolerance_db: Level
    provenance: str
    left_db: Level
    settle: str

    @classmethod
    def from_core(cls, doubt: Uncertainty) -> "DoubtOut":
        return cls(
            what=worded(doubt.what),
            tolerance_db=doubt.tolerance_db,
            provenance=doubt.provenance,
            left_db=doubt.left_db,
            settle=worded(doubt.settle),
        )


class AccountStepOut(Out):
    """One thing that was done to the average, and how sure that is; `provenance` is empty where no figure is behind it."""

    what: str
    by_db: Level
    tolerance_db: Level
    provenance: str

    @classmethod
    def from_core(cls, step: Step) -> "AccountStepOut":
        return cls(
            what=step.what,
            by_db=step.by_db,
            tolerance_db=combine_tolerances_db(figure.tolerance for figure in step.figures),
            provenance=weaker(figure.provenance for figure in step.figures) if step.figures else "",
        )


class RungOut(Out):
    """A stage, named in two lines, `head` and `tail`. Add `dbu_offset` to its levels to draw it on the ladder's dBu scale."""

    kind: StageKind
    label: str
    head: str
    tail: str
    detail: str
    device: str
    unit: str
    quiet: Level
    average: Level
    peak: Level
    burst: Level
    noise: Level
    ruled_by: str
    ceiling: Level
    over_db: Level
    burst_over_db: Level
    dbu_offset: Level
    begins: str
    steps: list[AccountStepOut]
    controls: list[ControlOut]


class SafetyOut(Out):
    """Another track that keeps this one's source, and what it is good for."""

    track: str
    label: str
    words: str
    average_dbfs: Level


class BranchOut(Out):
    device: str
    label: str


class TargetOut(Out):
    """Where a track should lie. `result`: where it does."""

    label: str
    words: str
    result: str
    low_dbfs: float
    high_dbfs: float
    of_peaks: bool


class LadderOut(Out):
    """The stages of a track from source to file.

    over_db, headroom_db: of the whole way from the microphone to the file, null where nothing clips, or nothing can.
    """

    track: str
    device: str
    bus: str
    role: Role
    title: str
    origin: str
    rungs: list[RungOut]
    branches: list[BranchOut]
    through: str
    target: TargetOut
    average_dbfs: Level
    peak_dbfs: Level
    noise_dbfs: Level
    noise_a_dbfs: Level
    tolerance_db: Level
    provenance: str
    over_db: Level
    headroom_db: Level
    burst_over_db: Level
    limited_db: Level
    noises: list[NoiseOut]
    safeties: list[SafetyOut]
    safety_advice: str
    doubts: list[DoubtOut]
    first_measurement: str
    run: str

    @classmethod
    def from_core(cls, evaluation: Evaluation, track: TrackLevel, through: str) -> "LadderOut":
        report, index = evaluation.report, evaluation.index
        placed = index.placed(track.trace.device)
        branches = report.branches(track.trace.stage)
        rungs = report.ladder(track.trace, through)
        target = track.target
        names = [evaluation.plan.sources[source].label for source in track.sources]
        runs = [rung.level.stage.run.id for rung in rungs if rung.level.stage.run is not None]
        found = doubts(report, track)
        kept = safeties(report, track)
        return cls(
            track=track.trace.id,
            device=placed.device.id,
            bus=track.trace.bus,
            role=track.role,
            title=f"{placed.label}, track {placed.bus(track.trace.bus).label}",
            origin=" and ".join(names) or "no source",
            rungs=[_rung(evaluation, rung) for rung in rungs],
            branches=[BranchOut(device=device, label=index.placed(device).label) for device in branches],
            through=through,
            target=TargetOut(
                label=target.label,
                words=target.words,
                result=target_words(track),
                low_dbfs=target.low_dbfs,
                high_dbfs=target.high_dbfs,
                of_peaks=target.of_peaks,
            ),
            average_dbfs=track.sound.average,
            peak_dbfs=track.sound.peak,
            noise_dbfs=track.sound.noise,
            noise_a_dbfs=track.sound.noise_a,
            tolerance_db=track.sound.tolerance_db,
            provenance=track.provenance,
            over_db=track.clips_by_db,
            headroom_db=track.headroom_db,
            burst_over_db=track.sound.burst_clip.over_db if track.sound.burst_clip else None,
            limited_db=track.sound.limited_db,
            noises=[NoiseOut.from_core(share) for share in noise_budget(track)[:8]],
            safeties=[_safety(evaluation, safety) for safety in kept[:MOST_SAFETIES]],
            safety_advice=safety_advice(kept) if track.sources else "",
            doubts=[DoubtOut.from_core(doubt) for doubt in found],
            first_measurement=first_measurement(found),
            run=runs[-1] if runs else "",
        )


class HeardOut(Out):
    """A source as it was recorded, in dB SPL at 1 m, and the place in dB(A); `edits` and `room_edits` take it into the job."""

    source: str
    quiet_db_spl: Level
    average_db_spl: Level
    peak_db_spl: Level
    room_noise_db_a: Level
    edits: list[AnyEdit]
    room_edits: list[AnyEdit]

    @classmethod
    def from_core(cls, heard: HeardSource) -> "HeardOut":
        return cls(
            source=heard.source,
            quiet_db_spl=heard.quiet_db_spl,
            average_db_spl=heard.average_db_spl,
            peak_db_spl=heard.peak_db_spl,
            room_noise_db_a=heard.room_noise_db_a,
            edits=[edit_document(edit) for edit in heard.edits],
            room_edits=[edit_document(edit) for edit in heard.room_edits],
        )


def _safety(evaluation: Evaluation, safety: Safety) -> SafetyOut:
    trace = safety.track.trace
    return SafetyOut(
        track=trace.id,
        label=evaluation.index.placed(trace.device).bus_label(trace.bus),
        words=safety_words(evaluation.index, safety),
        average_dbfs=safety.track.sound.average,
    )


def _rung(evaluation: Evaluation, rung: Rung) -> RungOut:
    stage, level = rung.level.stage, rung.level
    placed = evaluation.index.placed(stage.device)
    ruling = max(level.sound.noises, key=lambda noise: noise.level, default=None)
    detail = ""
    head, tail = placed.label, rung.label.removeprefix(placed.label).strip()
    if stage.kind is StageKind.MICROPHONE:
        head, tail = "Sound", f"at {placed.label}"
    if stage.kind is StageKind.LEAD and stage.run is not None:
        detail = lead_row(evaluation.index, stage.run).label
        head, tail = f"Cable {stage.run.number}", detail
    elif stage.kind is StageKind.INPUT:
        detail = input_words(placed, placed.input(stage.name))
    elif stage.kind is StageKind.OUTPUT and not placed.device_class.is_capsule_out(placed.output(stage.name)):
        detail = output_words(placed, placed.output(stage.name))
    controls = (
        port_controls(evaluation.index, placed, stage.name) if stage.kind in (StageKind.INPUT, StageKind.OUTPUT) else []
    )
    return RungOut(
        kind=stage.kind,
        label=rung.label,
        head=head,
        tail=tail,
        detail=detail,
        device=stage.device,
        unit=level.unit,
        quiet=level.sound.quiet,
        average=level.sound.average,
        peak=level.sound.peak,
        burst=level.sound.burst,
        noise=level.sound.noise,
        ruled_by=ruling.name if ruling else "",
        ceiling=level.ceiling,
        over_db=level.over_db,
        burst_over_db=level.burst_over_db,
        dbu_offset=rung.dbu_offset,
        begins=rung.begins,
        steps=[AccountStepOut.from_core(step) for step in rung.steps],
        controls=controls,
    )
