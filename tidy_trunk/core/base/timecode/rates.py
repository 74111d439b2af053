"""Frame rates as exact ratios, and lengths of time in frames, samples and milliseconds."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from tidy_trunk.errors import RangeError, RateError


@dataclass(frozen=True, slots=True)
class FrameRate:
    """Frames a second as an exact ratio, with the drop-frame flag. Equal by ratio and flag. Source: [ST12-1]"""

    ratio: Fraction
    drop: bool = False

    @property
    def nominal(self) -> int:
        """Frames that a second of labels holds: 30 at 29.97."""
        return math.ceil(self.ratio)

    @property
    def dropped(self) -> int:
        """Labels that drop-frame leaves out in nine minutes of ten: 2 of 30, 4 of 60; 0 where it drops nothing."""
        return self.nominal // 15 if self.drop else 0

    @property
    def ten_minutes(self) -> int:
        """Frames that ten minutes of labels hold."""
        return self.nominal * 600 - 9 * self.dropped

    @property
    def day(self) -> int:
        """Frames that a day of labels holds."""
        return self.ten_minutes * 144

    @classmethod
    def parse(cls, name: str) -> "FrameRate":
        """The rate of a name such as `25` or `29.97df`.

        Raises:
            RateError: Unknown; the message lists the known ones.
        """
        rate = RATES.get(name.strip().lower())
        if rate is None:
            raise RateError(f"'{name}' is no frame rate known here: use {' '.join(RATES)}")
        return rate


def _pulled_down(nominal: int) -> Fraction:
    return Fraction(nominal * 1000, 1001)


RATES: Final[Mapping[str, FrameRate]] = {
    "23.976": FrameRate(_pulled_down(24)),
    "24": FrameRate(Fraction(24)),
    "25": FrameRate(Fraction(25)),
    "29.97": FrameRate(_pulled_down(30)),
    "29.97df": FrameRate(_pulled_down(30), drop=True),
    "30": FrameRate(Fraction(30)),
    "30df": FrameRate(Fraction(30), drop=True),
    "47.952": FrameRate(_pulled_down(48)),
    "48": FrameRate(Fraction(48)),
    "50": FrameRate(Fraction(50)),
    "59.94": FrameRate(_pulled_down(60)),
    "59.94df": FrameRate(_pulled_down(60), drop=True),
    "60": FrameRate(Fraction(60)),
}
"""The rates by name. [ST12-1]"""

LONGEST_S: Final = Fraction(86_400)
"""Longest delay accepted: one day, as timecode counts. [ST12-1]"""


@dataclass(frozen=True, slots=True)
class Delay:
    """One length of time in three measures; `frame_count` is None where no rate was given."""

    seconds: Fraction
    frame_count: Fraction | None
    sample_count: int


def exact(number: float, name: str) -> Fraction:
    """A number of the user as an exact fraction of what he wrote, not of its binary neighbour."""
    if not math.isfinite(number):
        raise RangeError(f"{name} must be a finite number, not {number}")
    return Fraction(repr(number))


def delay_of_frames(frames: float, rate: FrameRate, sample_rate: int) -> Delay:
    """Frames of picture delay as time and samples; 5 frames at 29.97 are 166.8 ms.

    Raises:
        RangeError: Negative, not finite, longer than a day, or a sample rate outside 8 to 768 kHz.

    Source: [ST12-1]
    """
    return _delay(exact(frames, "frames") / rate.ratio, rate, sample_rate)


def delay_of_ms(milliseconds: float, rate: FrameRate | None, sample_rate: int) -> Delay:
    """Milliseconds as frames (where a rate is given) and samples, nearest sample. Raises as `delay_of_frames`."""
    return _delay(exact(milliseconds, "ms") / 1000, rate, sample_rate)


def _delay(seconds: Fraction, rate: FrameRate | None, sample_rate: int) -> Delay:
    if not 0 <= seconds <= LONGEST_S:
        raise RangeError(f"a delay of {float(seconds):g} s cannot be set: give 0 to one day")
    if not 8_000 <= sample_rate <= 768_000:
        raise RangeError(f"a sample rate of {sample_rate} Hz is not in use: give 8000 to 768000")
    samples = math.floor(seconds * sample_rate + Fraction(1, 2))
    return Delay(seconds, seconds * rate.ratio if rate else None, samples)
