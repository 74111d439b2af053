"""How late pictures are where they come out, and what that asks of the sound beside them."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from tidy_trunk.core.base.timecode import Delay, FrameRate, delay_of_frames, delay_of_ms
from tidy_trunk.core.base.units import air_m
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import PlanIndex, PortRef, Run
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.time.clock.latency import (
    SDI_DELAY,
    Latency,
    latency,
    picture_delay,
    picture_late_frames,
    pictures_in,
    programme_ms,
)

NEAR_FRAMES: Final = 0.5
"""ASSUMED_ difference up to which two pictures count as equally late."""


@dataclass(frozen=True, slots=True)
class SyncWindow:
    """How far sound may come before and after its picture, in ms, by a standard as it is named to a user.

    id: its name on the wire. source: the standard that gives it.
    """

    id: str
    source: str
    early_ms: float
    late_ms: float

    def holds(self, early_ms: float) -> bool:
        """Whether sound that is early by so much, late where it is negative, lies within."""
        return -self.late_ms <= early_ms <= self.early_ms


UNNOTICED: Final = SyncWindow("unnoticed", "BT1359", 45.0, 125.0)
"""Where nobody sees it. [BT1359], from memory"""

ACCEPTED: Final = SyncWindow("accepted", "BT1359", 90.0, 185.0)
"""Where it is still put up with. [BT1359], from memory"""

BROADCAST: Final = SyncWindow("broadcast", "EBU-R37", 40.0, 60.0)
"""What goes on air in Europe. [EBU-R37], from memory"""

WINDOWS: Final = (UNNOTICED, ACCEPTED, BROADCAST)
"""All that sound beside its picture is judged by. [BT1359], [EBU-R37]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Picture:
    """A picture that comes in: how late it is there, in frames and in ms, with all that it has come through.

    camera: the device that sends it, a camera or another switcher.
    path, own_frames: of the figure that says what that device adds itself.
    hold_frames: by how much it is to be held back so that it is as late as the latest.
    """

    camera: str
    path: str
    own_frames: float
    late_frames: float
    late_ms: float
    hold_frames: float

    @property
    def over_sdi(self) -> bool:
        """Whether that figure is one of its own for SDI."""
        return self.path == SDI_DELAY


@dataclass(frozen=True, slots=True, kw_only=True)
class StraightSound:
    """Sound that comes in by a way of its own. early_ms: by how much its latest is before the latest picture.

    delay: by how much to delay it, in every unit; None where it is late already.
    """

    run: str
    sender: str
    late: Latency
    early_ms: float
    delay: Delay | None
    windows: tuple[tuple[SyncWindow, bool], ...]

    @property
    def delay_metres(self) -> float | None:
        """The air that takes as long."""
        return None if self.delay is None else air_m(float(self.delay.seconds) * 1000)


@dataclass(frozen=True, slots=True, kw_only=True)
class LateScreen:
    """A switcher or a monitor with the pictures that come in.

    own_frames: what it takes itself; late_frames: of the latest picture, with that.
    delay: by how much sound that takes no time at all is to be delayed; sounds: what really comes in beside.
    """

    device: str
    is_switcher: bool
    own_frames: float
    pictures: tuple[Picture, ...]
    late_frames: float
    delay: Delay
    windows: tuple[tuple[SyncWindow, bool], ...]
    sounds: tuple[StraightSound, ...]

    @property
    def delay_metres(self) -> float:
        """The air that takes as long as the latest picture."""
        return air_m(float(self.delay.seconds) * 1000)


def late_screens(report: Report) -> tuple[LateScreen, ...]:
    """Every switcher and monitor into which pictures come, in the order of the plan. Source: [HANDBOOK] §8"""
    found = [_screen(report, device) for device in report.index.plan.devices]
    return tuple(item for item in found if item is not None)


def judged(early_ms: float) -> tuple[tuple[SyncWindow, bool], ...]:
    """Sound that is early by so much against each window; whether it lies within."""
    return tuple((window, window.holds(early_ms)) for window in WINDOWS)


def _screen(report: Report, device: str) -> LateScreen | None:
    index = report.index
    pictures = _pictures_into(index, device)
    if not pictures:
        return None
    own_frames = _own_frames(index, device)
    latest = max(item.late_frames for item in pictures)
    delay = delay_of_frames(latest + own_frames, _rate(index), index.plan.defaults.sample_rate_hz)
    early_ms = float(delay.seconds * 1000)
    return LateScreen(
        device=device,
        is_switcher=index.placed(device).device_class.kind is DeviceKind.SWITCHER,
        own_frames=own_frames,
        pictures=pictures,
        late_frames=latest + own_frames,
        delay=delay,
        windows=judged(early_ms),
        sounds=tuple(_sound(report, run, early_ms) for run in _sounds_into(index, device)),
    )


