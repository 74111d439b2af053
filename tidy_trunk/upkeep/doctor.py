"""What stands where, whether it works, and what to do where it does not: for whoever has to help."""

import json
import platform
import shutil
import subprocess
import sys
import zipfile
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any, Final

from tidy_trunk import __version__
from tidy_trunk.errors import StoreUnavailableError, TidyTrunkError
from tidy_trunk.media.files import new_file
from tidy_trunk.media.uploads import SPARE_BYTES
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, MediaStore, PrivateCluster, is_current, queue_state
from tidy_trunk.upkeep.copies import COPIES, copies_in
from tidy_trunk.upkeep.log import FOLDER, last_lines

OLDEST_COPY: Final = timedelta(days=8)
"""ASSUMED_ age of the newest copy from which on it is worth a word: a week without work, and a day."""

MOST_ERRORS: Final = 10
"""ASSUMED_ errors that are shown: the last ones."""


@dataclass(frozen=True, slots=True)
class HealthCheck:
    """One thing that was looked at. advice: what to do; empty where it is well."""

    what: str
    found: str
    advice: str = ""


@dataclass(frozen=True, slots=True)
class Examination:
    """All that was looked at, and the last errors of the log, the newest last."""

    looks: tuple[HealthCheck, ...]
    errors: tuple[dict[str, Any], ...]

    @property
    def is_well(self) -> bool:
        return not any(look.advice for look in self.looks)


def examine(settings: EnvironmentSettings) -> Examination:
    """Look at everything, and change nothing."""
    home = settings.home
    looks = [
        HealthCheck("Tidy Trunk", __version__),
        HealthCheck("Python", f"{platform.python_version()} on {platform.system()} {platform.machine()}"),
        _front_end(settings),
        _folder(home),
        _disk(home),
        *_data(settings),
        _readers(),
        _copies(home),
    ]
    errors = [line for line in last_lines(home, 1000) if "error" in line or line.get("status", 0) >= 500]
    return Examination(tuple(looks), tuple(errors[-MOST_ERRORS:]))


def write_bundle(settings: EnvironmentSettings, found: Examination, path: Path) -> None:
    """What was found and the log in one file, to be handed on: no names, no keys, no sound. Raises FormatError."""
    with new_file(path) as file, zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("doctor.json", json.dumps(document(found), indent=1))
        for log in sorted((settings.home / FOLDER).glob("*.log*")):
            archive.write(log, f"{FOLDER}/{log.name}")


def document(found: Examination) -> dict[str, Any]:
    """The same as plain values."""
    return {
        "well": found.is_well,
        "looks": [{"what": look.what, "found": look.found, "advice": look.advice} for look in found.looks],
        "errors": list(found.errors),
    }


def _front_end(settings: EnvironmentSettings) -> HealthCheck:
    node = shutil.which("node")
    version = subprocess.run([node, "--version"], capture_output=True, text=True).stdout.strip() if node else "no Node"
    if (settings.web / "index.html").exists():
        return HealthCheck("Front end", f"built; {version}")
    return HealthCheck("Front end", f"not built; {version}", "start with ./tidy serve, which builds it")


def _folder(home: Path) -> HealthCheck:
    if not home.exists():
        return HealthCheck(
            "Data folder", f"{home} is not there yet", "start once with ./tidy serve; or set TIDY_TRUNK_HOME"
        )
    return HealthCheck("Data folder", str(home))


def _readers() -> HealthCheck:
    """What dropped-in files may reach: looked at in a process that confines itself."""
    with TemporaryDirectory() as place:
        command = [sys.executable, "-m", "tidy_trunk.tasks.confinement", place]
        done = subprocess.run(command, capture_output=True, text=True, cwd=Path(__file__).parents[2])
    try:
        holds = json.loads(done.stdout)
    except ValueError:
        return HealthCheck(
            "Files that are read", "cannot be looked at", "send the bundle to who looks after this program"
        )
    words = [
        "no network" if holds["network"] else "the network is open to them: this system gives no network namespaces",
        "their own folder alone" if holds["files"] else "all files that you can read: this kernel has no Landlock",
        f"{'all together half of the memory, ' if holds['memory'] else ''}each limited in memory and time",
    ]
    return HealthCheck("Files that are read", "; ".join(words))


def _disk(home: Path) -> HealthCheck:
    place = next(path for path in (home, *home.resolve().parents) if path.exists())
    free = shutil.disk_usage(place).free
    advice = "make room: recordings are refused, and soon edits too" if free < SPARE_BYTES else ""
    return HealthCheck("Disk", f"{free / 1e9:.1f} GB free", advice)


def _data(settings: EnvironmentSettings) -> list[HealthCheck]:
    if settings.database_url:
        return _database("of your own", settings.database_url)
    if not settings.home.exists():
        return [HealthCheck("Database", "none yet")]
    try:
        cluster = PrivateCluster(settings.home)
    except TidyTrunkError as error:
        return [HealthCheck("PostgreSQL", "cannot be used", error.message)]
    if not cluster.is_there:
        return [HealthCheck("Database", "none yet")]
    if not cluster.join():
        return [HealthCheck("Database", "not running: it is started with ./tidy serve")]
    return _database(f"running on port {cluster.port}", cluster.url)


def _database(where: str, url: str) -> list[HealthCheck]:
    database = Database(url)
    try:
        store = MediaStore(database)
        version, size = store.server()
        words = f"{where}, PostgreSQL {version}, {store.count_jobs()} jobs, {size / 1e6:.0f} MB"
        if not is_current(database):
            return [
                HealthCheck(
                    "Database", words, "another version of the program runs on it: end that, and start this one"
                )
            ]
        return [HealthCheck("Database", words), _queue(database)]
    except StoreUnavailableError as error:
        return [HealthCheck("Database", f"{where}, does not answer", error.message)]
    finally:
        database.close()


def _queue(database: Database) -> HealthCheck:
    state = queue_state(database)
    words = f"{state.workers} workers alive, {state.waiting} recordings wait, {state.reading} are being read"
    is_stuck = state.waiting and not state.workers
    return HealthCheck(
        "Queue",
        words,
        "nobody reads what waits: start ./tidy worker, or set TIDY_TRUNK_AT_ONCE above 0" if is_stuck else "",
    )


def _copies(home: Path) -> HealthCheck:
    copies = copies_in(home / COPIES)
    if not copies:
        return HealthCheck("Daily copies", "none yet: the first is made when the program runs")
    age = datetime.now(UTC) - copies[0].made
    advice = "start the program, and look at its page Backups" if age > OLDEST_COPY else ""
    return HealthCheck("Daily copies", f"{len(copies)}, the newest of {copies[0].made:%Y-%m-%d %H:%M} UTC", advice)
