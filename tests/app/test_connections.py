"""Whoever holds connections open keeps nobody out: the owner least of all."""

import json
import socket
import ssl
import subprocess
import sys
import time
from contextlib import ExitStack
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from tests.served import ADDRESS, with_a_door
from tests.waiting import wait
from tidy_trunk.api import guard
from tidy_trunk.app import connections
from tidy_trunk.app.certificates import own_certificate
from tidy_trunk.app.connections import allow_many_files
from tidy_trunk.services.guests import LocalNetwork
from tidy_trunk.store import Access


def connected(port, source="127.0.0.1"):
    connection = socket.socket()
    connection.settimeout(5)
    connection.bind((source, 0))
    connection.connect(("127.0.0.1", port))
    return connection


def asked(port, head="GET /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n"):
    """The first line of an answer; empty where the connection is closed without one."""
    with connected(port) as connection:
        connection.sendall(head.encode())
        return received(connection)


def received(connection):
    try:
        return connection.recv(1000).decode().partition("\r\n")[0]
    except ConnectionResetError:
        return ""


@pytest.mark.deep
def test_guests_that_hold_connections_keep_nobody_out(services):
    """Said before: 1,100 half-open connections, and no answer on loopback."""
    with ExitStack() as held, with_a_door(services, most=8, of_one=4) as port:
        for number in range(60):
            connection = held.enter_context(connected(port.door, source=f"127.0.0.{2 + number % 20}"))
            connection.sendall(b"GET / HTTP/1.1\r\n")
        assert asked(port.own) == "HTTP/1.1 200 OK"


def test_one_address_has_its_share_and_gets_it_back(services):
    with with_a_door(services, most=8, of_one=2) as port:
        first = [connected(port.door) for _ in range(2)]
        assert asked(port.door) == ""
        other = connected(port.door, source="127.0.0.9")
        other.sendall(b"GET /api/jobs HTTP/1.1\r\nHost: elsewhere\r\n\r\n")
        assert received(other) == "HTTP/1.1 421 Misdirected Request"
        for connection in (*first, other):
            connection.close()
        wait(lambda: asked(port.door) == "HTTP/1.1 421 Misdirected Request")


@pytest.mark.deep
def test_half_a_head_is_not_waited_for(services, monkeypatch):
    monkeypatch.setattr(connections, "HEADERS_S", 0.3)
    with with_a_door(services) as port, connected(port.own) as silent, connected(port.own) as slow:
        for _ in range(6):  # a byte now and then does not count as a head
            try:
                slow.sendall(b"G")
            except OSError:
                break
            time.sleep(0.1)
        assert silent.recv(1) == b"" and received(slow) == ""


@pytest.mark.deep
def test_half_a_body_is_not_waited_for(services, monkeypatch):
    monkeypatch.setattr(guard, "BODY_S", 0.3)
    head = (
        "POST /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 100\r\n\r\n{"
    )
    with with_a_door(services) as port:
        assert asked(port.own, head).startswith("HTTP/1.1 408")


def test_a_guest_comes_in_encrypted_by_a_certificate_that_can_be_checked(services, tmp_path):
    certificate = own_certificate(tmp_path, ADDRESS)
    key = services.guests.enter(services.guests.make(LocalNetwork(""), uuid4(), "Boom", Access.LOOK, "/").key, ADDRESS)
    trusting = ssl.create_default_context(cadata=certificate.authority.decode())
    with with_a_door(services, certificate=certificate) as port:
        with trusting.wrap_socket(connected(port.door), server_hostname=ADDRESS) as phone:
            head = f"GET /api/jobs HTTP/1.1\r\nHost: {ADDRESS}:{port.door}\r\nCookie: __Host-tidy-key={key}\r\n\r\n"
            phone.sendall(head.encode())
            assert received(phone) == "HTTP/1.1 200 OK"
        with pytest.raises(ssl.SSLCertVerificationError), connected(port.door) as connection:
            ssl.create_default_context().wrap_socket(connection, server_hostname=ADDRESS)
        assert asked(port.door) == "", "nothing without encryption"


def test_a_certificate_is_kept_and_made_anew_where_it_has_to_be(tmp_path):
    first = own_certificate(tmp_path, ADDRESS)
    assert own_certificate(tmp_path, ADDRESS).fingerprint == first.fingerprint
    assert all(path.stat().st_mode & 0o077 == 0 for path in (tmp_path / "certificate").iterdir())
    moved = own_certificate(tmp_path, "10.0.0.7")
    assert moved.fingerprint != first.fingerprint and moved.authority == first.authority
    later = own_certificate(tmp_path, "10.0.0.7", now=datetime.now(UTC) + timedelta(days=380))
    assert later.fingerprint != moved.fingerprint and later.authority == first.authority
    (tmp_path / "certificate" / "server.pem").write_bytes(b"")  # a full disk, or a crash
    assert own_certificate(tmp_path, "10.0.0.7").authority == first.authority


def test_the_authority_speaks_for_private_networks_alone(tmp_path):
    """Checked by OpenSSL: what a telephone trusts for this set opens nothing else."""
    certificate = own_certificate(tmp_path, "203.0.113.7")
    (tmp_path / "authority.pem").write_bytes(certificate.authority)
    command = [
        "openssl",
        "verify",
        "-CAfile",
        str(tmp_path / "authority.pem"),
        str(tmp_path / "certificate/server.pem"),
    ]
    assert "permitted subtree violation" in subprocess.run(command, capture_output=True, text=True).stderr
    own_certificate(tmp_path, ADDRESS)
    assert subprocess.run(command, capture_output=True, text=True).returncode == 0


def test_files_are_asked_for_where_a_desktop_allows_few():
    code = "import resource, json; from tidy_trunk.app.connections import allow_many_files; allow_many_files();"
    told = f"{code} print(json.dumps(resource.getrlimit(resource.RLIMIT_NOFILE)))"
    command = ["sh", "-c", f"ulimit -S -n 256; exec {sys.executable} -c '{told}'"]
    soft, hard = json.loads(subprocess.run(command, capture_output=True, text=True, check=True).stdout)
    assert soft == min(connections.OPEN_FILES, hard) > 256
    assert allow_many_files() is None
