"""A database that stops in the middle of an answer holds nobody up for long."""

import os
import signal
import time
from uuid import uuid4

import psycopg
import pytest

from tidy_trunk.errors import NotFoundError, StoreUnavailableError
from tidy_trunk.store import JobStore
from tidy_trunk.store import database as module


@pytest.fixture
def impatient(monkeypatch):
    monkeypatch.setattr(module, "LONGEST_S", 0.5)
    monkeypatch.setattr(module, "LOOK_S", 0.05)


def test_a_frozen_backend_is_given_up(database, impatient):
    """Said before: a request waited for ten minutes. A process that is stopped keeps its connection open."""
    with database.unit_of_work():
        frozen = database.pool.execute_sql("select pg_backend_pid()").fetchone()[0]
    os.kill(frozen, signal.SIGSTOP)
    try:
        begun = time.monotonic()
        with pytest.raises(NotFoundError):  # by another connection, once the first was given up
            JobStore(database).newest(uuid4())
        assert time.monotonic() - begun < 5
    finally:
        os.kill(frozen, signal.SIGCONT)


def test_what_takes_too_long_is_given_up(database, impatient):
    with pytest.raises(StoreUnavailableError), database.unit_of_work():
        database.pool.execute_sql("select pg_sleep(10)")


def test_connections_have_limits_of_their_own(database):
    """For a server that is alone with a statement, or with a client that went away."""
    with database.unit_of_work():
        limits = {
            name: database.pool.execute_sql(f"show {name}").fetchone()[0]
            for name in ("statement_timeout", "lock_timeout", "idle_in_transaction_session_timeout")
        }
    assert limits == {"statement_timeout": "15s", "lock_timeout": "10s", "idle_in_transaction_session_timeout": "30s"}
    with psycopg.connect(database.url) as plain:
        assert plain.execute("show statement_timeout").fetchone() == ("0",)
