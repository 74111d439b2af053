"""Broadcast WAV: what a file says of itself beside its sound, read and written."""

import struct
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import BinaryIO, Final
from xml.etree import ElementTree

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.labels import TakeLabels, add_labels
from tidy_trunk.formats.riff import UNKNOWN_SIZE, chunks
from tidy_trunk.formats.sound import LARGEST_WAV_BYTES

BEXT_BYTES: Final = 602
"""Length of the fixed part of the chunk. [EBU3285]"""

PCM, FLOAT = 1, 3
SAMPLE_BYTES: Final = {"16": 2, "24": 3, "32f": 4}
"""How samples are written, by the bits that a user names. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Broadcast:
    """The `bext` chunk as far as it is used. time_reference: samples since midnight at the first one.

    date, time: `2026-11-25`, `10:00:00`; "" where nobody said.
    """

    description: str = ""
    originator: str = ""
    date: str = ""
    time: str = ""
    time_reference: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class TimecodeSpeed:
    """What `iXML` says of the clock. rate: as a fraction, `30000/1001`; drop: whether labels are dropped."""

    rate: str
    drop: bool
    rate_hz: int
    time_reference: int


def read_broadcast(stream: BinaryIO) -> Broadcast | None:
    """The `bext` chunk of a WAV or RF64; None where there is none. The stream is put back to its start. Source: [EBU3285]"""
    try:
        for name, _, size in chunks(stream):
            if name == b"bext" and size >= BEXT_BYTES:
                return _parsed(stream.read(BEXT_BYTES))
        return None
    finally:
        stream.seek(0)


def _parsed(body: bytes) -> Broadcast | None:
    if len(body) < BEXT_BYTES:
        return None
    low, high = struct.unpack("<II", body[338:346])
    return Broadcast(
        description=_text(body[:256]),
        originator=_text(body[256:288]),
        date=_text(body[320:330]),
        time=_text(body[330:338]),
        time_reference=high << 32 | low,
    )


def _text(raw: bytes) -> str:
    return raw.split(b"\0", 1)[0].decode("utf-8", errors="replace").strip()


def write_broadcast(
    stream: BinaryIO,
    pieces: Iterable[NDArray[np.float32]],
    *,
    rate_hz: int,
    channels: int,
    sample_count: int,
    bits: str,
    broadcast: Broadcast,
    speed: TimecodeSpeed | None = None,
    labels: TakeLabels | None = None,
) -> None:
    """A Broadcast WAV of pieces of shape (channels, count), full scale ±1.0; RF64 where a WAV cannot be that long.

    Args:
        sample_count: Of each channel, in all pieces together.
        bits: A key of `SAMPLE_BYTES`.

    Raises:
        FormatError: More or fewer samples came than were announced.

    Source: [EBU3285], [EBU3306]
    """
    width = SAMPLE_BYTES[bits]
    block = width * channels
    size = sample_count * block
    head = _chunk(b"bext", _bext(broadcast)) + _chunk(b"fmt ", _format(rate_hz, channels, width, bits == "32f"))
    if speed is not None or labels is not None:
        head += _chunk(b"iXML", _ixml(speed, labels))
    whole = 4 + 36 + len(head) + 8 + size + size % 2
    if whole > LARGEST_WAV_BYTES:
        long = _chunk(b"ds64", struct.pack("<QQQI", whole, size, sample_count, 0))
        stream.write(b"RF64" + struct.pack("<I", UNKNOWN_SIZE) + b"WAVE" + long + head)
        stream.write(b"data" + struct.pack("<I", UNKNOWN_SIZE))
    else:
        # The place of ds64 is kept by as much of nothing, so that both kinds are laid out alike.
        stream.write(b"RIFF" + struct.pack("<I", whole) + b"WAVE" + _chunk(b"JUNK", bytes(28)) + head)
        stream.write(b"data" + struct.pack("<I", size))
    written = 0
    for data in _samples(pieces, bits):
        written += len(data)
        stream.write(data)
    if written != size:
        raise FormatError(f"{sample_count} samples were announced, and {written // block} came")
    stream.write(b"\0" * (size % 2))


def _chunk(name: bytes, body: bytes) -> bytes:
    return name + struct.pack("<I", len(body)) + body + b"\0" * (len(body) % 2)


def _bext(broadcast: Broadcast) -> bytes:
    low, high = broadcast.time_reference & 0xFFFF_FFFF, broadcast.time_reference >> 32
    return struct.pack(
        "<256s32s32s10s8sIIH254s",
        _bytes(broadcast.description, 256),
        _bytes(broadcast.originator, 32),
        b"",
        _bytes(broadcast.date, 10),
        _bytes(broadcast.time, 8),
        low,
        high,
        1,
        b"",
    )


def _bytes(text: str, most: int) -> bytes:
    """As many whole characters as there is room for."""
    return text.encode("ascii", errors="replace")[:most]


def _format(rate_hz: int, channels: int, width: int, is_float: bool) -> bytes:
    block = width * channels
    return struct.pack("<HHIIHH", FLOAT if is_float else PCM, channels, rate_hz, rate_hz * block, block, 8 * width)


def _ixml(speed: TimecodeSpeed | None, labels: TakeLabels | None) -> bytes:
    """The clock of a recording, and what its take is called, as editing programs read it. Source: [IXML]"""
    root = ElementTree.Element("BWFXML")
    ElementTree.SubElement(root, "IXML_VERSION").text = "2.10"
    if labels is not None:
        add_labels(root, labels)
    if speed is not None:
        _add_speed(root, speed)
    document: bytes = ElementTree.tostring(root, encoding="UTF-8", xml_declaration=True)
    return document


def _add_speed(root: ElementTree.Element, speed: TimecodeSpeed) -> None:
    clock = ElementTree.SubElement(root, "SPEED")
    low, high = speed.time_reference & 0xFFFF_FFFF, speed.time_reference >> 32
    values = {
        "MASTER_SPEED": speed.rate,
        "CURRENT_SPEED": speed.rate,
        "TIMECODE_RATE": speed.rate,
        "TIMECODE_FLAG": "DF" if speed.drop else "NDF",
        "FILE_SAMPLE_RATE": str(speed.rate_hz),
        "TIMESTAMP_SAMPLE_RATE": str(speed.rate_hz),
        "TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_HI": str(high),
        "TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_LO": str(low),
    }
    for name, value in values.items():
        ElementTree.SubElement(clock, name).text = value


def _samples(pieces: Iterable[NDArray[np.float32]], bits: str) -> Iterator[bytes]:
    for piece in pieces:
        turned = np.ascontiguousarray(piece.T)
        if bits == "32f":
            yield turned.astype("<f4").tobytes()
            continue
        top = 2 ** (8 * SAMPLE_BYTES[bits] - 1)
        whole = np.clip(np.rint(turned.astype(np.float64) * top), -top, top - 1).astype("<i4")
        # The lowest bytes of each number, the lowest first.
        yield np.ascontiguousarray(whole.view(np.uint8).reshape(-1, 4)[:, : SAMPLE_BYTES[bits]]).tobytes()
