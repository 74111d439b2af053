"""Letting the telephones of the set in: an address on its own network, and a key."""

import io
import secrets
import socket
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import segno

from tidy_trunk.errors import FormatError, SetupError
from tidy_trunk.media.files import new_file

KEY_BYTES: Final = 12
"""ASSUMED_ length of a key: 96 bits are not guessed."""

SHORTEST_KEY: Final = 16
"""Characters of a whole key: four for three of `KEY_BYTES`. [RFC4648]"""

NOWHERE: Final = "192.0.2.1"
"""An address that nobody has: asked for the way to it, the machine names its own address; nothing is sent. [RFC5737]"""


@dataclass(frozen=True, slots=True)
class Nearby:
    """address: `http://192.168.0.5:8747`, as the set's network knows this machine; key: who brings it is let in."""

    address: str
    key: str

    def link(self, path: str) -> str:
        """What a telephone opens: a page of the application, with the key."""
        return f"{self.address}/{path.lstrip('/')}?key={self.key}"

    def code(self, path: str) -> bytes:
        """The same as a square of dots for a camera, SVG."""
        box = io.BytesIO()
        segno.make(self.link(path), error="m").save(box, kind="svg", scale=4, border=3, xmldecl=False)
        return box.getvalue()


def own_key(home: Path) -> str:
    """The key of a data folder, made once: a telephone that was let in stays in. A file that holds no whole key counts as none.

    Raises SetupError: it cannot be kept.
    """
    path = home / "nearby-key"
    try:
        key = path.read_text().strip() if path.exists() else ""
        if len(key) < SHORTEST_KEY:
            key = secrets.token_urlsafe(KEY_BYTES)
            with new_file(path, mode=0o600) as file:
                file.write(key.encode())
    except (OSError, FormatError) as error:
        raise SetupError(f"cannot keep a key in {home}: {error}") from error
    return key


def own_address() -> str:
    """This machine's address on the network that it would send by. Raises SetupError: it is on none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect((NOWHERE, 9))
            found: str = probe.getsockname()[0]
        except OSError as error:
            raise SetupError("this machine is on no network: join the set's own, and start again") from error
    return found
