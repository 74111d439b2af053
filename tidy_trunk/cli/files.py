"""`files`: the recordings of a day's folder, held against a log, and copied with labels that are right."""

from dataclasses import asdict
from pathlib import Path
from tempfile import gettempdir

from tidy_trunk.cli.output import NOTHING_FOUND, show
from tidy_trunk.cli.report import load_log
from tidy_trunk.cli.verify import tell_share
from tidy_trunk.media.copying import copy_files
from tidy_trunk.results.files import FilesOut, copy_orders, files_beside
from tidy_trunk.sync.beside_recorder import read_day
from tidy_trunk.words.files import copy_words


def show_files(folder: Path, log_file: Path | None, with_sound: bool, as_json: bool) -> int:
    """Print files, or what does not agree with the log; 1 where something does not, 3 where there are no recordings."""
    log = None if log_file is None else load_log(log_file)
    files = read_day(folder, Path(gettempdir()), tell_share, with_sound=with_sound)
    found = files_beside(files, log)
    show(found, _words(found, has_log=log is not None), as_json)
    if not found.files:
        return NOTHING_FOUND
    return 1 if found.findings else 0


def copy_day(folder: Path, log_file: Path | None, into: Path, second: Path | None, mono: bool, as_json: bool) -> int:
    """Copy files, with the labels of the log's takes where there is a log; 1 where one has no good copy."""
    log = None if log_file is None else load_log(log_file)
    files = read_day(folder, Path(gettempdir()), lambda share: None, with_sound=False)
    copies = copy_files(folder, copy_orders(files, log, mono=mono), into, second, tell_share)
    bad = [one for one in copies if not one.is_good]
    lines = [f"{one.path}: {one.problem}" for one in bad]
    lines.append(copy_words(len(copies), len(bad), has_second=second is not None))
    show({"copies": [asdict(one) for one in copies]}, "\n".join(lines), as_json)
    return 1 if bad else 0


def _words(found: FilesOut, *, has_log: bool) -> str:
    if has_log:
        lines = [f"{item.title}. {item.text}" for item in found.findings]
    else:
        lines = [f"{file.path}  {file.seconds:.1f} s  {file.scene}-{file.take}".rstrip("- ") for file in found.files]
    return "\n".join([*lines, found.summary])
