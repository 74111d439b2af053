"""How far a microphone usually is from who is heard, where nobody says it."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.gear.catalogue.devices import DeviceClass, DeviceKind

WORN_M: Final = 0.2
"""How far a worn microphone is from the mouth. [PRACTICE]"""

CAMERA_M: Final = 1.5
"""How far a microphone on or in a camera is. [PRACTICE]"""

DISTANCES_M: Final[Mapping[str, float]] = {
    "dynamic-handheld": 0.1,
    "headset-microphone": 0.05,
    "on-camera-microphone": CAMERA_M,
    "usb-microphone": 0.3,
    "pencil-condenser": 1.0,
}
"""By class, how far a microphone usually is from the mouth. [PRACTICE]"""

BOOM_M: Final = 0.6
"""How far a boom is from the mouth, just out of frame. [PRACTICE]"""

FAR_M: Final = 3.0
"""ASSUMED_ how far a microphone is where nobody comes near with one."""


def usual_distance_m(item: DeviceClass) -> float:
    """Of a microphone, or a device with one, in m: a boom's where nothing else is usual."""
    if item.id in DISTANCES_M:
        return DISTANCES_M[item.id]
    if "lavalier" in item.id or item.kind is DeviceKind.TRANSMITTER:
        return WORN_M
    return CAMERA_M if item.kind is DeviceKind.CAMERA else BOOM_M
