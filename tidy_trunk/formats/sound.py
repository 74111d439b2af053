"""One channel of a short recording at once, and sound written as WAV."""

from collections.abc import Iterable
from typing import Any, BinaryIO, Final

import numpy as np
import soundfile
from numpy.typing import NDArray

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.recording import open_recording

LARGEST_SOUND_BYTES: Final = 100_000_000
"""ASSUMED_ largest recording that somebody waits for: almost six minutes of stereo at 48 kHz and 24 bit."""

LONGEST_SOUND_S: Final = 600.0
"""ASSUMED_ longest recording from which a level is taken: a compressed file may unpack to far more than its size."""

LARGEST_WAV_BYTES: Final = 2**32 - 2**16
"""Where a WAV ends, with room for its chunks. [EBU3306]"""

SUBTYPES: Final = {"16": "PCM_16", "24": "PCM_24", "32f": "FLOAT"}
"""How samples are kept, by the bits that a user names. [PRACTICE]"""


def read_sound(stream: BinaryIO, channel: int = 1) -> tuple[NDArray[np.float64], int]:
    """One channel of a recording, full scale ±1.0, with its sample rate in Hz. `channel` counts from 1.

    Raises:
        FormatError: Not a sound file, too long, or without that channel.
    """
    recording = open_recording(stream)
    try:
        if recording.sample_count > recording.rate_hz * LONGEST_SOUND_S:
            raise FormatError(f"the recording is longer than {LONGEST_SOUND_S / 60:.0f} minutes: give a part of it")
        if not 1 <= channel <= recording.channels:
            raise FormatError(f"the recording has {recording.channels} channels, and no channel {channel}")
        # Copied: a view of one channel would keep all others in memory.
        pieces = [piece[channel - 1].copy() for piece in recording.pieces(recording.rate_hz)]
        return np.concatenate(pieces or [np.zeros(0)]).astype(np.float64), recording.rate_hz
    finally:
        recording.close()


def write_sound(
    stream: BinaryIO, pieces: Iterable[NDArray[Any]], *, rate_hz: int, channels: int, sample_count: int, bits: str
) -> None:
    """A WAV of pieces of shape (channels, sample_count), full scale ±1.0; RF64 where a WAV cannot be that long.

    Args:
        stream: Binary, writable, one that can be sought in.
        sample_count: Of each channel, in all pieces together.
        bits: A key of `SUBTYPES`.

    Source: [EBU3306]
    """
    size = sample_count * channels * (int(bits.rstrip("f")) // 8)
    kind = "WAV" if size < LARGEST_WAV_BYTES else "RF64"
    with soundfile.SoundFile(stream, "w", rate_hz, channels, SUBTYPES[bits], format=kind) as file:
        for piece in pieces:
            file.write(piece.T)
