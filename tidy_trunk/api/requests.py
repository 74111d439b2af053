"""What every request has: an id, in its answer, in what is said of a fault, and in the log; and headers that keep a browser strict."""

import asyncio
import sys
import time
from dataclasses import dataclass
from secrets import token_hex
from typing import Final

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tidy_trunk.api.heavy import RECEIVE
from tidy_trunk.api.problems import problem_response
from tidy_trunk.upkeep.log import note, since

HEADER: Final = "X-Request-Id"
"""ASSUMED_ as is usual."""

SECURITY: Final = {
    # Everything ships with the application: a page that asks for more has been tampered with.
    "Content-Security-Policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(self), geolocation=(), payment=(), usb=()",
}
"""Of every answer: a recording or an export that somebody opens is no page either. [ASVS]"""

SLOW_MS: Final = 5_000
"""ASSUMED_ time after which an answer is worth a line in the log."""

MISTAKE: Final = (
    "the program made a mistake, and this was not done: say so to who looks after it, with the log's number "
)
"""What is said of what nobody thought of. ASSUMED_"""


@dataclass(frozen=True, slots=True)
class Underway:
    """A request that is being answered. since: a moment of `time.monotonic`."""

    scope: Scope
    since: float

    def __str__(self) -> str:
        """In words, without what a user typed."""
        return f"{self.scope['method']} {_pattern(self.scope)}"


class Requests:
    """ASGI middleware, outermost. Nothing is written of requests that went well."""

    def __init__(self, app: ASGIApp, underway: dict[str, Underway]) -> None:
        """`underway`: is kept up to date with what is being answered."""
        self._app = app
        self._underway = underway

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request, start, status = token_hex(4), time.monotonic(), 0
        RECEIVE.set(receive)
        scope["request_id"] = request
        self._underway[request] = Underway(scope, start)

        async def told(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                headers = MutableHeaders(scope=message)
                headers.update({HEADER: request, **SECURITY})
                if headers.get("content-type", "").startswith("application/json"):
                    headers.setdefault("Cache-Control", "no-store")
            await send(message)

        error: Exception | None = None
        try:
            await self._app(scope, receive, told)
        except Exception as raised:
            error = raised
            if not status:
                await problem_response(500, "mistake", MISTAKE + request, request=request)(scope, receive, told)
            raise
        except asyncio.CancelledError:
            print(f"tidy: cut short by the end of the program: {self._underway[request]}", file=sys.stderr, flush=True)
            raise
        finally:
            del self._underway[request]
            is_stream = getattr(scope.get("route"), "is_sse_stream", False)
            if error is not None or status >= 500 or (since(start) > SLOW_MS and not is_stream):
                path, ms = _pattern(scope), since(start)
                note("request", error, request=request, method=scope["method"], path=path, status=status, ms=ms)


def _pattern(scope: Scope) -> str:
    """The pattern of the address, not the address: what a user typed stays out."""
    return str(getattr(scope.get("route"), "path", "elsewhere"))
