"""`./tidy backup` and `./tidy restore`."""

from dataclasses import asdict
from datetime import datetime
from pathlib import Path

from tidy_trunk.cli.output import show
from tidy_trunk.errors import SetupError
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.upkeep.backup import ArchiveContents, back_up, restore


def write_backup(path: Path | None, as_json: bool) -> None:
    settings = EnvironmentSettings()
    if path is None:
        folder = settings.home / "backups"
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise SetupError(f"cannot make {folder}: {error.strerror}. Name a file, or set TIDY_TRUNK_HOME") from error
        path = folder / f"tidy-trunk-{datetime.now():%Y-%m-%d-%H%M%S}.backup"
    _told(back_up(settings.home, settings, path), f"written and checked: {path}", as_json)


def read_backup(path: Path, as_json: bool) -> None:
    settings = EnvironmentSettings()
    _told(restore(settings.home, settings, path), f"restored into {settings.home}", as_json)


def _told(contents: ArchiveContents, done: str, as_json: bool) -> None:
    words = f"{contents.jobs} jobs and {contents.sounds} sounds of {contents.made[:16]}, {done}"
    show(asdict(contents), words, as_json)
