"""Photographs made small: read back by FFmpeg, and what is none refused."""

import io
import struct
import zlib

import av
import numpy as np
import pytest

from tests.photographs import photograph
from tidy_trunk.errors import FormatError
from tidy_trunk.formats import small_photograph
from tidy_trunk.formats.photograph import LONGEST_SIDE


def seen(jpeg):
    (picture,) = av.CodecContext.create("mjpeg", "r").decode(av.Packet(jpeg))
    return picture.to_ndarray(format="rgb24")


@pytest.mark.parametrize("codec", ["mjpeg", "png", "libwebp"])
def test_it_is_small_and_shows_the_same(codec):
    small = small_photograph(io.BytesIO(photograph(2000, 1500, codec)))
    picture = seen(small)
    assert picture.shape == (LONGEST_SIDE * 3 // 4, LONGEST_SIDE, 3) and len(small) < 300_000
    left, right = picture[:, : LONGEST_SIDE // 2 - 20].mean(), picture[:, LONGEST_SIDE // 2 + 20 :].mean()
    assert left == pytest.approx(200, abs=6) and right == pytest.approx(40, abs=6)


def test_a_small_one_keeps_its_size_and_no_place():
    """What a telephone writes beside the picture stands in the segment APP1 (from memory)."""
    plain = photograph(640, 480, "mjpeg")
    where = b"Exif\0\0" + b"48.2N 16.4E" * 4
    tagged = plain[:2] + b"\xff\xe1" + struct.pack(">H", len(where) + 2) + where + plain[2:]
    small = small_photograph(io.BytesIO(tagged))
    assert seen(small).shape == (480, 640, 3) and b"48.2N" not in small and b"Exif" not in small


def png_of(side):
    def part(name, data):
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", side, side, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + part(b"IHDR", head) + part(b"IDAT", zlib.compress(bytes(1000))) + part(b"IEND", b"")


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"a letter home", "no photograph"),
        (b"", "no photograph"),
        (b"\xff\xd8\xff" + b"x" * 999, "damaged"),
        (photograph(64, 48, "png")[:40], "damaged"),
        (png_of(60_000), "damaged"),  # says that it has 3.6e9 pixels
        (np.random.default_rng(0).bytes(2000), "no photograph"),
    ],
    ids=["letter", "nothing", "rubbish", "cut", "bomb", "noise"],
)
def test_what_is_none_is_refused(data, words):
    with pytest.raises(FormatError, match=words):
        small_photograph(io.BytesIO(data))
