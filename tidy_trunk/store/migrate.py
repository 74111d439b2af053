"""Brings the database to the shape that this version needs, under a lock, and refuses one from a newer version."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

import peewee
from playhouse.migrations import Runner

from tidy_trunk.errors import SetupError, StoreUnavailableError
from tidy_trunk.store.database import Database

FOLDER: Final = Path(__file__).parent / "migrations"
LOCK_KEY: Final = 7_466_001
"""ASSUMED_ number of the advisory lock: any that nobody else on this server takes."""


def is_current(database: Database) -> bool:
    """Whether nothing is missing in the database that this version needs. Raises StoreUnavailableError."""
    with _runner(database) as runner:
        return {migration.name for migration in runner.migrations()} <= set(runner.applied())


def is_behind(database: Database) -> bool:
    """Whether data of an older version are there. Raises StoreUnavailableError."""
    with _runner(database) as runner:
        applied = set(runner.applied())
        return bool(applied) and not {migration.name for migration in runner.migrations()} <= applied


def migrate(database: Database) -> list[str]:
    """Apply what is missing; two starts at once wait for each other.

    Returns:
        Names of the migrations applied now.

    Raises:
        SetupError: The database knows a migration that this version does not.
        StoreUnavailableError: No answer.
    """
    with _runner(database) as runner:
        database.pool.execute_sql("select pg_advisory_lock(%s)", (LOCK_KEY,))
        try:
            unknown = set(runner.applied()) - {migration.name for migration in runner.migrations()}
            if unknown:
                raise SetupError(
                    f"the database is newer than this program (it knows {', '.join(sorted(unknown))}): update the program"
                )
            return [getattr(migration, "name", str(migration)) for migration in runner.up() or []]
        finally:
            database.pool.execute_sql("select pg_advisory_unlock(%s)", (LOCK_KEY,))


@contextmanager
def _runner(database: Database) -> Iterator[Runner]:
    try:
        with database.pool.connection_context():
            yield Runner(database.pool, str(FOLDER))
    except (peewee.OperationalError, peewee.InterfaceError) as error:
        raise StoreUnavailableError(f"the database does not answer: {str(error).strip()}") from error
