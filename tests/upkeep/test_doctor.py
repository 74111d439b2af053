"""What `./tidy doctor` sees, says and writes, and that it changes nothing."""

import json
import zipfile

import pytest

from tests.plans import padded_plan
from tidy_trunk.services.container import services_on
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, migrate
from tidy_trunk.tasks.requests import PlanGain
from tidy_trunk.upkeep import doctor
from tidy_trunk.upkeep.doctor import document, examine, write_bundle
from tidy_trunk.upkeep.log import close_log, note, open_log


@pytest.fixture
def well(database, tmp_path):
    """Data with a job, a copy and an error in the log."""
    services = services_on(database, tmp_path, tmp_path / "recordings")
    services.jobs.create(padded_plan())
    services.copies.make()
    services.close()
    handler = open_log(tmp_path)
    try:
        raise ZeroDivisionError("said by Mr. Bell")
    except ZeroDivisionError as error:
        note("request", error, path="/jobs/{job_id}", status=500)
    note("start")
    close_log(handler)
    (tmp_path / "index.html").touch()
    return EnvironmentSettings(home=tmp_path, database_url=database.url, web=tmp_path)


def by_name(found):
    return {look.what: look for look in found.looks}


def test_what_is_well_is_said_and_errors_are_listed(well, tmp_path):
    found = examine(well)
    assert found.is_well, found.looks
    assert "1 jobs" in by_name(found)["Database"].found and by_name(found)["Daily copies"].found.startswith("1, ")
    (error,) = found.errors
    assert error["error"] == "ZeroDivisionError"
    path = tmp_path / "bundle.zip"
    write_bundle(well, found, path)
    with zipfile.ZipFile(path) as archive:
        assert set(archive.namelist()) == {"doctor.json", "log/tidy.log"}
        assert json.loads(archive.read("doctor.json")) == document(found)
        whole = b"".join(archive.read(name) for name in archive.namelist())
    assert b"Bell" not in whole and padded_plan().name.encode() + b" " not in whole


def test_what_is_wrong_comes_with_what_to_do(well, database, tmp_path, monkeypatch):
    monkeypatch.setattr(doctor.shutil, "disk_usage", lambda _: type("Disk", (), {"free": 1e8}))
    (tmp_path / "index.html").unlink()
    monkeypatch.setattr(doctor, "is_current", lambda _: False)
    looks = by_name(examine(well))
    assert "make room" in looks["Disk"].advice
    assert "./tidy serve" in looks["Front end"].advice
    assert "another version" in looks["Database"].advice
    gone = examine(
        EnvironmentSettings(home=tmp_path, database_url="postgresql://nobody@127.0.0.1:1/none", web=tmp_path)
    )
    assert "does not answer" in by_name(gone)["Database"].found and not gone.is_well


def test_where_nothing_is_nothing_is_made(tmp_path):
    found = examine(EnvironmentSettings(home=tmp_path / "nowhere", database_url=None, web=tmp_path))
    assert by_name(found)["Database"].found == "none yet" and not (tmp_path / "nowhere").exists()


@pytest.mark.deep
def test_a_private_server_is_found_while_it_runs(home):
    from tidy_trunk.store import PrivateCluster

    cluster = PrivateCluster(home)
    settings = EnvironmentSettings(home=home, database_url=None, web=home)
    database = Database(cluster.start())
    migrate(database)
    assert f"running on port {cluster.port}" in by_name(examine(settings))["Database"].found
    database.close()
    cluster.stop()
    assert "not running" in by_name(examine(settings))["Database"].found


def test_a_queue_that_nobody_works_on_is_told(well, database, tmp_path):
    services = services_on(database, tmp_path, tmp_path / "recordings", at_once=0)
    job = services.jobs.all()[0].id
    services.recordings.work_out(job, "gain plan", PlanGain(plan={}, pins=()))
    queue = by_name(examine(well))["Queue"]
    assert queue.found == "0 workers alive, 1 recordings wait, 0 are being read" and "./tidy worker" in queue.advice
    services.close()
