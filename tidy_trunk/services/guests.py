"""Who is let in from the set's own network: each telephone by a key of its own, which says what it may do."""

import base64
import hashlib
import io
import secrets
import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Final
from uuid import UUID

import segno
from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error, InvalidHashError

from tidy_trunk.core.base.text import is_plain
from tidy_trunk.errors import InputError, NotAllowedError, TooManyTriesError
from tidy_trunk.store import Access, GuestKeyRecord, GuestKeyStore

SECRET_BYTES: Final = 16
"""Random bytes of a secret: 128 bits are not guessed. [ASVS]"""

ID_BYTES: Final = 6
"""ASSUMED_ bytes by which a key is found: it is no secret."""

LONGEST_KEY: Final = 80
"""ASSUMED_ characters that are looked at: a whole key has 31."""

LONGEST_NAME: Final = 60
"""ASSUMED_ characters of a name: "Second assistant, boom"."""

MOST_KEYS: Final = 100
"""ASSUMED_ keys at once: a large crew, twice."""

MOST_TRIES: Final = 10
"""ASSUMED_ wrong keys that one address may bring within the window: a finger slips three times."""

MOST_TRIES_IN_ALL: Final = 60
"""ASSUMED_ the same of all addresses together."""

WINDOW_S: Final = 60.0
"""ASSUMED_ for so long a wrong key counts."""

FIRST_USED_WITHIN: Final = timedelta(days=1)
"""ASSUMED_ time within which a link has to be used."""

USED_FOR: Final = timedelta(minutes=2)
"""ASSUMED_ time for which it may be used again: the answer of the first time may be lost on the way."""

SEEN_EVERY: Final = timedelta(seconds=30)
"""ASSUMED_ how exactly is known when a key was last used."""

_HASHER: Final = PasswordHasher(time_cost=2, memory_cost=19_456, parallelism=1)
"""Argon2id with the least that is advised for passwords; a random secret needs less. [OWASP]"""


@dataclass(frozen=True, slots=True)
class LocalNetwork:
    """How telephones reach this machine.

    address: `https://192.168.0.5:8748`; fingerprint: of its certificate, by SHA-256, empty without encryption; authority: the
    certificate that a telephone may trust once and for all, PEM.
    """

    address: str
    fingerprint: str = ""
    authority: bytes = b""

    def link(self, page: str, key: str) -> str:
        """What a telephone opens. The key stands behind the #, which no browser sends along: its page hands it over."""
        return f"{self.address}/enter?page=/{page.lstrip('/')}#{key}"


@dataclass(frozen=True, slots=True)
class MadeKey:
    """A key in the only moment in which it is known, with what a telephone opens, as text and as a square of dots (SVG)."""

    record: GuestKeyRecord
    key: str
    link: str
    code: str


