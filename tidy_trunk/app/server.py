"""Starting and ending the application with its database."""

import gc
import platform
import signal
import socket
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from types import FrameType
from typing import Final

import uvicorn

from tidy_trunk import __version__
from tidy_trunk.app.demo import foundry, own_equipment
from tidy_trunk.equipment import write_class
from tidy_trunk.errors import SetupError
from tidy_trunk.services.container import Services, services_on
from tidy_trunk.services.nearby import Nearby, own_address, own_key
from tidy_trunk.settings import Settings
from tidy_trunk.store import Database, PrivateCluster, is_behind, migrate
from tidy_trunk.upkeep.copies import CopyService
from tidy_trunk.upkeep.home import alone
from tidy_trunk.upkeep.log import close_log, note, open_log

COLLECT_EVERY: Final = 50_000
"""ASSUMED_ new objects between two looks of the collector: a few evaluations of a large plan."""

PATIENCE_S: Final = 5
"""ASSUMED_ time that requests have to come to their end when the program is: an upload that has stalled never does."""

LOOPBACK, EVERYWHERE = "127.0.0.1", "0.0.0.0"

WATCH_S: Final = 1.0
"""ASSUMED_ how often to look whether PostgreSQL is alive: short beside a person's patience."""


def serve(port: int, *, demo: bool, nearby: bool = False) -> None:
    """Run until interrupted.

    Args:
        nearby: Answer on the set's own network too, to whoever brings the key.

    Raises:
        SetupError: It cannot start; the message says why and what to do.
    """
    from tidy_trunk.api import create_app

    settings = Settings()
    if not (settings.web / "index.html").exists():
        raise SetupError(f"the front end is not built in {settings.web}: start with ./tidy, which builds it")
    home = settings.home / "demo" if demo else settings.home
    with alone(home), _logged(home), _database(settings, home) as database:
        update(database, home)
        recordings = home / "recordings" if demo else settings.recordings
        services = services_on(database, home, recordings, settings.at_once)
        if demo and not services.jobs.all():
            services.jobs.create(foundry(), "The demo job")
            services.equipment.save([(item.label, write_class(item)) for item in own_equipment()])
        listener = _listen(port, EVERYWHERE if nearby else LOOPBACK)
        taken = listener.getsockname()[1]
        if port not in (0, taken):
            print(f"tidy: port {port} is taken by another program: look at the address", file=sys.stderr, flush=True)
        print(f"Tidy Trunk is at http://{LOOPBACK}:{taken} (end with Ctrl-C)", flush=True)
        guests = Nearby(f"http://{own_address()}:{taken}", own_key(home)) if nearby else None
        if guests is not None:
            print(f"For telephones on this network: {guests.link('')}", flush=True)
            print(
                "Who has that address can read and change every job: use the set's own network, not a guest's.",
                flush=True,
            )
        patient_collector()
        services.start()
        done = threading.Event()
        copier = threading.Thread(target=services.copies.keep_up, args=(done,), name="copies", daemon=True)
        copier.start()
        config = uvicorn.Config(
            create_app(services, settings.web, guests),
            log_level="warning",
            access_log=False,
            server_header=False,
            timeout_graceful_shutdown=PATIENCE_S,
        )
        try:
            Server(config, services).run(sockets=[listener])
        finally:
            done.set()
            for name in services.close():
                print(f"tidy: {name} was being read: that begins anew at the next start", file=sys.stderr, flush=True)
            copier.join(PATIENCE_S)


def update(database: Database, home: Path) -> None:
    """Data of an older version are brought to this one's shape, once there is a copy of them. Raises SetupError."""
    if is_behind(database):
        CopyService(home, database, home / "recordings").make_before_update()
        note("update")
    migrate(database)


class Server(uvicorn.Server):
    """Windows that wait for news would keep it from ending: they are told first."""

    def __init__(self, config: uvicorn.Config, services: Services) -> None:
        super().__init__(config)
        self._services = services

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._services.news.close()
        super().handle_exit(sig, frame)


def patient_collector() -> None:
    """A plan is thousands of small values that live and die together: looking for circles among them every 700 is waste.

    What stands after start-up is not looked at again at all.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(COLLECT_EVERY, 10, 10)


@contextmanager
def _logged(home: Path) -> Iterator[None]:
    """The log stands open, and says when the program began and how it ended."""
    handler = open_log(home)
    note("start", version=__version__, python=platform.python_version())
    try:
        yield
    except SetupError as error:
        note("cannot start", error)
        raise
    finally:
        note("end")
        close_log(handler)


@contextmanager
def _database(settings: Settings, home: Path) -> Iterator[Database]:
    if settings.database_url:
        database = Database(settings.database_url)
        try:
            yield database
        finally:
            database.close()
        return
    cluster = PrivateCluster(home)
    # A polite kill must end PostgreSQL too, also in the moment before uvicorn takes the signals over; and so must the end of
    # the terminal that it was started in.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    signal.signal(signal.SIGHUP, lambda *_: signal.raise_signal(signal.SIGTERM))
    database = Database(cluster.start())
    done = threading.Event()
    watcher = threading.Thread(target=_keep_alive, args=(cluster, done), daemon=True)
    watcher.start()
    try:
        yield database
    finally:
        done.set()
        watcher.join()
        database.close()
        cluster.stop()


def _keep_alive(cluster: PrivateCluster, done: threading.Event) -> None:
    """Bring PostgreSQL back when it dies under us: acknowledged edits are in its log."""
    while not done.wait(WATCH_S):
        try:
            if cluster.revive():
                print("tidy: PostgreSQL had ended and was started again", file=sys.stderr, flush=True)
                note("PostgreSQL had ended and was started again")
        except SetupError as error:
            note("PostgreSQL cannot be started", error)
            print(f"tidy: {error.message}", file=sys.stderr, flush=True)


def _listen(port: int, host: str = LOOPBACK) -> socket.socket:
    """A listening socket, on loopback unless more is asked for; another port where the wanted one is taken."""
    for candidate in (port, 0):
        # Named as TCP, so that asyncio sends at once: else each answer on a kept connection waits 40 ms for the other end.
        listener = socket.socket(proto=socket.IPPROTO_TCP)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((host, candidate))
            listener.listen()  # from here on who comes early waits, and is not turned away
        except (OSError, OverflowError):
            listener.close()
            continue
        return listener
    raise SetupError(f"no free port on {host}")
