"""What `./tidy bench` measures of timecode and of files laid over each other."""

import ctypes
import ctypes.util
import statistics
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np

from tidy_trunk.core.base.timecode import RATES, Timecode, ltc_samples, read_frames
from tidy_trunk.core.sound.simulation import LOOP_SAMPLES, RATE_HZ, voice_loop
from tidy_trunk.formats import write_sound
from tidy_trunk.sync.layout import CAMERA, RECORDER, SyncFile, match_files
from tidy_trunk.sync.profiles import profile_file

TIMECODE_S = 120
HOUR_S = 3_600
SPEAKERS = 12
LATER_S = 31.7
FILES = 40
TAKE_S = 600
SYLLABLES_HZ = 6


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


def many_with_many(folder: Path) -> None:
    """Forty recorder files and forty camera files of ten minutes, each looked at and all laid over each other."""
    files = [(folder / f"{side}-{take}.wav", side) for take in range(FILES) for side in (RECORDER, CAMERA)]
    with ProcessPoolExecutor(2) as pool:
        list(pool.map(_write_take, files))
        begin = time.perf_counter()
        facts = list(pool.map(_looked_at, [path for path, _ in files]))
    looked = time.perf_counter() - begin
    known = [
        SyncFile(id=path.stem, name=path.name, side=side, path=path, facts=fact)
        for (path, side), fact in zip(files, facts, strict=True)
    ]
    clips = match_files(known, lambda _: None)
    seconds = time.perf_counter() - begin
    right = sum(clip.reference.split("-")[1] == clip.other.split("-")[1] for clip in clips)
    print(
        f"{FILES} files with {FILES} of ten minutes: {seconds:.0f} s, of which {looked:.0f} to look at each   goal 120 s"
    )
    print(f"  {len({clip.other for clip in clips})} found, {right} of {len(clips)} places right")


def _write_take(file: tuple[Path, str]) -> None:
    path, side = file
    pieces = _words(int(path.stem.split("-")[1]), LATER_S if side == CAMERA else 0.0, side)
    with path.open("wb") as stream:
        write_sound(stream, pieces, rate_hz=RATE_HZ, channels=1, sample_count=TAKE_S * RATE_HZ, bits="16")


def _words(take: int, later_s: float, side: str) -> Iterator[np.ndarray]:
    """A take of its own that nobody says twice, from a second on: noise whose low and high parts swell by syllables."""
    steps = np.random.default_rng(take).gamma(0.6, 0.5, size=(2, (TAKE_S + 60) * SYLLABLES_HZ)).astype(np.float32)
    hiss = np.random.default_rng((take, len(side)))
    for second in range(TAKE_S):
        at = later_s + second + np.arange(RATE_HZ) / RATE_HZ
        first = int(at[0])
        # The same moment of a take sounds the same in every file of it.
        raw = np.concatenate(
            [np.random.default_rng((take, part)).standard_normal(RATE_HZ) for part in (first, first + 1)]
        )
        begin = round((at[0] - first) * RATE_HZ)
        noise = np.append(raw, 0.0)[begin : begin + RATE_HZ + 1].astype(np.float32)
        low, high = (np.interp(at * SYLLABLES_HZ, np.arange(steps.shape[1]), row) for row in steps)
        sound = low * (noise[1:] + noise[:-1]) + high * (noise[1:] - noise[:-1])
        yield (0.05 * sound + 0.01 * hiss.standard_normal(RATE_HZ)).astype(np.float32)[np.newaxis]


def _looked_at(path: Path) -> dict[str, Any]:
    return profile_file(path, lambda _: None)


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
