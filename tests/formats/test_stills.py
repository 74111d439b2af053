"""Single pictures of a movie, told apart by their grey: read back by FFmpeg's own decoder."""

import io
from fractions import Fraction

import av
import numpy as np
import pytest

from tidy_trunk.errors import FormatError, RangeError
from tidy_trunk.formats import still

PICTURES = 40
RATES = [Fraction(25), Fraction(30000, 1001)]


def grey_of(number: int) -> int:
    return 20 + 5 * number


def ramp(rate: Fraction, *, width: int = 96, height: int = 64) -> io.BytesIO:
    """A movie of which each picture is lighter than the one before; with pictures that are told from later ones, as cameras
    write them."""
    box = io.BytesIO()
    with av.open(box, "w", format="mov") as container:
        pictures = container.add_stream("mpeg4", rate=rate, options={"bf": "2", "g": "12", "qmin": "1", "qmax": "2"})
        pictures.width, pictures.height, pictures.pix_fmt = width, height, "yuv420p"
        for number in range(PICTURES):
            flat = np.full((height, width, 3), grey_of(number), np.uint8)
            container.mux(pictures.encode(av.VideoFrame.from_ndarray(flat, format="rgb24")))
        container.mux(pictures.encode(None))
    box.seek(0)
    return box


def seen(jpeg: bytes) -> np.ndarray:
    with av.open(io.BytesIO(jpeg)) as container:
        return next(container.decode(video=0)).to_ndarray(format="rgb24")


@pytest.mark.parametrize("rate", RATES, ids=str)
def test_each_picture_is_the_one_of_its_number(rate):
    movie = ramp(rate)
    for number in (0, 1, 11, 12, 13, 25, PICTURES - 1):
        assert seen(still(movie, number, rate)).mean() == pytest.approx(grey_of(number), abs=2)


@pytest.mark.deep
def test_a_large_picture_is_made_small_and_keeps_its_shape():
    picture = seen(still(ramp(Fraction(25), width=1920, height=1080), 3, Fraction(25)))
    assert picture.shape == (360, 640, 3)


def test_what_has_no_such_picture_is_refused():
    with pytest.raises(RangeError, match="ends before"):
        still(ramp(Fraction(25)), PICTURES + 5, Fraction(25))
    with pytest.raises(FormatError, match="cannot be read"):
        still(io.BytesIO(b"no movie at all"), 0, Fraction(25))
