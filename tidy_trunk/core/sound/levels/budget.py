"""What stands behind a track's figures: which noise dominates and what would be left without it, which figure is uncertain."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.base.units import SILENCE_DB, sum_powers_db
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.plan import Message, message
from tidy_trunk.core.sound.levels.report import Report, TrackLevel
from tidy_trunk.core.sound.levels.sound import Noise
from tidy_trunk.core.sound.trace import Stage, StageKind


@dataclass(frozen=True, slots=True)
class NoiseShare:
    """One contributor to a track's noise. `drops_db`: by how much the noise would fall if this one were cured."""

    noise: Noise
    drops_db: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Uncertainty:
    """A figure behind a track's level. `left_db`: the ± that would be left if this one were known; `settle`: how."""

    what: Message
    tolerance_db: float
    provenance: Provenance
    left_db: float
    settle: Message


def noise_budget(track: TrackLevel) -> tuple[NoiseShare, ...]:
    """Every noise of a track, the one that rules to the ear first.

    Powers add, and a cure takes away its own share: what it drops is A-weighted. Source: [HANDBOOK] §6
    """
    noises = sorted(track.sound.noises, key=lambda noise: -noise.a_level)
    total = track.sound.noise_a
    found = []
    for index, noise in enumerate(noises):
        rest = sum_powers_db(other.a_level for at, other in enumerate(noises) if at != index)
        found.append(NoiseShare(noise, total - rest if rest > SILENCE_DB else math.inf))
    return tuple(found)


def doubts(report: Report, track: TrackLevel) -> tuple[Uncertainty, ...]:
    """The figures behind a track's level along its loudest way, the most doubtful first; none in silence.

    Independent ± add as the root of the sum of squares, so that only the largest are worth a measurement. [GUM]
    """
    if track.is_silent:
        return ()
    path = report.main_path(track.trace.stage)
    lined_up = report.solver.line_up(track.trace.stage)
    known: list[tuple[Message, Figure, Message]] = []
    if lined_up is not None:
        correction = report.solver.correction(track.trace.stage, lined_up)
        sending = [
            at for at, stage in enumerate(path) if stage.kind is StageKind.BUS and stage.device == lined_up.sender
        ]
        if sending and correction.holds:
            # What was measured as a whole hides what it is made of.
            path = path[: sending[-1] + 1]
            place = report.solver.place_words(track.trace.stage)
            figure = Figure(lined_up.read_dbfs, correction.within_db, Provenance.MEASURED)
            index = report.index
            known.append(
                (message("reading-of", index, place=place), figure, message("line-up-again", index, place=place))
            )
    found = [item for stage in path for item in _figures(report, stage)] + known
    whole = sum(figure.tolerance**2 for _, figure, _ in found)
    listed = [
        Uncertainty(
            what=what,
            tolerance_db=figure.tolerance,
            provenance=figure.provenance,
            left_db=math.sqrt(max(whole - figure.tolerance**2, 0.0)),
            settle=settle,
        )
        for what, figure, settle in found
        if figure.tolerance > 0
    ]
    return tuple(sorted(listed, key=lambda doubt: -doubt.tolerance_db))


def _figures(report: Report, stage: Stage) -> Iterator[tuple[Message, Figure, Message]]:
    """The figures that a stage brings into the level, each with how it is settled."""
    index, place = report.index, report.solver.place_words(stage)
    if stage.kind is StageKind.SOUND:
        source = index.plan.sources[stage.name]
        figure = Figure(source.average_db_spl, source.tolerance_db)
        yield (
            message("loudness-of", index, source=source.id),
            figure,
            message("read-meter-of-voice", index, source=source.id),
        )
        return
    placed = index.placed(stage.device)
    capsule = placed.device_class.capsule
    if (
        stage.kind is StageKind.OUTPUT
        and capsule is not None
        and placed.device_class.is_capsule_out(placed.output(stage.name))
    ):
        yield (
            message("sensitivity-of", index, device=stage.device),
            capsule.sensitivity_mv_per_pa,
            message("compare-with-known", index, device=stage.device),
        )
    elif stage.kind is StageKind.OUTPUT:
        full_scale = placed.output_mode(placed.output(stage.name)).full_scale_dbu
        if full_scale is not None:
            yield (
                message("full-scale-of", index, place=place),
                full_scale,
                message("measure-output", index, device=stage.device),
            )
    elif stage.kind is StageKind.INPUT:
        takes = placed.input_mode(placed.input(stage.name)).full_scale_dbu
        if takes is not None and report.solver.level(stage).unit == "dBu":
            yield (
                message("full-scale-of", index, place=place),
                takes,
                message("line-up-into", index, device=stage.device),
            )
    elif stage.kind is StageKind.LEAD and stage.run is not None:
        for part in stage.run.parts:
            loss = index.lead_of(part).loss_db
            if loss is not None:
                yield (
                    message("loss-of", index, part=part),
                    loss,
                    message("line-up-through", index, run=stage.run.id),
                )
