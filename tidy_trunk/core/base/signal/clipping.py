"""Flat tops: where a wave was cut off, at full scale or below it."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

CLIPPED_RUN: Final = 3
"""Samples in a row at one extreme that count as cut off. [PRACTICE]"""

LOWEST_CLIP: Final = 0.001
"""ASSUMED_ extreme below which nobody looks for flat tops: -60 dBFS is noise, not a wave that was cut off."""

MOST_RUNS: Final = 100_000
"""ASSUMED_ flat tops that are listed: a recording with more is lost all the same. They are all counted."""

PCM_STEP: Final = 2.0**-15
"""Between two values of a 16-bit file, the coarsest that comes from a set: slow waves have tops of some steps. [AES17]"""

FLAT_SHARE: Final = 0.002
"""ASSUMED_ how far the samples of a top may differ and still be a flat one, as a share of the top."""

NOISE_AROUND: Final = 2.5
"""Standard deviations of its noise within which a flat top lies: 99 of 100 samples of it. [GUM]"""

LOOK_DOWN: Final = 4.0
"""ASSUMED_ bands below the flat tops from which on a wave is looked at. A rounded top that reaches as high is within the
band for 0.58 of that time, √(1.5 / 4.5) of a parabola; one that was cut off goes straight up to it."""

FLAT_PART: Final = 0.75
"""ASSUMED_ share of that time from which a top is flat: between the two."""

FEWEST_SAMPLES: Final = 5
"""ASSUMED_ samples of a top from which its shape can be told under noise."""


@dataclass(frozen=True, slots=True)
class ClippedRun:
    """A stretch at one extreme: the first of its samples, counted from 0, and how many there are."""

    start: int
    samples: int


class ClipTracker:
    """Finds the flat tops of one channel that comes in pieces.

    What is flat is known only at the end, when the extremes are: what was flat below a higher top is no clipping.
    """

    __slots__ = ("_at", "_sides", "_step")

    def __init__(self, step: float) -> None:
        """`step`: between two neighbouring values that the file can hold; 0 for float files."""
        self._step = step
        self._at = 0
        self._sides = (_Side(1.0), _Side(-1.0))

    def add(self, samples: NDArray[np.float32], highest: float, lowest: float) -> None:
        """`samples`: shape (sample_count,), with the highest and the lowest of their values."""
        for side, extreme in zip(self._sides, (highest, -lowest), strict=True):
            side.add(samples, extreme, self._at, self._step)
        self._at += len(samples)

    def runs(self) -> tuple[ClippedRun, ...]:
        """All that were kept, in the order of time."""
        for side in self._sides:
            side.close(self._step)
        return tuple(sorted((run for side in self._waves() for run in side.kept), key=lambda run: run.start))

    @property
    def count(self) -> int:
        """How many there are, as far as they have ended."""
        return sum(side.count for side in self._waves())

    def _waves(self) -> list["_Side"]:
        if all(side.is_constant for side in self._sides):
            return []  # one value from beginning to end is no wave
        return [side for side in self._sides if side.extreme > LOWEST_CLIP]


class _Side:
    """The tops of one polarity."""

    __slots__ = ("_before", "_open", "_sign", "count", "extreme", "is_constant", "kept")

    def __init__(self, sign: float) -> None:
        self._sign = sign
        self.extreme = -np.inf
        self.kept: list[ClippedRun] = []
        self.count = 0
        self.is_constant = True
        self._open: tuple[int, int, float] | None = None  # start, length so far, step up into it
        self._before: float | None = None

    def add(self, samples: NDArray[np.float32], extreme: float, at: int, step: float) -> None:
        before, self._before = self._before, self._sign * float(samples[-1])
        if self.extreme > extreme:
            self.is_constant = False
            self.close(step)
            return
        if extreme > self.extreme:
            self.is_constant = self.is_constant and self.extreme == -np.inf
            self.extreme, self.kept, self.count, self._open = extreme, [], 0, None
        flat = samples == np.float32(self._sign * extreme)
        edges = np.flatnonzero(flat[1:] != flat[:-1]) + 1
        starts = edges[flat[edges]]
        ends = edges[~flat[edges]]
        if flat[0]:
            starts = np.concatenate(([0], starts))
        if flat[-1]:
            ends = np.concatenate((ends, [len(samples)]))
        self.is_constant = self.is_constant and len(edges) == 0
        if self._open is not None and not flat[0]:
            self.close(step)
        values = self._sign * samples
        first = before if before is not None else -np.inf
        up = extreme - np.where(starts > 0, values[np.maximum(starts - 1, 0)], first)
        down = extreme - np.where(ends < len(samples), values[np.minimum(ends, len(samples) - 1)], -np.inf)
        lengths = ends - starts
        if len(starts) and starts[0] == 0 and self._open is not None:
            begun, length, rise = self._open
            self._open = None
            if ends[0] == len(samples):
                self._open = (begun, length + len(samples), rise)
            else:
                self._take(begun, length + int(lengths[0]), rise, float(down[0]), step)
            starts, ends, lengths, up, down = starts[1:], ends[1:], lengths[1:], up[1:], down[1:]
        if len(ends) and ends[-1] == len(samples):
            self._open = (at + int(starts[-1]), int(lengths[-1]), float(up[-1]))
            starts, lengths, up, down = starts[:-1], lengths[:-1], up[:-1], down[:-1]
        cut = np.flatnonzero((lengths >= CLIPPED_RUN) & ~_is_rounded(lengths, up, down, step))
        self.count += len(cut)
        for index in cut[: MOST_RUNS - len(self.kept)]:
            self.kept.append(ClippedRun(at + int(starts[index]), int(lengths[index])))

    def close(self, step: float) -> None:
        """End what was still flat where the last piece ended."""
        if self._open is not None:
            self._take(*self._open, np.inf, step)
            self._open = None

    def _take(self, start: int, length: int, up: float, down: float, step: float) -> None:
        if length >= CLIPPED_RUN and not _is_rounded(length, up, down, step):
            self.count += 1
            if len(self.kept) < MOST_RUNS:
                self.kept.append(ClippedRun(start, length))


def _is_rounded(length: Any, up: Any, down: Any, step: float) -> Any:
    """Whether a top is flat only because it is slow: then it ends as slowly, by a few steps of the numbers."""
    half = np.maximum((np.asarray(length) - 1) / 2, 1.0)
    return np.minimum(up, down) <= step * (((half + 1) / half) ** 2 + 1)


def is_cut_off(samples: NDArray[Any], noise: float = 0.0) -> bool:
    """Whether a short recording has flat tops of either kind. `samples`: one channel, shape (sample_count,)."""
    tracker = ClipTracker(PCM_STEP)
    tracker.add(np.asarray(samples, dtype=np.float32), float(samples.max()), float(samples.min()))
    return bool(tracker.runs()) or has_flat_tops(samples, noise)


def has_flat_tops(samples: NDArray[Any], noise: float = 0.0) -> bool:
    """Whether a wave was cut off somewhere before, and noise, hum or a pad came after it, so that no two tops are the same.

    Args:
        samples: One channel, shape (sample_count,): the loudest there is.
        noise: RMS of the noise and hum on it, full scale 1.0.
    """
    return any(_is_flat_above(values, noise) for values in (samples, -samples))


def _is_flat_above(values: NDArray[Any], noise: float) -> bool:
    top = float(values.max(initial=0.0))
    band = max(FLAT_SHARE * top, NOISE_AROUND * noise)
    if top <= LOWEST_CLIP or 2 * LOOK_DOWN * band > top:
        return False
    # The highest sample of all stands above a flat top by its noise: the band is laid around the tops' middle.
    middle = float(np.median(values[values > top - 2 * band]))
    above = np.concatenate(([False], values > middle - LOOK_DOWN * band, [False]))
    edges = np.flatnonzero(above[1:] != above[:-1])
    starts, ends = edges[::2], edges[1::2]
    within = np.concatenate(([0], np.cumsum(np.abs(values - middle) <= band)))
    lengths = ends - starts
    tops = lengths >= FEWEST_SAMPLES
    flat = tops & (within[ends] - within[starts] >= FLAT_PART * lengths)
    return bool(flat.sum() >= max(3, tops.sum() / 4))
