"""Chunks of RIFF, RF64 and BW64 files: as much as it takes to see whether one was cut short."""

import struct
from collections.abc import Iterator
from typing import BinaryIO, Final, NamedTuple

from tidy_trunk.errors import FormatError

UNKNOWN_SIZE: Final = 0xFFFF_FFFF
"""What stands for a size that is told elsewhere, or that nobody knew when the header was written. [EBU3306]"""

FORMAT_BYTES: Final = 16
"""Of the format chunk that every WAV has. [EBU3285]"""

MOST_CHUNKS: Final = 1_000
"""ASSUMED_ chunks that are walked past: a file with more before its sound is a made one."""


class SoundChunk(NamedTuple):
    """Where the sound lies: offset of its first byte, how many the header promises (None: unknown), how many there are."""

    offset: int
    promised: int | None
    there: int

    @property
    def is_cut_short(self) -> bool:
        return self.promised is not None and self.there < self.promised


def find_sound(stream: BinaryIO) -> SoundChunk | None:
    """The chunk that holds the sound; None where this is no RIFF file, or has none. The stream is put back to its start.

    Source: [EBU3306]
    """
    try:
        return _walk(stream)
    finally:
        stream.seek(0)


class SoundFormat(NamedTuple):
    """rate_hz; channels; block: bytes of one sample of all channels."""

    rate_hz: int
    channels: int
    block: int


def sound_chunk(stream: BinaryIO) -> tuple[SoundFormat, SoundChunk]:
    """How the sound of a file is written, and where it lies. The stream is put back to its start.

    Raises:
        FormatError: No format that says so, or no sound.

    Source: [EBU3285]
    """
    try:
        for name, _, size in chunks(stream):
            if name == b"fmt " and size >= FORMAT_BYTES:
                _, channels, rate_hz, _, block, _ = struct.unpack("<HHIIHH", stream.read(FORMAT_BYTES))
                found = _walk(stream)
                if found is None or not rate_hz or not block or not channels or block % channels:
                    break
                return SoundFormat(rate_hz, channels, block), found
        raise FormatError("there is no sound in it, or it does not say of which kind")
    except struct.error as error:
        raise FormatError("its header is cut off") from error
    finally:
        stream.seek(0)


def is_wave(stream: BinaryIO) -> bool:
    """Whether this is a WAV or one of its kin. The stream is put back to its start."""
    return find_sound(stream) is not None


def _walk(stream: BinaryIO) -> SoundChunk | None:
    whole = stream.seek(0, 2)
    for name, at, size in chunks(stream):
        if name == b"data":
            promised = None if size == UNKNOWN_SIZE else size
            return SoundChunk(at, promised, max(whole - at, 0))
    return None


def chunks(stream: BinaryIO) -> Iterator[tuple[bytes, int, int]]:
    """Name, offset of the first byte, and size of each chunk; the stream stands at its first byte. None but RIFF has any.

    A size that `ds64` tells instead is that; one that nobody told stays `UNKNOWN_SIZE`, and ends the walk.
    """
    stream.seek(0)
    head = stream.read(12)
    if len(head) < 12 or head[:4] not in (b"RIFF", b"RF64", b"BW64") or head[8:] != b"WAVE":
        return
    long_size: int | None = None
    for _ in range(MOST_CHUNKS):
        chunk = stream.read(8)
        if len(chunk) < 8:
            return
        name, size = struct.unpack("<4sI", chunk)
        at = stream.tell()
        if name == b"ds64":
            body = stream.read(min(size, 24))
            long_size = struct.unpack("<Q", body[8:16])[0] if len(body) >= 16 else None
        elif name == b"data" and size == UNKNOWN_SIZE and long_size is not None:
            size = long_size
        stream.seek(at)
        yield name, at, size
        if name == b"data" and size == UNKNOWN_SIZE:
            return
        stream.seek(at + size + size % 2)
