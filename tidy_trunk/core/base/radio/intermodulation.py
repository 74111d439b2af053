"""Third-order intermodulation: two or three carriers make others, and some of those fall on a channel in use."""

from collections.abc import Mapping, Sequence
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

CHANNEL_MHZ: Final = 0.2
"""Width of one analogue radio microphone channel. [MEMORY]"""

GUARD_MHZ: Final = 0.1
"""ASSUMED_ distance from a used frequency within which a product is heard: half a channel."""

STEP_MHZ: Final = 0.025
"""Raster on which frequencies are tried. [MEMORY]"""

FARTHEST_STEPS: Final = 400
"""ASSUMED_ how far from the wanted frequency one is looked for: 10 MHz."""

NEIGHBOURS: Final = 256
"""ASSUMED_ sums on either side of one that are looked at: where more lie within the guard distance, the nearest of them tell
enough."""

ROUNDING_MHZ: Final = 1e-9
"""ASSUMED_ more than what sums of frequencies lose in floating point."""


class Product(NamedTuple):
    """A product of the carriers `first`, `second` and `third` (first + second − third) near a channel in use, in MHz."""

    first: str
    second: str
    third: str
    victim: str
    mhz: float
    distance_mhz: float


def products(carriers: Mapping[str, float], guard_mhz: float = GUARD_MHZ, most: int | None = None) -> list[Product]:
    """Products 2a − b and a + b − c that fall within the guard distance of a carrier that had no part in them.

    Products a + b − c on d are pairs of pairs with nearly the same sum: sorted sums find them without trying all.

    Args:
        carriers: Name → frequency in MHz, above 0.
        guard_mhz: Above 0.
        most: Of those on one carrier the nearest so many; None for all.

    Returns:
        The nearest first.

    Source: [HANDBOOK] §15.10
    """
    names = sorted(carriers)
    if len(names) < 3:
        return []
    mhz = np.array([carriers[name] for name in names])
    first, second, third, victim = _near_sums(mhz, guard_mhz)
    made = mhz[first] + mhz[second] - mhz[third]
    distances = np.abs(made - mhz[victim])
    order = np.lexsort((victim, third, second, first, np.round(distances, 6)))
    if most is not None:
        first_ones = [np.flatnonzero(victim[order] == index)[:most] for index in range(len(names))]
        order = order[np.sort(np.concatenate(first_ones))]
    return [
        Product(
            names[first[at]],
            names[second[at]],
            names[third[at]],
            names[victim[at]],
            float(made[at]),
            float(distances[at]),
        )
        for at in order
    ]


def _near_sums(mhz: NDArray[np.float64], guard_mhz: float) -> NDArray[np.intp]:
    """Carriers (first, second, third, victim) of all products, shape (4, count): first + second is nearly third + victim."""
    one, other = np.triu_indices(len(mhz))
    totals = mhz[one] + mhz[other]
    order = np.argsort(totals, kind="stable")
    one, other, totals = one[order], other[order], totals[order]
    found = [np.empty((4, 0), dtype=np.intp)]
    for apart in range(1, min(NEIGHBOURS, len(totals) - 1) + 1):
        lower = np.flatnonzero(totals[apart:] - totals[:-apart] <= guard_mhz)
        if not lower.size:
            break
        for makes, hits in ((lower, lower + apart), (lower + apart, lower)):
            for third, victim in ((one[hits], other[hits]), (other[hits], one[hits])):
                product = np.stack([one[makes], other[makes], third, victim])
                apart_from = (third != victim) & ~(product[:2, None] == product[None, 2:]).any((0, 1))
                found.append(product[:, apart_from])
    return np.concatenate(found, axis=1)


def free_mhz(used: Sequence[float], wanted_mhz: float, guard_mhz: float = GUARD_MHZ) -> float | None:
    """The frequency nearest to a wanted one that neither shares a channel with, nor makes or meets a product of, others.

    A frequency f meets a product where it lies near a + b − c, which is also where f + c − b falls on a or f + c − a on b;
    2f − c falls on d where it lies near the middle of both. None where there is none within 10 MHz.
    """
    mhz = np.array(used)
    count = len(mhz)
    one, other = np.triu_indices(count)
    made = mhz[one][:, None] + mhz[other][:, None] - mhz[None, :]
    own = (one[:, None] == np.arange(count)) | (other[:, None] == np.arange(count))
    pair_one, pair_other = np.triu_indices(count, 1)
    steps = np.arange(FARTHEST_STEPS + 1)
    nearest_first = np.stack([steps, -steps], axis=1).ravel()
    candidates = np.round(wanted_mhz + nearest_first * STEP_MHZ, 3)
    free = np.ones(len(candidates), dtype=bool)
    for centres, within in (
        (mhz, CHANNEL_MHZ),
        (made[~own], guard_mhz),
        ((mhz[pair_one] + mhz[pair_other]) / 2, guard_mhz / 2),
    ):
        free &= _distances(candidates, centres) > within + ROUNDING_MHZ
    found = np.flatnonzero(free)
    return float(candidates[found[0]]) if found.size else None


def _distances(points: NDArray[np.float64], centres: NDArray[np.float64]) -> NDArray[np.float64]:
    """From each point to the nearest centre."""
    around = np.concatenate([[-np.inf], np.sort(centres), [np.inf]])
    at = np.searchsorted(around, points)
    nearest: NDArray[np.float64] = np.minimum(points - around[at - 1], around[at] - points)
    return nearest
