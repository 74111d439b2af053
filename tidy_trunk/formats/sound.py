"""Sound files: WAV, BWF, RF64 and what else libsndfile reads."""

import io
from typing import Final

import numpy as np
import soundfile
from numpy.typing import NDArray

from tidy_trunk.errors import FormatError

LARGEST_SOUND_BYTES: Final = 100_000_000
"""ASSUMED_ largest recording that is read in one go: almost six minutes of stereo at 48 kHz and 24 bit."""

LONGEST_SOUND_S: Final = 1_800.0
"""ASSUMED_ longest recording from which a level is taken: a compressed file may unpack to far more than its size."""


def read_sound(data: bytes, channel: int = 1) -> tuple[NDArray[np.float64], int]:
    """One channel of a recording, full scale ±1.0, with its sample rate in Hz. `channel` counts from 1.

    Raises:
        FormatError: Not a sound file, too large, or without that channel.
    """
    if len(data) > LARGEST_SOUND_BYTES:
        raise FormatError(
            f"{len(data) / 1e6:.0f} MB is too large: give a part of at most {LARGEST_SOUND_BYTES / 1e6:.0f} MB"
        )
    try:
        with soundfile.SoundFile(io.BytesIO(data)) as file:
            if file.frames > file.samplerate * LONGEST_SOUND_S:
                raise FormatError("the recording is longer than half an hour: give a part of it")
            if not 1 <= channel <= file.channels:
                raise FormatError(f"the recording has {file.channels} channels, and no channel {channel}")
            samples = file.read(dtype="float64", always_2d=True)[:, channel - 1]
            return np.ascontiguousarray(samples), file.samplerate
    except soundfile.LibsndfileError as error:
        raise FormatError("this is no sound file that can be read: give a WAV") from error
