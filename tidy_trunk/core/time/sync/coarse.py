"""Where one sound may lie in another, to a fiftieth of a second: by their features over every possible lag."""

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.time.sync.chance import top_by_chance
from tidy_trunk.core.time.sync.features import HOP_S, Profile

SHORTEST_OVERLAP_S: Final = 2.0
"""ASSUMED_ shortest stretch that both must hold: less is one syllable, and many fit."""

APART_S: Final = 1.0
"""ASSUMED_ how far two places lie apart that are told apart."""


@dataclass(frozen=True, slots=True)
class LagCandidate:
    """A lag in seconds, positive where the other begins later; score: in standard deviations of chance.

    tried: of how many lags it was picked; 1 where it was named by something else, a clock.
    """

    lag_s: float
    score: float
    tried: int

    @property
    def above_chance(self) -> float:
        """By how much the score is higher than the best of so many by chance."""
        return self.score - top_by_chance(self.tried)


class Spectra:
    """The features of a sound, ready to be laid along those of others up to so many looks long."""

    def __init__(self, profile: Profile, size: int) -> None:
        self.profile = profile
        self.looks = len(profile.features)
        self._size = size

    @cached_property
    def lines(self) -> NDArray[np.complex64]:
        """Shape (lines, bands)."""
        return np.fft.rfft(self.profile.features, self._size, axis=0).astype(np.complex64)

    @property
    def size(self) -> int:
        return self._size


def places(reference: Spectra, other: Spectra, most: int) -> list[LagCandidate]:
    """The likeliest lags of `other` in `reference`, best first; both made for one size that holds them behind each other."""
    size = reference.size
    cross = np.einsum("ij,ij->i", reference.lines, np.conj(other.lines))
    sums = np.fft.irfft(cross, size)
    # Lag k: the other begins k looks later; negative ones stand at the end.
    lags = np.concatenate((np.arange(-other.looks + 1, 0), np.arange(reference.looks)))
    values = np.concatenate((sums[size - other.looks + 1 :], sums[: reference.looks]))
    overlap = np.minimum(reference.looks, lags + other.looks) - np.maximum(lags, 0)
    least = min(round(SHORTEST_OVERLAP_S / HOP_S), reference.looks, other.looks)
    held = overlap >= least
    scores = np.full(len(values), -np.inf, dtype=np.float32)
    np.divide(values, np.sqrt(np.maximum(overlap, 1), dtype=np.float32), out=scores, where=held)
    spread = float(np.std(scores[held])) if held.any() else 0.0
    if spread <= 0:
        return []
    found: list[LagCandidate] = []
    apart = round(APART_S / HOP_S)
    tried = int(np.count_nonzero(held))
    for _ in range(most):
        best = int(np.argmax(scores))
        if not np.isfinite(scores[best]):
            break
        found.append(LagCandidate(float(lags[best]) * HOP_S, float(scores[best]) / spread, tried))
        scores[max(best - apart, 0) : best + apart + 1] = -np.inf
    return found


def size_for(*looks: int) -> int:
    """A size that is quick to transform and holds two sounds of so many looks behind each other."""
    return int(2 ** np.ceil(np.log2(max(sum(looks), 2))))
