"""What of a sound is still there after another microphone, a room, automatic level and a coder: when its bands grow loud."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.time.sync.claps import energies_of, find_claps

HOP_S: Final = 0.02
"""ASSUMED_ step between two looks: a fiftieth of a second finds the place, the samples themselves find the rest."""

ENOUGH_HZ: Final = 16_000
"""ASSUMED_ sample rate that holds all bands: what is finer is thinned, and takes a third of the time."""

EDGES_HZ: Final = (200.0, 400.0, 650.0, 1_000.0, 1_500.0, 2_300.0, 3_500.0, 6_000.0)
"""ASSUMED_ edges of the bands: from where hum and rumble end to where coders and telephones do."""

USUAL_S: Final = 1.0
"""ASSUMED_ time over which a band's own usual level is taken: automatic level moves no faster."""

FLOOR_DB: Final = 30.0
"""ASSUMED_ how far below its loudest a band's pauses count: what lies below is noise of the gear."""

LARGEST: Final = 3.0
"""ASSUMED_ standard deviations beyond which one moment counts no more: a clap is one clap."""

Features = NDArray[np.float32]
"""Shape (looks, bands): by how much each band is louder than usual, each of mean square 1 over the sound."""


@dataclass(frozen=True, slots=True)
class Profile:
    """The features of a sound, how much goes on at each look, shape (looks,), and at which seconds somebody clapped."""

    features: Features
    activity: NDArray[np.float32]
    seconds: float
    claps: tuple[float, ...]


def profile_of(pieces: Iterable[NDArray[np.float32]], rate_hz: int) -> Profile:
    """Look at a sound piece by piece.

    Args:
        pieces: One channel, shape (count,), whole seconds each but for the last.
        rate_hz: Sample rate; looks are `HOP_S` apart whatever it is.
    """
    thinned, full_hz = max(rate_hz // ENOUGH_HZ, 1), rate_hz
    rate_hz = rate_hz // thinned
    size = max(round(HOP_S * rate_hz), 8)
    window = np.hanning(size + 1)[:-1].astype(np.float32)
    bins = np.clip(np.round(np.array(EDGES_HZ) * size / rate_hz).astype(int), 1, size // 2)
    powers, energies, count = [], [], 0
    left = np.zeros(0, dtype=np.float32)
    for piece in pieces:
        count += len(piece)
        piece = _thinned(piece, thinned)
        energies.append(energies_of(piece, rate_hz))
        whole = np.concatenate((left, piece)) if len(left) else piece
        looks = len(whole) // size
        left = whole[looks * size :]
        powers.append(_band_powers(whole[: looks * size].reshape(looks, size) * window, bins))
    found = np.concatenate(powers) if powers else np.zeros((0, len(EDGES_HZ) - 1), dtype=np.float32)
    features = _louder_than_usual(found)
    claps = find_claps(np.concatenate(energies) if energies else np.zeros(0, dtype=np.float32))
    return Profile(features, np.abs(features).sum(axis=1), count / full_hz, claps)


def _thinned(piece: NDArray[np.float32], by: int) -> NDArray[np.float32]:
    """The mean of so many samples each: what folds down from above is quieter than what is there."""
    if by == 1:
        return piece
    whole = piece[: len(piece) // by * by]
    total = whole[::by].copy()
    for step in range(1, by):
        total += whole[step::by]
    total /= by
    return total


def _band_powers(frames: NDArray[np.float32], bins: NDArray[np.int64]) -> NDArray[np.float32]:
    if not len(frames):
        return np.zeros((0, len(bins) - 1), dtype=np.float32)
    spectra = np.fft.rfft(frames, axis=1)
    powers = np.square(spectra.real) + np.square(spectra.imag)
    # A band narrower than a bin holds the bin that follows.
    sums = np.add.reduceat(powers, bins, axis=1)[:, : len(bins) - 1]
    return np.asarray(sums, dtype=np.float32)


def _louder_than_usual(powers: NDArray[np.float32]) -> Features:
    if not len(powers):
        return powers
    floor = np.maximum(powers.max(axis=0) * 10 ** (-FLOOR_DB / 10), 1e-12)
    levels = np.log(powers + floor)
    size = max(round(USUAL_S / HOP_S), 1) | 1
    half = size // 2
    sums = np.cumsum(np.pad(levels.astype(np.float64), ((half + 1, half), (0, 0)), mode="edge"), axis=0)
    above = levels - (sums[size:] - sums[:-size]) / size
    spread = np.sqrt(np.mean(np.square(above), axis=0))
    scaled = np.divide(above, spread, out=np.zeros_like(above), where=spread > 1e-6)
    features: Features = np.clip(scaled, -LARGEST, LARGEST).astype(np.float32)
    return features
