"""What stands around the routers: compression, what may be kept, ids of requests, the log, and a disk that is full."""

import errno
import json
import logging
from pathlib import Path
from uuid import uuid4

import pytest
from starlette.testclient import TestClient

from tests.plans import padded_plan
from tests.served import app_on
from tidy_trunk.core.plan import SetJob
from tidy_trunk.errors import NoRoomError
from tidy_trunk.upkeep.log import close_log, last_lines, open_log


@pytest.fixture
def log(tmp_path):
    handler = open_log(tmp_path)
    yield lambda: last_lines(tmp_path, 100)
    close_log(handler)


@pytest.fixture(scope="module")
def web(tmp_path_factory):
    folder = tmp_path_factory.mktemp("web")
    (folder / "assets").mkdir()
    (folder / "index.html").write_text("<title>Tidy Trunk</title>")
    (folder / "assets" / "index-abc123.js").write_text("1;" * 1000)
    return folder


@pytest.fixture
def site(services, web):
    return TestClient(app_on(services, web), base_url="http://127.0.0.1", raise_server_exceptions=False)


def test_what_is_large_is_packed_and_what_is_hashed_is_kept(site, services):
    job = services.jobs.create(padded_plan()).revision.job
    state = site.get(f"/api/jobs/{job}")
    assert state.headers["content-encoding"] == "gzip" and state.json()["job"] == str(job)
    sound = site.get(f"/api/jobs/{job}/tone.wav", params={"seconds": 1})
    assert "content-encoding" not in sound.headers
    asset = site.get("/assets/index-abc123.js")
    assert "immutable" in asset.headers["cache-control"]
    assert site.get(f"/jobs/{job}/levels/bag.1").headers["cache-control"] == "no-cache"
    assert [site.get(path).status_code for path in ("/favicon.ico", "/robots.txt", "/assets/gone.js")] == [404] * 3


def test_a_mistake_of_ours_is_told_with_the_id_that_the_log_has(site, services, log, monkeypatch):
    def broken(*_):
        raise ZeroDivisionError("the secret name of a bell")

    monkeypatch.setattr(services.jobs, "history", broken)
    answer = site.get(f"/api/jobs/{uuid4()}/revisions")
    assert answer.status_code == 500 and answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["request"] == answer.headers["x-request-id"]
    (line,) = log()
    assert (line["request"], line["error"]) == (answer.json()["request"], "ZeroDivisionError")
    assert line["path"] == "/jobs/{job_id}/revisions" and any("broken" in place for place in line["stack"])
    assert "secret" not in json.dumps(line)


def test_what_goes_well_is_not_written_down(site, log):
    answer = site.get("/api/jobs")
    assert answer.headers["x-request-id"] and log() == []


def test_the_log_begins_a_new_file_before_it_fills_the_disk(tmp_path, monkeypatch):
    monkeypatch.setattr("tidy_trunk.upkeep.log.LARGEST_BYTES", 2000)
    handler = open_log(tmp_path)
    for number in range(1000):
        logging.getLogger("tidy_trunk").info({"number": number})
    close_log(handler)
    files = list((tmp_path / "log").iterdir())
    assert len(files) == 5 and sum(file.stat().st_size for file in files) <= 5 * 2000
    assert last_lines(tmp_path, 1) == [{"number": 999}]


def test_a_full_disk_is_called_one(site, services, database, monkeypatch):
    """Said before: that the database does not answer; and of an upload, that the program failed."""
    job = services.jobs.create(padded_plan()).revision.job

    with monkeypatch.context() as patch:
        patch.setattr(
            services.jobs._store._database, "tell", lambda *_: database.pool.execute_sql("select raise_full()")
        )
        with database.unit_of_work():
            database.pool.execute_sql(
                "create function raise_full() returns void language plpgsql as "
                "$$ begin raise exception 'could not extend file' using errcode = '53100'; end $$"
            )
        with pytest.raises(NoRoomError):
            services.jobs.edit(job, 1, [SetJob(name="Kept?")])
        body = {"base_revision": 1, "edits": [{"kind": "set-job", "name": "Kept?"}]}
        answer = site.post(f"/api/jobs/{job}/edits", json=body)
    assert answer.status_code == 507 and "the disk is full" in answer.json()["detail"]
    assert services.jobs.plan(job).name == padded_plan().name

    def no_room(*_, **__):
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(Path, "open", no_room)
    answer = site.post(f"/api/jobs/{job}/recordings", content=b"RIFF")
    assert answer.status_code == 507 and services.recordings.all(job) == []
