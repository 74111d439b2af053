"""Connectors, what mates with what, and which contact carries what in each circuit."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, NamedTuple


class Circuit(StrEnum):
    """What the contacts of a port are used for."""

    BALANCED = "balanced"
    BALANCED_STEREO = "balanced stereo"
    UNBALANCED = "unbalanced"
    UNBALANCED_STEREO = "unbalanced stereo"
    AES3 = "AES3"
    HDMI = "HDMI"
    RADIO = "radio"
    TIMECODE = "timecode"

    @property
    def is_balanced(self) -> bool:
        return self in (Circuit.BALANCED, Circuit.BALANCED_STEREO)

    @property
    def is_analogue(self) -> bool:
        return self.is_balanced or self in (Circuit.UNBALANCED, Circuit.UNBALANCED_STEREO)

    @property
    def is_digital(self) -> bool:
        """Sound as numbers: its level is the sender's dBFS. Radio counts, as both ends state it so."""
        return self in (Circuit.AES3, Circuit.HDMI, Circuit.RADIO)


class Gender(StrEnum):
    """A plug goes into a socket; XLR outputs are male, inputs female. Source: [IEC60268-12]"""

    MALE = "male"
    FEMALE = "female"


@dataclass(frozen=True, slots=True)
class Connector:
    """A kind of connector and its contacts, in the order in which they are drawn."""

    id: str
    label: str
    contacts: tuple[str, ...]
    locks: bool


class Plug(NamedTuple):
    """One end: the connector and its gender."""

    connector: str
    gender: Gender

    @property
    def words(self) -> str:
        return f"{CONNECTORS[self.connector].label} {self.gender}"

    @property
    def locks(self) -> bool:
        """Whether it holds by itself; what does not wants strain relief."""
        return CONNECTORS[self.connector].locks


class Leg(NamedTuple):
    """What one contact carries: the channel (0 left or only, 1 right) and "hot", "cold" or "screen"."""

    channel: int
    role: str


CONNECTORS: Final[Mapping[str, Connector]] = {
    connector.id: connector
    for connector in (
        Connector("xlr3", "XLR-3", ("1", "2", "3"), True),
        Connector("xlr5", "XLR-5", ("1", "2", "3", "4", "5"), True),
        Connector("combo", "combo XLR/6.35 mm", ("1", "2", "3"), True),
        Connector("ta3", "TA3", ("1", "2", "3"), True),
        Connector("trs35", "3.5 mm TRS", ("T", "R", "S"), False),
        Connector("trrs35", "3.5 mm TRRS", ("T", "R1", "R2", "S"), False),
        Connector("trs635", "6.35 mm TRS", ("T", "R", "S"), False),
        Connector("rca", "RCA", ("T", "S"), False),
        Connector("bnc", "BNC", ("T", "S"), True),
        Connector("hdmi", "HDMI", ("all",), False),
        Connector("shoe", "hot-shoe contacts", ("all",), True),
        Connector("air", "aerial", ("all",), True),
        Connector("inside", "built in", ("T", "R", "S"), True),
    )
}
"""The connectors by id. [IEC60268-12], [PRACTICE]"""

_SCREEN = Leg(0, "screen")
_HOT, _COLD, _RIGHT_HOT, _RIGHT_COLD = Leg(0, "hot"), Leg(0, "cold"), Leg(1, "hot"), Leg(1, "cold")
_XLR_MONO = {"1": _SCREEN, "2": _HOT, "3": _COLD}
_DIGITAL = {"all": _HOT}

PINOUTS: Final[Mapping[tuple[str, Circuit], Mapping[str, Leg]]] = {
    ("xlr3", Circuit.BALANCED): _XLR_MONO,
    ("xlr3", Circuit.AES3): _XLR_MONO,
    ("combo", Circuit.BALANCED): _XLR_MONO,
    ("ta3", Circuit.BALANCED): _XLR_MONO,
    ("ta3", Circuit.UNBALANCED): {"1": _SCREEN, "2": _HOT, "3": _SCREEN},
    ("xlr5", Circuit.BALANCED_STEREO): {"1": _SCREEN, "2": _HOT, "3": _COLD, "4": _RIGHT_HOT, "5": _RIGHT_COLD},
    ("trs635", Circuit.BALANCED): {"T": _HOT, "R": _COLD, "S": _SCREEN},
    ("trs635", Circuit.UNBALANCED_STEREO): {"T": _HOT, "R": _RIGHT_HOT, "S": _SCREEN},
    ("trs35", Circuit.UNBALANCED): {"T": _HOT, "R": _SCREEN, "S": _SCREEN},
    ("trs35", Circuit.UNBALANCED_STEREO): {"T": _HOT, "R": _RIGHT_HOT, "S": _SCREEN},
    ("trrs35", Circuit.UNBALANCED): {"S": _HOT, "R2": _SCREEN},
    ("inside", Circuit.UNBALANCED_STEREO): {"T": _HOT, "R": _RIGHT_HOT, "S": _SCREEN},
    ("rca", Circuit.UNBALANCED): {"T": _HOT, "S": _SCREEN},
    ("bnc", Circuit.TIMECODE): {"T": _HOT, "S": _SCREEN},
    ("trs35", Circuit.TIMECODE): {"T": _HOT, "S": _SCREEN},
    ("hdmi", Circuit.HDMI): _DIGITAL,
    ("shoe", Circuit.HDMI): _DIGITAL,
    ("air", Circuit.RADIO): _DIGITAL,
}
"""What each contact carries, by connector and circuit. [IEC60268-12] for XLR-3, else [PRACTICE]"""

_COMBO_TAKES = ("xlr3", "trs635")


def mates(first: Plug, second: Plug) -> bool:
    """Whether two ends go together: the same connector, the other gender; a combo socket takes either of its plugs."""
    if first.gender == second.gender:
        return False
    names = {first.connector, second.connector}
    if len(names) == 1:
        return True
    return "combo" in names and bool(names & set(_COMBO_TAKES))
