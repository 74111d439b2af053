"""Circled takes, one after the other, as an edit list and as a timeline."""

from fractions import Fraction
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate, Timecode, real_seconds
from tidy_trunk.core.log import TakeStatus
from tidy_trunk.errors import InputError, TimecodeError
from tidy_trunk.exports import PlacedFile, PlacedTimeline, edl, otio_timeline
from tidy_trunk.results.log import LogOut

HANDLE_S: Final = Fraction(2)
"""ASSUMED_ seconds before and behind each take: room for a dissolve."""

STARTS_S: Final = Fraction(3600)
"""Where the first take lies on the timeline: at one hour. [PRACTICE]"""

_DAY_S: Final = 86_400
"""Seconds of a day: then every clock begins again. [ST12-1]"""


def circled_timeline(log: LogOut) -> PlacedTimeline:
    """Circled takes by their own timecode, with handles, in the order in which they were shot.

    Raises InputError: none is circled, or none of them has timecode and an end.
    """
    rate, at, files = FrameRate.parse(log.rate), Fraction(0), []
    for take in log.takes:
        if take.status is not TakeStatus.CIRCLED or take.struck or take.seconds is None:
            continue
        try:
            begins = real_seconds(Timecode.parse(take.timecode, rate))
        except TimecodeError:
            continue
        seconds = Fraction(take.seconds).limit_denominator(1000) + 2 * HANDLE_S
        files.append(
            PlacedFile(
                name=take.label,
                is_picture=False,
                begins_s=at,
                seconds=seconds,
                own_start_s=(begins - HANDLE_S) % _DAY_S,
            )
        )
        at += seconds
    if not files:
        raise InputError("no take with an end is circled: circle one in the log")
    return PlacedTimeline(title=log.job, rate=rate, starts_s=STARTS_S, files=tuple(files))


def circled_edl(log: LogOut) -> bytes:
    """As an edit list. Raises as `circled_timeline`."""
    return edl(circled_timeline(log))


def circled_otio(log: LogOut) -> bytes:
    """As OpenTimelineIO. Raises as `circled_timeline`."""
    return otio_timeline(circled_timeline(log))
