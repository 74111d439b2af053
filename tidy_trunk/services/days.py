"""Time where a job is: its zone, the midnight from which its day counts, and its timecode."""

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta, tzinfo
from fractions import Fraction
from functools import cached_property
from typing import Final
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from tidy_trunk.core.base.timecode import FrameRate, Timecode, at_seconds, real_seconds
from tidy_trunk.core.log import LogEntry
from tidy_trunk.core.plan import Plan
from tidy_trunk.errors import InputError

DAY_S, HALF_DAY_S = 86_400.0, 43_200.0
"""Seconds of a day, and of half a day: the nearer way round midnight. [ST12-1]"""

BEFORE_CALL: Final = timedelta(hours=2)
"""ASSUMED_ how long before call a moment still belongs to the new day."""


@dataclass(frozen=True)
class DayClock:
    """The clock of a job's day.

    day: the date that its minutes count from; zone: of the place. read: what timecode somebody last read, and when.
    """

    plan: Plan
    day: date
    zone: tzinfo | None
    read: LogEntry | None = None

    @cached_property
    def midnight(self) -> datetime:
        return datetime.combine(self.day, time(), tzinfo=self.zone).astimezone(UTC)

    def minutes(self, moment: datetime) -> float:
        """Since the midnight that the day began with; they really pass, also in the night in which clocks are changed."""
        return (moment.astimezone(UTC) - self.midnight).total_seconds() / 60

    def clock(self, moment: datetime) -> str:
        """As a watch at the place shows it: `10:44:31`."""
        return moment.astimezone(self.zone).strftime("%H:%M:%S")

    def moment(self, seconds: float) -> datetime:
        """When the job's clock showed so many seconds since midnight, on this day."""
        rate = FrameRate.parse(self.plan.defaults.frame_rate)
        if self.read is not None:
            passed = seconds - float(real_seconds(Timecode.parse(self.read.timecode, rate)))
            return self.read.made + timedelta(seconds=(passed + HALF_DAY_S) % DAY_S - HALF_DAY_S)
        return datetime.combine(self.day, time(), tzinfo=self.zone).astimezone(UTC) + timedelta(seconds=seconds)

    def timecode(self, moment: datetime) -> str:
        """As the job's clock counts: time of day, or on from what was read last."""
        rate = FrameRate.parse(self.plan.defaults.frame_rate)
        if self.read is not None:
            passed = Fraction((moment - self.read.made).total_seconds()).limit_denominator(1000)
            return str(at_seconds(real_seconds(Timecode.parse(self.read.timecode, rate)) + passed, rate))
        local = moment.astimezone(self.zone)
        seconds = Fraction(local.hour * 3600 + local.minute * 60 + local.second) + Fraction(local.microsecond, 10**6)
        return str(at_seconds(seconds, rate))


def day_clock(plan: Plan, now: datetime, newest: datetime | None = None, read: LogEntry | None = None) -> DayClock:
    """The clock of a plan's day. `newest`: the last moment that was logged: of a plan without a date, that is its day.

    Raises InputError: a zone that nobody knows.
    """
    zone = zone_of(plan)
    if plan.defaults.date:
        day = date.fromisoformat(plan.defaults.date)
    else:
        begins = timedelta(minutes=plan.defaults.day_begins_min) - BEFORE_CALL
        day = ((newest or now).astimezone(zone) - begins).date()
    return DayClock(plan, day, zone, read)


def zone_of(plan: Plan) -> tzinfo | None:
    """Of the place; None is that of this machine. Raises InputError."""
    try:
        return ZoneInfo(plan.defaults.zone) if plan.defaults.zone else None
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise InputError(
            f"'{plan.defaults.zone}' is no time zone: write its name, such as set job zone Europe/Vienna"
        ) from error
