"""What stands in the queue, and who works on it: read from procrastinate's own tables."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.store.database import Database

ALIVE_S: Final = 10
"""ASSUMED_ age of a worker's last sign of life up to which it counts."""


@dataclass(frozen=True, slots=True)
class QueueState:
    """workers: that are alive; waiting, reading: recordings."""

    workers: int
    waiting: int
    reading: int


def queue_state(database: Database) -> QueueState:
    """As it is now. Raises StoreUnavailableError."""
    with database.unit_of_work():
        asked = """
            select (select count(*) from procrastinate_workers where last_heartbeat > now() - %s * interval '1 second'),
                   count(*) filter (where status = 'todo'), count(*) filter (where status = 'doing')
            from procrastinate_jobs
        """
        workers, waiting, reading = database.pool.execute_sql(asked, (ALIVE_S,)).fetchone()
        return QueueState(int(workers), int(waiting), int(reading))
