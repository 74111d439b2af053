"""Starting and ending the application with its database."""

import asyncio
import gc
import os
import platform
import signal
import socket
import ssl
import sys
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from types import FrameType
from typing import Final

import uvicorn

from tidy_trunk import __version__
from tidy_trunk.app.certificates import own_certificate
from tidy_trunk.app.connections import (
    HEADERS_S,
    MOST_AT_HOME,
    MOST_GUESTS,
    MOST_OF_ONE,
    WAITING,
    Listener,
    PunctualProtocol,
    allow_many_files,
)
from tidy_trunk.app.demo import foundry, own_equipment
from tidy_trunk.equipment import write_class
from tidy_trunk.errors import SetupError
from tidy_trunk.services.container import Services, services_on
from tidy_trunk.services.guests import LocalNetwork
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, PrivateCluster, is_behind, migrate
from tidy_trunk.upkeep.copies import CopyService
from tidy_trunk.upkeep.home import alone
from tidy_trunk.upkeep.log import close_log, note, open_log

COLLECT_EVERY: Final = 50_000
"""ASSUMED_ new objects between two looks of the collector: a few evaluations of a large plan."""

PATIENCE_S: Final = 2
"""ASSUMED_ time that requests have to come to their end when the program is: an upload that has stalled never does."""

KEPT_OPEN_S: Final = 15
"""ASSUMED_ time for which a connection is kept for the next request: longer than clients keep theirs, so that none meets its end."""

LAST_S: Final = 3.0
"""ASSUMED_ time after which the program ends though something goes on computing: with what is left to do, within 5 s."""

HANG_UP_S: Final = 0.05
"""ASSUMED_ time in which connections that were hung up on are cleared away."""

LAST_PORT: Final = 65_535
"""The highest number of a port. [RFC9293]"""

NOWHERE: Final = "192.0.2.1"
"""An address that nobody has: asked for the way to it, the machine names its own address; nothing is sent. [RFC5737]"""

LOOPBACK, EVERYWHERE = "127.0.0.1", "0.0.0.0"

WATCH_S: Final = 1.0
"""ASSUMED_ how often to look whether PostgreSQL is alive: short beside a person's patience."""


def serve(port: int, *, demo: bool, nearby: bool = False, plain: bool = False) -> None:
    """Run until interrupted.

    Args:
        nearby: Answer on the set's own network too, to telephones that have a key.
        plain: Without encryption there: whoever listens on that network reads along.

    Raises:
        SetupError: It cannot start; the message says why and what to do.
    """
    from tidy_trunk.api import create_app

    settings = EnvironmentSettings()
    if not (settings.web / "index.html").exists():
        raise SetupError(f"the front end is not built in {settings.web}: start with ./tidy, which builds it")
    home = settings.home / "demo" if demo else settings.home
    allow_many_files()
    with alone(home), _logged(home), _database(settings, home) as (database, stop_database):
        update(database, home)
        recordings = home / "recordings" if demo else settings.recordings
        services = services_on(database, home, recordings, settings.at_once)
        if demo and not services.jobs.all():
            services.jobs.create(foundry(), "The demo job")
            services.equipment.save([(item.label, write_class(item)) for item in own_equipment()])
        listener = _listen(port)
        taken = listener.getsockname()[1]
        if port not in (0, taken):
            print(f"tidy: port {port} is taken by another program: look at the address", file=sys.stderr, flush=True)
        print(f"Tidy Trunk is at http://{LOOPBACK}:{taken} (end with Ctrl-C)", flush=True)
        door = _open_to_the_set(home, taken, plain=plain) if nearby else None
        patient_collector()
        services.start()
        done = threading.Event()
        copier = threading.Thread(target=services.copies.keep_up, args=(done,), name="copies", daemon=True)
        copier.start()
        app = create_app(services, settings.web, door.network if door is not None else None)
        config = uvicorn.Config(
            app,
            http=PunctualProtocol,
            ws="none",
            log_level="error",
            access_log=False,
            server_header=False,
            proxy_headers=False,
            timeout_keep_alive=KEPT_OPEN_S,
            timeout_graceful_shutdown=PATIENCE_S,
        )

        def at_last() -> None:
            """Whatever still runs when patience is over, and no cancelling ends, as it computes, ends with the process."""
            for cut in (*app.state.underway.values(), *services.worker.reading):
                print(f"tidy: cut short by the end of the program: {cut}", file=sys.stderr, flush=True)
            with suppress(SetupError):  # the end that comes by itself may be stopping it in this moment
                stop_database()
            os._exit(0)

        try:
            Server(config, services, door, at_last).run(sockets=[listener])
        finally:
            done.set()
            for name in services.close():
                print(f"tidy: {name} was being read: that begins anew at the next start", file=sys.stderr, flush=True)
            copier.join(PATIENCE_S)


