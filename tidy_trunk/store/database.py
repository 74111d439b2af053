"""The pool of connections, and the unit of work: connection and transaction on one thread, inside one call."""

import json
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, Final
from uuid import UUID

import peewee
from playhouse.pool import PooledPostgresqlDatabase
from psycopg import ProgrammingError
from psycopg.conninfo import conninfo_to_dict
from psycopg.errors import DiskFull

from tidy_trunk.errors import NoRoomError, SetupError, StoreUnavailableError

MOST_CONNECTIONS: Final = 16
"""ASSUMED_ connections held at most: a few people on one machine."""

WAIT_S: Final = 5
"""ASSUMED_ time to wait for a free connection, and for the server to answer a new one."""


NEWS: Final = "tidy_trunk_news"
"""ASSUMED_ name of the channel on which changes are told."""


class Database:
    """PostgreSQL behind one URL."""

    def __init__(self, url: str) -> None:
        self.url = url
        try:
            parameters: dict[str, Any] = dict(conninfo_to_dict(url))
        except ProgrammingError as error:
            raise SetupError(f"TIDY_TRUNK_DATABASE_URL is no PostgreSQL address: {error}") from error
        name = parameters.pop("dbname", None)
        if not name:
            raise SetupError("TIDY_TRUNK_DATABASE_URL names no database: postgresql://user@host/name")
        parameters.setdefault("connect_timeout", WAIT_S)
        self.pool = PooledPostgresqlDatabase(
            name,
            prefer_psycopg3=True,
            max_connections=MOST_CONNECTIONS,
            timeout=WAIT_S,
            stale_timeout=300,
            **parameters,
        )

    @contextmanager
    def unit_of_work(self) -> Iterator[None]:
        """One connection and one transaction: committed at the end, rolled back on any error.

        Raises:
            NoRoomError: The disk is full.
            StoreUnavailableError: The server does not answer, or went away; nothing that was not committed is kept.
        """
        try:
            self._connect()
            try:
                with self.pool.atomic():
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
        self.pool.close_all()

    def _connect(self) -> None:
        """A connection that answers: those of before a restart of the server are thrown away."""
        self.pool.connect(reuse_if_open=True)
        try:
            self.pool.execute_sql("select 1")
        except (peewee.OperationalError, peewee.InterfaceError):
            self._forget_connections()
            self.pool.connect(reuse_if_open=True)

    def _forget_connections(self) -> None:
        if not self.pool.is_closed():
            self.pool.manual_close()
        self.pool.close_idle()
