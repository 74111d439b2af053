"""A PostgreSQL of the tests' own for the whole run, and an empty database for each test that asks for one."""

import os
import stat
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING
from uuid import uuid4

import psycopg
import pytest
from anyio.from_thread import start_blocking_portal
from hypothesis import settings
from starlette.testclient import TestClient

from tests.few import IS_DEEP

if TYPE_CHECKING:
    from playwright.sync_api import Playwright

    from tidy_trunk.services.container import Services
    from tidy_trunk.services.jobs import JobService
    from tidy_trunk.store import Database

# The process that only hands tests out to others reads this file too: the application is imported where it is used.

# What takes too long for every landing is run by `./tidy test --deep` alone: this folder, and whatever is marked.
collect_ignore = [] if IS_DEEP else ["deep"]

settings.register_profile("suite", deadline=None, max_examples=30 if IS_DEEP else 12, database=None, derandomize=True)
settings.load_profile("suite")


DEEP_FOLDER = Path(__file__).parent / "deep"
KEPT = ("schema_migration", "data_identity")  # what migrations have written
LONG = (
    "test_day_files_api.py",
    "test_whole_day.py",
    "test_accessible.py",
    "test_server.py",
    "test_several.py",
)


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """The longest first: begun last, one of them would be waited for by all other workers."""
    for item in items:
        if DEEP_FOLDER in item.path.parents:
            item.add_marker("deep")
    if not IS_DEEP:
        config.hook.pytest_deselected(items=[item for item in items if item.get_closest_marker("deep")])
        items[:] = [item for item in items if not item.get_closest_marker("deep")]
    items.sort(key=lambda item: item.path.name not in LONG)


@pytest.fixture(scope="session")
def cluster_home() -> Iterator[Path]:
    """Not below pytest's folder: another run that begins meanwhile closes that to all others, and the server is another user."""
    with tempfile.TemporaryDirectory() as folder:
        yield let_others_in(Path(folder))


@pytest.fixture
def home(tmp_path: Path) -> Path:
    """A data folder of the test's own."""
    return let_others_in(tmp_path)


def let_others_in(folder: Path) -> Path:
    """As root, the server runs as another user, who has to get through the folders that pytest made for us alone."""
    if os.geteuid() == 0:
        for place in (folder, *folder.parents):
            mode = place.stat().st_mode
            if not mode & stat.S_IXOTH:
                place.chmod(mode | 0o055)
    return folder


@pytest.fixture(scope="session")
def server_url(cluster_home: Path) -> Iterator[str]:
    from tidy_trunk.store import PrivateCluster

    cluster = PrivateCluster(cluster_home)
    try:
        url = cluster.start()
        with psycopg.connect(url, autocommit=True) as connection:
            # It is thrown away, a crash of the machine or not.
            for setting in ("fsync", "full_page_writes", "synchronous_commit", "autovacuum"):
                connection.execute(f"alter system set {setting} = off")
            connection.execute("select pg_reload_conf()")
        yield url
    finally:
        cluster.stop()


@contextmanager
def _made(server_url: str) -> Iterator[str]:
    name = f"test_{uuid4().hex[:12]}"
    with psycopg.connect(server_url, autocommit=True) as connection:
        connection.execute(f"create database {name}")
        yield server_url.rsplit("/", 1)[0] + f"/{name}"
        connection.execute(f"drop database {name} with (force)")


@pytest.fixture
def database_url(server_url: str) -> Iterator[str]:
    """An empty database."""
    with _made(server_url) as url:
        yield url


@pytest.fixture(scope="session")
def migrated(server_url: str) -> "Iterator[Database]":
    """A database with this version's tables, that tests have after each other."""
    from tidy_trunk.store import Database, migrate

    with _made(server_url) as url:
        database = Database(url)
        migrate(database)
        yield database
        database.close()


# Whatever a test before left in the middle of a transaction would keep its rows. They are deleted without a look at what refers
# to them: for a few rows, cutting tables off takes ten times longer.
EMPTY = """
    select pg_terminate_backend(pid) from pg_stat_activity
        where datname = current_database() and pid <> pg_backend_pid() and state <> 'idle';
    {}
"""


@pytest.fixture(scope="session")
def emptied(migrated: "Database") -> Iterator[Callable[[], object]]:
    """Empties the tables, on one connection for the whole run: a new one would look up every table again."""
    with psycopg.connect(migrated.url, autocommit=True) as connection:
        connection.execute("set session_replication_role = replica")
        tables = connection.execute("select tablename from pg_tables where schemaname = 'public'").fetchall()
        empty = EMPTY.format("".join(f"delete from {name};" for (name,) in tables if name not in KEPT))
        yield lambda: connection.execute(empty)


@pytest.fixture
def database(migrated: "Database", emptied: Callable[[], object]) -> "Database":
    """This version's tables with nothing in them."""
    emptied()
    return migrated


@pytest.fixture(scope="session")
def playwright() -> "Iterator[Playwright]":
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        yield playwright


@pytest.fixture(scope="session")
def loop() -> Iterator[None]:
    """One event loop for all clients of the run: a new one for each request takes longer than most answers."""
    with start_blocking_portal() as portal:
        TestClient.portal = portal
        yield
        TestClient.portal = None


@pytest.fixture
def services(database: "Database", loop: None, tmp_path: Path) -> "Iterator[Services]":
    from tidy_trunk.services.container import services_on

    services = services_on(database, tmp_path, tmp_path / "recordings")
    yield services
    services.close()


@pytest.fixture
def service(services: "Services") -> "JobService":
    return services.jobs


@pytest.fixture
def client(services: "Services") -> TestClient:
    from tests.served import app_on

    web = os.environ.get("TIDY_TRUNK_WEB")
    return TestClient(app_on(services, Path(web) if web else None), base_url="http://127.0.0.1")
