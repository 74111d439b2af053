"""The ladder, the ways to match, and the controls of a device."""

from typing import Any

from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.catalogue import (
    Control,
    ControlKind,
    InputPort,
    channel_refs,
    controls_of,
    figures_of,
    gain_key,
    trim_key,
)
from tidy_trunk.core.levels import Rung, TrackLevel
from tidy_trunk.core.plan import TARGETS, Unit
from tidy_trunk.core.say import Answer, Proposal
from tidy_trunk.core.trace import Place
from tidy_trunk.core.ways import Way
from tidy_trunk.document import AnyEdit, FigureModel, Value, edit_document
from tidy_trunk.services.evaluation import Evaluation
from tidy_trunk.services.jobs import JoinChoice
from tidy_trunk.services.rows import input_words, lead_row, output_words


class OptionOut(Out):
    value: str
    label: str


class ControlOut(Out):
    """A control as it stands; `minimum`, `maximum` and `step` in dB for a knob."""

    id: str
    device: str
    port: str
    label: str
    kind: ControlKind
    value: Value
    words: str
    options: list[OptionOut]
    minimum: float | None
    maximum: float | None
    step: float | None

    @classmethod
    def from_core(cls, unit: Unit, control: Control) -> "ControlOut":
        value = unit.device.settings.get(control.id, control.default)
        return cls(
            id=control.id,
            device=unit.device.id,
            port=control.port,
            label=control.label,
            kind=control.kind,
            value=value,
            words=control.words(value),
            options=[OptionOut(value=value, label=label) for value, label in control.options],
            minimum=control.span.minimum_db if control.span else None,
            maximum=control.span.maximum_db if control.span else None,
            step=control.span.step_db if control.span else None,
        )


class NoiseOut(Out):
    name: str
    level: Level
    is_room: bool


class RungOut(Out):
    """A stage, named in two lines, `head` and `tail`. Add `dbu_offset` to its levels to draw it on the ladder's dBu scale."""

    place: Place
    label: str
    head: str
    tail: str
    detail: str
    device: str
    unit: str
    quiet: Level
    average: Level
    peak: Level
    noise: Level
    ruled_by: str
    ceiling: Level
    over_db: Level
    dbu_offset: Level
    controls: list[ControlOut]


class BranchOut(Out):
    device: str
    label: str


class TargetOut(Out):
    label: str
    words: str
    low_dbfs: float
    high_dbfs: float
    of_peaks: bool


class LadderOut(Out):
    """The stages of a track from source to file."""

    track: str
    title: str
    origin: str
    rungs: list[RungOut]
    branches: list[BranchOut]
    through: str
    target: TargetOut
    average_dbfs: Level
    peak_dbfs: Level
    noise_dbfs: Level
    tolerance_db: Level
    provenance: str
    over_db: Level
    noises: list[NoiseOut]
    run: str

    @classmethod
    def from_core(cls, evaluation: Evaluation, track: TrackLevel, through: str) -> "LadderOut":
        report, rig = evaluation.report, evaluation.rig
        unit = rig.unit(track.trace.device)
        branches = report.branches(track.trace.stage)
        rungs = report.ladder(track.trace, through)
        target = TARGETS[evaluation.plan.defaults.target]
        names = [evaluation.plan.sources[source].label for source in track.sources]
        runs = [rung.level.stage.run.id for rung in rungs if rung.level.stage.run is not None]
        noises = sorted(track.sound.noises, key=lambda noise: -noise.level)
        return cls(
            track=track.trace.id,
            title=f"{unit.label}, track {unit.bus(track.trace.bus).label}",
            origin=" and ".join(names) or "no source",
            rungs=[_rung(evaluation, rung) for rung in rungs],
            branches=[BranchOut(device=device, label=rig.unit(device).label) for device in branches],
            through=through,
            target=TargetOut(
                label=target.label,
                words=target.words,
                low_dbfs=target.low_dbfs,
                high_dbfs=target.high_dbfs,
                of_peaks=target.of_peaks,
            ),
            average_dbfs=track.sound.average,
            peak_dbfs=track.sound.peak,
            noise_dbfs=track.sound.noise,
            tolerance_db=track.sound.tolerance_db,
            provenance=track.provenance,
            over_db=track.clip.over_db if track.clip else None,
            noises=[NoiseOut.model_validate(noise) for noise in noises[:8]],
            run=runs[-1] if runs else "",
        )


def _rung(evaluation: Evaluation, rung: Rung) -> RungOut:
    stage, level = rung.level.stage, rung.level
    unit = evaluation.rig.unit(stage.device)
    ruling = level.sound.ruling_noise
    detail = ""
    head, tail = unit.label, rung.label.removeprefix(unit.label).strip()
    if stage.place is Place.MICROPHONE:
        head, tail = "Sound", f"at {unit.label}"
    if stage.place is Place.LEAD and stage.run is not None:
        detail = lead_row(evaluation.rig, stage.run).label
        head, tail = f"Run {stage.run.number}", detail
    elif stage.place is Place.INPUT:
        detail = input_words(unit, unit.input(stage.name))
    elif stage.place is Place.OUTPUT and unit.device_class.capsule is None:
        detail = output_words(unit, unit.output(stage.name))
    controls = stage_controls(unit, stage.name) if stage.place in (Place.INPUT, Place.OUTPUT) else []
    return RungOut(
        place=stage.place,
        label=rung.label,
        head=head,
        tail=tail,
        detail=detail,
        device=stage.device,
        unit=level.unit,
        quiet=level.sound.quiet,
        average=level.sound.average,
        peak=level.sound.peak,
        noise=level.sound.noise,
        ruled_by=ruling.name if ruling else "",
        ceiling=level.ceiling,
        over_db=level.over_db,
        dbu_offset=rung.dbu_offset,
        controls=controls,
    )


