"""Power over the signal contacts: what of it reaches the other end of a run."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, NamedTuple

from tidy_trunk.core.base.units import PHANTOM_FEED_OHM, PHANTOM_V
from tidy_trunk.core.gear.catalogue import InputPort, LeadClass, Leg, OutputPort, Supply
from tidy_trunk.core.gear.wiring.circuit import COMMON, SENDER, Branch, End, contact, end_of, ground, wire_up
from tidy_trunk.core.gear.wiring.network import Network, Node
from tidy_trunk.core.gear.wiring.sound import branch_of

SUPPLY_V: Final[Mapping[Supply, float]] = {Supply.P48: PHANTOM_V, Supply.PLUG_IN: 3.0, Supply.T_POWER: 12.0}
"""Volts of each way to power. [IEC61938] for phantom power; plug-in and T-power [MEMORY]"""

FEED_OHM: Final[Mapping[Supply, float]] = {
    Supply.P48: PHANTOM_FEED_OHM,
    Supply.PLUG_IN: 2_200.0,
    Supply.T_POWER: 180.0,
}
"""Resistor in each feeding leg. [IEC61938] for phantom and T-power; plug-in [MEMORY]"""

_NOBODY_OHM: Final = 1e8
_PASSES_FROM: Final = 0.9
_FELT_FROM_V: Final = 1.0


@dataclass(frozen=True, slots=True)
class DeliveredSupply:
    """A supply at the contacts of the device that would take it, in volts above that device's screen.

    hot_v, cold_v: with nothing there that draws (cold 0 where it has no such contact).
    left_v: with the current that a microphone draws, mean of its legs.
    short_ma: what flows although nothing draws.
    """

    supply: Supply
    hot_v: float
    cold_v: float
    left_v: float
    short_ma: float
    nominal_v: float

    @property
    def passes(self) -> bool:
        """Whether a microphone that needs this supply gets it."""
        least = _PASSES_FROM * self.nominal_v
        if self.supply is Supply.P48:
            return min(self.hot_v, self.cold_v) >= least
        if self.supply is Supply.T_POWER:
            return self.hot_v - self.cold_v >= least
        return self.hot_v >= least

    @property
    def is_felt(self) -> bool:
        """Whether any of it gets there."""
        return max(abs(self.hot_v), abs(self.cold_v)) >= _FELT_FROM_V

    @property
    def across_v(self) -> float:
        """Between hot and cold: what a coil or a ribbon feels; 0 where phantom power arrives as it should."""
        return self.hot_v - self.cold_v

    @property
    def is_shorted(self) -> bool:
        """Whether a contact on the way ties a feeding leg down, so that current flows for nothing."""
        return self.short_ma > 1.0


class Feed(NamedTuple):
    """An input that hangs on a microphone's output, and what it gives; `supply` None where that is off."""

    branch: Branch
    supply: Supply | None
    volts: float = 0.0


def delivery(
    sending: OutputPort,
    leads: Sequence[tuple[LeadClass, str]],
    receiving: InputPort,
    supply: Supply,
    *,
    volts: float | None = None,
    draw_ma: float = 0.0,
    beside: Sequence[Feed] = (),
) -> DeliveredSupply:
    """How a supply of the receiving port stands at the sending port, through the leads between them.

    Args:
        sending, leads, receiving: As for `link`.
        volts: What the supply really gives, its nominal voltage where not given.
        draw_ma: Current of the microphone, shared by its two legs where it has two; 0 to 100 mA.
        beside: Other inputs that hang on the same output, with what they give.

    A microphone on phantom power is left 48 V − I × 3.4 kΩ (37.8 V at 3 mA). Source: [IEC61938]; nodal analysis.
    """
    given = SUPPLY_V[supply] if volts is None else volts
    own = Feed(branch_of(leads, receiving), supply, given)
    return _delivery(end_of(sending), (own, *beside), draw_ma)


@lru_cache(maxsize=2048)
def _delivery(sender: End, feeds: tuple[Feed, ...], draw_ma: float) -> DeliveredSupply:
    """At the sender, with all inputs that feed it; what flows for nothing out of the first of them."""
    network = Network(sets=2)  # the first without, the second with the microphone's current
    wire_up(network, sender, [feed.branch for feed in feeds], power=True)
    fed: list[tuple[Node, float]] = []
    for number, feed in enumerate(feeds):
        if feed.supply is None:
            continue  # its switch has parted the resistors from the supply, and its capacitors pass nothing
        for channel in range(feed.branch.receiver.channels):
            for leg in (Leg(channel, "hot"), Leg(channel, "cold")):
                node = contact(feed.branch.receiver, (number, -1), leg)
                if node is None:
                    continue
                emf = 0.0 if feed.supply is Supply.T_POWER and leg.role == "cold" else feed.volts
                if number == 0:
                    fed.append((node, emf))
                for which in (0, 1):
                    network.current(ground(number), node, emf / FEED_OHM[feed.supply], which)
                network.resistor(node, ground(number), FEED_OHM[feed.supply])
    supply = feeds[0].supply
    assert supply is not None  # the first is the one that is asked for
    legs: list[Node] = [node for role in ("hot", "cold") if (node := contact(sender, SENDER, Leg(0, role))) is not None]
    for node in legs:
        network.resistor(node, COMMON, _NOBODY_OHM)
        network.current(node, COMMON, draw_ma / 1000 / len(legs), 1)
    solved = network.solve(ground(), [COMMON, *legs, *(node for node, _ in fed)])
    above = solved[1 : 1 + len(legs)] - solved[0]
    flowing = sum(
        max(emf - float(level[0]), 0.0) / FEED_OHM[supply]
        for (_, emf), level in zip(fed, solved[1 + len(legs) :], strict=True)
    )
    return DeliveredSupply(
        supply=supply,
        hot_v=float(above[0][0]),
        cold_v=float(above[1][0]) if len(legs) > 1 else 0.0,
        left_v=float(above[:, 1].mean()),
        short_ma=flowing * 1000,
        nominal_v=feeds[0].volts,
    )
