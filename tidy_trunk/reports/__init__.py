"""What goes out of the house: a day, a sound report, as paper, table, calendar or text. From results to bytes; opens nothing."""

from tidy_trunk.reports.day import day_calendar, day_csv, day_sheet, day_text

__all__ = ["day_calendar", "day_csv", "day_sheet", "day_text"]
