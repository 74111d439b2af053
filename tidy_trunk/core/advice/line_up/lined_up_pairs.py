"""What a line-up says beyond its job: two devices with what lies between them, found once and offered the next time."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from tidy_trunk.core.advice.line_up.measured import knobs_of
from tidy_trunk.core.advice.line_up.steps import OFF_DB, LineUpStep, State, taken
from tidy_trunk.core.plan import Edit, LineUp, ReadFrom, SetControl
from tidy_trunk.core.sound.levels import LevelSolver, LineUpStanding, Report, known_sender, runs_between, way_of_classes
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, TidyTrunkError


@dataclass(frozen=True, slots=True, kw_only=True)
class LinedUpPair:
    """Two devices that were lined up: by their classes, sockets with their positions, and the cables between.

    way: what makes it this pair and no other, by ids of classes; sender_label, receiver_label: its two ends as they were
        called, socket too; cables: between them, by name.
    off_db: by how much it was louder than the figures of that time said.
    settings: where the knobs on the way stood, by class and control, in dB.
    when: date and time, ISO 8601; job: name of the job that it was read in.
    """

    way: tuple[str, ...]
    sender_label: str
    receiver_label: str
    cables: tuple[str, ...]
    sent_dbfs: float
    read_dbfs: float
    off_db: float
    settings: Mapping[str, float]
    read_from: ReadFrom
    when: str
    job: str

    @property
    def key(self) -> str:
        """There is one for each way: what was read last counts."""
        return " | ".join(self.way)


def pair_of(report: Report, line_up: LineUp) -> LinedUpPair | None:
    """The pair that a reading was made of; None where it is too far off, was not read at all, or in the simulation: that
    says nothing of real devices."""
    track = report.track(line_up.track)
    if track is None or line_up.read_from in (ReadFrom.EARLIER, ReadFrom.SIMULATION):
        return None
    stage, index = track.trace.stage, report.index
    off_db = line_up.read_dbfs - line_up.predicted_dbfs
    if report.solver.correction(stage, line_up).standing is not LineUpStanding.FRESH or abs(off_db) > OFF_DB:
        return None
    return LinedUpPair(
        way=way_of_classes(index, line_up.sender, stage),
        sender_label=index.placed(line_up.sender).device_class.label,
        receiver_label=f"{index.placed(stage.device).device_class.label}, {index.placed(stage.device).place_label(stage.name)}",
        cables=tuple(
            index.lead_of(part).label for run in runs_between(index, line_up.sender, stage) for part in run.parts
        ),
        sent_dbfs=line_up.sent_dbfs,
        read_dbfs=line_up.read_dbfs,
        off_db=round(off_db, 2),
        settings={f"{knob.class_id} {knob.control}": knob.stands_db for knob in knobs_of(report, stage)},
        read_from=line_up.read_from,
        when=line_up.when,
        job=index.plan.name,
    )


def earlier(report: Report, step: LineUpStep, pairs: Mapping[str, LinedUpPair]) -> LinedUpPair | None:
    """The pair of a step that nobody has read in this job, where it was read in another."""
    if step.state is not State.OPEN or not pairs:
        return None
    stage = report.known_track(step.track).trace.stage
    return pairs.get(" | ".join(way_of_classes(report.index, step.sender, stage)))


def as_earlier(report: Report, track_id: str, pair: LinedUpPair, when: str) -> tuple[Edit, ...]:
    """Knobs as they stood then, and the reading as far as it can be told from that time: to be verified by tone.

    Raises:
        NotFoundError, InputError: No such track, or one that no tone can be sent to; another pair than that of the track.
    """
    stage = report.known_track(track_id).trace.stage
    if way_of_classes(report.index, known_sender(report.index, stage).device, stage) != pair.way:
        raise InputError("this is another pair: a socket, a position of a switch or a cable differs")
    turned = tuple(_turned(report, track_id, pair))
    plan = report.index.plan
    for edit in turned:
        plan = edit.apply(plan)
    after = Report(trace_plan(plan))
    sender = known_sender(after.index, after.known_track(track_id).trace.stage).device
    sent_dbfs = after.index.tone_dbfs(sender)
    tone = LevelSolver(after.index, oscillators={sender: sent_dbfs}, line_ups={})
    shows_dbfs = tone.level(after.known_track(track_id).trace.stage).sound.average
    read_dbfs = shows_dbfs + pair.off_db
    reading = taken(after, track_id, sent_dbfs=sent_dbfs, read_dbfs=read_dbfs, read_from=ReadFrom.EARLIER, when=when)
    return (*turned, reading)


def _turned(report: Report, track_id: str, pair: LinedUpPair) -> Iterable[SetControl]:
    for knob in knobs_of(report, report.known_track(track_id).trace.stage):
        stood_db = pair.settings.get(f"{knob.class_id} {knob.control}")
        if stood_db is None or stood_db == knob.stands_db:
            continue
        edit = SetControl(device=knob.device, control=knob.control, value=stood_db)
        try:
            edit.apply(report.index.plan)
        except TidyTrunkError:
            continue  # its class has another range now
        yield edit
