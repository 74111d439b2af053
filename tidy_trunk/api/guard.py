"""What is refused before it reaches a router: foreign hosts and origins, guests without a key, bodies that are too large."""

from ipaddress import ip_address
from secrets import compare_digest
from typing import Final
from urllib.parse import parse_qs, urlsplit

from starlette.requests import cookie_parser
from starlette.responses import RedirectResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tidy_trunk.api.problems import problem_response
from tidy_trunk.formats import LARGEST_SOUND_BYTES
from tidy_trunk.media.uploads import LARGEST_UPLOAD_BYTES
from tidy_trunk.services.nearby import Nearby

LARGEST_BODY_BYTES: Final = 4 * 1024 * 1024
"""ASSUMED_ as the largest plan file: nothing but a recording comes near."""

OWN_HOSTS: Final = frozenset({"127.0.0.1", "localhost", "::1"})
"""Names of loopback: a page elsewhere that points its name here (DNS rebinding) brings another one."""

KEY_COOKIE: Final = "tidy-key"
"""ASSUMED_ name of what a telephone keeps once it is let in."""

KEPT_S: Final = 30 * 86_400
"""ASSUMED_ for how long: a job."""

Refusal = tuple[int, str, str]


class Guest:
    """A request from elsewhere on the set's network. It must name this machine by its address, and bring the key."""

    def __init__(self, nearby: Nearby, scope: Scope, headers: dict[str, str]) -> None:
        client = scope.get("client")
        # By where it comes from, not by what it says: a guest may call us localhost.
        self.is_one = client is None or not _is_loopback(client[0])
        self._nearby = nearby
        self._headers = headers
        given = parse_qs(scope.get("query_string", b"").decode("latin-1")).get("key", [""])[-1]
        self.brings_key = self.is_one and scope["method"] == "GET" and bool(given) and self._is_key(given)

    def _is_key(self, given: str) -> bool:
        return compare_digest(given.encode(), self._nearby.key.encode())

    @property
    def refusal(self) -> Refusal | None:
        """Why it is not let in; None where it is."""
        if self._headers.get("host", "") != urlsplit(self._nearby.address).netloc:
            return 421, "wrong-host", "call this machine by the address that it shows on its Walk page"
        # Forgiving, as browsers are: another application on this machine may have set a cookie of any name.
        given = cookie_parser(self._headers.get("cookie", "")).get(KEY_COOKIE, "")
        if not given or not self._is_key(given):
            return 403, "no-key", "who has the key of this set is let in: open the address on its Walk page"
        return None

    async def let_in(self, scope: Scope, receive: Receive, send: Send) -> None:
        """On to the page, without the key in its address, which then stands in no history."""
        # One slash at its beginning: two would lead to another machine.
        answer = RedirectResponse("/" + scope["path"].lstrip("/"), status_code=303)
        answer.headers["Referrer-Policy"] = "no-referrer"
        answer.set_cookie(KEY_COOKIE, self._nearby.key, max_age=KEPT_S, httponly=True, samesite="lax")
        await answer(scope, receive, send)


def _is_loopback(address: str) -> bool:
    try:
        return ip_address(address).is_loopback
    except ValueError:
        return False


class Guard:
    """ASGI middleware."""

    def __init__(self, app: ASGIApp, nearby: Nearby | None = None) -> None:
        """`nearby`: whom to let in from the set's own network; nobody unless it is given."""
        self._app = app
        self._nearby = nearby

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = {name.decode("latin-1"): value.decode("latin-1") for name, value in scope["headers"]}
        guest = None if self._nearby is None else Guest(self._nearby, scope, headers)
        if guest is not None and guest.brings_key:
            await guest.let_in(scope, receive, send)
            return
        is_streamed = _is_streamed(scope)
        most = LARGEST_SOUND_BYTES if _is_recording(scope["path"], headers) else LARGEST_BODY_BYTES
        refusal = guest.refusal if guest is not None and guest.is_one else _refused_host(headers)
        refusal = refusal or _refusal(headers, LARGEST_UPLOAD_BYTES if is_streamed else most)
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


def _is_streamed(scope: Scope) -> bool:
    return bool(scope["method"] == "POST" and scope["path"].endswith(("/recordings", "/sync/files")))


def _is_recording(path: str, headers: dict[str, str]) -> bool:
    return path.endswith(("/heard", "/clap")) and headers.get("content-type", "").startswith("audio/")


def _refused_host(headers: dict[str, str]) -> Refusal | None:
    host = headers.get("host", "")
    if _host_of(f"//{host}") not in OWN_HOSTS:
        return 421, "wrong-host", f"this server answers to 127.0.0.1 and localhost, not to '{host[:80]}'"
    return None


def _refusal(headers: dict[str, str], most: int) -> Refusal | None:
    host = headers.get("host", "")
    origin = headers.get("origin")
    if origin is not None and _place_of(origin) != host:
        return 403, "foreign-origin", f"a page of '{origin[:80]}' has no business here"
    length = headers.get("content-length", "0")
    if not length.isdigit() or int(length) > most:
        return 413, "too-large", _too_large(most)
    return None


def _host_of(url: str) -> str | None:
    """The host that an address names; None where it is no address."""
    try:
        return urlsplit(url).hostname
    except ValueError:
        return None


def _place_of(url: str) -> str | None:
    """Host and port of an address; None where it is no address."""
    try:
        return urlsplit(url).netloc
    except ValueError:
        return None


def _too_large(most: int) -> str:
    return f"a request may hold at most {most / 1e6:.0f} MB: give a part of it"
