"""Whole numbers in a WAV, read from beginning to end: several times as fast as libsndfile reads them."""

import os
from collections.abc import Iterator
from typing import Any, BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.container import opened

PACKET_BYTES: Final = 1 << 18
"""ASSUMED_ what is read at once: with the few kilobytes that are usual, most of the time goes into asking."""

SCALES: Final = {"s16": 2.0**-15, "s32": 2.0**-31}
"""What makes full scale 1 of each kind of sample; 24 bits come as the upper ones of 32. [AES17]"""


def plain_pieces(stream: BinaryIO, channels: int, size: int) -> Iterator[NDArray[np.float32]]:
    """All of a WAV of 16, 24 or 32 bits in pieces of that many samples, shape (channels, size), the last one shorter.

    Raises:
        FormatError: It cannot be decoded.
    """
    import av  # a tenth of a second: only where something is read whole

    left: list[NDArray[Any]] = []
    waiting, scale = 0, np.float32(1)
    try:
        # Its own way to the file, so that its place in it is its own.
        with opened(f"/dev/fd/{stream.fileno()}", max_size=str(PACKET_BYTES)) as container:
            for frame in container.decode(audio=0):
                scale = np.float32(SCALES[frame.format.name])
                left.append(frame.to_ndarray().reshape(-1, channels))
                waiting += len(left[-1])
                if waiting >= size:
                    whole = left[0] if len(left) == 1 else np.concatenate(left)
                    full = waiting // size * size
                    for first in range(0, full, size):
                        yield _scaled(whole[first : first + size], scale)
                    left, waiting = [whole[full:]], waiting - full
    except (av.error.FFmpegError, OSError, KeyError) as error:
        raise FormatError("the recording breaks off, or is not what it says: copy it from its card again") from error
    if waiting:
        yield _scaled(np.concatenate(left), scale)


def can_be_read(stream: BinaryIO) -> bool:
    """Whether there is a way to the file beside the stream itself."""
    try:
        return os.path.exists(f"/dev/fd/{stream.fileno()}")  # noqa: PTH110, a handle and no path of a user's
    except OSError:
        return False


def _scaled(samples: NDArray[Any], scale: np.float32) -> NDArray[np.float32]:
    return np.asarray(np.multiply(samples.T, scale, dtype=np.float32, order="C"))
