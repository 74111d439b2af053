"""Sound files written by the standard library's wave module, cut and broken."""

import io
import wave

import numpy as np
import pytest

from tidy_trunk.errors import FormatError
from tidy_trunk.formats import read_sound


def wav(samples: np.ndarray, rate: int = 48_000) -> bytes:
    """16 bit; samples of shape (sample_count, channels)."""
    box = io.BytesIO()
    with wave.open(box, "wb") as file:
        file.setnchannels(samples.shape[1])
        file.setsampwidth(2)
        file.setframerate(rate)
        file.writeframes((samples * 32767).astype("<i2").tobytes())
    return box.getvalue()


STEREO = np.stack([np.full(100, 0.5), np.full(100, -0.25)], axis=1)


def test_a_channel_is_read_at_its_level():
    for channel, level in ((1, 0.5), (2, -0.25)):
        samples, rate = read_sound(io.BytesIO(wav(STEREO)), channel)
        assert rate == 48_000 and samples == pytest.approx(np.full(100, level), abs=1e-4)


@pytest.mark.parametrize("data", [b"", b"RIFF", b"no sound at all", wav(STEREO)[:20]])
def test_what_is_no_recording_is_refused(data):
    with pytest.raises(FormatError, match=r"no recording that can be read|is empty"):
        read_sound(io.BytesIO(data))


def test_a_channel_that_is_not_there_is_refused():
    with pytest.raises(FormatError, match="has 2 channels, and no channel 3"):
        read_sound(io.BytesIO(wav(STEREO)), 3)


def test_a_file_cut_short_is_read_as_far_as_it_goes():
    whole = wav(STEREO)
    for cut in range(48, len(whole), 37):
        assert len(read_sound(io.BytesIO(whole[:cut]))[0]) <= 100
