"""Claps: hands or a slate that meet, found by their first edge, and told from the echo that follows."""

import math
from collections.abc import Iterator, Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

LOOK_S: Final = 0.001
"""ASSUMED_ stretch in which an edge is looked for: shorter than a clap's rise."""

BEFORE_S: Final = 0.04
"""ASSUMED_ time before a clap in which it must have been quieter."""

RISE_DB: Final = 20.0
"""ASSUMED_ how far it rises out of that: a plosive rises by less."""

DIES_S: Final = 0.25
"""ASSUMED_ time in which it has died by `DIED_DB`, room and all: a door or a word lasts longer."""

DIED_DB: Final = 12.0
"""ASSUMED_ how far it has died by then."""

SWELLS_S, AT_ONCE = 0.008, 0.4
"""ASSUMED_ time in which a clap is nearly as loud as it will be, and the share of that: a word swells."""

ALONE_S: Final = 0.5
"""ASSUMED_ time in which what follows a clap is its echo."""

MOST: Final = 200
"""ASSUMED_ claps of a file, the loudest ones: a drummer has more."""

MOST_ASKED: Final = 100_000
"""ASSUMED_ looks that are asked how loud it mostly is."""

AT_ONCE_LOOKS: Final = 200_000
"""ASSUMED_ looks that are taken at once: three minutes."""

TOGETHER_S: Final = 0.003
"""ASSUMED_ how far two claps may lie from one lag and still be the same: a metre of air."""


def find_claps(energies: NDArray[np.float32]) -> tuple[float, ...]:
    """At which seconds somebody clapped, in order.

    Args:
        energies: Mean square of each `LOOK_S`, shape (looks,).
    """
    before, after = round(BEFORE_S / LOOK_S), round(DIES_S / LOOK_S)
    if len(energies) < before + after:
        return ()
    # Some of them tell what is usual: all of an hour would be copied for it.
    floor = float(np.median(energies[:: max(len(energies) // MOST_ASKED, 1)])) + 1e-12
    found: list[int] = []
    for at in _rises(energies, before, floor):
        top = float(energies[at : at + 20].max())
        if found and (at - found[-1]) * LOOK_S < ALONE_S:
            continue
        at_once = float(energies[at : at + round(SWELLS_S / LOOK_S)].max())
        if at_once < AT_ONCE * float(energies[at : at + after].max()):
            continue
        if at + after < len(energies) and energies[at + after] <= top * 10 ** (-DIED_DB / 10):
            found.append(at)
    loudest = sorted(found, key=lambda at: -float(energies[at : at + 20].max()))[:MOST]
    return tuple(round(at * LOOK_S, 6) for at in sorted(loudest))


FLOOR_SHARE: Final = 0.1
"""ASSUMED_ share of a file's usual level that is added to what was before: after digital silence anything would be a rise."""


def _rises(energies: NDArray[np.float32], before: int, floor: float) -> Iterator[int]:
    """Looks that are far louder than the time before them; some minutes at once, as a day would not fit into memory."""
    for first in range(before, len(energies), AT_ONCE_LOOKS):
        last = min(first + AT_ONCE_LOOKS, len(energies))
        sums = np.cumsum(energies[first - before : last], dtype=np.float64)
        sums = np.concatenate(([0.0], sums))
        usual = (sums[before:-1] - sums[: -before - 1]) / before
        rises = energies[first:last] > (usual + floor * FLOOR_SHARE) * 10 ** (RISE_DB / 10)
        yield from (np.flatnonzero(rises) + first).tolist()


def energies_of(samples: NDArray[np.float32], rate_hz: int) -> NDArray[np.float32]:
    """Mean square of each `LOOK_S` of a stretch of whole seconds, shape (looks,); what is left over is left out."""
    looks = int(len(samples) / rate_hz / LOOK_S)
    if not looks:
        return np.zeros(0, dtype=np.float32)
    edges = np.round(np.arange(looks) * rate_hz * LOOK_S).astype(int)
    sums = np.add.reduceat(np.square(samples), edges)
    return np.asarray(sums / (rate_hz * LOOK_S), dtype=np.float32)


def common_lag(reference: Sequence[float], other: Sequence[float]) -> tuple[float, int] | None:
    """The lag at which most claps of both lie on each other, and how many those are; None where one has none.

    Where two lags have as many, neither is the right one for sure: it counts as none.
    """
    lags = np.sort(np.subtract.outer(np.array(reference), np.array(other)).ravel())
    if not len(lags):
        return None
    counts = np.searchsorted(lags, lags + TOGETHER_S, side="right") - np.arange(len(lags))
    best = int(np.argmax(counts))
    far = np.abs(lags - lags[best]) > 2 * TOGETHER_S
    if far.any() and counts[far].max() >= counts[best]:
        return None
    return float(np.median(lags[best : best + counts[best]])), int(counts[best])


def claps_by_chance(reference: Sequence[float], other: Sequence[float], agree: int) -> float:
    """How likely it is, 0 to 1, that somewhere so many claps of both lie on each other though they are others.

    Of claps that have nothing to do with each other any pair has further ones beside its lag as a Poisson process has, twice
    as densely in the middle as on average; each pair is tried.
    """
    tried = len(reference) * len(other)
    span_s = (max(reference) - min(reference) + max(other) - min(other)) / 2
    mean = tried * TOGETHER_S / max(span_s, TOGETHER_S)
    fewer = math.exp(-mean) * sum(mean**count / math.factorial(count) for count in range(agree - 1))
    return min(tried * max(1.0 - fewer, 0.0), 1.0)
