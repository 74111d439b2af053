"""Points of a chain at which one can listen in the simulation, and what is seen there."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal import band_levels, dbfs_of_powers
from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.simulation.materials import NoiseLoop
from tidy_trunk.core.sound.simulation.simulate import Simulator
from tidy_trunk.core.sound.trace import Stage, StageKind

LOUDEST: Final[Mapping[str, float]] = {"dBFS": 0.0, "dBu": 24.0, "dB SPL": 120.0}
"""What is full scale for the ear, by unit: of voltages, that of professional gear. [HANDBOOK] §2; of sound ASSUMED_"""

WAVE_POINTS: Final = 600
"""ASSUMED_ stretches of a loop as it is drawn."""


@dataclass(frozen=True, slots=True)
class Point:
    """A stage on the way to a track. `label`: as the ladder names it."""

    stage: Stage
    label: str
    unit: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PointReading:
    """What stands at a point. Levels in the point's unit; `bands` are third octaves around `BANDS_HZ`.

    ceiling: what the stage takes, inf where nothing clips. highest, lowest: extremes of each stretch of the loop, `stretch_s`
    long, full scale of the ear 1.0.
    """

    level: float
    peak: float
    ceiling: float
    bands: tuple[float, ...]
    stretch_s: float
    highest: tuple[float, ...]
    lowest: tuple[float, ...]

    @property
    def clips(self) -> bool:
        """Whether it is more than the stage takes."""
        return self.peak > self.ceiling


def points_of(report: Report, track: Stage) -> tuple[Point, ...]:
    """From the microphone on, along the loudest way."""
    found = [stage for stage in report.main_path(track) if stage.kind is not StageKind.SOUND]
    return tuple(Point(stage, _label(report, stage), report.solver.level(stage).unit) for stage in found)


def _label(report: Report, stage: Stage) -> str:
    words = report.solver.place_words(stage)
    return f"air at {words}" if stage.kind is StageKind.MICROPHONE else words


def audible(simulator: Simulator, point: Point, *, is_track: bool) -> NoiseLoop:
    """What is heard there, full scale of the ear 1.0; beyond it nothing sounds louder."""
    loop = simulator.track_sound(point.stage) if is_track else simulator.level(point.stage).sound
    heard: NoiseLoop = np.clip(loop * np.float32(ratio_from_db(-LOUDEST[point.unit])), -1.0, 1.0)
    return heard


def seen(simulator: Simulator, point: Point, *, is_track: bool) -> PointReading:
    """What a meter, a scope and a third-octave analyser show there."""
    level = simulator.level(point.stage)
    loop = simulator.track_sound(point.stage) if is_track else level.sound
    heard = audible(simulator, point, is_track=is_track)
    pieces = np.array_split(heard, WAVE_POINTS)
    return PointReading(
        level=float(dbfs_of_powers(np.mean(np.square(loop, dtype=np.float64)))),
        peak=float(dbfs_of_powers(np.square(np.abs(loop).max(), dtype=np.float64) / 2)),
        ceiling=level.ceiling,
        bands=tuple(float(band) for band in third_octaves(loop, simulator.rate_hz)),
        stretch_s=len(loop) / simulator.rate_hz / WAVE_POINTS,
        highest=tuple(round(float(piece.max()), 4) for piece in pieces),
        lowest=tuple(round(float(piece.min()), 4) for piece in pieces),
    )


def third_octaves(loop: NoiseLoop, rate_hz: int) -> NDArray[np.float64]:
    """Level of each third octave of a loop from 20 Hz to 20 kHz."""
    return band_levels(2 * np.abs(np.fft.rfft(loop.astype(np.float64)) / len(loop)) ** 2, rate_hz / len(loop))
