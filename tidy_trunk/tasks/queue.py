"""Requests that take long wait in the database, until a worker of any machine takes one: they survive a crash of everything."""

from collections.abc import Callable
from typing import Any, Final
from uuid import UUID

from procrastinate import App, PsycopgConnector

from tidy_trunk.store import Database

TASK: Final = "read recording"
"""ASSUMED_ name of what a worker does, in the database."""

WAIT_S: Final = 5
"""ASSUMED_ time to wait for a connection of the queue."""


def queue_app(database: Database, connections: int = 1) -> App:
    """The queue as procrastinate has it. `connections`: held at most by whoever opens it; putting something in needs none."""
    return App(connector=PsycopgConnector(conninfo=database.url, min_size=1, max_size=connections, timeout=WAIT_S))


class TaskQueue:
    """Puts recordings in that are to be read, and takes them out."""

    def __init__(self, database: Database, begin: Callable[[], None] = lambda: None) -> None:
        """`begin`: is called when there is something to do, so that this process helps with it."""
        self._app = queue_app(database)
        self._database = database
        self._begin = begin

    def put(self, recording_id: UUID, connection: Any) -> int:
        """Have a recording read, once the transaction of this connection is committed; its number in the queue."""
        self._begin()
        task = self._app.configure_task(TASK, lock=str(recording_id), connection=connection)
        return task.defer(recording_id=str(recording_id))

    def cancel(self, task: int) -> None:
        """Whoever reads it stops; what waits never begins."""
        with self._database.unit_of_work():
            self._app.job_manager.cancel_job_by_id(
                task, abort=True, delete_job=True, connection=self._database.pool.connection()
            )
