"""Telephones on the set's own network: let in by a key of their own, to what it is for, and by nothing else."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import psycopg
import pytest
from starlette.testclient import TestClient

from tests.plans import boom_in_bag
from tests.served import app_on
from tidy_trunk.api.routers import news
from tidy_trunk.errors import InputError, NotAllowedError, NotFoundError, TooManyTriesError
from tidy_trunk.services.guests import GuestService, LocalNetwork
from tidy_trunk.store import Access, GuestKeyStore

NETWORK = LocalNetwork("https://192.168.7.5:8748", "AB:CD", b"-----BEGIN CERTIFICATE-----")


def guest(services, address="192.168.7.31", host="192.168.7.5:8748", key=None):
    client = TestClient(
        app_on(services, None, NETWORK), base_url=f"https://{host}", client=(address, 50_000), follow_redirects=False
    )
    if key is not None:
        assert client.post("/api/enter", json={"key": key}).status_code == 204
    return client


def made(services, access=Access.CREW, name="Boom"):
    return services.guests.make(NETWORK, uuid4(), name, access, "/")


def test_who_brings_a_key_is_let_in_and_stays_in(services):
    link = made(services).link
    assert link.startswith("https://192.168.7.5:8748/enter?page=/#"), "what stands behind # is sent to nobody"
    phone = guest(services)
    assert phone.get("/api/jobs").status_code == 403
    answer = phone.post("/api/enter", json={"key": link.partition("#")[2]})
    cookie = answer.headers["set-cookie"].lower()
    assert cookie.startswith("__host-tidy-key=") and all(
        word in cookie for word in ("httponly", "secure", "samesite=lax", "path=/")
    )
    assert link.partition("#")[2].partition(".")[2].lower() not in cookie, "it is given a secret of its own"
    assert phone.get("/api/jobs").json() == [] and phone.get("/api/me").json() == {"name": "Boom", "access": "crew"}
    origin = {"origin": NETWORK.address}
    assert phone.post("/api/jobs", json={"name": "From the phone"}, headers=origin).status_code == 201
    foreign = phone.post("/api/jobs", json={"name": "x"}, headers={"origin": "http://evil.example"})
    assert foreign.status_code == 403 and foreign.json()["code"] == "foreign-origin"
    (record,) = services.guests.all()
    assert record.address == "192.168.7.31" and (datetime.now(UTC) - record.seen).total_seconds() < 60


@pytest.mark.parametrize(
    "wrong", ["", ".", "x", "{id}", "{id}.", "{key}x", "{half}", "{id}.another", "\x00.x", "é.x", "{key}" * 40]
)
def test_another_key_opens_nothing(services, wrong):
    key = made(services).key
    wrong = wrong.format(id=key.partition(".")[0], key=key, half=key[:-1])
    phone = guest(services)
    assert phone.post("/api/enter", json={"key": wrong}).status_code in (403, 422)
    for shown in (wrong, key):  # the link's own key is no cookie
        answer = phone.get("/api/jobs", headers={"cookie": f"__Host-tidy-key={shown}".encode()})
        assert answer.status_code == 403 and answer.json()["code"] == "no-key"


def test_a_link_is_used_once_and_again_where_the_answer_was_lost(database):
    now = [datetime.now(UTC)]
    guests = GuestService(GuestKeyStore(database), now=lambda: now[0])
    key = guests.make(NETWORK, uuid4(), "Boom", Access.LOOK, "/").key
    lost, shown = guests.enter(key, "192.168.7.31"), guests.enter(key, "192.168.7.31")
    assert guests.admit(lost, "192.168.7.31") is None and guests.admit(shown, "192.168.7.31") is not None
    now[0] += timedelta(minutes=3)
    with pytest.raises(NotAllowedError):
        guests.enter(key, "192.168.7.66")
    assert guests.admit(shown, "192.168.7.31") is not None


def test_a_key_is_kept_as_a_digest_and_has_128_bits(services, database):
    key = made(services).key
    shown = services.guests.enter(key, "192.168.7.31")
    secrets = [each.partition(".")[2] for each in (key, shown)]
    assert all(len(secret) * 6 >= 128 for secret in secrets)
    with psycopg.connect(database.url) as connection:
        row = str(connection.execute("select * from guest_key").fetchone())
    assert row.count("argon2id") == 2 and not any(secret in row for secret in secrets)


def test_a_revoked_or_renewed_key_fails_at_once(services):
    old = made(services)
    phone = guest(services, key=old.key)
    assert phone.get("/api/jobs").status_code == 200
    new = services.guests.renew(NETWORK, old.record.id, "/walk")
    assert phone.get("/api/jobs").status_code == 403
    phone = guest(services, key=new.key)
    assert phone.get("/api/jobs").status_code == 200
    services.guests.revoke(old.record.id)
    assert phone.get("/api/jobs").status_code == 403
    with pytest.raises(NotFoundError):
        services.guests.renew(NETWORK, old.record.id, "/")


def test_news_of_a_guest_end_and_are_asked_for_again(services, monkeypatch):
    """Else a key that was revoked would be told what changes for as long as its window stays open."""
    monkeypatch.setattr(news, "OF_GUESTS_S", 0.2)
    job = services.jobs.create(boom_in_bag()).revision.job
    key = made(services, Access.LOOK)
    phone = guest(services, key=key.key)
    assert '"look"' in phone.get(f"/api/jobs/{job}/news").text
    services.guests.revoke(key.record.id)
    assert phone.get(f"/api/jobs/{job}/news").status_code == 403


def test_the_owner_needs_no_key_and_makes_them(services):
    own = guest(services, address="127.0.0.1", host="127.0.0.1:8747")
    answer = own.post("/api/guests", params={"page": "/jobs/1/walk"}, json={"name": " Boom\u202e ", "access": "walk"})
    assert answer.status_code == 201
    told = answer.json()
    assert told["link"].startswith("https://192.168.7.5:8748/enter?page=/jobs/1/walk#") and told["code"].startswith(
        "<svg"
    )
    listed = own.get("/api/guests").json()
    assert listed["network"] == {"address": NETWORK.address, "fingerprint": "AB:CD"}
    assert listed["keys"] == [told["guest"]] and told["guest"]["name"] == "Boom"
    address = f"/api/guests/{told['guest']['id']}"
    assert own.put(f"{address}/name", json={"name": "Second"}).json()["name"] == "Second"
    assert own.post(f"{address}/renew").json()["link"] != told["link"]
    assert own.delete(address).status_code == 204 and own.delete(address).status_code == 404
    assert own.post("/api/guests", json={"name": "\u202e", "access": "walk"}).status_code == 422
    assert own.post("/api/guests", json={"name": "x", "access": "king"}).status_code == 422
    assert own.get("/api/certificate").content == NETWORK.authority


def test_unless_it_is_asked_for_nobody_is_let_in(client):
    assert client.get("/api/guests").json() == {"network": {"address": None, "fingerprint": ""}, "keys": []}
    assert client.post("/api/guests", json={"name": "Boom", "access": "look"}).status_code == 422
    assert client.get("/api/certificate").status_code == 404
    assert client.get("/api/me").json() == {"name": "", "access": None}


def test_a_guest_that_calls_itself_at_home_is_a_guest(services):
    """By where it comes from: the name in its request is its own choice."""
    assert guest(services, host="127.0.0.1:8748").get("/api/jobs").status_code == 421
    named = guest(services, host="evil.example:8748")
    shown = services.guests.enter(made(services).key, "192.168.7.31")
    assert named.get("/api/jobs", headers={"cookie": f"__Host-tidy-key={shown}"}).status_code == 421


def test_a_cookie_of_another_application_locks_nobody_out(services):
    phone, key = guest(services), services.guests.enter(made(services).key, "192.168.7.31")
    assert phone.get("/api/jobs", headers={"cookie": f"a@b=1; __Host-tidy-key={key}"}).status_code == 200
    assert phone.get("/api/jobs", headers={"cookie": "a/b=1"}).status_code == 403


def test_a_key_that_is_asked_for_again_is_one_key(services):
    """As where the answer was lost: the one that did not arrive opens nothing."""
    own_id = uuid4()
    first, second = (services.guests.make(NETWORK, own_id, "Boom", Access.LOOK, "/") for _ in range(2))
    assert [record.id for record in services.guests.all()] == [second.record.id]
    assert guest(services).post("/api/enter", json={"key": first.key}).status_code == 403
    assert guest(services, key=second.key).get("/api/jobs").status_code == 200


def test_tries_are_limited_and_only_of_whoever_tries(database):
    now = [0.0]
    guests = GuestService(GuestKeyStore(database), clock=lambda: now[0])
    key = guests.enter(guests.make(NETWORK, uuid4(), "Boom", Access.LOOK, "/").key, "192.168.7.31")
    for _ in range(10):
        assert guests.admit("no.key", "192.168.7.66") is None
    with pytest.raises(TooManyTriesError):
        guests.admit(key, "192.168.7.66")
    assert guests.admit(key, "192.168.7.31") is not None
    now[0] = 61.0
    assert guests.admit(key, "192.168.7.66") is not None


def test_a_link_that_nobody_used_lapses(database):
    now = [datetime.now(UTC)]
    guests = GuestService(GuestKeyStore(database), now=lambda: now[0])
    used, left = (guests.make(NETWORK, uuid4(), name, Access.LOOK, "/").key for name in ("Boom", "Nobody"))
    shown = guests.enter(used, "192.168.7.31")
    now[0] += timedelta(hours=25)
    with pytest.raises(NotAllowedError):
        guests.enter(left, "192.168.7.31")
    assert guests.admit(shown, "192.168.7.31") is not None


def test_too_many_keys_are_refused(services, monkeypatch):
    monkeypatch.setattr("tidy_trunk.services.guests.MOST_KEYS", 2)
    made(services), made(services)
    with pytest.raises(InputError):
        made(services)


def test_every_answer_keeps_a_browser_strict(client):
    for address in ("/api/jobs", "/api/nothing", "/nothing"):
        headers = client.get(address).headers
        assert headers["x-content-type-options"] == "nosniff" and headers["x-frame-options"] == "DENY"
        assert "default-src 'self'" in headers["content-security-policy"]
    assert client.get("/api/jobs").headers["cache-control"] == "no-store"
