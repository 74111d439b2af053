"""How late pictures are where they come out, and what that asks of the sound beside them."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from tidy_trunk.core.catalogue import Circuit, Kind
from tidy_trunk.core.plan import PortRef, Rig
from tidy_trunk.core.timecode import Delay, FrameRate, delay_of_frames

ACCEPTED_EARLY_MS: Final = 90.0
"""How far sound may come before its picture and still be accepted. [BT1359]"""

NOTICED_EARLY_MS: Final = 45.0
"""From where on that is noticed. [BT1359]"""

NEAR_FRAMES: Final = 0.5
"""ASSUMED_ difference up to which two pictures count as equally late."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Picture:
    """A picture that comes into a switcher. hold_frames: by how much it is held back so that it is as late as the latest."""

    camera: str
    late_frames: float
    hold_frames: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LateSwitcher:
    """A switcher with its pictures. late_frames: of the latest, with what the switcher itself takes.

    delay: by how much sound that comes to it straight is to be delayed, in every unit.
    is_noticed, is_accepted: what it would be without.
    """

    switcher: str
    own_frames: float
    pictures: tuple[Picture, ...]
    late_frames: float
    delay: Delay
    is_noticed: bool
    is_accepted: bool


def late_pictures(rig: Rig) -> tuple[LateSwitcher, ...]:
    """Every switcher into which pictures come, in the order of the plan. Source: [HANDBOOK] §8"""
    found = [_switcher(rig, device) for device in rig.plan.devices]
    return tuple(item for item in found if item is not None)


def _switcher(rig: Rig, device: str) -> LateSwitcher | None:
    late = pictures_into(rig, device)
    if not late:
        return None
    own = rig.unit(device).device_class.traits.picture_delay_frames
    own_frames = own.value if own is not None else 0.0
    latest = max(late.values())
    total = latest + own_frames
    rate = FrameRate.parse(rig.plan.defaults.frame_rate)
    delay = delay_of_frames(total, rate, rig.plan.defaults.sample_rate_hz)
    early_ms = float(delay.seconds * 1000)
    return LateSwitcher(
        switcher=device,
        own_frames=own_frames,
        pictures=tuple(
            Picture(camera=camera, late_frames=frames, hold_frames=_held(latest - frames))
            for camera, frames in late.items()
        ),
        late_frames=total,
        delay=delay,
        is_noticed=early_ms > NOTICED_EARLY_MS,
        is_accepted=early_ms <= ACCEPTED_EARLY_MS,
    )


def _held(frames: float) -> float:
    return frames if frames > NEAR_FRAMES else 0.0


def pictures_into(rig: Rig, device: str) -> dict[str, float]:
    """By camera, by how many frames the picture is late that it sends into a switcher; empty for all else."""
    unit = rig.unit(device)
    if unit.device_class.kind is not Kind.SWITCHER:
        return {}
    ports = [port for port in unit.device_class.inputs if port.circuit in (Circuit.HDMI, Circuit.SDI)]
    senders = [run.sending.device for port in ports for run in rig.arriving.get(PortRef(device, port.id), [])]
    delays = {sender: rig.unit(sender).device_class.traits.picture_delay_frames for sender in senders}
    return {sender: delay.value for sender, delay in delays.items() if delay is not None}


def picture_late_frames(rig: Rig, device: str) -> Fraction | None:
    """Of the latest picture of a switcher, with what the switcher takes; None where no picture comes in."""
    late = _switcher(rig, device)
    return None if late is None else Fraction(late.late_frames)
