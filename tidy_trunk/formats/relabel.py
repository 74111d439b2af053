"""A WAV written anew with other labels, or one channel of it alone: its sound, and all that it says beside, byte for byte as it was."""

import struct
from collections.abc import Callable
from typing import BinaryIO, Final

import numpy as np

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.labels import LARGEST_BYTES, TakeLabels, relabelled
from tidy_trunk.formats.riff import FORMAT_BYTES, UNKNOWN_SIZE, chunks, sound_chunk
from tidy_trunk.formats.sound import LARGEST_WAV_BYTES

PIECE_BYTES: Final = 1 << 22
"""ASSUMED_ piece in which sound is copied."""

EXTENSIBLE: Final = 0xFFFE
"""Code of the longer kind of format chunk. [EBU3306]"""

DATE_AT, DATE_BYTES = 320, 10
"""Where `bext` has its date, and how long that is. [EBU3285]"""


def write_relabelled(
    source: BinaryIO, out: BinaryIO, labels: TakeLabels, *, original: str, date: str = "", channel: int = 0
) -> None:
    """A copy of a WAV or RF64 with the labels of a take in `iXML`, and a date in `bext` where one is given, `2026-12-01`.

    A sound that was cut short gets a header that says how long it really is. original: the name that the file had; channel: the
    one that is copied, from 1; 0 for all.

    Raises:
        FormatError: This is no WAV, or the copy would be longer than its kind may be.

    Source: [EBU3285], [EBU3306], [IXML]
    """
    whole, parts, said = source.seek(0, 2), [], None
    for name, at, size in chunks(source):
        there = max(min(whole - at, size if size != UNKNOWN_SIZE else whole - at), 0)
        if name == b"iXML":
            said = source.read(there) if there <= LARGEST_BYTES else None
        else:
            parts.append((name, at, there))
    if not any(name == b"data" for name, _, _ in parts):
        raise FormatError("this is no WAV: its labels cannot be written")
    ixml = relabelled(said, labels, original)
    written, _ = sound_chunk(source)
    if channel > written.channels:
        raise FormatError(f"it has {written.channels} channels: there is no number {channel}")
    one = written.block // written.channels

    def kept(name: bytes, there: int) -> int:
        """Bytes of a chunk in the copy: of one channel, whole samples alone."""
        return there // written.block * one if channel and name == b"data" else there

    sizes = [8 + kept(name, there) + kept(name, there) % 2 for name, _, there in parts if name != b"ds64"]
    length = 4 + sum(sizes) + 8 + len(ixml) + len(ixml) % 2
    source.seek(0)
    is_long = source.read(4) != b"RIFF"
    if not is_long and length > LARGEST_WAV_BYTES:
        raise FormatError("with its labels this WAV would be longer than a WAV can be: leave its labels alone")
    _write_head(source, out, parts, length, kept, is_long=is_long)
    for name, at, there in parts:
        if name == b"ds64":
            continue
        if name == b"data":
            out.write(b"iXML" + struct.pack("<I", len(ixml)) + ixml + b"\0" * (len(ixml) % 2))
        out.write(name + struct.pack("<I", UNKNOWN_SIZE if is_long and name == b"data" else kept(name, there)))
        source.seek(at)
        if channel and name == b"fmt ":
            out.write(_mono(source.read(there)))
        elif channel and name == b"data":
            _copy_channel(source, out, there // written.block, written.block, (channel - 1) * one, one)
        elif name == b"bext" and date and there >= DATE_AT + DATE_BYTES:
            body = bytearray(source.read(there))
            body[DATE_AT : DATE_AT + DATE_BYTES] = date.encode("ascii")[:DATE_BYTES].ljust(DATE_BYTES, b"\0")
            out.write(body)
        else:
            _copy(source, out, there)
        out.write(b"\0" * (kept(name, there) % 2))


def _write_head(
    source: BinaryIO,
    out: BinaryIO,
    parts: list[tuple[bytes, int, int]],
    length: int,
    kept: Callable[[bytes, int], int],
    *,
    is_long: bool,
) -> None:
    if not is_long:
        out.write(b"RIFF" + struct.pack("<I", length) + b"WAVE")
        return
    source.seek(0)
    kind = source.read(4)
    where = next(((at, there) for name, at, there in parts if name == b"ds64" and there >= 28), None)
    if where is None:
        raise FormatError("this file does not say how long it is: its labels cannot be written")
    source.seek(where[0])
    body = bytearray(source.read(where[1]))
    sound = next(kept(name, there) for name, _, there in parts if name == b"data")
    body[:16] = struct.pack("<QQ", length + 8 + len(body), sound)
    out.write(kind + struct.pack("<I", UNKNOWN_SIZE) + b"WAVE" + b"ds64" + struct.pack("<I", len(body)) + body)


def _mono(body: bytes) -> bytes:
    """A format chunk that says one channel; of the longer kind, one that stands nowhere in a room."""
    code, channels, rate_hz, _, block, bits = struct.unpack("<HHIIHH", body[:FORMAT_BYTES])
    one = block // channels
    rest = bytearray(body[FORMAT_BYTES:])
    if code == EXTENSIBLE and len(rest) >= 8:
        rest[4:8] = bytes(4)
    return struct.pack("<HHIIHH", code, 1, rate_hz, rate_hz * one, one, bits) + rest


def _copy_channel(source: BinaryIO, out: BinaryIO, count: int, block: int, at: int, one: int) -> None:
    """Every sample's bytes of one channel, which stand `at` so many from its beginning."""
    while count:
        piece = source.read(min(count, PIECE_BYTES // block) * block)
        if len(piece) < block:
            raise FormatError("it became shorter while it was copied: was the card pulled out?")
        rows = np.frombuffer(piece[: len(piece) // block * block], dtype=np.uint8).reshape(-1, block)
        out.write(np.ascontiguousarray(rows[:, at : at + one]).tobytes())
        count -= len(rows)


def _copy(source: BinaryIO, out: BinaryIO, count: int) -> None:
    while count:
        piece = source.read(min(count, PIECE_BYTES))
        if not piece:
            raise FormatError("it became shorter while it was copied: was the card pulled out?")
        out.write(piece)
        count -= len(piece)
