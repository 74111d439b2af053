"""`day`: what to do when in the course of a plan's day."""

from datetime import UTC, datetime
from pathlib import Path

from tidy_trunk.cli.output import show
from tidy_trunk.core.day import plan_day
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.media.files import new_file
from tidy_trunk.media.plan_files import load_plan
from tidy_trunk.reports import day_calendar, day_csv, day_sheet, day_text
from tidy_trunk.results.day import DayOut


def show_day(plan_file: Path, ics: Path | None, pdf: Path | None, table: Path | None, paper: str, as_json: bool) -> int:
    """Print the day, and write it as calendar, sheet or table; 1 where something cannot be kept, else 0."""
    plan = load_plan(plan_file)
    if not plan.set_ups:
        raise InputError("no set-up is planned: type one, such as set-up 12C at 10:30, 4 takes of 3 min")
    report = Report(trace_plan(plan))
    day = DayOut.from_core(report.index, plan_day(report))
    now = datetime.now(UTC)
    if ics is not None:
        _write(ics, day_calendar(plan.name, day, now.date(), now))
    if pdf is not None:
        _write(pdf, day_sheet(plan.name, day, paper=paper, made=now))
    if table is not None:
        _write(table, day_csv(day))
    show(day, day_text(plan.name, day), as_json)
    return 1 if day.unkept else 0


def _write(path: Path, data: bytes) -> None:
    with new_file(path) as stream:
        stream.write(data)
