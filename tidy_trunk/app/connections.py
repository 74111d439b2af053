"""Connections that come and stay: how long one may take to say what it wants, and how many there may be."""

import asyncio
import gc
import resource
import socket
from collections import Counter
from contextlib import suppress
from typing import Any, Final

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

HEADERS_S: Final = 10.0
"""ASSUMED_ time to send the head of a request, or to agree on encryption: a telephone at the edge of its network needs two."""

UNREAD_S: Final = 60.0
"""ASSUMED_ time for which an answer waits for somebody to read on."""

MOST_GUESTS: Final = 200
"""ASSUMED_ connections of guests at once: thirty telephones with all that a browser opens."""

MOST_OF_ONE: Final = 24
"""ASSUMED_ connections from one address: a browser opens six to a server, a window for news one more, and some come by one router."""

MOST_AT_HOME: Final = 256
"""ASSUMED_ connections from this machine itself."""

WAITING: Final = 64
"""ASSUMED_ connections that the system holds until they are taken."""

OPEN_FILES: Final = 4096
"""ASSUMED_ files and connections that the program may have open: many desktops allow 1,024 unless one asks for more."""


def allow_many_files() -> None:
    """As many as wanted, or as the system allows."""
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    wanted = OPEN_FILES if hard == resource.RLIM_INFINITY else min(OPEN_FILES, hard)
    if soft != resource.RLIM_INFINITY and soft < wanted:
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, hard))


class Listener(socket.socket):
    """A listening socket that takes no more connections than it may have open, and of one address no more than its share.

    Whoever is too many is hung up on at once: what is held open costs a file, and files are few. What encryption takes for each
    lies in circles that the collector, patient as it is here, finds late: it is asked to look now and then.
    """

    def __init__(self, host: str, port: int, most: int, of_one: int) -> None:
        """Raises OSError: the port is taken."""
        # Named as TCP, so that asyncio sends at once: else each answer on a kept connection waits 40 ms for the other end.
        super().__init__(proto=socket.IPPROTO_TCP)
        self._most, self._of_one = most, of_one
        self._open: list[tuple[str, socket.socket]] = []
        self._taken = 0
        try:
            self.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            self.bind((host, port))
            self.listen(WAITING)  # from here on who comes early waits, and is not turned away
        except BaseException:
            self.close()
            raise

    def accept(self) -> tuple[socket.socket, Any]:
        """As `socket.accept`. Raises ConnectionAbortedError where there are too many: asyncio then goes on to the next one."""
        connection, address = super().accept()
        self._open = [(name, other) for name, other in self._open if other.fileno() >= 0]
        named = Counter(name for name, _ in self._open)
        if len(self._open) >= self._most or named[address[0]] >= self._of_one:
            connection.close()
            raise ConnectionAbortedError("too many connections")
        self._open.append((address[0], connection))
        self._taken += 1
        if self._taken % self._most == 0:
            gc.collect()
        return connection, address

    def hang_up(self) -> None:
        """End all that is open, whatever the other end thinks of it."""
        for _, connection in self._open:
            with suppress(OSError):
                connection.shutdown(socket.SHUT_RDWR)


class PunctualProtocol(H11Protocol):
    """HTTP with whoever says what he wants in time, and reads the answer."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self._late: asyncio.TimerHandle | None = None
        self._unread: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._await_head()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        self._await_head()

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._await_head()

    def pause_writing(self) -> None:
        super().pause_writing()
        if self._unread is None:
            self._unread = self.loop.call_later(UNREAD_S, self._hang_up)

    def resume_writing(self) -> None:
        super().resume_writing()
        if self._unread is not None:
            self._unread.cancel()
            self._unread = None

    def connection_lost(self, exc: Exception | None) -> None:
        for timer in (self._late, self._unread):
            if timer is not None:
                timer.cancel()
        super().connection_lost(exc)

    def _await_head(self) -> None:
        """Count the time from the first byte of a head to its last; between two requests uvicorn counts for itself."""
        is_awaited = self.conn.their_state is h11.IDLE and self.timeout_keep_alive_task is None
        if is_awaited and self._late is None:
            self._late = self.loop.call_later(HEADERS_S, self._hang_up)
        elif not is_awaited and self._late is not None:
            self._late.cancel()
            self._late = None

    def _hang_up(self) -> None:
        self.transport.abort()
