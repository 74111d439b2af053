"""A WAV written anew with other labels: its sound, and all that it says beside them, byte for byte as it was."""

import struct
from typing import BinaryIO, Final

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.labels import LARGEST_BYTES, TakeLabels, relabelled
from tidy_trunk.formats.riff import UNKNOWN_SIZE, chunks
from tidy_trunk.formats.sound import LARGEST_WAV_BYTES

PIECE_BYTES: Final = 1 << 22
"""ASSUMED_ piece in which sound is copied."""

DATE_AT, DATE_BYTES = 320, 10
"""Where `bext` has its date, and how long that is. [EBU3285]"""


def write_relabelled(source: BinaryIO, out: BinaryIO, labels: TakeLabels, *, original: str, date: str = "") -> None:
    """A copy of a WAV or RF64 with the labels of a take in `iXML`, and a date in `bext` where one is given, `2026-12-01`.

    A sound that was cut short gets a header that says how long it really is. original: the name that the file had.

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
    sizes = [8 + there + there % 2 for name, _, there in parts if name != b"ds64"]
    length = 4 + sum(sizes) + 8 + len(ixml) + len(ixml) % 2
    source.seek(0)
    is_long = source.read(4) != b"RIFF"
    if not is_long and length > LARGEST_WAV_BYTES:
        raise FormatError("with its labels this WAV would be longer than a WAV can be: leave its labels alone")
    _write_head(source, out, parts, length, is_long=is_long)
    for name, at, there in parts:
        if name == b"ds64":
            continue
        if name == b"data":
            out.write(b"iXML" + struct.pack("<I", len(ixml)) + ixml + b"\0" * (len(ixml) % 2))
        out.write(name + struct.pack("<I", UNKNOWN_SIZE if is_long and name == b"data" else there))
        source.seek(at)
        if name == b"bext" and date and there >= DATE_AT + DATE_BYTES:
            body = bytearray(source.read(there))
            body[DATE_AT : DATE_AT + DATE_BYTES] = date.encode("ascii")[:DATE_BYTES].ljust(DATE_BYTES, b"\0")
            out.write(body)
        else:
            _copy(source, out, there)
        out.write(b"\0" * (there % 2))


def _write_head(
    source: BinaryIO, out: BinaryIO, parts: list[tuple[bytes, int, int]], length: int, *, is_long: bool
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
    sound = next(there for name, _, there in parts if name == b"data")
    body[:16] = struct.pack("<QQ", length + 8 + len(body), sound)
    out.write(kind + struct.pack("<I", UNKNOWN_SIZE) + b"WAVE" + b"ds64" + struct.pack("<I", len(body)) + body)


def _copy(source: BinaryIO, out: BinaryIO, count: int) -> None:
    while count:
        piece = source.read(min(count, PIECE_BYTES))
        if not piece:
            raise FormatError("it became shorter while it was copied: was the card pulled out?")
        out.write(piece)
        count -= len(piece)
