"""What a device holds, and for how long: its battery, its media, its longest clip, its clock."""

import math
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue import DeviceKind, Figure, Power
from tidy_trunk.core.plan.index import PlacedDevice
from tidy_trunk.core.plan.model import WARM_C

BATTERY_SHARE: Final = 0.8
"""Share of its stated capacity that a battery gives in practice. [PRACTICE]"""

COLD_POINTS: Final = ((-20.0, 0.5), (0.0, 0.8), (WARM_C, 1.0))
"""Share of its capacity that a lithium battery gives in the cold, by °C; between them in a straight line. [MEMORY]"""

BYTES_PER_GB: Final = 1e9
"""Of a card, as its label counts. [PRACTICE]"""

RIFF_BYTES: Final = 2**32
"""Where a plain WAV ends; a recorder goes on in a second file, or writes RF64. [EBU3306]"""

BITS_PER_BYTE: Final = 8
"""[EBU3285]"""


@dataclass(frozen=True, slots=True)
class Endurance:
    """How long something lasts, in minutes: as a rule, and at the least that its figures allow."""

    usual_min: float
    least_min: float


def battery(placed: PlacedDevice, temperature_c: float = WARM_C) -> Endurance | None:
    """How long a full battery lasts: Wh × 0.8 / W, less in the cold; None for what runs on something else, or nobody knows.

    The least takes both figures at the bad end of what they are sure to, their tolerances added as independent.
    Source: [PRACTICE], tolerances [HANDBOOK] §3
    """
    traits = placed.device_class.traits
    if (
        placed.power is not Power.BATTERY
        or traits.battery_wh is None
        or traits.power_w is None
        or not traits.power_w.value
    ):
        return None
    usual = traits.battery_wh.value * BATTERY_SHARE * cold_share(temperature_c) / traits.power_w.value * 60
    return Endurance(usual, usual * (1 - _together(traits.battery_wh, traits.power_w)))


def battery_needed_wh(placed: PlacedDevice, minutes: float, temperature_c: float = WARM_C) -> float:
    """The battery in Wh that lasts so long at the least. The device has one."""
    now = battery(placed, temperature_c)
    stated = placed.device_class.traits.battery_wh
    return stated.value * minutes / now.least_min if now and stated and now.least_min else math.inf


def cold_share(temperature_c: float) -> float:
    """What is left of a battery's capacity at a temperature in °C, from 0 to 1."""
    points = COLD_POINTS
    if temperature_c >= points[-1][0]:
        return points[-1][1]
    at = max((n for n in range(len(points) - 1) if points[n][0] <= temperature_c), default=0)
    (low, low_share), (high, high_share) = points[at], points[at + 1]
    return max(0.1, low_share + (temperature_c - low) * (high_share - low_share) / (high - low))


def sound_bytes_per_min(placed: PlacedDevice) -> float:
    """What the tracks of a device take, in bytes a minute: rate × bytes × tracks. Source: [EBU3285]"""
    traits, rate = placed.device_class.traits, placed.sample_rate_hz
    tracks = sum(placed.is_recorded(bus) for bus in placed.device_class.buses)
    return (rate or 0) * (traits.bits or 0) / BITS_PER_BYTE * tracks * 60


def media(placed: PlacedDevice) -> Endurance | None:
    """How many minutes of takes go on a card or what is built in; None for what has no such thing, or nobody knows."""
    traits = placed.device_class.traits
    if traits.media_gb is None or not placed.device_class.is_recording:
        return None
    picture = 0.0 if traits.picture_mbps is None else traits.picture_mbps.value * 1e6 / BITS_PER_BYTE * 60
    per_min = sound_bytes_per_min(placed) + picture
    if not per_min:
        return None
    usual = traits.media_gb.value * BYTES_PER_GB / per_min
    return Endurance(usual, usual * (1 - _together(traits.media_gb)))


def file_ends_min(placed: PlacedDevice, tracks: int) -> float | None:
    """After how many minutes a plain WAV of so many tracks is full: 62 for eight of 24 bits at 48 kHz. None of a camera.

    Source: [EBU3306]
    """
    traits, rate = placed.device_class.traits, placed.sample_rate_hz
    if (
        placed.device_class.kind is DeviceKind.CAMERA
        or not placed.device_class.is_recording
        or not (rate and traits.bits and tracks)
    ):
        return None
    return RIFF_BYTES / (rate * traits.bits / BITS_PER_BYTE * tracks * 60)


def clip_limit_min(placed: PlacedDevice) -> float | None:
    """The longest clip of a camera; None where nobody has said."""
    limit = placed.device_class.traits.clip_limit_min
    return None if limit is None else limit.value


def _together(*figures: Figure) -> float:
    """Independent tolerances in percent, as a share."""
    return math.sqrt(sum((figure.tolerance / 100) ** 2 for figure in figures))
