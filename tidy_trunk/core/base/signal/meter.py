"""First look at a recording: what can be told piece by piece, whatever its length."""

from dataclasses import dataclass
from itertools import combinations
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.clipping import ClippedRun, ClipTracker
from tidy_trunk.core.base.signal.true_peak import TruePeak
from tidy_trunk.errors import InputError

BLOCK_S: Final = 0.05
"""ASSUMED_ stretch over which a level is taken: a syllable is longer, a pause between words as well."""

LOWEST_RATE_HZ: Final = 8_000
"""Sample rate of a telephone: below it there is no speech to measure. [PRACTICE]"""

HIGHEST_RATE_HZ: Final = 384_000
"""ASSUMED_ highest sample rate that a recorder has."""

MOST_CHANNELS: Final = 64
"""ASSUMED_ most channels of a recording: more than any recorder on location writes."""

MOST_PAIRED: Final = 8
"""ASSUMED_ channels of which each is compared with each; of more, only those that stand side by side as 1 and 2 do."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MeterResult:
    """What the first look tells. Arrays over blocks of `block_size` samples; the last block may be shorter.

    powers, means: mean square and mean of each block, shape (channels, blocks), full scale 1.0.
    highest, lowest: extremes of each block, same shape.
    products: mean product of the two channels of each of `pairs` (counted from 0), shape (pairs, blocks).
    true_peaks: by channel, full scale 1.0. clipped, clip_counts: flat tops by channel, and how many there are in all.
    """

    rate_hz: int
    channels: int
    sample_count: int
    block_size: int
    pairs: tuple[tuple[int, int], ...]
    powers: NDArray[np.float64]
    means: NDArray[np.float64]
    highest: NDArray[np.float32]
    lowest: NDArray[np.float32]
    products: NDArray[np.float64]
    true_peaks: tuple[float, ...]
    clipped: tuple[tuple[ClippedRun, ...], ...]
    clip_counts: tuple[int, ...]

    @property
    def weights(self) -> NDArray[np.float64]:
        """Samples of each block as a share of all."""
        sizes = np.full(self.powers.shape[1], float(self.block_size))
        if len(sizes):
            sizes[-1] = self.sample_count - self.block_size * (len(sizes) - 1)
        return sizes / max(self.sample_count, 1)

    def mean(self, channel: int) -> float:
        """DC of a channel, full scale 1.0."""
        return float(self.means[channel] @ self.weights)

    def power(self, channel: int) -> float:
        """Mean square of a channel without its DC."""
        return max(float(self.powers[channel] @ self.weights) - self.mean(channel) ** 2, 0.0)

    def block_powers(self, channel: int) -> NDArray[np.float64]:
        """Mean square of each block without the channel's DC."""
        mean = self.mean(channel)
        powers: NDArray[np.float64] = self.powers[channel] - 2 * mean * self.means[channel] + mean**2
        # What is left of a constant by rounding is nothing.
        return np.where(self.highest[channel] == self.lowest[channel], 0.0, np.maximum(powers, 0.0))


def check_kind(rate_hz: int, channels: int) -> None:
    """Raises InputError: a rate or a number of channels that no recording has."""
    if not LOWEST_RATE_HZ <= rate_hz <= HIGHEST_RATE_HZ:
        raise InputError(
            f"a sample rate of {rate_hz} Hz cannot be measured: give {LOWEST_RATE_HZ} to {HIGHEST_RATE_HZ} Hz"
        )
    if not 1 <= channels <= MOST_CHANNELS:
        raise InputError(f"{channels} channels cannot be measured: give a recording with 1 to {MOST_CHANNELS}")


def check_finite(powers: NDArray[Any]) -> None:
    """NaN and infinities are never lost in a sum of squares. Raises InputError: there are some."""
    if not np.isfinite(powers).all():
        raise InputError("the recording holds numbers that are not finite: export it again")


class Meter:
    """Takes a recording in pieces."""

    def __init__(self, rate_hz: int, channels: int, *, step: float, paired: bool = True) -> None:
        """`step`: between two neighbouring values that the file can hold, full scale 1.0; 0 for float.

        `paired`: channels are held against each other too.

        Raises:
            InputError: A rate or a number of channels that no recording has.
        """
        check_kind(rate_hz, channels)
        self.rate_hz = rate_hz
        self.channels = channels
        self.block_size = round(rate_hz * BLOCK_S)
        self.sample_count = 0
        self._pairs = _pairs(channels) if paired else ()
        self._found: list[tuple[NDArray[Any], ...]] = []
        self._true_peaks = [TruePeak() for _ in range(channels)]
        self._clips = [ClipTracker(step) for _ in range(channels)]

    def add(self, samples: NDArray[np.float32]) -> None:
        """`samples`: shape (channels, sample_count), full scale 1.0; whole blocks, but for the last piece.

        Raises:
            InputError: Numbers that are not finite.
        """
        count = samples.shape[1]
        if not count:
            return
        whole = count - count % self.block_size
        found = [self._blocks(samples[:, :whole])] if whole else []
        if whole < count:
            found.append(self._blocks(samples[:, whole:], count - whole))
        for powers, means, highest, lowest, products in found:
            check_finite(powers)
            self._found.append((powers, means, highest, lowest, products))
        for channel in range(self.channels):
            high = max(float(part[2][channel].max()) for part in found)
            low = min(float(part[3][channel].min()) for part in found)
            peaks = np.concatenate([np.maximum(part[2][channel], -part[3][channel]) for part in found])
            self._true_peaks[channel].add(samples[channel], peaks, self.block_size)
            self._clips[channel].add(samples[channel], high, low)
        self.sample_count += count

    def _blocks(self, samples: NDArray[np.float32], size: int = 0) -> tuple[NDArray[Any], ...]:
        size = size or self.block_size
        blocks = samples.reshape(self.channels, -1, size)
        with np.errstate(over="ignore", invalid="ignore"):
            powers = np.einsum("cbn,cbn->cb", blocks, blocks) / np.float32(size)
            products = [
                np.einsum("bn,bn->b", blocks[first], blocks[second]) / np.float32(size) for first, second in self._pairs
            ]
        shape = (0, blocks.shape[1])
        means = blocks.mean(axis=2)
        return (
            powers,
            means,
            blocks.max(axis=2),
            blocks.min(axis=2),
            np.array(products) if products else np.zeros(shape),
        )

    def metered(self) -> MeterResult:
        """What all pieces together tell.

        Raises:
            InputError: There was none.
        """
        if not self._found:
            raise InputError("the recording is empty: there is nothing to measure")
        powers, means, highest, lowest, products = (
            np.concatenate(parts, axis=1) for parts in zip(*self._found, strict=True)
        )
        return MeterResult(
            rate_hz=self.rate_hz,
            channels=self.channels,
            sample_count=self.sample_count,
            block_size=self.block_size,
            pairs=self._pairs,
            powers=powers.astype(np.float64),
            means=means.astype(np.float64),
            highest=highest,
            lowest=lowest,
            products=products.astype(np.float64),
            true_peaks=tuple(peak.highest() for peak in self._true_peaks),
            clipped=tuple(clip.runs() for clip in self._clips),
            clip_counts=tuple(clip.count for clip in self._clips),
        )


def _pairs(channels: int) -> tuple[tuple[int, int], ...]:
    if channels <= MOST_PAIRED:
        return tuple(combinations(range(channels), 2))
    return tuple((first, first + 1) for first in range(0, channels - 1, 2))
