"""A figure of a device: value, tolerance, and where it comes from."""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.errors import RangeError


class Provenance(StrEnum):
    """Measured beats manual beats typical. Source: [HANDBOOK] §3"""

    TYPICAL = "typical"
    MANUAL = "manual"
    MEASURED = "measured"


TYPICAL_TOLERANCE_DB: Final = 3.0
"""± of a figure of a plain class, unless it says otherwise. [MEMORY]"""

TYPICAL_TOLERANCE_PERCENT: Final = 20.0
"""± of a figure of a plain class that is no level. [MEMORY]"""

LARGEST_FIGURE: Final = 1e7
"""ASSUMED_ bound of any figure of a device: 10 MΩ is the largest that occurs."""


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure in the unit that its name says; tolerance is ± dB for levels and sensitivities, ± % for all else.

    Raises:
        RangeError: A value that is not finite or absurdly large, or a negative tolerance.
    """

    value: float
    tolerance: float = TYPICAL_TOLERANCE_DB
    provenance: Provenance = Provenance.TYPICAL
    source: str = "MEMORY"

    def __post_init__(self) -> None:
        if not (math.isfinite(self.value) and abs(self.value) <= LARGEST_FIGURE):
            raise RangeError(f"figure must be a finite number, not {self.value}")
        if not (math.isfinite(self.tolerance) and 0 <= self.tolerance <= 100):
            raise RangeError(f"tolerance must be between 0 and 100, not {self.tolerance}")


def about(value: float, percent: float = TYPICAL_TOLERANCE_PERCENT) -> Figure:
    """A typical figure that is no level: ohms, watts, minutes, ppm; ± in percent."""
    return Figure(value, percent)
