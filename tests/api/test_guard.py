"""What never reaches a router: foreign hosts and origins, and bodies that are too large."""

import numpy as np
import pytest

from tests.api.test_patch_api import opened
from tests.core.base.signal.test_speech import recording
from tests.formats.test_sound import wav
from tests.plans import boom_in_bag
from tidy_trunk.api.guard import LARGEST_BODY_BYTES


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "192.168.0.7:8747", "[::1", "a[b]c"])
def test_a_foreign_host_is_refused(client, host):
    answer = client.get("/api/health", headers={"host": host})
    assert answer.status_code == 421 and answer.json()["code"] == "wrong-host"


@pytest.mark.parametrize("host", ["127.0.0.1:8747", "localhost:1", "127.0.0.1", "[::1]:8747"])
def test_its_own_hosts_are_answered(client, host):
    assert client.get("/api/health", headers={"host": host}).status_code == 200
    assert client.get("/api/health", headers={"host": host, "origin": f"http://{host}"}).status_code == 200


@pytest.mark.parametrize(
    "origin", ["http://evil.example", "null", "http://127.0.0.1:1", "https://localhost", "http://["]
)
def test_a_foreign_origin_is_refused(client, origin):
    answer = client.post("/api/jobs", json={"name": "x"}, headers={"host": "127.0.0.1:8747", "origin": origin})
    assert answer.status_code == 403 and answer.json()["code"] == "foreign-origin"
    assert client.get("/api/jobs").json() == []


def test_a_body_that_is_too_large_is_refused(client):
    huge = b'{"name": "' + b"x" * 5_000_000 + b'"}'
    assert client.post("/api/jobs/import", content=huge).status_code == 413

    def pieces():
        for _ in range(6):
            yield b"x" * 1_000_000

    assert client.post("/api/jobs/import", content=pieces()).status_code == 413
    assert client.get("/api/jobs").json() == []


@pytest.mark.deep
def test_only_a_recording_may_be_larger(client):
    """Half a minute of sound is more than any plan: it is read as a recording there, and nowhere else."""
    state = opened(client, boom_in_bag())
    address = f"/api/jobs/{state['job']}/tracks/bag.1/heard"
    long = wav(recording(-20, -60, seconds=50)[:, np.newaxis])
    assert len(long) > LARGEST_BODY_BYTES
    answer = client.post(address, content=long, headers={"Content-Type": "audio/wav"})
    assert answer.status_code == 200 and answer.json()["source"] == "Voice"
    assert client.post(address, content=long, headers={"Content-Type": "application/json"}).status_code == 413
    assert client.post("/api/jobs/import", content=long, headers={"Content-Type": "audio/wav"}).status_code == 413


def test_pages_bring_everything_themselves(client):
    page = client.get("/jobs/anything/runs")
    assert page.status_code == 200
    assert "default-src 'self'" in page.headers["content-security-policy"]
    assert "http://" not in page.text and "https://" not in page.text
