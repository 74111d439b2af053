"""Timecode arithmetic: added to, turned into real time and samples, carried from rate to rate."""

import math
import re
from fractions import Fraction
from typing import Final

from tidy_trunk.core.base.timecode.label import Timecode
from tidy_trunk.core.base.timecode.rates import FrameRate
from tidy_trunk.errors import RangeError, TimecodeError

MOST_ADDED: Final = 10**9
"""ASSUMED_ most frames that are added at once: half a year at 60."""

_FRAMES: Final = re.compile(r"[+-]?\d{1,10}")


def real_seconds(timecode: Timecode) -> Fraction:
    """Seconds of real time from 00:00:00:00 to the beginning of a frame, exact. Source: [ST12-1]"""
    return timecode.frame_count / timecode.rate.ratio


def at_seconds(seconds: Fraction, rate: FrameRate) -> Timecode:
    """The frame whose beginning is nearest to a moment, a half going to the later; a day begins again at its end."""
    return Timecode(math.floor(seconds * rate.ratio + Fraction(1, 2)) % rate.day, rate)


def to_samples(timecode: Timecode, rate_hz: int) -> int:
    """Samples from midnight to the beginning of a frame, to the nearest, a half going to the later."""
    return math.floor(real_seconds(timecode) * rate_hz + Fraction(1, 2))


def by_real_time(timecode: Timecode, rate: FrameRate) -> Timecode:
    """The same moment of a day that began at 00:00:00:00 on both clocks: labels part where the rates do."""
    return at_seconds(real_seconds(timecode), rate)


def by_count(timecode: Timecode, rate: FrameRate) -> Timecode:
    """The same frame, counted from 00:00:00:00, played at another rate: the label changes where its numbers do."""
    return Timecode(timecode.frame_count % rate.day, rate)


def added(timecode: Timecode, text: str) -> Timecode:
    """So many frames, or as many as a label counts from 00:00:00:00, later; earlier with a minus before it.

    Raises:
        TimecodeError: Neither a number of frames nor a label of this rate.
        RangeError: More frames than anybody adds.
    """
    plain = text.strip().replace("−", "-")
    if _FRAMES.fullmatch(plain):
        count = int(plain)
    elif ":" in plain:
        count = Timecode.parse(plain.lstrip("+-"), timecode.rate).frame_count * (-1 if plain.startswith("-") else 1)
    else:
        raise TimecodeError(f"'{text[:40]}' cannot be added: give a number of frames, or a timecode")
    if abs(count) > MOST_ADDED:
        raise RangeError(f"{count} frames are more than anybody adds: give at most {MOST_ADDED}")
    return timecode.plus(count)
