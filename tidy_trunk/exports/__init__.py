"""What was worked out, as files for other programs: each a function from values to bytes. Opens nothing."""

from collections.abc import Callable, Mapping
from typing import Final

from tidy_trunk.exports.calendar import Entry, read_calendar, write_calendar
from tidy_trunk.exports.cells import plain_cell
from tidy_trunk.exports.day_sheets import LARGEST_DAY_SHEET, read_day_sheet
from tidy_trunk.exports.edl import edl
from tidy_trunk.exports.offsets import offsets_csv
from tidy_trunk.exports.placed import PlacedFile, PlacedTimeline
from tidy_trunk.exports.stock_table import read_stock_table, write_stock_table
from tidy_trunk.exports.timeline import otio_timeline

EXPORTS: Final[Mapping[str, Callable[[PlacedTimeline], bytes]]] = {
    "csv": offsets_csv,
    "edl": edl,
    "otio": otio_timeline,
}
"""What a timeline is written as, by the end of the file's name. ASSUMED_"""

__all__ = [
    "EXPORTS",
    "LARGEST_DAY_SHEET",
    "Entry",
    "PlacedFile",
    "PlacedTimeline",
    "edl",
    "offsets_csv",
    "otio_timeline",
    "plain_cell",
    "read_calendar",
    "read_day_sheet",
    "read_stock_table",
    "write_calendar",
    "write_stock_table",
]
