"""A day as iCalendar, written and read. Source: [RFC5545]"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta, tzinfo
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from tidy_trunk.errors import FormatError


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """One entry of a calendar. at_min: minutes since the midnight that its day began with, as a watch there counts them."""

    id: str
    title: str
    text: str
    at_min: float
    length_min: float


def moment(day: date, zone: str, at_min: float) -> datetime:
    """A moment of a day. Minutes go by: in the night in which clocks are set forward or back they are those that really pass.

    `zone`: "" is a time that counts wherever one is.
    """
    midnight = datetime.combine(day, time(), tzinfo=_zone(zone))
    if midnight.tzinfo is None:
        return midnight + timedelta(minutes=at_min)
    utc = midnight.astimezone(UTC) + timedelta(minutes=at_min)
    return utc.astimezone(midnight.tzinfo)


def _zone(name: str) -> tzinfo | None:
    return ZoneInfo(name) if name else None


def write_calendar(name: str, day: date, zone: str, entries: Sequence[Entry], made: datetime) -> bytes:
    """Entries of a day as a calendar; `made` is the moment that each says it was written at."""
    calendar = Calendar()
    calendar.add("prodid", "-//Tidy Trunk//day//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", f"{day.isoformat()}-{entry.id}@tidy-trunk")
        event.add("dtstamp", made)
        begins, ends = (moment(day, zone, at) for at in (entry.at_min, entry.at_min + entry.length_min))
        if _comes_twice(begins) or _comes_twice(ends):
            begins, ends = begins.astimezone(UTC), ends.astimezone(UTC)
        event.add("dtstart", begins.replace(microsecond=0))
        event.add("dtend", ends.replace(microsecond=0))
        event.add("summary", entry.title)
        if entry.text:
            event.add("description", entry.text)
        calendar.add_component(event)
    if zone:
        calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _comes_twice(at: datetime) -> bool:
    """Whether it lies in the hour that comes twice when clocks are set back, of which a calendar can only name the first. [RFC5545]"""
    return at.utcoffset() != at.replace(fold=1 - at.fold).utcoffset()


def read_calendar(data: bytes, day: date, zone: str) -> list[Entry]:
    """The entries of a calendar that lie on a day or begin on it, by their beginning.

    Raises:
        FormatError: It is none.
    """
    try:
        calendar = Calendar.from_ical(data)
        events = [(event, event.decoded("dtstart"), event.decoded("dtend", None)) for event in calendar.walk("VEVENT")]
    except (ValueError, KeyError, IndexError) as error:
        raise FormatError(f"this is no calendar: {error}") from error
    found = []
    for number, (event, begins, ends) in enumerate(events):
        if not isinstance(begins, datetime):
            continue  # a whole day
        at_min = _minutes(begins, day, zone)
        length = _minutes(ends, day, zone) - at_min if isinstance(ends, datetime) else 0.0
        if 0 <= at_min < 48 * 60:
            found.append(
                Entry(
                    id=str(number),
                    title=str(event.get("summary", "")),
                    text=str(event.get("description", "")),
                    at_min=at_min,
                    length_min=length,
                )
            )
    return sorted(found, key=lambda entry: entry.at_min)


def _minutes(begins: datetime, day: date, zone: str) -> float:
    """The inverse of `moment`; a time without a zone is that of the place."""
    if not zone:
        return (begins.replace(tzinfo=None) - datetime.combine(day, time())).total_seconds() / 60
    there = begins if begins.tzinfo is not None else begins.replace(tzinfo=ZoneInfo(zone))
    return (there.astimezone(UTC) - moment(day, zone, 0).astimezone(UTC)).total_seconds() / 60
