"""What is refused before it reaches a router: foreign hosts and origins, and bodies that are too large."""

from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any, Final
from urllib.parse import urlsplit

from tidy_trunk.api.problems import problem_response
from tidy_trunk.formats import LARGEST_SOUND_BYTES
from tidy_trunk.services.recordings import LARGEST_UPLOAD_BYTES

LARGEST_BODY_BYTES: Final = 4 * 1024 * 1024
"""ASSUMED_ as the largest plan file: nothing but a recording comes near."""

OWN_HOSTS: Final = frozenset({"127.0.0.1", "localhost", "::1"})
"""Names of loopback: a page elsewhere that points its name here (DNS rebinding) brings another one."""

Message = MutableMapping[str, Any]
App = Callable[[Message, Callable[[], Awaitable[Message]], Callable[[Message], Awaitable[None]]], Awaitable[None]]


class Guard:
    """ASGI middleware."""

    def __init__(self, app: App) -> None:
        self._app = app

    async def __call__(
        self, scope: Message, receive: Callable[[], Awaitable[Message]], send: Callable[[Message], Awaitable[None]]
    ) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = {name.decode("latin-1"): value.decode("latin-1") for name, value in scope["headers"]}
        is_streamed = _is_streamed(scope)
        most = LARGEST_SOUND_BYTES if _is_recording(scope["path"], headers) else LARGEST_BODY_BYTES
        refusal = _refusal(headers, LARGEST_UPLOAD_BYTES if is_streamed else most)
        if refusal is None and is_streamed and "content-length" not in headers:
            refusal = 411, "no-length", "say how large the recording is: send it with a Content-Length"
        if refusal is not None:
            status, code, detail = refusal
            await problem_response(status, code, detail)(scope, receive, send)
            return
        if is_streamed:
            await self._app(scope, receive, send)  # piece by piece: it never stands in memory as a whole
            return
        body = bytearray()
        while True:
            message = await receive()
            body += message.get("body", b"")
            if len(body) > most:
                await problem_response(413, "too-large", _too_large(most))(scope, receive, send)
                return
            if not message.get("more_body"):
                break
        sent = False

        async def replay() -> Message:
            nonlocal sent
            if sent:
                return await receive()
            sent = True
            return {"type": "http.request", "body": bytes(body), "more_body": False}

        await self._app(scope, replay, send)


def _is_streamed(scope: Message) -> bool:
    return bool(scope["method"] == "POST" and scope["path"].endswith("/recordings"))


def _is_recording(path: str, headers: dict[str, str]) -> bool:
    return path.endswith("/heard") and headers.get("content-type", "").startswith("audio/")


def _refusal(headers: dict[str, str], most: int) -> tuple[int, str, str] | None:
    host = headers.get("host", "")
    if urlsplit(f"//{host}").hostname not in OWN_HOSTS:
        return 421, "wrong-host", f"this server answers to 127.0.0.1 and localhost, not to '{host[:80]}'"
    origin = headers.get("origin")
    if origin is not None and urlsplit(origin).netloc != host:
        return 403, "foreign-origin", f"a page of '{origin[:80]}' has no business here"
    length = headers.get("content-length", "0")
    if not length.isdigit() or int(length) > most:
        return 413, "too-large", _too_large(most)
    return None


def _too_large(most: int) -> str:
    return f"a request may hold at most {most / 1e6:.0f} MB: give a part of it"
