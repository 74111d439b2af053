"""The pool of connections, and the unit of work: connection and transaction on one thread, inside one call."""

import json
import os
import socket
import threading
import time
from collections.abc import Iterator, Mapping
from contextlib import contextmanager, suppress
from typing import Any, Final
from uuid import UUID

import peewee
import psycopg
from playhouse.pool import PooledPostgresqlDatabase
from psycopg import ProgrammingError
from psycopg.conninfo import conninfo_to_dict
from psycopg.errors import DiskFull

from tidy_trunk.errors import NoRoomError, SetupError, StoreUnavailableError
from tidy_trunk.store.tables import Tables

MOST_CONNECTIONS: Final = 16
"""ASSUMED_ connections held at most: a few people on one machine."""

WAIT_S: Final = 5
"""ASSUMED_ time to wait for a free connection, and for the server to answer a new one."""

LONGEST_S: Final = 20.0
"""ASSUMED_ time that a unit of work may take: nothing is worked out inside one, and the largest plan is written in a second."""

LOOK_S: Final = 1.0
"""ASSUMED_ how often is looked for units of work that have not come to their end."""

PATIENCE: Final[Mapping[str, Any]] = {
    "connect_timeout": WAIT_S,
    "keepalives_idle": 5,
    "keepalives_interval": 2,
    "keepalives_count": 3,
    "tcp_user_timeout": 10_000,
    "options": "-c statement_timeout=15s -c lock_timeout=10s -c idle_in_transaction_session_timeout=30s",
}
"""ASSUMED_ how long a connection waits for the other end, by libpq's names: a server that went away is missed in ten seconds."""

NEWS: Final = "tidy_trunk_news"
"""ASSUMED_ name of the channel on which changes are told."""


class _Pool(PooledPostgresqlDatabase):
    """Connections are tried where a time limit holds, and not while the pool is locked: a dead one would hold up everybody."""

    def _is_closed(self, connection: Any) -> bool:
        return bool(connection.closed)


class Database:
    """PostgreSQL behind one URL."""

    def __init__(self, url: str) -> None:
        self.url = url
        self._deadlines: dict[int, tuple[float, Any]] = {}
        self._watcher: threading.Thread | None = None
        self._is_over = threading.Event()
        try:
            parameters: dict[str, Any] = dict(conninfo_to_dict(url))
        except ProgrammingError as error:
            raise SetupError(f"TIDY_TRUNK_DATABASE_URL is no PostgreSQL address: {error}") from error
        name = parameters.pop("dbname", None)
        if not name:
            raise SetupError("TIDY_TRUNK_DATABASE_URL names no database: postgresql://user@host/name")
        parameters = {**PATIENCE, **parameters}
        self.pool = _Pool(
            name,
            prefer_psycopg3=True,
            max_connections=MOST_CONNECTIONS,
            timeout=WAIT_S,
            stale_timeout=300,
            **parameters,
        )
        self.tables = Tables(self.pool)

    @contextmanager
    def unit_of_work(self) -> Iterator[None]:
        """One connection and one transaction: committed at the end, rolled back on any error.

        Raises:
            NoRoomError: The disk is full.
            StoreUnavailableError: The server does not answer in time, or went away; nothing that was not committed is kept.
        """
        try:
            self._connect()
            try:
                with self._on_time(), self.pool.atomic():
                    yield
            finally:
                if not self.pool.is_closed():
                    self.pool.close()
        except (peewee.OperationalError, peewee.InterfaceError) as error:
            self._forget_connections()
            if isinstance(error.__cause__ or error.__context__, DiskFull):
                raise NoRoomError from error
            raise StoreUnavailableError(
                "the database does not answer, and this was not confirmed. Look at the job again in a moment."
            ) from error

    def tell(self, job_id: UUID, what: str, revision: int = 0) -> None:
        """Inside a unit of work: whoever listens hears what of a job has changed, once it is committed."""
        self.pool.execute_sql("select pg_notify(%s, %s)", (NEWS, json.dumps([str(job_id), what, revision])))

    def close(self) -> None:
        self._is_over.set()
        self.pool.close_all()

    @contextmanager
    def _on_time(self) -> Iterator[None]:
        """Whoever waits longer than that for an answer is told that there is none: a server that is stopped in the middle of a
        statement keeps its connection open, and its own time limits count for nothing."""
        key = threading.get_ident()
        self._deadlines[key] = (time.monotonic() + LONGEST_S, self.pool.connection())
        if self._watcher is None:
            self._watcher = threading.Thread(target=self._watch, name="deadlines", daemon=True)
            self._watcher.start()
        try:
            yield
        finally:
            self._deadlines.pop(key, None)

    def _watch(self) -> None:
        while not self._is_over.wait(LOOK_S):
            for key, (deadline, connection) in list(self._deadlines.items()):
                if time.monotonic() > deadline and key in self._deadlines:
                    del self._deadlines[key]
                    with (
                        suppress(OSError, psycopg.Error),
                        socket.socket(fileno=os.dup(connection.fileno())) as other_end,
                    ):
                        other_end.shutdown(socket.SHUT_RDWR)

    def _connect(self) -> None:
        """A connection that answers: those of before a restart of the server are thrown away."""
        self.pool.connect(reuse_if_open=True)
        try:
            with self._on_time():
                self.pool.execute_sql("select 1")
        except (peewee.OperationalError, peewee.InterfaceError):
            self._forget_connections()
            self.pool.connect(reuse_if_open=True)

    def _forget_connections(self) -> None:
        if not self.pool.is_closed():
            self.pool.manual_close()
        self.pool.close_idle()
