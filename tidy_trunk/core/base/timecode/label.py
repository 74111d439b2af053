"""Timecode labels: which frame a label names, and which label a frame bears."""

import re
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.timecode.rates import FrameRate
from tidy_trunk.errors import TimecodeError

_TEXT: Final = re.compile(r"(\d{2}):(\d{2}):(\d{2})([:;.,])(\d{2,3})")


@dataclass(frozen=True, slots=True)
class Timecode:
    """A label at a rate. `frame_count`: frames since 00:00:00:00, below those of a day.

    Source: [ST12-1]
    """

    frame_count: int
    rate: FrameRate

    @classmethod
    def parse(cls, text: str, rate: FrameRate) -> "Timecode":
        """The frame that a label such as `10:00:00:00` names; drop-frame has `;` before the frames.

        Raises:
            TimecodeError: No label, one that this rate does not have, or one that drop-frame leaves out.
        """
        found = _TEXT.fullmatch(text.strip())
        if found is None:
            raise TimecodeError(
                f"'{text[:40]}' is no timecode: write hh:mm:ss:ff, and ; before the frames of drop-frame"
            )
        hours, minutes, seconds, frames = (int(found[number]) for number in (1, 2, 3, 5))
        if (found[4] == ";") and not rate.drop:
            raise TimecodeError(
                f"{text}: the ; says drop-frame, and this rate drops nothing: write : or name a df rate"
            )
        return cls.of(hours, minutes, seconds, frames, rate)

    @classmethod
    def of(cls, hours: int, minutes: int, seconds: int, frames: int, rate: FrameRate) -> "Timecode":
        """The frame of a label in its parts. Raises TimecodeError: one that does not exist at this rate."""
        text = f"{hours:02}:{minutes:02}:{seconds:02}{';' if rate.drop else ':'}{frames:02}"
        if hours > 23 or minutes > 59 or seconds > 59 or frames >= rate.nominal:
            raise TimecodeError(f"{text} does not exist: it goes to 23:59:59:{rate.nominal - 1:02} at this rate")
        if rate.drop and seconds == 0 and minutes % 10 and frames < rate.dropped:
            last = rate.dropped - 1
            raise TimecodeError(
                f"{text}: drop-frame leaves frames 00 to {last:02} out here; next is {hours:02}:{minutes:02}:00;{last + 1:02}"
            )
        count = ((hours * 60 + minutes) * 60 + seconds) * rate.nominal + frames
        if rate.drop:
            whole = hours * 60 + minutes
            count -= rate.dropped * (whole - whole // 10)
        return cls(count, rate)

    @property
    def fields(self) -> tuple[int, int, int, int]:
        """Hours, minutes, seconds and frames as they are written."""
        count, rate = self.frame_count, self.rate
        if rate.drop:
            # Ten minutes hold one that drops nothing and nine that drop.
            tens, rest = divmod(count, rate.ten_minutes)
            first, short = rate.nominal * 60, rate.nominal * 60 - rate.dropped
            skipped = 0 if rest < first else 1 + (rest - first) // short
            count += rate.dropped * (9 * tens + skipped)
        seconds, frames = divmod(count, rate.nominal)
        return seconds // 3600 % 24, seconds // 60 % 60, seconds % 60, frames

    def __str__(self) -> str:
        hours, minutes, seconds, frames = self.fields
        return f"{hours:02}:{minutes:02}:{seconds:02}{';' if self.rate.drop else ':'}{frames:02}"

    def plus(self, frames: int) -> "Timecode":
        """So many frames later, or earlier; a day begins again at midnight."""
        return Timecode((self.frame_count + frames) % self.rate.day, self.rate)
