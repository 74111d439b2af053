"""What lies inside a lead: cores from contact to contact, resistors, capacitors and transformers."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import StrEnum
from typing import NamedTuple


class Side(StrEnum):
    """The two ends of a lead."""

    SENDING = "sending"
    RECEIVING = "receiving"


class Wire(NamedTuple):
    """A core from a contact of the sending end to one of the receiving end.

    ohm: a resistor in series with it, 0 for none; blocks_dc: a capacitor, which passes sound and no power.
    """

    near: str
    far: str
    ohm: float = 0.0
    blocks_dc: bool = False


class Bridge(NamedTuple):
    """What joins two contacts of one end: a resistor, or a plain short at 0 Ω."""

    end: Side
    first: str
    second: str
    ohm: float = 0.0


class Winding(NamedTuple):
    """A 1:1 transformer between two contacts of the sending end and two of the receiving end."""

    near: tuple[str, str]
    far: tuple[str, str]


@dataclass(frozen=True, slots=True)
class Wiring:
    """All that is inside one way of a lead. Its hash is kept: wirings are looked up far more often than made."""

    wires: tuple[Wire, ...]
    bridges: tuple[Bridge, ...] = ()
    windings: tuple[Winding, ...] = ()
    _hash: int = field(init=False, compare=False, repr=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "_hash", hash((self.wires, self.bridges, self.windings)))

    def contacts(self) -> Iterator[tuple[Side, str]]:
        """Every contact that is named in it, with the end that it is of."""
        for wire in self.wires:
            yield from ((Side.SENDING, wire.near), (Side.RECEIVING, wire.far))
        for bridge in self.bridges:
            yield from ((bridge.end, bridge.first), (bridge.end, bridge.second))
        for winding in self.windings:
            yield from ((Side.SENDING, name) for name in winding.near)
            yield from ((Side.RECEIVING, name) for name in winding.far)

    def __hash__(self) -> int:
        return self._hash

    def __reduce__(self) -> tuple[type["Wiring"], tuple[object, ...]]:
        """Its hash is of this process alone: elsewhere it is made anew."""
        return Wiring, (self.wires, self.bridges, self.windings)
