"""Points of a chain on the bench."""

from tidy_trunk.api.schemas.controls import ControlOut, port_controls
from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.bench import Point, Seen
from tidy_trunk.core.plan import Rig
from tidy_trunk.core.signal import BANDS_HZ
from tidy_trunk.core.trace import Place


class PointOut(Out):
    """Where one can listen; `number` counts from 0, at the microphone."""

    number: int
    label: str
    unit: str
    controls: list[ControlOut]

    @classmethod
    def from_core(cls, rig: Rig, number: int, point: Point) -> "PointOut":
        stage = point.stage
        unit = rig.unit(stage.device)
        controls = port_controls(rig, unit, stage.name) if stage.place in (Place.INPUT, Place.OUTPUT) else []
        return cls(number=number, label=point.label, unit=point.unit, controls=controls)


class BandOut(Out):
    """A third octave by its middle, and its level."""

    hertz: float
    level: Level


class SeenOut(Out):
    """What stands at a point. highest, lowest: the loop as it is drawn, full scale 1."""

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

    @classmethod
    def from_core(cls, point: Point, found: Seen) -> "SeenOut":
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
        )
