"""What a Broadcast WAV says of itself beside its sound: where it began."""

import struct
from dataclasses import dataclass
from typing import BinaryIO, Final

from tidy_trunk.formats.riff import chunks

BEXT_BYTES: Final = 602
"""Length of the fixed part of the chunk. [EBU3285]"""


@dataclass(frozen=True, slots=True)
class Broadcast:
    """The `bext` chunk as far as it is read. time_reference: samples since midnight at the first one."""

    description: str
    originator: str
    date: str
    time: str
    time_reference: int


def read_broadcast(stream: BinaryIO) -> Broadcast | None:
    """The `bext` chunk of a WAV or RF64; None where there is none. The stream is put back to its start. Source: [EBU3285]"""
    try:
        for name, _, size in chunks(stream):
            if name == b"bext" and size >= BEXT_BYTES:
                return _parsed(stream.read(BEXT_BYTES))
            if name == b"data" and size == 0:
                return None
        return None
    finally:
        stream.seek(0)


def _parsed(body: bytes) -> Broadcast | None:
    if len(body) < BEXT_BYTES:
        return None
    low, high = struct.unpack("<II", body[338:346])
    return Broadcast(
        _text(body[:256]), _text(body[256:288]), _text(body[320:330]), _text(body[330:338]), high << 32 | low
    )


def _text(raw: bytes) -> str:
    return raw.split(b"\0", 1)[0].decode("utf-8", errors="replace").strip()
