"""Recordings that come in pieces, and what is made once though it is asked for again."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from uuid import UUID, uuid4

import numpy as np
import pytest

from tests.plans import padded_plan
from tests.sounds import RATE, wav
from tests.waiting import wait
from tidy_trunk.errors import NoRoomError
from tidy_trunk.media import uploads
from tidy_trunk.services.container import services_on

DATA = wav(np.random.default_rng(3).normal(0, 0.01, RATE // 10))


@pytest.fixture
def job(services):
    return str(services.jobs.create(padded_plan()).revision.job)


def send(client, job, upload, first: int, last: int, data=DATA):
    """Bytes `first` to before `last`."""
    headers = {"Content-Range": f"bytes {first}-{last - 1}/{len(data)}"}
    return client.post(f"/api/jobs/{job}/recordings", params={"id": upload}, content=data[first:last], headers=headers)


def test_pieces_make_one_recording_however_often_they_come(client, services, job):
    upload, cut = str(uuid4()), len(DATA) // 2
    assert send(client, job, upload, cut, len(DATA)).json() == {"received": 0}, "too early"
    for _ in range(2):
        assert send(client, job, upload, 0, cut).json() == {"received": cut}
    first = send(client, job, upload, cut, len(DATA))
    assert first.status_code == 201 and first.json()["id"] == upload
    wait(lambda: services.recordings.get(UUID(job), UUID(upload)).state.is_over)
    again = send(client, job, upload, cut, len(DATA)).json()
    assert (again["id"], again["state"]) == (upload, "done")
    assert again["result"]["duration_s"] == pytest.approx(0.1)
    assert len(client.get(f"/api/jobs/{job}/recordings").json()) == 1


@pytest.mark.parametrize("told", ["bytes 0-9/5", "bytes 0-8/100", "bytes 9-0/100", "items 0-9/100", "bytes ٠-9/100"])
def test_a_range_that_cannot_be_is_refused(client, job, told):
    headers = {"Content-Range": told.encode()}
    answer = client.post(f"/api/jobs/{job}/recordings", content=b"0123456789", headers=headers)
    assert answer.status_code == 422 and answer.json()["code"] == "input"


def test_room_is_promised_once(client, job, monkeypatch):
    """Two that fit alone and not together: said before, both were let in and filled the disk."""
    disk = type("Disk", (), {"free": uploads.SPARE_BYTES + len(DATA) * 3 // 2})
    monkeypatch.setattr(uploads.shutil, "disk_usage", lambda _: disk)
    assert send(client, job, str(uuid4()), 0, 1000).status_code == 202
    refused = send(client, job, str(uuid4()), 0, 1000)
    assert refused.status_code == 507 and "no room on the disk" in refused.json()["detail"]


def test_what_nobody_came_back_to_makes_room(client, job, services, monkeypatch):
    left = uuid4()
    assert send(client, job, str(left), 0, 1000).status_code == 202
    monkeypatch.setattr(uploads, "FORGOTTEN", timedelta(seconds=-1))
    assert send(client, job, str(uuid4()), 0, 1000).status_code == 202
    assert not (services.media.incoming / str(left)).exists()


def test_a_job_that_is_not_there_takes_no_piece(client, services):
    assert send(client, uuid4(), str(uuid4()), 0, 1000).status_code == 404
    assert list(services.media.incoming.iterdir()) == []


def test_what_is_sent_again_under_its_id_is_made_once(client, services, job):
    same = {"id": str(uuid4())}
    plan = client.get(f"/api/jobs/{job}/plan").json()
    made = {
        "/api/jobs/import": plan,
        f"/api/jobs/{job}/walks": None,
        f"/api/jobs/{job}/simulation/cam.L/tone": None,
    }
    for address, body in made.items():
        first, second = (client.post(address, params=same, json=body) for _ in range(2))
        assert (first.status_code, second.status_code) == (201, 201), first.text
        # A worker may have begun a recording meanwhile.
        one, other = ({**answer.json(), "state": "", "progress": 0, "result": None} for answer in (first, second))
        assert one == other
    assert len(services.jobs.all()) == 2
    assert [walk.id for walk in services.walks.all(UUID(job))] == [UUID(same["id"])]
    assert len(services.recordings.all(UUID(job))) == 1


def test_room_is_promised_once_to_all_that_ask_at_once(services, monkeypatch):
    """Said before: six parallel uploads of 120 MB all passed with 680 MB free, and filled the disk."""
    disk = type("Disk", (), {"free": uploads.SPARE_BYTES + len(DATA) * 5 // 2})
    monkeypatch.setattr(uploads.shutil, "disk_usage", lambda _: disk)
    piece = uploads.UploadChunk(0, 1000, len(DATA))

    def begin(_):
        try:
            services.recordings._uploads._begin(uuid4(), piece)
        except NoRoomError:
            return "refused"
        return "let in"

    with ThreadPoolExecutor(6) as pool:
        assert sorted(pool.map(begin, range(6))) == ["let in"] * 2 + ["refused"] * 4


@pytest.mark.deep
def test_another_server_goes_on_where_one_was_ended(client, services, job, database, tmp_path):
    """Of what arrived the database knows: a restart, or a second server on it, takes the rest."""
    upload, cut = str(uuid4()), len(DATA) // 2
    assert send(client, job, upload, 0, cut).json() == {"received": cut}
    services.close()
    again = services_on(database, tmp_path, tmp_path / "recordings")
    client.app.state.services = again
    assert send(client, job, upload, cut, len(DATA)).status_code == 201
    wait(lambda: again.recordings.get(UUID(job), UUID(upload)).state.is_over)
    assert again.recordings.get(UUID(job), UUID(upload)).result["duration_s"] == pytest.approx(0.1)
    again.close()
