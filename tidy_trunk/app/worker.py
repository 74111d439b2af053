"""A worker without a server: reads what was dropped in on any server of the same database, on this machine or another."""

import signal
import threading

from tidy_trunk.errors import SetupError
from tidy_trunk.media.sounds import Media
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, MediaStore, PrivateCluster, is_current
from tidy_trunk.tasks.worker import Worker
from tidy_trunk.upkeep.log import WORKER, close_log, note, open_log


def work() -> None:
    """Until it is interrupted.

    Raises:
        SetupError: There is no database, it is of another version, or the folder of recordings is not the one that the server
            has; the message says what to do.
    """
    settings = EnvironmentSettings()
    database = Database(settings.database_url or _joined(settings))
    log = open_log(settings.home, WORKER)
    try:
        if not is_current(database):
            raise SetupError("the database is of another version of the program: start the newest ./tidy serve first")
        store = MediaStore(database)
        if not Media.kept_below(settings.recordings, str(store.identity())).exists():
            raise SetupError(
                f"the recordings of this database are not in {settings.recordings}: set TIDY_TRUNK_MEDIA to the folder that "
                "the server has, as it is called here"
            )
        worker = Worker(database, Media(settings.recordings, store), settings.at_once)
        ended = threading.Event()
        for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
            signal.signal(number, lambda *_: ended.set())
        worker.start()
        note("worker")
        print(f"Working on what is dropped in, {settings.at_once} at once (end with Ctrl-C)", flush=True)
        ended.wait()
        for name in worker.stop():
            print(f"tidy: {name} was being read: another worker begins it anew", flush=True)
    finally:
        close_log(log)
        database.close()


def _joined(settings: EnvironmentSettings) -> str:
    """The database that a server on this machine runs in the data folder."""
    cluster = PrivateCluster(settings.home)
    if not cluster.join():
        raise SetupError(
            f"no server runs on {settings.home}: start ./tidy serve there; or set TIDY_TRUNK_DATABASE_URL to the database of "
            "another machine"
        )
    return cluster.url
