"""What `./tidy bench` measures of timecode and of files laid over each other."""

import ctypes
import ctypes.util
import statistics
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np

from tidy_trunk.core.bench import LOOP_SAMPLES, RATE_HZ, voice_loop
from tidy_trunk.core.timecode import RATES, Timecode, ltc_samples, read_frames
from tidy_trunk.formats import write_sound

TIMECODE_S = 120
HOUR_S = 3_600
SPEAKERS = 12
LATER_S = 31.7


def timecode() -> None:
    """Two minutes of timecode read, beside the usual library where it is installed."""
    start = Timecode.parse("10:00:00:00", RATES["25"])
    wave = (0.1 * ltc_samples(start, RATE_HZ, 0, TIMECODE_S * RATE_HZ)).astype(np.float32)
    ours = _median_s(lambda: read_frames(lambda first, count: wave[first : first + count], len(wave), RATE_HZ))
    print(f"timecode read: {TIMECODE_S / ours:.0f} times real time")
    name = ctypes.util.find_library("ltc")
    if name is not None:
        theirs = _median_s(lambda: _read_by_library(ctypes.CDLL(name), wave))
        print(f"  {theirs / ours:.2f} of the speed of libltc ({TIMECODE_S / theirs:.0f} times)   goal 0.5")


def _read_by_library(library: ctypes.CDLL, wave: np.ndarray) -> None:
    library.ltc_decoder_create.restype = ctypes.c_void_p
    decoder = ctypes.c_void_p(library.ltc_decoder_create(RATE_HZ // 25, 64))
    frame = ctypes.create_string_buffer(1024)
    for first in range(0, len(wave), RATE_HZ // 10):
        piece = wave[first : first + RATE_HZ // 10]
        pointer = piece.ctypes.data_as(ctypes.POINTER(ctypes.c_float))
        library.ltc_decoder_write_float(decoder, pointer, ctypes.c_size_t(len(piece)), ctypes.c_longlong(first))
        while library.ltc_decoder_read(decoder, frame):
            pass
    library.ltc_decoder_free(decoder)


def hour_with_hour(folder: Path, whole_command: Callable[[list[str]], tuple[float, float]], tidy: str) -> None:
    """An hour at 48 kHz found in another: as a whole command, its files read from the disk."""
    paths = [folder / "reference.wav", folder / "other.wav"]
    for seed, (path, skipped) in enumerate(zip(paths, (0.0, LATER_S), strict=True)):
        with path.open("wb") as stream:
            pieces = _talk(round(skipped * RATE_HZ), HOUR_S * RATE_HZ, seed)
            write_sound(stream, pieces, rate_hz=RATE_HZ, channels=1, sample_count=HOUR_S * RATE_HZ, bits="24")
    seconds, memory = whole_command([tidy, "sync", str(paths[0]), str(paths[1]), "--json"])
    print(f"an hour found in an hour: {seconds:.1f} s, {memory:.0f} MB   goal 4 s, 400 MB")


def _talk(skip: int, count: int, seed: int) -> Iterator[np.ndarray]:
    """People who speak in an order that never comes again, the same for every file, from a sample on; noise of its own."""
    order = np.random.default_rng(7).integers(0, SPEAKERS, size=(skip + count) // LOOP_SAMPLES + 1)
    random = np.random.default_rng(100 + seed)
    hiss = (random.standard_normal(LOOP_SAMPLES) * 0.002).astype(np.float32)
    left = count
    for block, speaker in enumerate(order.tolist()):
        begin = max(skip - block * LOOP_SAMPLES, 0)
        if begin >= LOOP_SAMPLES or left <= 0:
            continue
        piece = (voice_loop(f"speaker {speaker}", 14.0, LOOP_SAMPLES, RATE_HZ) * np.float32(0.1) + hiss)[begin:][:left]
        left -= len(piece)
        yield piece[np.newaxis]


def _median_s(action: Callable[[], object], rounds: int = 5) -> float:
    seconds = []
    for _ in range(rounds):
        begin = time.perf_counter()
        action()
        seconds.append(time.perf_counter() - begin)
    return statistics.median(seconds)