class GuestService:
    """One method for one thing that the owner does with keys; and who a guest is."""

    def __init__(
        self,
        store: GuestKeyStore,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._store = store
        self._now = now
        self._known: dict[bytes, str] = {}
        self._wrong: dict[str, deque[float]] = {}
        self._clock = clock
        self._lock = threading.Lock()

    def all(self) -> list[GuestKeyRecord]:
        return self._store.all()

    def make(self, network: LocalNetwork, own_id: UUID, name: str, access: Access, page: str) -> MadeKey:
        """A key for one telephone. Asked for again under the id of its sender, it is the same one with another secret.

        `page`: which it opens first.

        Raises InputError: no name, or too many keys.
        """
        key_id = base64.urlsafe_b64encode(own_id.bytes[:ID_BYTES]).decode()
        if self._store.find(key_id) is not None:
            return self.renew(network, key_id, page)
        if len(self._store.all()) >= MOST_KEYS:
            raise InputError(f"{MOST_KEYS} keys are made at most: revoke those that nobody uses")
        secret = secrets.token_urlsafe(SECRET_BYTES)
        record = GuestKeyRecord(
            id=key_id,
            name=_name(name),
            access=access,
            link=_HASHER.hash(secret),
            created=self._now(),
        )
        self._store.add(record)
        return _made(network, record, secret, page)

    def renew(self, network: LocalNetwork, key_id: str, page: str) -> MadeKey:
        """Another key in the place of one, which opens nothing any more. Raises NotFoundError."""
        secret = secrets.token_urlsafe(SECRET_BYTES)
        return _made(network, self._store.renew(key_id, _HASHER.hash(secret), self._now()), secret, page)

    def rename(self, key_id: str, name: str) -> GuestKeyRecord:
        """Raises NotFoundError; InputError: no name."""
        return self._store.rename(key_id, _name(name))

    def revoke(self, key_id: str) -> None:
        """The key opens nothing any more, from this moment on. Raises NotFoundError."""
        self._store.revoke(key_id)

    def enter(self, key: str, address: str) -> str:
        """Let a telephone in by the key of its link; what it shows from then on. A link is used once.

        Raises:
            NotAllowedError: It is nobody's link, was used before, or is too old.
            TooManyTriesError: As `admit`.
        """
        self._check_tries(address)
        record, secret = self._find(key)
        if record is None or self._has_lapsed(record) or not _is_of(record.link, secret):
            self._note_wrong(address)
            raise NotAllowedError(
                "this link opens nothing any more: have the key renewed on the machine, on its page Telephones"
            )
        token = secrets.token_urlsafe(SECRET_BYTES)
        self._store.enter(record.id, _HASHER.hash(token), self._now())
        return f"{record.id}.{token}"

    def _find(self, key: str) -> tuple[GuestKeyRecord | None, str]:
        key_id, _, secret = key[:LONGEST_KEY].partition(".")
        is_one = key_id.isascii() and key_id.isprintable() and secret
        return (self._store.find(key_id) if is_one else None), secret

    def admit(self, key: str, address: str) -> GuestKeyRecord | None:
        """Whose telephone shows this; None where it is nobody's. `address`: where it comes from.

        Raises:
            TooManyTriesError: Wrong keys came from there too often; the right one is not looked at either for a while.
        """
        self._check_tries(address)
        record, secret = self._find(key)
        if record is None or not record.digest or not self._opens(record, secret):
            self._note_wrong(address)
            return None
        if record.seen is None or self._now() - record.seen > SEEN_EVERY or record.address != address:
            self._store.seen(record.id, self._now(), address)
        return record

    def _has_lapsed(self, record: GuestKeyRecord) -> bool:
        """Whether its link was used, or nobody came: one that lies about opens nothing the next day."""
        if record.entered is not None:
            return self._now() - record.entered > USED_FOR
        return self._now() - record.created > FIRST_USED_WITHIN

    def _opens(self, record: GuestKeyRecord, secret: str) -> bool:
        # What was found right once is known by a digest that takes no time, as long as the key is the same.
        short = hashlib.sha256(f"{record.id}.{secret}".encode()).digest()
        if self._known.get(short) == record.digest:
            return True
        if not _is_of(record.digest, secret):
            return False
        if len(self._known) > MOST_KEYS:
            self._known.clear()
        self._known[short] = record.digest
        return True

    def _check_tries(self, address: str) -> None:
        begin = self._clock() - WINDOW_S
        with self._lock:
            for name, tries in list(self._wrong.items()):
                while tries and tries[0] < begin:
                    tries.popleft()
                if not tries:
                    del self._wrong[name]
            of_one = len(self._wrong.get(address, ()))
            of_all = sum(map(len, self._wrong.values()))
        if of_one >= MOST_TRIES or (of_one and of_all >= MOST_TRIES_IN_ALL):
            raise TooManyTriesError("too many wrong keys came from there: wait a minute, then open the link again")

    def _note_wrong(self, address: str) -> None:
        with self._lock:
            self._wrong.setdefault(address, deque()).append(self._clock())


def _is_of(digest: str, secret: str) -> bool:
    try:
        return _HASHER.verify(digest, secret)
    except (Argon2Error, InvalidHashError):
        return False


def _name(name: str) -> str:
    plain = " ".join("".join(letter if is_plain(letter) else " " for letter in name).split())[:LONGEST_NAME]
    if not plain:
        raise InputError("give the key a name: whose telephone it is for")
    return plain


def _made(network: LocalNetwork, record: GuestKeyRecord, secret: str, page: str) -> MadeKey:
    key = f"{record.id}.{secret}"
    link = network.link(page, key)
    box = io.BytesIO()
    segno.make(link, error="m").save(box, kind="svg", scale=4, border=3, xmldecl=False)
    return MadeKey(record, key, link, box.getvalue().decode())
