"""Linear timecode that is sent: bit by bit as ST 12-1 has it (from memory), and by another library's decoder where installed."""

import ctypes
import ctypes.util

import numpy as np
import pytest

from tidy_trunk.core.base.timecode import RATES, LtcExtras, Timecode, frame_bits, ltc_samples
from tidy_trunk.errors import RateError

SLOW = [name for name, rate in RATES.items() if rate.nominal <= 30]


def label(text, name):
    rate = RATES[name]
    return Timecode.parse(text[:8] + (";" if rate.drop else ":") + text[9:], rate)


def test_the_bits_lie_where_the_standard_has_them():
    """By hand, lowest bit first: 21:43:05:17, units and tens of each field in turn."""
    bits = frame_bits(label("21:43:05:17", "25"), LtcExtras(user_bits=(1, 2, 3, 4, 5, 6, 7, 15)))
    number = lambda at, size: sum(bit << place for place, bit in enumerate(bits[at : at + size]))  # noqa: E731
    assert [number(at, size) for at, size in ((0, 4), (8, 2), (16, 4), (24, 3))] == [7, 1, 5, 0]
    assert [number(at, size) for at, size in ((32, 4), (40, 3), (48, 4), (56, 2))] == [3, 4, 1, 2]
    assert [number(4 + 8 * group, 4) for group in range(8)] == [1, 2, 3, 4, 5, 6, 7, 15]
    assert "".join(map(str, bits[64:])) == "0011111111111101"
    assert frame_bits(label("00:00:00:02", "29.97df"))[10] == 1 and bits[10] == 0


@pytest.mark.parametrize("name", SLOW)
def test_the_zeros_of_every_word_are_even(name):
    """So that the polarity of each frame is the same, whatever it says."""
    first = label("09:59:59:20", name)
    assert all(frame_bits(first.plus(count)).count(0) % 2 == 0 for count in range(200))


@pytest.mark.parametrize("name", SLOW)
def test_pieces_fit_without_a_seam(name):
    start = label("09:59:58:10", name)
    whole = ltc_samples(start, 48_000, 0, 30_000)
    pieces = [ltc_samples(start, 48_000, at, 3_333) for at in range(0, 29_997, 3_333)]
    assert np.abs(whole[:29_997] - np.concatenate(pieces)).max() < 1e-9
    assert 0.99 < np.abs(whole).max() <= 1.0


def test_edges_are_as_long_as_the_standard_says():
    """40 µs from 10 to 90 %, looked at through 4 MHz."""
    wave = ltc_samples(label("01:00:00:00", "25"), 4_000_000, 0, 40_000)
    inside = np.flatnonzero(np.abs(wave) < 0.8)
    lengths = [len(part) for part in np.split(inside, np.flatnonzero(np.diff(inside) > 1) + 1)]
    assert np.median(lengths) / 4_000_000 == pytest.approx(40e-6, rel=0.05)


def test_more_frames_than_it_can_number_are_refused():
    with pytest.raises(RateError, match="half of this rate"):
        ltc_samples(label("01:00:00:00", "50"), 48_000, 0, 100)


LIBRARY = ctypes.util.find_library("ltc")


@pytest.mark.parametrize("name", SLOW)
def test_another_decoder_reads_it(name):
    library = ctypes.CDLL(LIBRARY)
    library.ltc_decoder_create.restype = ctypes.c_void_p
    rate = RATES[name]
    decoder = ctypes.c_void_p(library.ltc_decoder_create(int(48_000 / rate.ratio), 64))
    start = label("10:00:59:20", name)
    samples = np.ascontiguousarray(ltc_samples(start, 48_000, 0, 96_000) * 0.5, dtype=np.float32)
    library.ltc_decoder_write_float(
        decoder,
        samples.ctypes.data_as(ctypes.POINTER(ctypes.c_float)),
        ctypes.c_size_t(len(samples)),
        ctypes.c_longlong(0),
    )
    frame = ctypes.create_string_buffer(1024)
    read = []
    while library.ltc_decoder_read(decoder, frame):
        word = [frame.raw[bit // 8] >> bit % 8 & 1 for bit in range(80)]
        read.append(tuple(word))
    library.ltc_decoder_free(decoder)
    sent = [frame_bits(start.plus(count)) for count in range(70)]
    assert len(read) >= 40 and read[0] in sent
    assert read == sent[sent.index(read[0]) :][: len(read)]
