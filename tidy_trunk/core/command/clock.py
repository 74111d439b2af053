"""Lines about time: who is jammed by whom and when, and the breaks of the day."""

import re
from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal, single
from tidy_trunk.core.command.words import find_devices, number, split_words
from tidy_trunk.core.gear.catalogue import Figure, Provenance, figures_of
from tidy_trunk.core.plan import JamOver, PlacedDevice, Plan, PlanIndex, SetBreak, SetFigure, SetJam
from tidy_trunk.core.time.clock import PICTURE_DELAY, SDI_DELAY
from tidy_trunk.errors import InputError

_DAY_MIN: Final = 24 * 60
_TIME: Final = re.compile(r"(\d{1,2})[:.h](\d{2})")
_LENGTH: Final = re.compile(r",?\s*(\d{1,4})\s*min\w*\s*$")

_DELAY: Final = r"(?P<much>\d+(?:[.,]\d+)?)\s*(?P<unit>ms|frames?|f)?"
_LATE: Final = re.compile(rf"(?P<who>.+?)\s+(?P<delay>{_DELAY})(?:\s+(?:by|over)\s+(?P<way>hdmi|sdi))?")

WITHIN_PERCENT: Final = 10.0
"""ASSUMED_ how sure a picture delay is that somebody measured: half a frame of five."""

USUAL_BREAK_MIN: Final = 15
"""ASSUMED_ length of a break of which nothing is said."""


def minutes(text: str) -> int:
    """Minutes since midnight of a time such as `8:00`. Raises NotUnderstoodError."""
    found = _TIME.fullmatch(text.strip())
    if found is None or int(found[1]) > 23 or int(found[2]) > 59:
        raise NotUnderstoodError(f"'{text.strip()}' is no time of day: write 8:00")
    return int(found[1]) * 60 + int(found[2])


def of_day(plan: Plan, at_min: int) -> int:
    """A time of the plan's day: where that goes on past midnight, what is nearer to its end than to its beginning is next morning."""
    begins, ends = plan.defaults.day_begins_min, plan.defaults.day_ends_min
    next_morning = at_min + _DAY_MIN
    is_next = ends > _DAY_MIN and at_min < begins and next_morning - ends < begins - at_min
    return next_morning if is_next else at_min


def jam(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera a from bag at 8:00 and 12:30`, `box a from bag by radio at 8:00`, `camera a from none`."""
    who, _, whence = rest.partition(" from ")
    if not whence.strip():
        raise NotUnderstoodError(f"'{rest.strip()}': say from whom and when: jam camera a from bag at 8:00 and 12:30")
    name, _, when = whence.partition(" at ")
    over = JamOver.LEAD
    for way in JamOver:
        if name.rstrip().endswith(f" by {way}"):
            name, over = name.rstrip().removesuffix(f" by {way}"), way
    at_min = tuple(of_day(plan, minutes(piece)) for piece in re.split(r"\s*,\s*|\s+and\s+", when) if piece.strip())
    takers = [match.placed for match in find_devices(PlanIndex(plan), split_words(who)) if not match.rest]
    if not takers:
        raise NotUnderstoodError(f"nothing here is called '{who.strip()}': say which device is jammed")
    if name.strip().lower() in ("none", "nobody"):
        for taker in takers:
            yield single(plan, SetJam(device=taker.device.id, giver=None))
        return
    givers = [match.placed for match in find_devices(PlanIndex(plan), split_words(name)) if not match.rest]
    if not givers:
        raise NotUnderstoodError(f"{takers[0].label} is understood, but nothing here is called '{name.strip()}'")
    for taker in takers:
        for giver in givers:
            # A time that was not said is the beginning of the day.
            times = at_min or (plan.defaults.day_begins_min,)
            yield single(plan, SetJam(device=taker.device.id, giver=giver.device.id, over=over, at_min=times))


def late(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera b 200 ms`, `camera b 5 frames by sdi`: how late a picture was measured to come out."""
    found = _LATE.fullmatch(rest.strip().lower())
    if found is None:
        raise NotUnderstoodError(f"'{rest.strip()}': say by how much, as in late camera b 200 ms, or 5 frames")
    by_sdi = found["way"] == "sdi"
    placed_devices = [
        match.placed for match in find_devices(PlanIndex(plan), split_words(found["who"])) if not match.rest
    ]
    with_picture = [placed for placed in placed_devices if _has_picture(placed, _path(by_sdi))]
    for placed in with_picture or placed_devices[:1]:
        yield single(plan, picture_delay(plan, placed.device.id, found["delay"], by_sdi=by_sdi))


def picture_delay(plan: Plan, device: str, text: str, *, by_sdi: bool) -> SetFigure:
    """The edit that says how late a device's picture was measured to come out: `5`, `5 frames`, `200 ms`.

    Raises:
        InputError: Not such a text, or the device has no picture there.
        UnknownItemError: No such device.
    """
    found, placed, path = re.fullmatch(_DELAY, text.strip().lower()), PlanIndex(plan).placed(device), _path(by_sdi)
    if found is None:
        raise InputError(f"'{text.strip()}' is no picture delay: write 5 for frames, or 200 ms")
    if not _has_picture(placed, path):
        raise InputError(f"{placed.label} has no {'SDI' if by_sdi else 'HDMI'} output")
    frames = number(found["much"])
    if found["unit"] == "ms":
        frames *= float(FrameRate.parse(plan.defaults.frame_rate).ratio) / 1000
    figure = Figure(round(frames, 3), WITHIN_PERCENT, Provenance.MEASURED, "USER")
    return SetFigure(device=device, path=path, figure=figure)


def _path(by_sdi: bool) -> str:
    return SDI_DELAY if by_sdi else PICTURE_DELAY


def _has_picture(placed: PlacedDevice, path: str) -> bool:
    return any(named.path == path for named in figures_of(placed.device_class))


def break_(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`dinner at 12:30, 45 min`; one of the same name is moved."""
    label, _, when = rest.partition(" at ")
    if not label.strip() or not when.strip():
        raise NotUnderstoodError(f"'{rest.strip()}': say when: break dinner at 12:30, 45 min")
    found = _LENGTH.search(when)
    length_min = int(found[1]) if found else USUAL_BREAK_MIN
    at_min = of_day(plan, minutes(when[: found.start()] if found else when))
    known = next((item for item in plan.breaks.values() if item.label.lower() == label.strip().lower()), None)
    yield single(
        plan, SetBreak(label=label.strip(), at_min=at_min, length_min=length_min, id=known.id if known else None)
    )
