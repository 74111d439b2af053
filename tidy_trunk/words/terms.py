"""What values are called where somebody reads them: those of the catalogue, and beside them those of a plan and a recording."""

from collections.abc import Mapping
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.signal import NoiseFrom
from tidy_trunk.core.gear.catalogue import Power
from tidy_trunk.core.plan import Hazard
from tidy_trunk.equipment import title_of

_SAID: Final[Mapping[StrEnum, str]] = {
    NoiseFrom.PAUSES: "in the pauses",
    NoiseFrom.TONE: "under the tone",
    Power.COMPUTER: "computer USB",
    Power.CHARGER: "USB charger",
    Hazard.LED: "LED driver",
}


def term(value: StrEnum) -> str:
    """The words of a value: `live switcher`, `P48`, `beside mains`."""
    return _SAID.get(value) or title_of(value)
