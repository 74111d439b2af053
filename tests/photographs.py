"""Photographs made with FFmpeg's encoders: light on the left, dark on the right."""

from fractions import Fraction

import av
import numpy as np

PIXELS = {"mjpeg": "yuvj420p", "png": "rgb24", "libwebp": "yuv420p"}


def photograph(width: int, height: int, codec: str = "mjpeg") -> bytes:
    picture = np.full((height, width, 3), 40, dtype=np.uint8)
    picture[:, : width // 2] = 200
    encoder = av.CodecContext.create(codec, "w")
    encoder.width, encoder.height, encoder.pix_fmt = width, height, PIXELS[codec]
    encoder.time_base = Fraction(1, 25)
    frame = av.VideoFrame.from_ndarray(picture, format="rgb24").reformat(format=PIXELS[codec])
    frame.pts = 0
    return b"".join(bytes(packet) for packet in [*encoder.encode(frame), *encoder.encode(None)])
