"""An edit list in the CMX-3600 style."""

import math
import re
from fractions import Fraction
from pathlib import PurePath
from typing import Final

from tidy_trunk.core.base.timecode import Timecode
from tidy_trunk.errors import InputError
from tidy_trunk.exports.placed import PlacedFile, PlacedTimeline

MOST_EVENTS: Final = 999
"""Events that three digits number. [PRACTICE]"""


def edl(timeline: PlacedTimeline) -> bytes:
    """One event a file, in the order of the timeline: pictures on V, sound on A.

    Reel names hold eight letters: the whole name of the file stands in a comment. Whole frames only: what is left over is
    in the offsets and in the aligned copies. A list has one picture and a few sounds at a time: files that lie over each
    other stand in it one after the other, with the same record times.

    Raises:
        InputError: More files than an edit list numbers.
    """
    if len(timeline.files) > MOST_EVENTS:
        raise InputError(f"an edit list numbers {MOST_EVENTS} events, and there are {len(timeline.files)}: use OTIO")
    mode = "DROP FRAME" if timeline.rate.drop else "NON-DROP FRAME"
    lines = [f"TITLE: {_ascii(timeline.title)}", f"FCM: {mode}", ""]
    for number, file in enumerate(sorted(timeline.files, key=lambda item: (item.begins_s, item.name)), start=1):
        lines += [_event(number, file, timeline), f"* FROM CLIP NAME: {_ascii(PurePath(file.name).name)}", ""]
    return "\n".join(lines).encode("ascii")


def _event(number: int, file: PlacedFile, timeline: PlacedTimeline) -> str:
    rate = timeline.rate
    length = max(math.floor(file.seconds * rate.ratio), 1)
    source, record = (
        Timecode(_frame(moment, rate.ratio) % rate.day, rate)
        for moment in (file.own_start_s, timeline.starts_s + file.begins_s)
    )
    kind = "V" if file.is_picture else "A"
    times = " ".join(str(time) for time in (source, source.plus(length), record, record.plus(length)))
    return f"{number:03}  {_reel(file.name):<8} {kind:<5} C        {times}"


def _frame(seconds: Fraction, ratio: Fraction) -> int:
    return math.floor(seconds * ratio + Fraction(1, 2))


def _reel(name: str) -> str:
    return re.sub(r"[^A-Z0-9_]", "", PurePath(name).stem.upper())[:8] or "AX"


def _ascii(text: str) -> str:
    return " ".join(text.encode("ascii", errors="replace").decode().split())
