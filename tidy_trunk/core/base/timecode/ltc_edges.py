"""Where the edges of linear timecode lie in a sound, however weak, and what bits they make."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples

SLOWEST_BITS_PER_S, FASTEST_BITS_PER_S = 1_700.0, 2_700.0
"""Bits a second of 24 frames, 10 % slow, and of 30, 10 % fast, and a little more. [ST12-1]"""

HUM_BITS: Final = 4.0
"""ASSUMED_ bits over whose mean a wave is laid to zero: hum is slower than that, and biphase mark has no mean."""

LOOK_S: Final = 0.01
"""ASSUMED_ stretch over whose mean hum is looked for: half of the longest wave of mains, and twenty bits."""

HARMLESS: Final = 0.1
"""ASSUMED_ mean over it, as a share of the peak, that moves no edge by a sample; a bit cut in two at its end makes half of it."""

LEVEL_S: Final = 0.02
"""ASSUMED_ stretch over which the size of the wave is taken: a dropout begins and ends within it."""

HYSTERESIS: Final = 0.35
"""ASSUMED_ share of the wave's size beyond which it must swing for an edge to count: noise of half its size stays inside."""

FAINTEST: Final = 1e-4
"""ASSUMED_ size of a wave that is none: 80 dB below full scale."""

SHORT_BIT, MIDDLE_BIT, LONG_BIT = 0.25, 0.75, 1.5
"""ASSUMED_ shares of a bit between which a stretch from edge to edge is half of one, or a whole one."""

BROKEN: Final = 2
"""ASSUMED_ mark in a row of bits where something is missing."""


@dataclass(frozen=True, slots=True)
class Bits:
    """A row of bits: 0, 1 or BROKEN, shape (bits,); `starts`: where each begins, in samples, and where the last one ends."""

    values: NDArray[np.int8]
    starts: NDArray[np.float64]


def find_edges(samples: Samples, rate_hz: int, first: int = 0) -> NDArray[np.float64]:
    """Moments at which the wave crosses zero and goes on to the other side, in samples from `first` on, rising."""
    if len(samples) < rate_hz * LEVEL_S:
        return np.zeros(0)
    blocks = _blocks(_without_hum(samples, rate_hz), max(round(LEVEL_S * rate_hz), 8))
    wave, high = blocks.ravel(), _threshold(blocks)
    ups, downs = _entries((blocks > high).ravel()), _entries((blocks < -high).ravel())
    where = np.concatenate((ups, downs))
    sides = np.concatenate((np.ones(len(ups), dtype=np.int8), np.full(len(downs), -1, dtype=np.int8)))
    order = np.argsort(where, kind="stable")
    where, sides = where[order], sides[order]
    if not len(where):
        return np.zeros(0)
    # Of several on one side the first counts: the others are noise on top of the wave.
    turns = np.concatenate(([True], sides[1:] != sides[:-1]))
    at = where[turns]
    at = at[at > 0]
    here, before = wave[at].astype(np.float64), wave[at - 1].astype(np.float64)
    # Back along the edge to where it was zero.
    back = np.clip(np.divide(here, here - before, out=np.zeros_like(here), where=here != before), 0.0, 4.0)
    return np.asarray(first + at - back)


