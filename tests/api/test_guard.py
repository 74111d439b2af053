"""What never reaches a router: foreign hosts and origins, and bodies that are too large."""

import pytest


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "192.168.0.7:8747"])
def test_a_foreign_host_is_refused(client, host):
    answer = client.get("/api/health", headers={"host": host})
    assert answer.status_code == 421 and answer.json()["code"] == "wrong-host"


@pytest.mark.parametrize("host", ["127.0.0.1:8747", "localhost:1", "127.0.0.1", "[::1]:8747"])
def test_its_own_hosts_are_answered(client, host):
    assert client.get("/api/health", headers={"host": host}).status_code == 200
    assert client.get("/api/health", headers={"host": host, "origin": f"http://{host}"}).status_code == 200


@pytest.mark.parametrize("origin", ["http://evil.example", "null", "http://127.0.0.1:1", "https://localhost"])
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


def test_pages_bring_everything_themselves(client):
    page = client.get("/jobs/anything/runs")
    assert page.status_code == 200
    assert "default-src 'self'" in page.headers["content-security-policy"]
    assert "http://" not in page.text and "https://" not in page.text
