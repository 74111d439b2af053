"""What is refused before it reaches a router: foreign hosts and origins, guests without a key, bodies that are too large."""

import asyncio
from datetime import UTC, datetime
from ipaddress import ip_address
from typing import Final
from urllib.parse import urlsplit

from anyio import to_thread
from starlette.requests import cookie_parser
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tidy_trunk.api.problems import problem_response, status_of
from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.formats import LARGEST_PHOTO_BYTES, LARGEST_SOUND_BYTES
from tidy_trunk.media.uploads import LARGEST_UPLOAD_BYTES
from tidy_trunk.services.guests import GuestService, LocalNetwork
from tidy_trunk.store import Access, GuestKeyRecord

LARGEST_BODY_BYTES: Final = 4 * 1024 * 1024
"""ASSUMED_ as the largest plan file: nothing but a recording comes near."""

OWN_HOSTS: Final = frozenset({"127.0.0.1", "localhost", "::1"})
"""Names of loopback: a page elsewhere that points its name here (DNS rebinding) brings another one."""

KEY_COOKIE, PLAIN_COOKIE = "__Host-tidy-key", "tidy-key"
"""Names of what a telephone keeps once it is let in: the first is sent encrypted, to this machine alone, or not at all. [ASVS]"""

KEPT_S: Final = 30 * 86_400
"""ASSUMED_ for how long: a job."""

BODY_S: Final = 30.0
"""ASSUMED_ time between two parts of a body: a telephone that changes its network is back in ten."""

TOO_SLOW: Final = "nothing more of the request arrived for half a minute: send it again"
"""Said to whoever stops in the middle. ASSUMED_"""

Refusal = tuple[int, str, str]

NO_KEY: Final[Refusal] = (
    403,
    "no-key",
    "only telephones with a key are let in: have one made on the machine itself, on its page Telephones",
)
"""Said to whoever has none, or one that was revoked. ASSUMED_"""


NOBODY: Final = GuestKeyRecord(id="", name="", access=Access.LOOK, link="", created=datetime(1970, 1, 1, tzinfo=UTC))
"""Whoever is let in nowhere but at the door. ASSUMED_"""

OPEN_TO_ALL: Final = frozenset({"/enter", "/enter.js", "/api/enter"})
"""Where a telephone hands over the key of its link. ASSUMED_"""


def cookie_of(network: LocalNetwork) -> str:
    """The name of the cookie of a guest."""
    return KEY_COOKIE if network.address.startswith("https:") else PLAIN_COOKIE


class Guest:
    """A request from elsewhere on the set's network. It must name this machine by its address, and bring a key."""

    def __init__(self, network: LocalNetwork, scope: Scope, headers: dict[str, str]) -> None:
        client, server = scope.get("client"), scope.get("server")
        self.address = client[0] if client is not None else ""
        # By where it comes from, not by what it says: a guest may call us localhost.
        is_theirs = server is not None and server[1] == urlsplit(network.address).port
        self.is_one = is_theirs or client is None or not _is_loopback(client[0])
        self._network = network
        self._headers = headers
        self._guests: GuestService = scope["app"].state.services.guests

    @property
    def calls_us_wrong(self) -> bool:
        """Whether it names another machine than this one, as a page does that points its own name here."""
        return self._headers.get("host", "") != urlsplit(self._network.address).netloc

    @property
    def key(self) -> str:
        """What it was given when it was let in."""
        # Forgiving, as browsers are: another application on this machine may have set a cookie of any name.
        return cookie_parser(self._headers.get("cookie", "")).get(self._cookie, "")

    @property
    def _cookie(self) -> str:
        return cookie_of(self._network)

    async def whose(self, key: str) -> GuestKeyRecord | None:
        """Whose key this is. Raises TooManyTriesError."""
        return await to_thread.run_sync(self._guests.admit, key, self.address)


def _is_loopback(address: str) -> bool:
    try:
        return ip_address(address).is_loopback
    except ValueError:
        return False


class Guard:
    """ASGI middleware."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = {name.decode("latin-1"): value.decode("latin-1") for name, value in scope["headers"]}
        network: LocalNetwork | None = scope["app"].state.network
        guest = None if network is None else Guest(network, scope, headers)
        if guest is None or not guest.is_one:
            refusal = _refused_host(headers)
        elif guest.calls_us_wrong:
            refusal = 421, "wrong-host", "call this machine by the address that stands on its page Telephones"
        else:
            scope["guest"] = NOBODY
            refusal = None
            if scope["path"] not in OPEN_TO_ALL:
                try:
                    record = await guest.whose(guest.key)
                except TidyTrunkError as error:
                    await problem_response(status_of(error), error.code, error.message)(scope, receive, send)
                    return
                scope["guest"], refusal = record, None if record is not None else NO_KEY
        is_streamed = _is_streamed(scope, headers)
        most = LARGEST_BODY_BYTES if not is_streamed else _most_of_a_recording(scope["path"])
        refusal = refusal or _refusal(headers, most)
        if refusal is None and is_streamed and "content-length" not in headers:
            refusal = 411, "no-length", "say how large the recording is: send it with a Content-Length"
        if refusal is not None:
            status, code, detail = refusal
            await problem_response(status, code, detail)(scope, receive, send)
            return
        in_time = _in_time(receive)
        if is_streamed:
            await self._app(scope, in_time, send)  # piece by piece: it never stands in memory as a whole
            return
        body = bytearray()
        while True:
            try:
                message = await in_time()
            except TimeoutError:
                await problem_response(408, "too-slow", TOO_SLOW)(scope, receive, send)
                return
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


def _in_time(receive: Receive) -> Receive:
    """The body of a request, part by part; whoever stops in the middle is not waited for. Then TimeoutError is raised."""
    is_whole = False

    async def part() -> Message:
        nonlocal is_whole
        async with asyncio.timeout(None if is_whole else BODY_S):
            message = await receive()
        is_whole = not message.get("more_body")
        return message

    return part


WAITED_FOR: Final = ("/heard", "/clap", "/log/timecode")
"""Ends of addresses at which a sound is read while somebody waits. ASSUMED_"""

PHOTOGRAPHED: Final = ("/log/photos", "/photo")
"""Ends of addresses that take in photographs. ASSUMED_"""


def _is_streamed(scope: Scope, headers: dict[str, str]) -> bool:
    """Whether a body is a recording or a photograph, which is taken in piece by piece."""
    if scope["method"] != "POST":
        return False
    kind = headers.get("content-type", "").partition("/")[0]
    taken = {"audio": WAITED_FOR, "image": PHOTOGRAPHED}.get(kind, ())
    return str(scope["path"]).endswith(("/recordings", "/sync/files", *taken))


def _most_of_a_recording(path: str) -> int:
    """What somebody waits for is small."""
    if path.endswith(PHOTOGRAPHED):
        return LARGEST_PHOTO_BYTES
    return LARGEST_SOUND_BYTES if path.endswith(WAITED_FOR) else LARGEST_UPLOAD_BYTES


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
