"""A photograph kept small: decoded by FFmpeg, made smaller, and written as JPEG without what a telephone adds to it."""

from fractions import Fraction
from typing import Any, BinaryIO, Final

from tidy_trunk.errors import FormatError

LARGEST_PHOTO_BYTES: Final = 30_000_000
"""ASSUMED_ largest photograph that is taken in: twice what a telephone writes."""

LARGEST_PIXELS: Final = 100_000_000
"""ASSUMED_ most pixels: those of the finest telephones, and less memory than a reader may use."""

LONGEST_SIDE: Final = 1280
"""ASSUMED_ longest side in px of what is kept: the lettering of a menu can be read."""

CODECS: Final = ((b"\xff\xd8\xff", "mjpeg"), (b"\x89PNG\r\n\x1a\n", "png"), (b"RIFF", "webp"))
"""How photographs begin, and by what they are decoded. [PRACTICE]"""


def small_photograph(stream: BinaryIO) -> bytes:
    """A photograph as JPEG, its longest side no longer than `LONGEST_SIDE`. Where it was taken is not in it any more.

    Raises FormatError: no JPEG, PNG or WebP, or one that is too large.
    """
    import av

    data = stream.read(LARGEST_PHOTO_BYTES + 1)
    codec = next((name for begins, name in CODECS if data.startswith(begins)), None)
    if codec is None:
        raise FormatError("this is no photograph that can be read: take a JPEG, PNG or WebP")
    if len(data) > LARGEST_PHOTO_BYTES:
        raise FormatError(f"a photograph may have at most {LARGEST_PHOTO_BYTES / 1e6:.0f} MB: take a smaller one")
    try:
        decoder: Any = av.CodecContext.create(codec, "r")
        decoder.options = {"max_pixels": str(LARGEST_PIXELS)}
        decoded = [*decoder.decode(av.Packet(data)), *decoder.decode(None)]
    except (av.error.FFmpegError, ValueError, OverflowError) as error:
        raise FormatError("this photograph is damaged: take it again") from error
    if not decoded:
        raise FormatError("this photograph is damaged: take it again")
    return jpeg(decoded[0], min(1.0, LONGEST_SIDE / max(decoded[0].width, decoded[0].height)))


def jpeg(picture: Any, scale: float) -> bytes:
    """A decoded picture by FFmpeg's own encoder. scale: 1 or less."""
    import av

    width, height = (max(2, round(side * scale / 2) * 2) for side in (picture.width, picture.height))
    encoder = av.CodecContext.create("mjpeg", "w")
    encoder.width, encoder.height, encoder.pix_fmt = width, height, "yuvj420p"
    encoder.time_base = Fraction(1, 25)
    small = picture.reformat(width=width, height=height, format="yuvj420p")
    small.pts = 0
    return b"".join(bytes(packet) for packet in [*encoder.encode(small), *encoder.encode(None)])