def _without_hum(samples: Samples, rate_hz: int) -> NDArray[np.float32]:
    size = max(round(HUM_BITS * rate_hz / 2_000.0), 3) | 1
    wave = np.asarray(samples, dtype=np.float32)
    long = max(round(LOOK_S * rate_hz), 1)
    blocks = wave[: len(wave) // long * long].reshape(-1, long)
    if np.abs(blocks.mean(axis=1)).max(initial=0.0) < HARMLESS * np.abs(wave).max():
        return wave  # most files: nothing to take out
    half = size // 2
    # Beyond its ends it is thought to go on as it is there, mirrored.
    sums = np.cumsum(np.pad(samples, (half + 1, half), mode="symmetric"), dtype=np.float64)
    return np.asarray(samples - (sums[size:] - sums[:-size]) / size, dtype=np.float32)


def _blocks(wave: NDArray[np.float32], size: int) -> NDArray[np.float32]:
    """In pieces of one size, shape (pieces, size); the last one is filled up with nothing."""
    missing = -len(wave) % size
    whole = np.concatenate((wave, np.zeros(missing, dtype=np.float32))) if missing else wave
    return whole.reshape(-1, size)


def _threshold(blocks: NDArray[np.float32]) -> NDArray[np.float32]:
    """What the wave must go beyond in each piece, shape (pieces, 1): a share of its own size around there."""
    level = np.sqrt(np.einsum("ij,ij->i", blocks, blocks) / blocks.shape[1])
    near = np.maximum(level, np.maximum(np.roll(level, 1), np.roll(level, -1)))
    high: NDArray[np.float32] = np.maximum(near * HYSTERESIS, FAINTEST).astype(np.float32)
    return high[:, np.newaxis]


def _entries(inside: NDArray[np.bool_]) -> NDArray[np.int64]:
    """Where a condition begins to hold."""
    begins = inside.copy()
    begins[1:] &= ~inside[:-1]
    return np.flatnonzero(begins)


def bits_of(edges: NDArray[np.float64], rate_hz: int) -> Bits:
    """The bits that edges make: one stretch of a bit's length is a zero, two of half of it a one. Source: [ST12-1]"""
    if len(edges) < 3:
        return Bits(np.zeros(0, dtype=np.int8), edges[:1])
    lengths = np.diff(edges)
    shares = lengths / _bit_lengths(lengths, rate_hz)
    long = (shares >= MIDDLE_BIT) & (shares < LONG_BIT)
    short = (shares >= SHORT_BIT) & (shares < MIDDLE_BIT)
    values: NDArray[np.int8] = np.where(long, 0, np.where(short, 1, BROKEN)).astype(np.int8)
    # In a run of halves every second one begins a bit: from its end where its beginning is not sure, else from its start.
    is_first = np.concatenate(([True], short[1:] != short[:-1]))
    run = np.cumsum(is_first) - 1
    begins = np.flatnonzero(is_first)
    sizes = np.diff(np.concatenate((begins, [len(values)])))
    after_long = np.concatenate(([False], long[:-1]))[begins]
    place = np.arange(len(values)) - begins[run]
    odd_size = (sizes % 2)[run]
    offset = np.where(after_long[run], 0, odd_size)
    is_half = short & ((place - offset) % 2 == 1)
    keep = ~is_half
    # What is left over at either end of a run of odd length belongs to no bit.
    lone = short & (odd_size == 1) & ((place == 0) & ~after_long[run] | (place == sizes[run] - 1) & after_long[run])
    values = np.where(lone, BROKEN, values).astype(np.int8)
    return Bits(values[keep], np.concatenate((edges[:-1][keep], edges[-1:])))


STRAY_SHARE: Final = 0.1
"""ASSUMED_ by how much noise may move an edge, as a share of a bit."""

BITS_AROUND: Final = 31
"""ASSUMED_ bits of which the median is how long one is: a stray one does not move it, and the speed has not changed meanwhile."""


def _bit_lengths(lengths: NDArray[np.float64], rate_hz: int) -> NDArray[np.float64]:
    """How long a bit is at each stretch, in samples: of the long ones around it, as the speed changes slowly."""
    shortest, longest = rate_hz / FASTEST_BITS_PER_S, rate_hz / SLOWEST_BITS_PER_S
    whole = (lengths >= shortest * (1 - STRAY_SHARE)) & (lengths <= longest * (1 + STRAY_SHARE))
    if not whole.any():
        return np.full(len(lengths), (shortest + longest) / 2)
    at = np.flatnonzero(whole)
    values = lengths[at]
    size = BITS_AROUND
    if len(values) < size:
        return np.full(len(lengths), float(np.median(values)))
    # Medians of stretches of thirty: a stray one does not move them.
    count = len(values) // size
    medians = np.median(values[: count * size].reshape(count, size), axis=1)
    middles = at[: count * size].reshape(count, size)[:, size // 2]
    return np.asarray(np.interp(np.arange(len(lengths)), middles, medians))
