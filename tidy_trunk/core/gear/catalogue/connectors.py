"""Connectors, what mates with what, and which contact carries what in each circuit."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, NamedTuple


class Circuit(StrEnum):
    """What the contacts of a port are used for."""

    BALANCED = "balanced"
    BALANCED_STEREO = "balanced-stereo"
    UNBALANCED = "unbalanced"
    UNBALANCED_STEREO = "unbalanced-stereo"
    AES3 = "aes3"
    HDMI = "hdmi"
    SDI = "sdi"
    USB = "usb-audio"
    RADIO = "radio"
    TIMECODE = "timecode"
    GENLOCK = "genlock"

    @property
    def is_balanced(self) -> bool:
        return self in _BALANCED

    @property
    def is_analogue(self) -> bool:
        return self in _ANALOGUE

    @property
    def is_digital(self) -> bool:
        """Sound as numbers: its level is the sender's dBFS. Radio counts, as both ends state it so."""
        return self in _NUMBERS


# Asked for each port of each plan that is worked out: sets are looked up, and made once.
_BALANCED = frozenset({Circuit.BALANCED, Circuit.BALANCED_STEREO})
_ANALOGUE = _BALANCED | {Circuit.UNBALANCED, Circuit.UNBALANCED_STEREO}
_NUMBERS = frozenset({Circuit.AES3, Circuit.HDMI, Circuit.SDI, Circuit.USB, Circuit.RADIO})


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
    def opposite(self) -> "Plug":
        """What it goes into."""
        return Plug(self.connector, Gender.FEMALE if self.gender is Gender.MALE else Gender.MALE)

    @property
    def locks(self) -> bool:
        """Whether it holds by itself; what does not wants strain relief."""
        return CONNECTORS[self.connector].locks


class Leg(NamedTuple):
    """What one contact carries: the channel (0 left or only, 1 right) and "hot", "cold" or "screen"."""

    channel: int
    role: str


INSIDE: Final = "inside"
"""ASSUMED_ connector of what is joined inside a device: its own microphones with its own input."""

CONNECTORS: Final[Mapping[str, Connector]] = {
    connector.id: connector
    for connector in (
        Connector("xlr3", "XLR-3", ("1", "2", "3"), True),
        Connector("xlr5", "XLR-5", ("1", "2", "3", "4", "5"), True),
        Connector("combo", "combo XLR/6.35 mm", ("1", "2", "3"), True),
        Connector("ta3", "TA3", ("1", "2", "3"), True),
        Connector("ta5", "TA5", ("1", "2", "3", "4", "5"), True),
        Connector("ts35", "3.5 mm TS", ("T", "S"), False),
        Connector("trs35", "3.5 mm TRS", ("T", "R", "S"), False),
        Connector("trrs35", "3.5 mm TRRS", ("T", "R1", "R2", "S"), False),
        Connector("trrs35-older", "3.5 mm TRRS, older order", ("T", "R1", "R2", "S"), False),
        Connector("ts635", "6.35 mm TS", ("T", "S"), False),
        Connector("trs635", "6.35 mm TRS", ("T", "R", "S"), False),
        Connector("rca", "RCA", ("T", "S"), False),
        Connector("bnc", "BNC", ("T", "S"), True),
        Connector("multi", "multi-pin", ("1", "2", "3", "4", "5"), True),
        Connector("usb-c", "USB-C", ("all",), False),
        Connector("hdmi", "HDMI", ("all",), False),
        Connector("shoe", "hot-shoe contacts", ("all",), True),
        Connector("air", "aerial", ("all",), True),
        Connector(INSIDE, "built in", ("T", "R", "S"), True),
    )
}
"""The connectors by id; a multi-pin is wired as an XLR-5 here. [IEC60268-12], [PRACTICE]"""

_SCREEN = Leg(0, "screen")
_HOT, _COLD, _RIGHT_HOT, _RIGHT_COLD = Leg(0, "hot"), Leg(0, "cold"), Leg(1, "hot"), Leg(1, "cold")
_XLR_MONO = {"1": _SCREEN, "2": _HOT, "3": _COLD}
_FIVE = {"1": _SCREEN, "2": _HOT, "3": _COLD, "4": _RIGHT_HOT, "5": _RIGHT_COLD}
_TRS_STEREO = {"T": _HOT, "R": _RIGHT_HOT, "S": _SCREEN}
_TIP = {"T": _HOT, "S": _SCREEN}
_DIGITAL = {"all": _HOT}

