"""How much the confidence of the sync finder is worth: constructed pairs of which the truth is known, harder and harder.

Run by hand: `python scripts/calibrate_sync.py [PAIRS] [--doubtful | --long]`. It prints a table of `docs/craft/sync.md`: of all
kinds of pairs, of short ones in loud noise, which hardly anybody could tell, or of long ones in louder noise. The weights of
the confidence were laid through pairs with other seeds: those of tables were not used for it.
"""

import sys
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.time.sync import Alignment, Sound, align, profile_of

RATE = 16_000
RIGHT_S = 0.001
BINS = (0.0, 0.1, 0.3, 0.5, 0.7, 0.9, 0.99, 1.01)


def speech(random: np.random.Generator, seconds: float) -> NDArray[np.float64]:
    """Syllables of changing pitch and colour, with gaps and pauses."""
    parts, count = [], 0
    while count < seconds * RATE:
        length = int(random.uniform(0.08, 0.35) * RATE)
        times = np.arange(length) / RATE
        buzz = np.sign(np.sin(2 * np.pi * random.uniform(90, 230) * times + 3 * np.sin(18 * times)))
        raw = 0.3 * buzz + 0.4 * random.standard_normal(length)
        colour = np.exp(-(((np.fft.rfftfreq(length, 1 / RATE) - random.uniform(300, 3500)) / 900) ** 2)) + 0.1
        swell = np.sin(np.pi * np.arange(length) / length) ** 0.7 * random.uniform(0.2, 1)
        gap = int((random.uniform(0.02, 0.15) if random.random() < 0.85 else random.uniform(0.4, 1.2)) * RATE)
        parts += [np.fft.irfft(np.fft.rfft(raw) * colour, length) * swell, np.zeros(gap)]
        count += length + gap
    return np.concatenate(parts)[: round(seconds * RATE)]


def words(random: np.random.Generator, seconds: float) -> NDArray[np.float64]:
    """Short bursts of low noise, and silence between them: what lies over each other by chance is the most uneven."""
    count = round(seconds * RATE)
    swell, at = np.zeros(count), int(random.uniform(0, 0.3) * RATE)
    while at < count:
        word = int(random.uniform(0.1, 0.35) * RATE)
        swell[at : at + word] = np.hanning(word)[: count - at] * 10 ** random.normal(0, 0.2)
        at += word + int((random.uniform(0.03, 0.1) if random.random() < 0.7 else random.uniform(0.6, 1.0)) * RATE)
    lines = np.fft.rfft(random.standard_normal(count))
    hertz = np.fft.rfftfreq(count, 1 / RATE)
    return np.asarray(np.fft.irfft(lines / (1 + (hertz / 500) ** 2) * (hertz > 80), count) * swell)


def heard(random: np.random.Generator, sound: NDArray[np.float64], snr_db: float) -> NDArray[np.float32]:
    """As another microphone hears it: through a room, and with its own noise."""
    tail = random.standard_normal(RATE // 2) * np.exp(-np.arange(RATE // 2) / (0.12 * RATE))
    tail *= random.uniform(0, 1.2) / np.sqrt(np.sum(tail**2))
    tail[0] += 1
    size = len(sound) + len(tail)
    wet = np.fft.irfft(np.fft.rfft(sound, size) * np.fft.rfft(tail, size), size)[: len(sound)]
    noise = random.standard_normal(len(sound)) * np.std(sound) * 10 ** (-snr_db / 20)
    return np.asarray(wet + noise, dtype=np.float32)


def sound_of(samples: NDArray[np.float32]) -> Sound:
    pieces = (samples[first : first + RATE] for first in range(0, len(samples), RATE))
    return Sound(profile_of(pieces, RATE), lambda start, count: samples[start : start + count], RATE, len(samples))


def stranger(random: np.random.Generator, seconds: float) -> NDArray[np.float64]:
    """Others who talk, a noise, or a hum with its harmonics."""
    kind = random.integers(4)
    if kind < 2:
        return (speech, words)[kind](random, seconds)
    count = round(seconds * RATE)
    if kind == 2:
        return random.standard_normal(count)
    times = np.arange(count) / RATE
    hertz = random.uniform(45, 400)
    return np.asarray(sum(np.sin(2 * np.pi * hertz * number * times) / number for number in range(1, 9)))


class Kind(NamedTuple):
    """How long what is looked in and what is looked for, how far above the noise, and how many belong together."""

    longs_s: tuple[float, float]
    shorts_s: tuple[float, ...]
    snrs_db: tuple[float, float]
    related: float


ALL = Kind((20, 90), (1.5, 3, 6, 12, 25), (-16, 40), 0.6)
DOUBTFUL = Kind((10, 60), (1, 1.5, 2, 3, 4, 6), (-14, -2), 0.75)
LONG = Kind((60, 180), (30, 60, 120), (-24, -8), 0.5)


def pair(seed: int, kind: Kind) -> tuple[Alignment | None, bool]:
    """One pair, and whether what is found is right; some have nothing to do with each other."""
    random = np.random.default_rng(seed)
    long, short = random.uniform(*kind.longs_s), float(random.choice(kind.shorts_s))
    snr_db = random.uniform(*kind.snrs_db)
    source = (speech, words)[random.integers(2)](random, long)
    at = int(random.uniform(0, long - short) * RATE) if short < long else 0
    related = random.random() < kind.related
    other = source[at : at + round(short * RATE)] if related else stranger(random, short)
    found = align(sound_of(heard(random, source, snr_db)), sound_of(heard(random, other, snr_db)))
    return found, related and found is not None and abs(found.offset_s - at / RATE) <= RIGHT_S


def main() -> int:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 600
    kinds = {"--doubtful": (DOUBTFUL, 10_000), "--long": (LONG, 30_000)}
    kind, first = next((kinds[word] for word in sys.argv if word in kinds), (ALL, 0))
    pairs = (pair(seed, kind) for seed in range(first, first + count))
    found = [(item.confidence, right) for item, right in pairs if item is not None]
    print("| confidence | pairs | right |\n| --- | --- | --- |")
    for low, high in pairwise(BINS):
        inside = [right for confidence, right in found if low <= confidence < high]
        if inside:
            share = 100 * sum(inside) / len(inside)
            print(f"| {low:g} to {min(high, 1):g} | {len(inside)} | {share:.0f} % |")
    return 0


if __name__ == "__main__":
    sys.exit(main())
