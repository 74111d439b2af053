"""From where microphones hear."""

import math
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.units import db_from_ratio

LEAST_HEARD_DB: Final = -25.0
"""What a microphone still hears where its pattern has a null: none is perfect at all frequencies. [MEMORY]"""


class Pattern(StrEnum):
    """From where a microphone hears."""

    OMNI = "omnidirectional"
    CARDIOID = "cardioid"
    SUPERCARDIOID = "supercardioid"
    FIGURE_8 = "figure-of-eight"
    SHOTGUN = "shotgun"

    def ratio(self, cosine: float) -> float:
        """Pressure heard at an angle against that on axis, signed. Source: [HANDBOOK] §15.5, a + (1 - a)·cos;
        a shotgun as a supercardioid times a cardioid [MEMORY]"""
        found = 1.0
        for all_round in _ALL_ROUND[self]:
            found *= all_round + (1 - all_round) * cosine
        return found

    def off_axis_db(self, angle_deg: float) -> float:
        """What is heard at an angle from the axis, in dB: 0 at 0°, at least `LEAST_HEARD_DB`."""
        return max(db_from_ratio(abs(self.ratio(math.cos(math.radians(angle_deg))))), LEAST_HEARD_DB)

    @property
    def directivity(self) -> float:
        """Q: how much less of a room it hears than one that hears all round. Its pattern's power over all directions,
        exact for these polynomials of the cosine by Gauss's five points. Source: [HANDBOOK] §15.5"""
        return 2 / sum(weight * self.ratio(cosine) ** 2 for cosine, weight in _GAUSS)

    @property
    def diffuse_loss_db(self) -> float:
        """How much less it hears of what comes from all sides than one that hears all round: Q in dB, 0 or more.

        Source: [HANDBOOK] §15.5
        """
        return db_from_ratio(self.directivity**0.5)


_ALL_ROUND: Final = {
    Pattern.OMNI: (1.0,),
    Pattern.CARDIOID: (0.5,),
    Pattern.SUPERCARDIOID: (0.37,),
    Pattern.FIGURE_8: (0.0,),
    Pattern.SHOTGUN: (0.37, 0.5),
}
_GAUSS: Final = (
    (0.0, 128 / 225),
    *((sign * math.sqrt(5 - 2 * math.sqrt(10 / 7)) / 3, (322 + 13 * math.sqrt(70)) / 900) for sign in (-1, 1)),
    *((sign * math.sqrt(5 + 2 * math.sqrt(10 / 7)) / 3, (322 - 13 * math.sqrt(70)) / 900) for sign in (-1, 1)),
)
