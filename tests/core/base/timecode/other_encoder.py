"""Linear timecode by libltc's encoder. Run as a script it makes the samples in tests/files."""

import ctypes
import ctypes.util
import wave
from pathlib import Path

import numpy as np

LIBRARY = ctypes.util.find_library("ltc")
STANDARD = {24: 3, 25: 1, 30: 0}
"""Film, 625/50 and 525/60, as that library numbers them; it sets the drop-frame flag at 29.97."""

SAMPLES = {"ltc-25.wav": (25, 1, "09:59:59:20"), "ltc-29.97df.wav": (30_000, 1001, "10:00:59;18")}
"""By file: the rate as a ratio, and the first label; the second one passes a minute, where labels are dropped."""

RATE_HZ, FRAMES = 16_000, 45


class Label(ctypes.Structure):
    _fields_ = [
        ("timezone", ctypes.c_char * 6),
        *((name, ctypes.c_ubyte) for name in ("years", "months", "days", "hours", "mins", "secs", "frame")),
    ]


def encoded(first: str, ratio: float, rate_hz: int, frames: int) -> np.ndarray:
    """So many frames from a label on, as bytes from 0 to 255 around 128."""
    library = ctypes.CDLL(LIBRARY)
    library.ltc_encoder_create.restype = ctypes.c_void_p
    encoder = ctypes.c_void_p(
        library.ltc_encoder_create(ctypes.c_double(rate_hz), ctypes.c_double(ratio), STANDARD[round(ratio)], 0)
    )
    hours, minutes, seconds, frame = (int(part) for part in first.replace(";", ":").split(":"))
    library.ltc_encoder_set_timecode(encoder, ctypes.byref(Label(hours=hours, mins=minutes, secs=seconds, frame=frame)))
    pieces = []
    buffer = (ctypes.c_ubyte * (rate_hz // 10))()
    for _ in range(frames):
        library.ltc_encoder_encode_frame(encoder)
        count = library.ltc_encoder_copy_buffer(encoder, buffer)
        pieces.append(np.frombuffer(buffer, dtype=np.uint8)[:count].copy())
        library.ltc_encoder_inc_timecode(encoder)
    library.ltc_encoder_free(encoder)
    return np.concatenate(pieces)


if __name__ == "__main__":
    for name, (up, down, first) in SAMPLES.items():
        made = encoded(first, up / down, RATE_HZ, FRAMES)
        with wave.open(str(Path(__file__).parents[3] / "files" / name), "wb") as file:
            file.setnchannels(1)
            file.setsampwidth(1)
            file.setframerate(RATE_HZ)
            file.writeframes(made.tobytes())