@dataclass(frozen=True, slots=True)
class GuestListener:
    """Where guests come in. context: what is encrypted with, None for plain HTTP."""

    listener: Listener
    network: LocalNetwork
    context: ssl.SSLContext | None


def _open_to_the_set(home: Path, port: int, *, plain: bool) -> GuestListener:
    """A listener for telephones, on the next port; and what stands on the console of it. Raises SetupError."""
    address = own_address()
    certificate = None if plain else own_certificate(home, address)
    listener = _listen(port + 1 if port < LAST_PORT else 0, EVERYWHERE)
    (home / "nearby-key").unlink(
        missing_ok=True
    )  # of earlier versions: one key for everybody, which opens nothing any more
    place = f"{address}:{listener.getsockname()[1]}"
    if certificate is None:
        network = LocalNetwork(f"http://{place}")
        print(f"For telephones on this network: {network.address}, unencrypted", flush=True)
    else:
        network = LocalNetwork(f"https://{place}", certificate.fingerprint, certificate.authority)
        print(f"For telephones on this network: {network.address}", flush=True)
        print(f"Its certificate: SHA-256 {certificate.fingerprint}", flush=True)
    print("Each telephone needs a key: make it on the page Telephones.", flush=True)
    return GuestListener(listener, network, None if certificate is None else certificate.context)


def own_address() -> str:
    """This machine's address on the network that it would send by. Raises SetupError: it is on none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect((NOWHERE, 9))
            found: str = probe.getsockname()[0]
        except OSError as error:
            raise SetupError("this machine is on no network: join the set's own, and start again") from error
    return found


def update(database: Database, home: Path) -> None:
    """Data of an older version are brought to this one's shape, once there is a copy of them. Raises SetupError."""
    if is_behind(database):
        CopyService(home, database, home / "recordings").make_before_update()
        note("update")
    migrate(database)


class Server(uvicorn.Server):
    """Answers this machine, and guests by a door of their own. Ends in good time, whatever is under way."""

    def __init__(
        self, config: uvicorn.Config, services: Services, door: GuestListener | None, at_last: Callable[[], None]
    ) -> None:
        """`at_last`: is called on a thread where the end has not come in time: a thread that computes outlives all else."""
        super().__init__(config)
        self._services = services
        self._door = door
        self._last = threading.Timer(LAST_S, at_last)
        self._last.daemon = True

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self._door is None:
            return
        encrypted = self._door.context is not None
        loop = asyncio.get_running_loop()
        self.servers.append(
            await loop.create_server(
                lambda: PunctualProtocol(self.config, self.server_state, self.lifespan.state),
                sock=self._door.listener,
                ssl=self._door.context,
                backlog=WAITING,
                ssl_handshake_timeout=HEADERS_S if encrypted else None,
                ssl_shutdown_timeout=HEADERS_S if encrypted else None,
            )
        )

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        await super().shutdown(sockets)
        if self._door is not None:
            # A guest that is gone never agrees to the end of its encryption.
            for connection in list(self.server_state.connections):
                connection.transport.abort()
            self._door.listener.hang_up()
            await asyncio.sleep(HANG_UP_S)

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        if not self.should_exit:
            self._last.start()
        self._services.news.close()  # windows that wait for news would keep it from ending
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
def _database(settings: EnvironmentSettings, home: Path) -> Iterator[tuple[Database, Callable[[], None]]]:
    """The database, and what ends the server of our own that it may have."""
    if settings.database_url:
        database = Database(settings.database_url)
        try:
            yield database, lambda: None
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

    def stop() -> None:
        done.set()
        watcher.join()
        cluster.stop()

    try:
        yield database, stop
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


def _listen(port: int, host: str = LOOPBACK) -> Listener:
    """On a port; on another one where the wanted one is taken."""
    most, of_one = (MOST_AT_HOME, MOST_AT_HOME) if host == LOOPBACK else (MOST_GUESTS, MOST_OF_ONE)
    for candidate in (port, 0):
        try:
            return Listener(host, candidate, most, of_one)
        except (OSError, OverflowError):
            continue
    raise SetupError(f"no free port on {host}")
