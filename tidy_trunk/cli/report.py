"""`report`: the sound report of a log that was exported."""

from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from pydantic import ValidationError

from tidy_trunk.cli.output import show
from tidy_trunk.errors import FormatError
from tidy_trunk.media.files import new_file, reading
from tidy_trunk.reports import report_csv, report_sheet, report_text
from tidy_trunk.results.log import LogOut

LARGEST_BYTES: Final = 50_000_000
"""ASSUMED_ largest log that is read: one of 20,000 entries has a fifth of it."""


def show_report(log_file: Path, pdf: Path | None, table: Path | None, paper: str, as_json: bool) -> None:
    """Print the report of a log, and write it as paper or table."""
    log = load_log(log_file)
    made = datetime.fromisoformat(log.takes[-1].begins) if log.takes else datetime(2000, 1, 1, tzinfo=UTC)
    if pdf is not None:
        data = report_sheet(log, paper=paper, made=made)
        with new_file(pdf) as stream:
            stream.write(data)
    if table is not None:
        with new_file(table) as stream:
            stream.write(report_csv(log))
    show(log, report_text(log), as_json)


def load_log(path: Path) -> LogOut:
    """A log as the application exports it. Raises FormatError: it is none."""
    with reading(path) as stream:
        data = stream.read(LARGEST_BYTES + 1)
    if len(data) > LARGEST_BYTES:
        raise FormatError(f"{path}: this is longer than any log")
    try:
        return LogOut.model_validate_json(data)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        raise FormatError(f"{path}: this is no log{f', at {where}' if where else ''}: {first['msg']}") from error
