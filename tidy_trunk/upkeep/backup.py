"""All data in one file, made while the application runs; and all of it back from there, into a folder that holds none."""

import hashlib
import json
import shutil
import zipfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import IO, Any, Final
from uuid import UUID

from tidy_trunk.errors import FormatError, SetupError
from tidy_trunk.media.files import at_file, new_file
from tidy_trunk.media.sounds import Media
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, MediaStore, PrivateCluster, dump, is_current, load, migrate
from tidy_trunk.upkeep.home import RESTORING, alone

FORM: Final = "tidy-trunk-backup-1"
"""ASSUMED_ name of the form of an archive: another form gets another number."""

MANIFEST, DUMP, SOUNDS = "manifest.json", "database.dump", "sounds/"

_PIECE = 1024 * 1024


@dataclass(frozen=True, slots=True)
class ArchiveContents:
    """What an archive holds. identity: the name of the data; made: when, ISO 8601."""

    identity: str
    made: str
    jobs: int
    sounds: int


def back_up(home: Path, settings: EnvironmentSettings, path: Path) -> ArchiveContents:
    """Write everything into one archive and read it again; it takes its name when both are done.

    The database is dumped as it was at one moment; the sounds that it lists go with it, but for those deleted meanwhile.

    Raises:
        SetupError: The data cannot be reached.
        FormatError: The archive cannot be written.
    """
    with _reached(home, settings) as url, closing(Database(url)) as database:
        if not is_current(database):
            raise SetupError("the program that runs on these data is older than this one: end it, and back up again")
        return write_archive(database, home / "recordings", path)


def write_archive(database: Database, recordings: Path, path: Path, *, with_sounds: bool = True) -> ArchiveContents:
    """The same of a database that is at hand. Without sounds it is small: jobs, their history, walks, and what was found in
    recordings.

    recordings: folder of their sounds. Raises as `back_up`.
    """
    with new_file(path) as file, TemporaryDirectory() as place:
        store = MediaStore(database)
        identity, jobs = str(store.identity()), store.count_jobs()
        dumped = Path(place) / DUMP
        dump(database.url, dumped)
        # Looked up after the dump: a sound too many does no harm, one that the dump lists must not be missing.
        names = {str(recording_id) for recording_id in store.listed()} if with_sounds else set()
        kept = Media.kept_below(recordings, identity)
        found = sorted(kept.iterdir()) if with_sounds and kept.is_dir() else []
        sounds = [item for item in found if item.name.partition(".")[0] in names]
        digests: dict[str, str] = {}
        with zipfile.ZipFile(file, "w", zipfile.ZIP_STORED, allowZip64=True) as archive:
            for name, source in ((DUMP, dumped), *((f"{SOUNDS}{item.name}", item) for item in sounds)):
                try:
                    with source.open("rb") as read, archive.open(name, "w", force_zip64=True) as write:
                        digests[name] = _copied(read, write)
                except FileNotFoundError:
                    continue  # deleted by somebody meanwhile
            contents = ArchiveContents(
                identity, datetime.now(UTC).isoformat(timespec="seconds"), jobs, len(digests) - 1
            )
            manifest = {"form": FORM, "identity": identity, "made": contents.made, "jobs": jobs, "sha256": digests}
            archive.writestr(MANIFEST, json.dumps(manifest, indent=1))
        file.seek(0)
        _checked(file)
    return contents


def restore(home: Path, settings: EnvironmentSettings, path: Path) -> ArchiveContents:
    """Everything from an archive, into a data folder that holds nothing yet.

    Raises:
        SetupError: There are data already, or a database of one's own is named.
        FormatError: The archive is damaged, or none.
    """
    if settings.database_url:
        raise SetupError("a backup is restored into a folder of its own: take TIDY_TRUNK_DATABASE_URL away first")
    with at_file(path), path.open("rb") as file:
        manifest = _checked(file)
        cluster = PrivateCluster(home)
        if cluster.is_there or (home / "recordings").exists():
            raise SetupError(f"there are data in {home} already: give an empty folder by TIDY_TRUNK_HOME")
        with alone(home), _marked(home), zipfile.ZipFile(file) as archive, TemporaryDirectory() as place:
            kept = Media.kept_below(home / "recordings", manifest["identity"])
            kept.mkdir(parents=True)
            for name in manifest["sha256"]:
                target = Path(place) / DUMP if name == DUMP else kept / Path(name).name
                with archive.open(name) as read, target.open("wb") as write:
                    shutil.copyfileobj(read, write, _PIECE)
            try:
                load(cluster.start(), Path(place) / DUMP)
                database = Database(cluster.url)
                migrate(database)  # one of an older version is brought to this one's shape
                database.close()
            finally:
                cluster.stop()
    return ArchiveContents(manifest["identity"], manifest["made"], manifest["jobs"], len(manifest["sha256"]) - 1)


@contextmanager
def _reached(home: Path, settings: EnvironmentSettings) -> Iterator[str]:
    """The address of the data: of the server that runs, or of one that is started for it."""
    if settings.database_url:
        yield settings.database_url
        return
    cluster = PrivateCluster(home)
    if not cluster.is_there:
        raise SetupError(f"there are no data in {home}: nothing to back up")
    if cluster.join():
        yield cluster.url
        return
    with alone(home):
        url = cluster.start()
        try:
            database = Database(url)
            migrate(database)
            database.close()
            yield url
        finally:
            cluster.stop()


@contextmanager
def _marked(home: Path) -> Iterator[None]:
    """The mark stays where what is done under it does not come to its end."""
    (home / RESTORING).touch()
    yield
    (home / RESTORING).unlink()


def _copied(read: IO[bytes], write: IO[bytes]) -> str:
    digest = hashlib.sha256()
    while piece := read.read(_PIECE):
        digest.update(piece)
        write.write(piece)
    return digest.hexdigest()


def _checked(file: IO[bytes]) -> dict[str, Any]:
    """What an archive says that it holds, once each part was read and found to be that. Raises FormatError."""
    try:
        with zipfile.ZipFile(file) as archive:
            manifest: dict[str, Any] = json.loads(archive.read(MANIFEST))
            if manifest["form"] != FORM:
                raise FormatError(f"this is a backup of another form, {manifest['form']}: update the program")
            UUID(manifest["identity"])  # which names a folder
            if set(archive.namelist()) != {MANIFEST, *manifest["sha256"]} or DUMP not in manifest["sha256"]:
                raise FormatError("this backup does not hold what it says: it is damaged")
            for name, wanted in manifest["sha256"].items():
                digest = hashlib.sha256()
                with archive.open(name) as read:
                    while piece := read.read(_PIECE):
                        digest.update(piece)
                if digest.hexdigest() != wanted:
                    raise FormatError(f"{name} in this backup is damaged: nothing was restored")
    except (zipfile.BadZipFile, KeyError, ValueError, OSError, EOFError, TypeError) as error:
        raise FormatError("this is no backup of Tidy Trunk, or it is damaged: nothing was restored") from error
    return manifest
