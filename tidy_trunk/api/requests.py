"""Each request has an id: in its answer, in what is said of a fault, and in the log."""

import time
from secrets import token_hex
from typing import Final

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tidy_trunk.api.problems import problem_response
from tidy_trunk.upkeep.log import note, since

HEADER: Final = "X-Request-Id"
"""ASSUMED_ as is usual."""

SLOW_MS: Final = 5_000
"""ASSUMED_ time after which an answer is worth a line in the log."""

MISTAKE: Final = (
    "the program made a mistake, and this was not done: say so to who looks after it, with the log's number "
)
"""What is said of what nobody thought of. ASSUMED_"""


class Requests:
    """ASGI middleware, outermost. Nothing is written of requests that went well."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request, start, status = token_hex(4), time.monotonic(), 0
        scope["request_id"] = request

        async def told(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                MutableHeaders(scope=message).append(HEADER, request)
            await send(message)

        error: Exception | None = None
        try:
            await self._app(scope, receive, told)
        except Exception as raised:
            error = raised
            if not status:
                await problem_response(500, "mistake", MISTAKE + request, request=request)(scope, receive, told)
            raise
        finally:
            is_stream = getattr(scope.get("route"), "is_sse_stream", False)
            if error is not None or status >= 500 or (since(start) > SLOW_MS and not is_stream):
                # The pattern of the address, not the address: what a user typed stays out.
                path = getattr(scope.get("route"), "path", "elsewhere")
                note(
                    "request", error, request=request, method=scope["method"], path=path, status=status, ms=since(start)
                )
