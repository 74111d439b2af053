"""What simulated devices record, as a file."""

import io
from typing import Final

import numpy as np

from tidy_trunk.core.sound.simulation import RATE_HZ, NoiseLoop
from tidy_trunk.formats import write_sound

BITS: Final = "24"
"""ASSUMED_ depth: microphone level lies 80 dB down, and is to be heard as it is, not as steps of 16 bits."""

PAUSE_S: Final = 0.5
"""ASSUMED_ what one leaves between two positions of a knob."""


def loop_file(loop: NoiseLoop) -> bytes:
    """A loop as a file; several, one a row, as its channels."""
    box, rows = io.BytesIO(), np.atleast_2d(loop)
    channels, sample_count = rows.shape
    write_sound(box, [rows], rate_hz=RATE_HZ, channels=channels, sample_count=sample_count, bits=BITS)
    return box.getvalue()
