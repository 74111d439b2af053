"""Telephones on the set's own network: let in by a key, and by nothing else."""

import pytest
from starlette.testclient import TestClient

from tidy_trunk.api import create_app
from tidy_trunk.services.nearby import Nearby, own_key

NEARBY = Nearby("http://192.168.7.5:8747", "a-key-that-nobody-guesses")


def guest(services, address="192.168.7.31", host="192.168.7.5:8747"):
    app = create_app(services, None, NEARBY)
    return TestClient(app, base_url=f"http://{host}", client=(address, 50_000), follow_redirects=False)


def test_who_brings_the_key_is_let_in_and_stays_in(services):
    phone = guest(services)
    assert phone.get("/api/jobs").status_code == 403
    answer = phone.get("/jobs/1/walk?key=a-key-that-nobody-guesses")
    assert answer.status_code == 303 and answer.headers["location"] == "/jobs/1/walk", "the key stands in no history"
    assert "httponly" in answer.headers["set-cookie"].lower()
    assert phone.get("/api/jobs").json() == []
    origin = {"origin": "http://192.168.7.5:8747"}
    assert phone.post("/api/jobs", json={"name": "From the phone"}, headers=origin).status_code == 201
    foreign = phone.post("/api/jobs", json={"name": "x"}, headers={"origin": "http://evil.example"})
    assert foreign.status_code == 403 and foreign.json()["code"] == "foreign-origin"


@pytest.mark.parametrize("key", ["", "another", "a-key-that-nobody-guesse", "a-key-that-nobody-guessesx"])
def test_another_key_opens_nothing(services, key):
    phone = guest(services)
    assert phone.get(f"/api/jobs?key={key}").status_code == 403
    assert phone.get("/api/jobs", headers={"cookie": f"tidy-key={key}"}).json()["code"] == "no-key"


def test_a_guest_that_calls_itself_at_home_is_a_guest(services):
    """By where it comes from: the name in its request is its own choice."""
    assert guest(services, host="127.0.0.1:8747").get("/api/jobs").status_code == 421
    named = guest(services, host="evil.example:8747")
    assert named.get("/api/jobs", headers={"cookie": f"tidy-key={NEARBY.key}"}).status_code == 421


def test_an_address_with_two_slashes_leads_nowhere_else(services):
    answer = guest(services).get("//evil.example/?key=a-key-that-nobody-guesses")
    assert answer.headers.get("location", "/").count("//") == 0


def test_this_machine_needs_no_key_and_shows_it(services):
    own = guest(services, address="127.0.0.1", host="127.0.0.1:8747")
    found = own.get("/api/nearby", params={"page": "/jobs/1/walk"}).json()
    assert found["link"] == "http://192.168.7.5:8747/jobs/1/walk?key=a-key-that-nobody-guesses"
    code = own.get("/api/nearby/code.svg", params={"page": "/jobs/1/walk"})
    assert code.headers["content-type"] == "image/svg+xml" and code.content.startswith(b"<svg")
    assert own.get("/api/nearby", params={"page": "//evil.example\n"}).status_code == 422


def test_unless_it_is_asked_for_nobody_is_let_in(client):
    assert client.get("/api/nearby").json() == {"link": None}
    assert client.get("/api/nearby/code.svg").status_code == 404


def test_a_key_is_made_once_and_kept_for_its_owner_alone(tmp_path):
    key = own_key(tmp_path)
    assert len(key) >= 16 and own_key(tmp_path) == key
    assert (tmp_path / "nearby-key").stat().st_mode & 0o077 == 0


@pytest.mark.parametrize("left", ["", "short"])
def test_half_a_key_is_none(tmp_path, left):
    """A full disk or a crash while it was written. Said before: the empty key, which lets everybody in."""
    (tmp_path / "nearby-key").write_text(left)
    key = own_key(tmp_path)
    assert len(key) >= 16 and own_key(tmp_path) == key
    assert (tmp_path / "nearby-key").stat().st_mode & 0o077 == 0


def test_an_empty_key_lets_nobody_in(services):
    app = create_app(services, None, Nearby(NEARBY.address, ""))
    phone = TestClient(app, base_url=NEARBY.address, client=("192.168.7.31", 50_000))
    assert phone.get("/api/jobs", headers={"cookie": "tidy-key="}).status_code == 403
    assert phone.get("/api/jobs?key=").status_code == 403


def test_a_cookie_of_another_application_locks_nobody_out(services):
    """Said before: 500, for a telephone with a valid key too."""
    phone = guest(services)
    assert phone.get("/api/jobs", headers={"cookie": f"a@b=1; tidy-key={NEARBY.key}"}).status_code == 200
    assert phone.get("/api/jobs", headers={"cookie": "a/b=1"}).status_code == 403
