"""Points of a chain in the simulation."""

from tidy_trunk.api.schemas.controls import ControlOut, port_controls
from tidy_trunk.core.base.signal import BANDS_HZ
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.simulation import Point
from tidy_trunk.core.sound.trace import StageKind
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.services.simulation import PointView


class PointOut(Out):
    """Where one can listen; `number` counts from 0, at the microphone; run: the one whose lead it is, "" elsewhere."""

    number: int
    label: str
    unit: str
    controls: list[ControlOut]
    run: str

    @classmethod
    def from_core(cls, index: PlanIndex, number: int, point: Point) -> "PointOut":
        stage = point.stage
        placed = index.placed(stage.device)
        controls = port_controls(index, placed, stage.name) if stage.kind in (StageKind.INPUT, StageKind.OUTPUT) else []
        run = stage.run.id if stage.run is not None else ""
        return cls(number=number, label=point.label, unit=point.unit, controls=controls, run=run)


class BandOut(Out):
    """A third octave by its middle, and its level."""

    hertz: float
    level: Level


class ClapOut(Out):
    """When a clap is heard and seen, in seconds of the loop; early_ms: by how much the sound comes first."""

    heard_s: float
    seen_s: float
    early_ms: float


class SeenOut(Out):
    """What stands at a point. highest, lowest: the loop as it is drawn, full scale 1; meter_shows: of a track's own meter."""

    label: str
    unit: str
    level: Level
    peak: Level
    ceiling: Level
    bands: list[BandOut]
    clips: bool
    stretch_s: float
    highest: list[float]
    lowest: list[float]
    meter_shows_dbfs: Level
    clap: ClapOut | None

    @classmethod
    def from_core(cls, sight: PointView) -> "SeenOut":
        point, found, clap = sight.point, sight.seen, sight.clap
        return cls(
            label=point.label,
            unit=point.unit,
            level=found.level,
            peak=found.peak,
            ceiling=found.ceiling,
            bands=[
                BandOut(hertz=round(hertz, 1), level=level) for hertz, level in zip(BANDS_HZ, found.bands, strict=True)
            ],
            clips=found.clips,
            stretch_s=found.stretch_s,
            highest=list(found.highest),
            lowest=list(found.lowest),
            meter_shows_dbfs=sight.meter_shows_dbfs,
            clap=None if clap is None else ClapOut(heard_s=clap.heard_s, seen_s=clap.seen_s, early_ms=clap.early_ms),
        )
