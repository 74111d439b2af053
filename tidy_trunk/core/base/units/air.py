"""Sound in air: a way and the time that it takes."""

from typing import Final

SOUND_M_PER_S: Final = 343.0
"""Sound in air at 20 °C. [HANDBOOK] §8"""


def air_ms(metres: float) -> float:
    """How long sound takes through so much air; 2.9 ms a metre."""
    return metres / SOUND_M_PER_S * 1000


def air_m(ms: float) -> float:
    """Through how much air sound takes so long; the way back of `air_ms`."""
    return ms / 1000 * SOUND_M_PER_S