def stage_controls(unit: Unit, port_id: str) -> list[ControlOut]:
    """The controls of one port that act as it is set now: of the knobs, those of its mode."""
    return [
        ControlOut.from_core(unit, control)
        for control in controls_of(unit.device_class).values()
        if control.port == port_id and _acts(unit, control)
    ]


def _acts(unit: Unit, control: Control) -> bool:
    if control.kind is not ControlKind.KNOB:
        return True
    port = unit.port(control.port)
    mode = unit.input_mode(port) if isinstance(port, InputPort) else unit.output_mode(port)
    return control.id in (gain_key(port.id, mode.id), trim_key(port.id, mode.id))


class WayOut(Out):
    """A way to match a run, with its result in dBFS."""

    id: str
    label: str
    edits: list[AnyEdit]
    needs: str
    loses: str
    average_dbfs: Level
    peak_dbfs: Level
    headroom_db: Level
    noise_dbfs: Level
    room_noise_dbfs: Level
    ruled_by: str
    tolerance_db: Level
    full_scale_margin_db: Level
    clips: bool
    fits: bool
    verdict: str

    @classmethod
    def from_core(cls, way: Way) -> "WayOut":
        names = [name for name in cls.model_fields if name != "edits"]
        return cls(**{name: getattr(way, name) for name in names}, edits=[edit_document(edit) for edit in way.edits])


class JoinOut(Out):
    """Other leads for a run; `faults` is empty where the right signal arrives."""

    label: str
    faults: list[str]
    unbalanced_m: float
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, choice: JoinChoice) -> "JoinOut":
        return cls(
            label=choice.label,
            faults=list(choice.faults),
            unbalanced_m=choice.unbalanced_m,
            edits=[edit_document(choice.edit)],
        )


class PortOut(Out):
    id: str
    label: str
    direction: str
    plug: str
    circuit: str
    words: str
    runs: list[str]


class NamedFigureOut(Out):
    path: str
    figure: FigureModel
    own: bool


class RoutingOut(Out):
    bus: str
    label: str
    recorded: bool
    inputs: list[str]


class DeviceDetailOut(Out):
    """One device with all that can be seen and set on it."""

    id: str
    label: str
    class_id: str
    class_label: str
    blurb: str
    kind: str
    ports: list[PortOut]
    controls: list[ControlOut]
    routing: list[RoutingOut]
    channels: list[str]
    figures: list[NamedFigureOut]

    @classmethod
    def from_core(cls, evaluation: Evaluation, unit: Unit) -> "DeviceDetailOut":
        device_class, rig = unit.device_class, evaluation.rig
        runs = evaluation.plan.runs.values()

        def used(port_id: str) -> list[str]:
            ref = (unit.device.id, port_id)
            return [run.id for run in runs if ref in (run.sending, run.receiving)]

        ports: list[dict[str, Any]] = [
            {"port": port, "direction": "in", "words": input_words(unit, port)} for port in device_class.inputs
        ] + [{"port": port, "direction": "out", "words": output_words(unit, port)} for port in device_class.outputs]
        return cls(
            id=unit.device.id,
            label=unit.label,
            class_id=unit.device.class_id,
            class_label=device_class.label
            if unit.device.class_id not in rig.plan.classes
            else rig.plan.classes[unit.device.class_id].label,
            blurb=device_class.blurb,
            kind=device_class.kind,
            ports=[
                PortOut(
                    id=item["port"].id,
                    label=item["port"].label,
                    direction=item["direction"],
                    plug=item["port"].plug.words,
                    circuit=item["port"].circuit,
                    words=item["words"],
                    runs=used(item["port"].id),
                )
                for item in ports
            ],
            controls=[
                ControlOut.from_core(unit, control)
                for control in controls_of(device_class).values()
                if _acts(unit, control) or not control.port
            ],
            routing=[
                RoutingOut(bus=bus.id, label=bus.label, recorded=bus.recorded, inputs=list(unit.bus_inputs(bus)))
                for bus in device_class.buses
            ],
            channels=[ref for port in device_class.inputs for ref in channel_refs(port)],
            figures=[
                NamedFigureOut(
                    path=named.path, figure=FigureModel.from_core(named.figure), own=named.path in unit.device.figures
                )
                for named in figures_of(device_class)
            ],
        )


class ProposalOut(Out):
    title: str
    steps: list[str]
    outcome: str
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, proposal: Proposal) -> "ProposalOut":
        return cls(
            title=proposal.title,
            steps=list(proposal.steps),
            outcome=proposal.outcome,
            edits=[edit_document(edit) for edit in proposal.edits],
        )


class AnswerOut(Out):
    """What a said line would do."""

    proposals: list[ProposalOut]
    completions: list[str]
    problem: str

    @classmethod
    def from_core(cls, answer: Answer) -> "AnswerOut":
        return cls(
            proposals=[ProposalOut.from_core(proposal) for proposal in answer.proposals],
            completions=list(answer.completions),
            problem=answer.problem,
        )


class ClassOut(Out):
    """A plain class of the catalogue."""

    id: str
    label: str
    kind: str
    blurb: str


class TargetChoiceOut(Out):
    id: str
    label: str
    words: str


class CatalogueOut(Out):
    classes: list[ClassOut]
    targets: list[TargetChoiceOut]
    frame_rates: list[str]
    efforts: dict[str, float]