def _rate(index: PlanIndex) -> FrameRate:
    return FrameRate.parse(index.plan.defaults.frame_rate)


def _held(frames: float) -> float:
    return frames if frames > NEAR_FRAMES else 0.0


def _sounds_into(index: PlanIndex, device: str) -> list[Run]:
    ports = [port for port in index.placed(device).device_class.inputs if port.circuit.is_analogue]
    return [run for port in ports for run in index.arriving.get(PortRef(device, port.id), [])]


def _sound(report: Report, run: Run, picture_ms: float) -> StraightSound:
    """What comes by a run, against a picture that is so late."""
    index = report.index
    port, channels = run.receiving, index.placed(run.receiving.device).input(run.receiving.port).channels
    arriving = [report.tracer.input(port.device, port.port, channel) for channel in range(len(channels))]
    late = max((latency(index, stage) for stage in arriving), key=lambda item: item.most_ms)
    early_ms = picture_ms - late.most_ms
    wanted = early_ms > 0
    return StraightSound(
        run=run.id,
        sender=run.sending.device,
        late=late,
        early_ms=early_ms,
        delay=delay_of_ms(early_ms, _rate(index), index.plan.defaults.sample_rate_hz) if wanted else None,
        windows=judged(early_ms),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class ClapReading:
    """A clap that was recorded through the whole path. heard_s, seen_s: in the recording; the picture to half a frame.

    early_ms: by how much the sound is before the picture, negative where it is behind; within_ms: how sure that is.
    camera_frames: what that makes the camera's own picture delay, None where it would be less than nothing.
    """

    heard_s: float
    seen_s: float
    early_ms: float
    within_ms: float
    windows: tuple[tuple[SyncWindow, bool], ...]
    camera_frames: float | None


def read_clap(
    report: Report, device: str, camera: str, heard_s: float, seen_s: float, pictures: FrameRate
) -> ClapReading:
    """What a clap on a switcher's programme says of the picture that came through it.

    The sound took its own time to get there: the calculated delay of its path is added. Source: [HANDBOOK] §8

    Args:
        device: The switcher.
        camera: The device of which the picture was clapped in.
        heard_s, seen_s: First edge of the clap, and beginning of the picture in which the hands close.
        pictures: Rate of the recording.
    """
    index = report.index
    frame_ms = 1000 / float(pictures.ratio)
    early_ms = (seen_s - heard_s) * 1000
    buses = [bus.id for bus in index.placed(device).device_class.buses if bus.recorded]
    sound_ms = max((programme_ms(index, report.tracer.bus(device, bus)) for bus in buses), default=0.0)
    # What the picture came through before and after that device is known, and no delay of its own.
    others = sum(item.late_frames - item.own_frames for item in _pictures_into(index, device) if item.camera == camera)
    frames = (early_ms + sound_ms) / 1000 * float(_rate(index).ratio) - _own_frames(index, device) - others
    return ClapReading(
        heard_s=heard_s,
        seen_s=seen_s,
        early_ms=early_ms,
        within_ms=frame_ms / 2,
        windows=judged(early_ms),
        camera_frames=round(frames, 2) if frames >= 0 else None,
    )


def _pictures_into(index: PlanIndex, device: str) -> tuple[Picture, ...]:
    """The pictures that come into a switcher or a monitor, each with what lies before it; none for all else.

    A camera that sends its picture over HDMI and over SDI sends two: both may be late by other times.
    """
    if index.placed(device).device_class.kind not in (DeviceKind.SWITCHER, DeviceKind.MONITOR):
        return ()
    found = {}
    for sender in pictures_in(index, device):
        placed = index.placed(sender.device)
        path, own = picture_delay(placed, placed.output(sender.port).circuit)
        late_frames = picture_late_frames(index, sender)
        if late_frames is not None:
            found[sender.device, path] = (own.value if own is not None else 0.0, late_frames)
    latest = max((late for _, late in found.values()), default=0.0)
    return tuple(
        Picture(
            camera=camera,
            path=path,
            own_frames=own,
            late_frames=late,
            late_ms=late / float(_rate(index).ratio) * 1000,
            hold_frames=_held(latest - late),
        )
        for (camera, path), (own, late) in found.items()
    )


def programme_late_frames(index: PlanIndex, device: str) -> Fraction | None:
    """Of the latest picture of a switcher, with what the switcher takes; None where no picture comes in."""
    late = _pictures_into(index, device)
    return Fraction(max(item.late_frames for item in late)) + Fraction(_own_frames(index, device)) if late else None


def _own_frames(index: PlanIndex, device: str) -> float:
    own = index.placed(device).device_class.traits.picture_delay_frames
    return own.value if own is not None else 0.0
