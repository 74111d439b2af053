"""Third-order intermodulation: two or three carriers make others, and some of those fall on a channel in use."""

from bisect import bisect_left, bisect_right
from collections.abc import Mapping, Sequence
from itertools import combinations_with_replacement
from typing import Final, NamedTuple

CHANNEL_MHZ: Final = 0.2
"""Width of one analogue radio microphone channel. [MEMORY]"""

GUARD_MHZ: Final = 0.1
"""ASSUMED_ distance from a used frequency within which a product is heard: half a channel."""

_STEP_MHZ = 0.025
_FARTHEST_STEPS = 400


class Product(NamedTuple):
    """A product of the carriers `first`, `second` and `third` (first + second − third) near a channel in use, in MHz."""

    first: str
    second: str
    third: str
    victim: str
    mhz: float
    distance_mhz: float


def products(carriers: Mapping[str, float], guard_mhz: float = GUARD_MHZ) -> list[Product]:
    """Every product 2a − b and a + b − c that falls within the guard distance of a carrier that had no part in it.

    Products a + b − c on d are pairs of pairs with nearly the same sum: sorted sums find them without trying all.

    Args:
        carriers: Name → frequency in MHz, above 0.
        guard_mhz: Above 0.

    Returns:
        The nearest first.

    Source: [HANDBOOK]
    """
    sums = sorted(
        (carriers[one] + carriers[other], one, other) for one, other in combinations_with_replacement(carriers, 2)
    )
    totals = [total for total, _, _ in sums]
    found = []
    for total, first, second in sums:
        near = range(bisect_left(totals, total - guard_mhz), bisect_right(totals, total + guard_mhz))
        for index in near:
            _, third, victim = sums[index]
            for out, hit in {(third, victim), (victim, third)}:
                if hit not in (first, second) and out not in (first, second) and out != hit:
                    mhz = total - carriers[out]
                    found.append(Product(first, second, out, hit, mhz, abs(mhz - carriers[hit])))
    return sorted(found, key=lambda product: (round(product.distance_mhz, 6), product))


def free_mhz(used: Sequence[float], wanted_mhz: float, guard_mhz: float = GUARD_MHZ) -> float | None:
    """The frequency nearest to a wanted one that neither shares a channel with, nor makes or meets a product of, others.

    None where there is none within 10 MHz.
    """
    names = {f"u{index}": mhz for index, mhz in enumerate(used)}
    before = len(products(names, guard_mhz))
    for step in range(_FARTHEST_STEPS + 1):
        for sign in (1, -1):
            candidate = round(wanted_mhz + sign * step * _STEP_MHZ, 3)
            apart = all(abs(candidate - mhz) > CHANNEL_MHZ for mhz in used)
            if apart and len(products({**names, "new": candidate}, guard_mhz)) == before:
                return candidate
    return None
