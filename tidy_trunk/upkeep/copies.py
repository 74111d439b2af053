"""Copies of all jobs that make themselves, once a day, and of which old ones go."""

import threading
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

from tidy_trunk.errors import NotFoundError, TidyTrunkError
from tidy_trunk.store import Database
from tidy_trunk.upkeep.backup import write_archive
from tidy_trunk.upkeep.log import note

DAYS, WEEKS, MONTHS = 7, 4, 6
EVERY: Final = timedelta(days=1)
"""ASSUMED_ how often a copy is made: what a day's work would cost to do again."""

COPIES: Final = "copies"
"""ASSUMED_ name of their folder, in the data folder."""

LOOK_S: Final = 600.0
"""ASSUMED_ how often to look whether one is due: a laptop sleeps, and wakes at any time."""

NAME: Final = "%Y-%m-%d-%H%M%S.backup"
"""ASSUMED_ name of a copy, in UTC: the time when it was made."""

BEFORE_UPDATE: Final = "before-update-"
"""ASSUMED_ beginning of the names of copies that were made by a newer version before it changed anything; they stay."""


@dataclass(frozen=True, slots=True)
class Copy:
    """A copy on this machine's disk."""

    name: str
    made: datetime
    size: int


def to_keep(moments: Iterable[datetime]) -> frozenset[datetime]:
    """Of copies, the newest of each of the last 7 days, 4 weeks and 6 months that have any: at most 17."""
    newest_first = sorted(moments, reverse=True)
    kept: set[datetime] = set()
    for most, period in (
        (DAYS, lambda moment: moment.date()),
        (WEEKS, lambda moment: moment.isocalendar()[:2]),
        (MONTHS, lambda moment: (moment.year, moment.month)),
    ):
        seen: dict[object, datetime] = {}
        for moment in newest_first:
            seen.setdefault(period(moment), moment)
        kept |= set(list(seen.values())[:most])
    return frozenset(kept)


def copies_in(folder: Path) -> list[Copy]:
    """The copies in a folder, the newest first."""
    found = []
    for path in folder.iterdir() if folder.is_dir() else ():
        try:
            made = datetime.strptime(path.name.removeprefix(BEFORE_UPDATE), NAME).replace(tzinfo=UTC)
        except ValueError:
            continue  # not ours, or one that is being written
        found.append(Copy(path.name, made, path.stat().st_size))
    return sorted(found, key=lambda copy: copy.made, reverse=True)


class CopyService:
    """Copies of the jobs without their sounds, which would fill a disk seventeen times over; and everything, when asked for."""

    def __init__(
        self,
        home: Path,
        database: Database,
        recordings: Path,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._folder = home / COPIES
        self._database = database
        self._recordings = recordings
        self._now = now
        self._one_at_a_time = threading.Lock()
        self.trouble = ""
        """Why the last one could not be made; empty where it was."""

    def all(self) -> list[Copy]:
        """The newest first."""
        return copies_in(self._folder)

    def path(self, name: str) -> Path:
        """Raises NotFoundError."""
        if name not in {copy.name for copy in self.all()}:
            raise NotFoundError(f"there is no copy '{name[:60]}'")
        return self._folder / name

    def make(self) -> Copy:
        """One now; those that are not to be kept go. Raises SetupError or FormatError: it cannot be made."""
        with self._one_at_a_time:
            name = self._now().strftime(NAME)
            self._write(name)
            copies = [copy for copy in self.all() if not copy.name.startswith(BEFORE_UPDATE)]
            keep = to_keep(copy.made for copy in copies)
            for copy in copies:
                if copy.made not in keep:
                    (self._folder / copy.name).unlink(missing_ok=True)
            self.trouble = ""
            return copies[0]

    def make_before_update(self) -> None:
        """One of data of an older version, before they are brought to this one's shape. Raises as `make`."""
        self._write(BEFORE_UPDATE + self._now().strftime(NAME))

    def _write(self, name: str) -> None:
        self._folder.mkdir(parents=True, exist_ok=True)
        write_archive(self._database, self._recordings, self._folder / name, with_sounds=False)

    def make_if_due(self) -> None:
        """One where the newest is a day old. What goes wrong is kept in `trouble`, and tried again later."""
        newest = next(iter(self.all()), None)
        if newest is not None and self._now() - newest.made < EVERY:
            return
        try:
            self.make()
        except (TidyTrunkError, OSError) as error:
            self.trouble = error.message if isinstance(error, TidyTrunkError) else str(error.strerror or error)
            note("no daily copy", error)

    def keep_up(self, done: threading.Event) -> None:
        """Until it is done: on a thread of its own."""
        while not done.is_set():
            self.make_if_due()
            done.wait(LOOK_S)

    @contextmanager
    def everything(self) -> Iterator[Path]:
        """All with its sounds, as long as this is open. Raises as `make`."""
        with TemporaryDirectory() as place:
            path = Path(place) / f"tidy-trunk-{self._now():%Y-%m-%d}.backup"
            write_archive(self._database, self._recordings, path)
            yield path
