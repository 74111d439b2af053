"""The application on a server of its own, as a browser or any other client meets it."""

import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn

from tidy_trunk.api import create_app
from tidy_trunk.services.container import Services


@contextmanager
def served(services: Services, web: Path | None) -> Iterator[str]:
    """Its address. `web`: folder of the built front end."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        config = uvicorn.Config(create_app(services, web), log_level="critical", timeout_graceful_shutdown=5)
        server = uvicorn.Server(config)
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]})
        thread.start()
        while not server.started:
            time.sleep(0.01)
        yield f"http://127.0.0.1:{listener.getsockname()[1]}"
        server.should_exit = True
        thread.join()
