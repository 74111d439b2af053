"""The 80 bits of a frame of linear timecode."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.timecode.label import Timecode

FRAME_BITS: Final = 80
"""Bits of a frame. [ST12-1]"""

SYNC_WORD: Final = (0, 0, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 0, 1)
"""The last 16 of them, in the order in which they are sent. [ST12-1]"""

DROP_BIT, COLOUR_BIT = 10, 11
POLARITY_BIT: Final = {25: 59}
"""Where the bit lies that makes the zeros of a word even: bit 27 but at 25 frames. [ST12-1]"""

GROUP_BITS: Final = {25: (27, 58, 43)}
"""Where binary-group flags 0, 1 and 2 lie: bits 43, 58 and 59 but at 25 frames. [ST12-1]"""

USUAL_POLARITY_BIT: Final = 27
"""At all other rates. [ST12-1]"""

USUAL_GROUP_BITS: Final = (43, 58, 59)
"""At all other rates. [ST12-1]"""

DIGITS: Final = ((0, 4), (8, 2), (16, 4), (24, 3), (32, 4), (40, 3), (48, 4), (56, 2))
"""Where units and tens of frames, seconds, minutes and hours lie, and how many bits they have. [ST12-1]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LtcExtras:
    """What a frame carries beside its label. user_bits: binary groups 1 to 8, each 0 to 15; group_flags: 0 to 2."""

    user_bits: tuple[int, ...] = (0,) * 8
    group_flags: tuple[bool, bool, bool] = (False, False, False)
    colour: bool = False


NO_EXTRAS: Final = LtcExtras()
"""ASSUMED_ extras of a frame that carries nothing but its label."""


def frame_bits(timecode: Timecode, extras: LtcExtras = NO_EXTRAS) -> tuple[int, ...]:
    """The bits of one frame in the order in which they are sent. Source: [ST12-1]"""
    rate = timecode.rate
    bits = [0] * FRAME_BITS
    hours, minutes, seconds, frames = timecode.fields
    values = (
        frames % 10,
        frames // 10,
        seconds % 10,
        seconds // 10,
        minutes % 10,
        minutes // 10,
        hours % 10,
        hours // 10,
    )
    for value, (at, size) in zip(values, DIGITS, strict=True):
        _put(bits, at, size, value)
    for group, value in enumerate(extras.user_bits):
        _put(bits, 4 + 8 * group, 4, value)
    bits[DROP_BIT], bits[COLOUR_BIT] = int(rate.drop), int(extras.colour)
    for at, flag in zip(GROUP_BITS.get(rate.nominal, USUAL_GROUP_BITS), extras.group_flags, strict=True):
        bits[at] = int(flag)
    bits[64:] = SYNC_WORD
    # So that each frame begins with the same polarity: the zeros of a word are even.
    bits[POLARITY_BIT.get(rate.nominal, USUAL_POLARITY_BIT)] = bits.count(0) % 2
    return tuple(bits)


def user_bits_of(bits: tuple[int, ...]) -> tuple[int, ...]:
    """Binary groups 1 to 8 of a frame, each 0 to 15."""
    return tuple(sum(bits[4 + 8 * group + place] << place for place in range(4)) for group in range(8))


def _put(bits: list[int], at: int, size: int, value: int) -> None:
    """A number, its lowest bit first."""
    bits[at : at + size] = [value >> number & 1 for number in range(size)]
