"""`files`: the recordings of a day's folder, held against a log."""

from pathlib import Path

from tidy_trunk.cli.output import NOTHING_FOUND, show
from tidy_trunk.cli.report import load_log
from tidy_trunk.cli.verify import tell_share
from tidy_trunk.media.day_files import day_files
from tidy_trunk.results.files import FilesOut, files_beside
from tidy_trunk.words.numbers import many


def show_files(folder: Path, log_file: Path | None, as_json: bool) -> int:
    """Print files, or what does not agree with the log; 1 where something does not, 3 where there are no recordings."""
    log = None if log_file is None else load_log(log_file)
    found = files_beside(day_files(folder, tell_share), log)
    show(found, _words(found, has_log=log is not None), as_json)
    if not found.files:
        return NOTHING_FOUND
    return 1 if found.findings else 0


def _words(found: FilesOut, *, has_log: bool) -> str:
    if not has_log:
        lines = [f"{file.path}  {file.seconds:.1f} s  {file.scene}-{file.take}".rstrip("- ") for file in found.files]
    else:
        lines = [f"{item.title}. {item.text}" for item in found.findings]
        with_files = sum(bool(item.files) for item in found.takes)
        lines.append(
            f"{with_files} of {many(len(found.takes), 'take')} have files, {many(len(found.findings), 'difference')}"
        )
    return "\n".join([*lines, many(len(found.files), "recording")])
