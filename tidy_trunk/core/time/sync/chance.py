"""What noise alone comes to: the more places are looked at, the higher the best of them stands."""

import math


def top_by_chance(tried: int) -> float:
    """How high the best of so many looks at noise stands, in its standard deviations.

    The root of twice the logarithm: the mean of the largest of so many normal values never exceeds it. 0 for one.
    """
    return math.sqrt(2 * math.log(max(tried, 1)))
