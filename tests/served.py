"""The application on a server of its own, as a browser or any other client meets it."""

import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path

import uvicorn
from fastapi import FastAPI

from tidy_trunk.api import create_app
from tidy_trunk.services.container import Services


@cache
def _app(web: Path | None) -> FastAPI:
    return create_app(None, web)  # type: ignore[arg-type]


def app_on(services: Services, web: Path | None) -> FastAPI:
    """The application on services of a test's own: built once, as its seventy routes take a tenth of a second."""
    app = _app(web)
    app.state.services = services
    return app


@contextmanager
def served(services: Services, web: Path | None) -> Iterator[str]:
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
