"""By what picture and sound will meet afterwards: for every camera and every recorder."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.base.units import air_ms, ratio_from_db
from tidy_trunk.core.gear.catalogue import INSIDE, DeviceKind
from tidy_trunk.core.plan import PlanIndex, Role
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import Stage, StageKey, StageKind
from tidy_trunk.core.time.clock.timecode_devices import TimecodeDevice, first_giver, relative_drift


class SyncMeans(StrEnum):
    """What both have, the surest first."""

    TIMECODE = "timecode"
    SOUND = "sound"  # the same on both
    OWN_MICROPHONE = "camera-microphone"
    CLAP = "clap"  # alone


FURTHEST_M: Final = 100.0
"""ASSUMED_ furthest that anybody counts on a camera's own microphone."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CommonSource:
    """A source that both hear. later_ms: by how much later through air the camera's microphone hears it."""

    source: str
    later_ms: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MicrophoneReach:
    """How far a camera's own microphone hears a source above the place's noise, and how late at that distance."""

    source: str
    metres: float
    later_ms: float


@dataclass(frozen=True, slots=True, kw_only=True)
class ClockPair:
    """A camera and a recorder. by: all that both have; a clap is always made besides.

    sources: those that both hear; reach: where they hear none, how far the camera's own microphone hears what the recorder
    does, if that is on.
    long_take_min: how long a take runs until their sample clocks are apart by the job's limit, and the sound wants
    stretching, not only moving; None where nobody knows.
    """

    camera: str
    recorder: str
    by: tuple[SyncMeans, ...]
    sources: tuple[CommonSource, ...]
    reach: MicrophoneReach | None
    long_take_min: float | None

    @property
    def has_clap_alone(self) -> bool:
        return self.by == (SyncMeans.CLAP,)


def pairs(report: Report, timecode_devices: Sequence[TimecodeDevice]) -> tuple[ClockPair, ...]:
    """Every camera with every recorder that records something, in the order of the plan. Source: [HANDBOOK] §8"""
    index = report.index
    known = {timecode_device.device: timecode_device for timecode_device in timecode_devices}
    heard: dict[str, dict[str, float]] = {}
    nearest: dict[StageKey, dict[str, float]] = {}
    for track in report.tracks:
        if track.role is not Role.TIMECODE and track.is_reached:
            mine = heard.setdefault(track.trace.device, {})
            for source, metres in _distances(index, track.trace.stage, nearest).items():
                mine[source] = min(metres, mine.get(source, metres))
    cameras = [device for device in index.plan.devices if index.placed(device).device_class.kind is DeviceKind.CAMERA]
    recorders = [
        device
        for device in index.plan.devices
        if heard.get(device) and index.placed(device).device_class.kind not in (DeviceKind.CAMERA, DeviceKind.SWITCHER)
    ]
    limit_s = index.plan.defaults.drift_limit_frames / float(FrameRate.parse(index.plan.defaults.frame_rate).ratio)
    return tuple(_pair(index, known, heard, camera, recorder, limit_s) for camera in cameras for recorder in recorders)


def _pair(
    index: PlanIndex,
    known: Mapping[str, TimecodeDevice],
    heard: Mapping[str, Mapping[str, float]],
    camera: str,
    recorder: str,
    limit_s: float,
) -> ClockPair:
    givers = {first_giver(index, known, device) for device in (camera, recorder)}
    theirs, ours = heard[recorder], heard.get(camera, {})
    both = tuple(
        CommonSource(source=name, later_ms=air_ms(ours[name] - theirs[name])) for name in ours if name in theirs
    )
    reach = _reach(index, camera, tuple(theirs)) if not both else None
    by = [SyncMeans.TIMECODE] if len(givers) == 1 and "" not in givers else []
    by += [SyncMeans.SOUND] if both else []
    by += [SyncMeans.OWN_MICROPHONE] if reach is not None else []
    parts = relative_drift(index, camera, recorder)
    return ClockPair(
        camera=camera,
        recorder=recorder,
        by=tuple(by) or (SyncMeans.CLAP,),
        sources=both,
        reach=reach,
        long_take_min=limit_s / (parts.ppm * 1e-6) / 60 if parts is not None and parts.ppm else None,
    )


def _distances(index: PlanIndex, stage: Stage, known: dict[StageKey, dict[str, float]]) -> dict[str, float]:
    """By source at a stage, how far the nearest microphone that leads there is from it, in m."""
    if stage.key not in known:
        found: dict[str, float] = {}
        if stage.kind is StageKind.SOUND:
            found[stage.name] = index.plan.sources[stage.name].heard_by[stage.device]
        for feed, _ in stage.feeds:
            for source, metres in _distances(index, feed, known).items():
                found[source] = min(metres, found.get(source, metres))
        known[stage.key] = found
    return known[stage.key]


def _reach(index: PlanIndex, camera: str, sources: Sequence[str]) -> MicrophoneReach | None:
    """The source that a camera's built-in microphone hears from furthest, where a track takes that microphone."""
    placed = index.placed(camera)
    refs = {ref for bus in placed.device_class.buses if placed.is_recorded(bus) for ref in placed.bus_inputs(bus)}
    if not sources or not any(index.input_channel(placed, ref)[0].plug.connector == INSIDE for ref in refs):
        return None
    loudest = max(sources, key=lambda name: index.plan.sources[name].average_db_spl)
    above_db = index.plan.sources[loudest].average_db_spl - index.plan.defaults.room_noise_db_spl
    # 6 dB for each doubling, down to the noise of the place. [HANDBOOK] §2
    metres = min(ratio_from_db(above_db), FURTHEST_M)
    return MicrophoneReach(source=loudest, metres=metres, later_ms=air_ms(metres))
