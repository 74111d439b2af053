"""Leads, adapters and pads: what is at the ends, and what joins the contacts inside."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Final

from tidy_trunk.core.gear.catalogue.connectors import CONNECTORS, Plug
from tidy_trunk.core.gear.catalogue.cores import Side, Wiring
from tidy_trunk.core.gear.catalogue.figures import Figure
from tidy_trunk.errors import InputError

PAD_SOURCE_OHM: Final = 150.0
"""Source that a lead's pad is designed for. [PRACTICE]"""

PAD_LOAD_OHM: Final = 2_500.0
"""Load that a lead's pad is designed for: a microphone socket. [MEMORY]"""

PAD_TOLERANCE_DB: Final = 0.5
"""± of the loss of a lead's pad, from 1 % to 5 % resistors. [MEMORY]"""

AES3_OHM: Final = 110.0
"""Characteristic impedance of a lead for AES3. [AES3]"""


TAIL_BRANCH: Final = "R"
"""ASSUMED_ branch that a tail is, where a lead has one."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadClass:
    """A kind of lead. `ways` by branch: "" where it has one, "L" and "R" where two share one plug.

    balanced: whether the signal stays balanced on it, so that it may be long.
    loss_db: of the pad inside, from PAD_SOURCE_OHM into PAD_LOAD_OHM; None where it has none.
    short_m: length that is usual for it; None where it is ordered to length.
    replaces: leads of the same plugs in whose place it goes as a pad; the first is its plain twin.
    characteristic_ohm: for digital signals; None for a lead made for voltages.
    also: other words by which it is called.
    proposed: False for what is only there by mistake, or as a cure, or because somebody asks for it.
    tail: receiving end of its branch R, where that is another than that of L: a socket for listening; None where both are alike.
    cost, tested: as of a device.

    Raises:
        InputError: A contact that its plug does not have, or a tail without a branch of its own.
    """

    id: str
    label: str
    sending: Plug
    receiving: Plug
    ways: Mapping[str, Wiring]
    balanced: bool
    loss_db: Figure | None = None
    short_m: float | None = None
    replaces: tuple[str, ...] = ()
    tail: Plug | None = None
    characteristic_ohm: float | None = None
    also: str = ""
    cost: int | None = None
    tested: Mapping[str, str] = field(default_factory=dict)
    proposed: bool = True

    def __post_init__(self) -> None:
        if self.tail is not None and set(self.ways) != {"L", TAIL_BRANCH}:
            raise InputError(f"a tail is branch {TAIL_BRANCH}: describe the ways L and {TAIL_BRANCH}")
        for branch, way in self.ways.items():
            check_contacts(self.sending, self.end_of(branch), way)

    def end_of(self, branch: str) -> Plug:
        """The receiving end of one of its branches."""
        return self.tail if self.tail is not None and branch == TAIL_BRANCH else self.receiving

    def at_branch(self, branch: str) -> "LeadClass":
        """The lead as it is from one of its branches: a tail has its own end, and no attenuator before it."""
        if self.tail is None or branch != TAIL_BRANCH:
            return self
        ways = dict.fromkeys(self.ways, self.ways[TAIL_BRANCH])
        return replace(self, receiving=self.tail, tail=None, ways=ways, loss_db=None)

    @property
    def is_adapter(self) -> bool:
        return self.short_m is not None

    @property
    def isolates(self) -> bool:
        """Whether no copper goes through it: an isolating transformer."""
        return any(way.windings and not way.wires for way in self.ways.values())


def check_contacts(sending: Plug, receiving: Plug, way: Wiring) -> None:
    """Raises InputError where a way names a contact that its plug does not have."""
    known = {
        Side.SENDING: CONNECTORS[sending.connector].contacts,
        Side.RECEIVING: CONNECTORS[receiving.connector].contacts,
    }
    for end, name in way.contacts():
        if name not in known[end]:
            raise InputError(f"its {end} end has no contact '{name}'; it has {', '.join(known[end])}")
