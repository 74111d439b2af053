"""Day sheets of other programs, read: calendars and tables."""

import csv
import io
from collections.abc import Mapping
from datetime import date
from typing import Final

from tidy_trunk.core.command import NotUnderstoodError, SheetLine, minutes
from tidy_trunk.errors import FormatError
from tidy_trunk.exports.calendar import read_calendar

LARGEST_DAY_SHEET: Final = 2_000_000
"""ASSUMED_ largest day sheet: that of a long day has some ten thousand bytes."""

MOST_LINES: Final = 300
"""ASSUMED_ most lines of a day."""

COLUMNS: Final = ("what", "at", "minutes", "takes", "take_min")
"""Of a table: what and at are wanted, the others may be missing. ASSUMED_"""


def read_day_sheet(data: bytes, day: date, zone: str) -> list[SheetLine]:
    """A calendar, or a table with columns `what`, `at` (8:30) and, where they are known, `minutes`, `takes`, `take_min`.

    Raises:
        FormatError: Neither, or a line that cannot be; with its number.
    """
    if len(data) > LARGEST_DAY_SHEET:
        raise FormatError("this is longer than any day sheet")
    lines = _calendar(data, day, zone) if data.lstrip().startswith(b"BEGIN:VCALENDAR") else _table(data)
    if len(lines) > MOST_LINES:
        raise FormatError(f"there are more than {MOST_LINES} lines in it: one day at a time")
    return lines


def _calendar(data: bytes, day: date, zone: str) -> list[SheetLine]:
    return [
        SheetLine(title=entry.title, at_min=entry.at_min, length_min=entry.length_min)
        for entry in read_calendar(data, day, zone)
    ]


def _table(data: bytes) -> list[SheetLine]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise FormatError("this is neither a calendar nor a table in UTF-8") from error
    rows = csv.DictReader(io.StringIO(text), delimiter=";" if ";" in text.partition("\n")[0] else ",")
    names = [(name or "").strip().lower() for name in rows.fieldnames or ()]
    if not {"what", "at"} <= set(names):
        raise FormatError(f"this is no day sheet: its first line must name columns {', '.join(COLUMNS)}")
    found = []
    for number, row in enumerate(rows, start=2):
        values = {
            name: (value or "").strip()
            for name, value in zip(names, row.values(), strict=False)
            if not isinstance(value, list)
        }
        if values.get("what"):
            found.append(_line(values, number))
    return found


def _line(values: Mapping[str, str], number: int) -> SheetLine:
    try:
        at_min = minutes(values.get("at", ""))
    except NotUnderstoodError as error:
        raise FormatError(f"line {number}: {error.message}") from error
    return SheetLine(
        title=values["what"],
        at_min=at_min,
        length_min=_number(values.get("minutes", ""), number),
        takes=round(_number(values.get("takes", ""), number)),
        take_min=_number(values.get("take_min", ""), number),
    )


def _number(text: str, number: int) -> float:
    try:
        value = float(text.replace(",", ".")) if text else 0.0
    except ValueError as error:
        raise FormatError(f"line {number}: '{text[:20]}' is no number") from error
    if not 0 <= value <= 24 * 60:
        raise FormatError(f"line {number}: {text[:20]} must be between 0 and {24 * 60}")
    return value
