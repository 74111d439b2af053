"""The application on a server of its own, as a browser or any other client meets it."""

import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import uvicorn
from fastapi import FastAPI

from tidy_trunk.api import create_app
from tidy_trunk.app.certificates import OwnCertificate
from tidy_trunk.app.connections import Listener, PunctualProtocol
from tidy_trunk.app.server import GuestListener, Server
from tidy_trunk.services.container import Services
from tidy_trunk.services.guests import LocalNetwork


@cache
def _app(web: Path | None, has_door: bool) -> FastAPI:
    return create_app(None, web)  # type: ignore[arg-type]


def app_on(services: Services | None, web: Path | None, network: LocalNetwork | None = None) -> FastAPI:
    """The application on services of a test's own: built once, as its hundred and forty routes take a third of a second."""
    app = _app(web, network is not None)
    app.state.services, app.state.network = services, network
    return app


def openapi() -> dict[str, Any]:
    """What the server says of itself; worked out once, which takes seconds."""
    return _app(None, False).openapi()


@contextmanager
def served(services: Services | None, web: Path | None) -> Iterator[str]:
    """Its address. `web`: folder of the built front end."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        config = uvicorn.Config(app_on(services, web), log_level="critical", timeout_graceful_shutdown=5)
        server = uvicorn.Server(config)
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]})
        thread.start()
        while not server.started:
            time.sleep(0.01)
        yield f"http://127.0.0.1:{listener.getsockname()[1]}"
        server.should_exit = True
        thread.join()


ADDRESS = "192.168.7.5"
"""Of this machine on a set's network, as guests call it."""


@contextmanager
def with_a_door(
    services: Services,
    *,
    most: int = 8,
    of_one: int = 4,
    certificate: OwnCertificate | None = None,
    web: Path | None = None,
    door: int = 0,
    called: str = ADDRESS,
) -> Iterator[SimpleNamespace]:
    """A server with a door for guests, both on loopback: ports of the owner (`own`) and of the door."""
    own, theirs = Listener("127.0.0.1", 0, 64, 64), Listener("127.0.0.1", door, most, of_one)
    ports = SimpleNamespace(own=own.getsockname()[1], door=theirs.getsockname()[1])
    network = LocalNetwork(f"https://{called}:{ports.door}")
    config = uvicorn.Config(
        app_on(services, web, network),
        http=PunctualProtocol,
        ws="none",
        log_level="critical",
        timeout_graceful_shutdown=1,
    )
    server = Server(config, services, GuestListener(theirs, network, certificate and certificate.context), lambda: None)
    thread = threading.Thread(target=server.run, kwargs={"sockets": [own]})
    thread.start()
    while not server.started or len(server.servers) < 2:
        time.sleep(0.01)
    try:
        yield ports
    finally:
        server.should_exit = True
        thread.join()