PINOUTS: Final[Mapping[tuple[str, Circuit], Mapping[str, Leg]]] = {
    ("xlr3", Circuit.BALANCED): _XLR_MONO,
    ("xlr3", Circuit.AES3): _XLR_MONO,
    ("combo", Circuit.BALANCED): _XLR_MONO,
    ("ta3", Circuit.BALANCED): _XLR_MONO,
    ("ta3", Circuit.UNBALANCED): {"1": _SCREEN, "2": _HOT, "3": _SCREEN},
    ("ta5", Circuit.BALANCED_STEREO): _FIVE,
    ("xlr5", Circuit.BALANCED_STEREO): _FIVE,
    ("multi", Circuit.BALANCED_STEREO): _FIVE,
    ("ts635", Circuit.UNBALANCED): _TIP,
    ("trs635", Circuit.BALANCED): {"T": _HOT, "R": _COLD, "S": _SCREEN},
    ("trs635", Circuit.UNBALANCED_STEREO): _TRS_STEREO,
    ("ts35", Circuit.UNBALANCED): _TIP,
    ("trs35", Circuit.UNBALANCED): {"T": _HOT, "R": _SCREEN, "S": _SCREEN},
    ("trs35", Circuit.UNBALANCED_STEREO): _TRS_STEREO,
    ("trs35", Circuit.BALANCED): {"T": _HOT, "R": _COLD, "S": _SCREEN},
    # The microphone of a headset: on the sleeve in the common order, on the second ring in the older one.
    ("trrs35", Circuit.UNBALANCED): {"S": _HOT, "R2": _SCREEN},
    ("trrs35-older", Circuit.UNBALANCED): {"R2": _HOT, "S": _SCREEN},
    (INSIDE, Circuit.UNBALANCED): {"T": _HOT, "R": _SCREEN, "S": _SCREEN},
    (INSIDE, Circuit.UNBALANCED_STEREO): _TRS_STEREO,
    ("rca", Circuit.UNBALANCED): _TIP,
    ("bnc", Circuit.TIMECODE): _TIP,
    ("bnc", Circuit.GENLOCK): _TIP,
    ("bnc", Circuit.SDI): _TIP,
    ("trs35", Circuit.TIMECODE): _TIP,
    ("usb-c", Circuit.USB): _DIGITAL,
    ("hdmi", Circuit.HDMI): _DIGITAL,
    ("shoe", Circuit.HDMI): _DIGITAL,
    ("air", Circuit.RADIO): _DIGITAL,
}
"""What each contact carries, by connector and circuit. [IEC60268-12] for XLR-3, else [PRACTICE]"""

Contacts = tuple[tuple[str, str], ...]
"""Pairs of contacts that touch."""

_SAME = {connector.id: tuple((contact, contact) for contact in connector.contacts) for connector in CONNECTORS.values()}
_THREE_IN_FOUR: Contacts = (("T", "T"), ("R", "R1"), ("S", "R2"), ("S", "S"))
_FOUR_IN_THREE: Contacts = (("T", "T"), ("R1", "R"), ("R2", "S"), ("S", "S"))
_TWO_IN_THREE: Contacts = (("T", "T"), ("S", "R"), ("S", "S"))
_THREE_IN_TWO: Contacts = (("T", "T"), ("R", "S"), ("S", "S"))
_TWO_IN_FOUR: Contacts = (("T", "T"), ("S", "R1"), ("S", "R2"), ("S", "S"))
_FOUR_IN_FOUR = _SAME["trrs35"]

_FITTING: Final[Mapping[tuple[str, str], Contacts]] = {
    # (plug, socket): the longer part of a plug bridges what it lies across
    ("xlr3", "combo"): _SAME["xlr3"],
    ("trs635", "combo"): (("T", "2"), ("R", "3"), ("S", "1")),
    ("ts635", "combo"): (("T", "2"), ("S", "3"), ("S", "1")),
    ("ts635", "trs635"): _TWO_IN_THREE,
    ("trs635", "ts635"): _THREE_IN_TWO,
    ("ts35", "trs35"): _TWO_IN_THREE,
    ("trs35", "ts35"): _THREE_IN_TWO,
    ("trs35", "trrs35"): _THREE_IN_FOUR,
    ("trs35", "trrs35-older"): _THREE_IN_FOUR,
    ("trrs35", "trs35"): _FOUR_IN_THREE,
    ("trrs35-older", "trs35"): _FOUR_IN_THREE,
    ("trrs35", "trrs35-older"): _FOUR_IN_FOUR,
    ("trrs35-older", "trrs35"): _FOUR_IN_FOUR,
    ("ts35", "trrs35"): _TWO_IN_FOUR,
    ("ts35", "trrs35-older"): _TWO_IN_FOUR,
}


def touching(near: Plug, far: Plug) -> Contacts | None:
    """Which contacts touch when two ends go together, as (contact of near, contact of far); None where they do not.

    Jacks of one diameter go into each other whatever their rings: a sleeve then lies across two springs of the socket.

    Source: [PRACTICE]
    """
    if near.gender == far.gender:
        return None
    if near.connector == far.connector:
        return _SAME[near.connector]
    if near.gender is Gender.MALE:
        return _FITTING.get((near.connector, far.connector))
    pairs = _FITTING.get((far.connector, near.connector))
    return None if pairs is None else tuple((here, there) for there, here in pairs)


def mates(first: Plug, second: Plug) -> bool:
    """Whether two ends can be pushed together; what then arrives is another question."""
    return touching(first, second) is not None


def is_meant_for(first: Plug, second: Plug) -> bool:
    """Whether two ends are made for each other: not a plug whose sleeve lies across two springs, but for those of 6.35 mm,
    which earth the cold leg of a balanced socket as they should."""
    if {first.connector, second.connector} in ({"ts635", "trs635"}, {"ts635", "combo"}) and mates(first, second):
        return (first if first.gender is Gender.MALE else second).connector == "ts635"
    pairs = touching(first, second)
    return pairs is not None and len({near for near, _ in pairs}) == len(pairs) == len({far for _, far in pairs})
