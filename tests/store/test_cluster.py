"""The private server: made, found again, and back after every kind of crash."""

import os
import signal
import time
from datetime import UTC, datetime
from uuid import uuid4

import pytest

from tests.few import each_of
from tidy_trunk.errors import SetupError, StoreUnavailableError
from tidy_trunk.store import Database, JobStore, PrivateCluster, migrate
from tidy_trunk.store import cluster as cluster_module

NOW = datetime(2026, 5, 4, 6, 30, tzinfo=UTC)


@pytest.fixture
def cluster(home):
    cluster = PrivateCluster(home)
    cluster.start()
    yield cluster
    cluster.stop()


def kill(cluster):
    os.kill(cluster._server_pid(), signal.SIGKILL)
    deadline = time.monotonic() + 10
    while cluster.is_running() and time.monotonic() < deadline:
        time.sleep(0.02)


def count_up(document):
    return {**document, "n": document["n"] + 1}, document["name"], "count"


def test_an_acknowledged_edit_outlives_the_server(home, cluster):
    """Shows 5: PostgreSQL is killed in the middle of edits."""
    database = Database(cluster.url)
    migrate(database)
    store = JobStore(database)
    job = store.create(uuid4(), "Job", {"name": "Job", "n": 0}, "New", NOW).job
    for base in range(1, 6):
        store.edit(job, base, count_up, NOW)
    kill(cluster)
    with pytest.raises(StoreUnavailableError):
        store.edit(job, 6, count_up, NOW)
    assert cluster.revive()
    assert store.newest(job).document["n"] == 5, "the pool finds the new server by itself"
    assert not cluster.revive(), "a server that lives is left alone"

    # The application died too: the next one ends the server that was left running, and starts its own.
    database.close()
    second = PrivateCluster(home)
    database = Database(second.start())
    assert JobStore(database).newest(job).document["n"] == 5
    database.close()
    second.stop()


@pytest.mark.deep
def test_leftovers_of_a_crash_do_not_stop_the_next_start(home):
    cluster = PrivateCluster(home)
    half_made = cluster._folder.with_name("postgresql.new")
    cluster._run(["mkdir", "-p", str(half_made / "data")], "leave a half-made cluster")
    cluster.start()
    assert not half_made.exists()
    kill(cluster)
    stale = cluster._data / "postmaster.pid"
    stale.write_text(f"{os.getpid()}\n{cluster._data}\n")  # the number now belongs to another process: this one
    again = PrivateCluster(home)
    again.start()
    assert again.is_running()
    again.stop()
    assert not again.is_running()


@pytest.mark.parametrize("lost", each_of(["data", "data/PG_VERSION"], 1))
def test_a_cluster_that_is_not_whole_stops_the_start_and_is_left_as_it_is(home, lost):
    """Said before: nothing, and the folder was removed with every job in it."""
    cluster = PrivateCluster(home)
    cluster.start()
    cluster.stop()
    cluster._run(["mv", str(cluster._folder / lost), str(cluster._folder / "aside")], "take a part away")
    left = sorted(path.name for path in cluster._folder.iterdir())
    with pytest.raises(SetupError, match="Nothing was changed"):
        PrivateCluster(home).start()
    assert sorted(path.name for path in cluster._folder.iterdir()) == left
    cluster._run(["mv", str(cluster._folder / "aside"), str(cluster._folder / lost)], "put it back")
    again = PrivateCluster(home)
    again.start()
    again.stop()


@pytest.mark.deep
def test_a_server_that_dies_twice_comes_back_on_its_port(home, cluster, monkeypatch):
    """Said before: 503 for ever, as the second start took another port than the pool knew."""
    database = Database(cluster.url)
    migrate(database)
    url = cluster.url
    kill(cluster)
    whole = PrivateCluster._start_on

    def dies(self, port):
        raise SetupError("cannot start PostgreSQL: it died again")

    monkeypatch.setattr(PrivateCluster, "_start_on", dies)
    with pytest.raises(SetupError):
        cluster.revive()
    monkeypatch.setattr(PrivateCluster, "_start_on", whole)
    assert cluster.revive() and cluster.url == url
    assert JobStore(database).all() == [], "the pool finds it where it was"
    database.close()


@pytest.mark.parametrize("sign", ['"', "$", "`", "\\"])
def test_a_folder_that_postgresql_cannot_use_is_told(home, sign):
    """Said before: exit status 1, and no reason."""
    with pytest.raises(SetupError, match="folder's name holds"):
        PrivateCluster(home / f"a{sign}b").start()


@pytest.mark.deep
def test_data_stay_with_the_postgresql_that_made_them(home, tmp_path, monkeypatch):
    """Another major version beside it, as a system's update installs one: the one that made them goes on."""
    real = cluster_module.binaries()
    for version in ("15", "99"):
        (tmp_path / version).mkdir()
        (tmp_path / version / "bin").symlink_to(real)
    monkeypatch.setattr(cluster_module, "INSTALLED", tmp_path)
    made_by = PrivateCluster(home)
    made_by.start()
    made_by.stop()
    (made_by._data / "PG_VERSION").write_text("15\n")
    assert PrivateCluster(home)._bin.parts[-2] == "15"
    (made_by._data / "PG_VERSION").write_text("12\n")
    with pytest.raises(SetupError, match=r"of PostgreSQL 12, and here is .* restore the newest backup"):
        PrivateCluster(home).start()
