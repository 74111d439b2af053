"""How far a microphone usually is from who is heard."""

from collections.abc import Mapping
from typing import Final

WORN_M: Final = 0.2
"""How far a worn microphone is from the mouth. [PRACTICE]"""

DISTANCES_M: Final[Mapping[str, float]] = {
    "lavalier": WORN_M,
    "clip-on-transmitter": WORN_M,
    "dynamic-handheld": 0.1,
    "headset-microphone": 0.05,
    "on-camera-microphone": 1.5,
    "usb-microphone": 0.3,
    "pencil-condenser": 1.0,
}
"""By class, how far a microphone usually is from the mouth. [PRACTICE]"""

BOOM_M: Final = 0.6
"""How far a boom is from the mouth, just out of frame. [PRACTICE]"""

FAR_M: Final = 3.0
"""ASSUMED_ how far a microphone is where nobody comes near with one."""


def usual_distance_m(class_id: str) -> float:
    """Of a class of microphone, in m: a boom's where nothing else is usual."""
    return DISTANCES_M.get(class_id, BOOM_M)
