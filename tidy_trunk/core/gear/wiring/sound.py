"""What arrives at a socket through leads: worked out from the contacts that they join, not from their names."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio
from tidy_trunk.core.gear.catalogue import (
    Circuit,
    Drive,
    InputMode,
    InputPort,
    LeadClass,
    Leg,
    OutputMode,
    OutputPort,
    Plug,
    Port,
    Wiring,
    mates,
)
from tidy_trunk.core.gear.wiring.circuit import (
    COMMON,
    SENDER,
    Branch,
    End,
    LeadWay,
    contact,
    end_of,
    ground,
    ways_of_leads,
    wire_up,
)
from tidy_trunk.core.gear.wiring.network import Network, Node

NOTHING_BELOW: Final = 1e-5
"""ASSUMED_ voltage ratio, −100 dB, below which nothing is said to arrive: what leaks is no signal."""


@dataclass(frozen=True, slots=True)
class Arrival:
    """A sending channel as one receiving channel hears it.

    ratio: voltage at the receiving terminals over the open-circuit voltage of the output; negative if inverted.
    """

    channel: int
    ratio: float


@dataclass(frozen=True, slots=True)
class Link:
    """What leads do between two ports.

    heard: for each receiving channel, the sending channels that it hears.
    shorted: legs of the output that drive into a short.
    fighting: two channels of the output are joined and drive each other.
    dead: receiving channels whose contact is shorted to the screen.
    copper: whether plain copper joins the two screens, so that a current can go round by it.
    """

    heard: tuple[tuple[Arrival, ...], ...]
    shorted: tuple[Leg, ...] = ()
    fighting: bool = False
    dead: tuple[int, ...] = ()
    copper: bool = True

    @property
    def strongest(self) -> float:
        """The largest ratio, without its sign; 0 where nothing arrives."""
        return max((abs(arrival.ratio) for channel in self.heard for arrival in channel), default=0.0)

    @property
    def mono_sum_db(self) -> float:
        """Level of (left + right) / 2 against the louder side alone, for the channel that fares worst.

        0 dB where both sides hear the same, −6 where one is silent, -inf where they cancel.
        """
        worst = 0.0
        for channel in {arrival.channel for side in self.heard for arrival in side}:
            sides = [sum(arrival.ratio for arrival in side if arrival.channel == channel) for side in self.heard]
            both = abs(sum(sides)) / len(sides) / max(map(abs, sides))
            worst = min(worst, db_from_ratio(both) if both > NOTHING_BELOW else SILENCE_DB)
        return worst


@dataclass(frozen=True, slots=True)
class Mismatch:
    """Two ends that do not go together, named as a recordist would."""

    first: str
    second: str


def unmated(sending: Port, leads: Sequence[LeadClass], receiving: Port) -> Mismatch | None:
    """The first joint of a run whose plugs do not mate; None where all do."""
    ends = [(sending.plug, sending.label)]
    for lead in leads:
        if not mates(ends[-1][0], lead.sending):
            return Mismatch(f"{ends[-1][1]} ({ends[-1][0].words})", f"{lead.label} ({lead.sending.words})")
        ends.append((lead.receiving, lead.label))
    if not mates(ends[-1][0], receiving.plug):
        return Mismatch(f"{ends[-1][1]} ({ends[-1][0].words})", f"{receiving.label} ({receiving.plug.words})")
    return None


def link(
    sending: OutputPort,
    leads: Sequence[tuple[LeadClass, str]],
    receiving: InputPort,
    sends: OutputMode | None = None,
    takes: InputMode | None = None,
    beside: Sequence[Branch] = (),
) -> Link:
    """What leads do between an output and an input, with the impedances of both.

    Args:
        sending, receiving: The ports at the ends; all plugs must mate.
        leads: (lead, branch) in order; empty where the plugs go together directly.
        sends, takes: The modes at both ends, the first of each where not given.
        beside: Other inputs that hang on the same output, and load it.

    Digital signals go through in their order of channels, or not at all: their contacts carry them together.

    Source: [HANDBOOK] §4; nodal analysis.
    """
    if sending.circuit.is_digital:
        last = len(sending.channels) - 1
        wireless = sending.plug.connector == "air"
        heard = tuple((Arrival(index, 1.0),) if index <= last else () for index, _ in enumerate(receiving.channels))
        return Link(heard, copper=not wireless)
    source_ohm = (sends or sending.modes[0]).source_ohm.value
    return _link(end_of(sending), sending.drive, source_ohm, (branch_of(leads, receiving, takes), *beside))


def branch_of(leads: Sequence[tuple[LeadClass, str]], receiving: InputPort, takes: InputMode | None = None) -> Branch:
    """The way from an output into one of its inputs; arguments as of `link`."""
    return Branch(ways_of_leads(leads), end_of(receiving), (takes or receiving.modes[0]).impedance_ohm.value)


def bare_ratio(
    sending: Plug, sends: Circuit, wiring: Wiring, receiving: Plug, takes: Circuit, source_ohm: float, load_ohm: float
) -> float:
    """The strongest arrival through one lead alone, between sockets of the other gender; 0 where nothing arrives."""
    stereo = (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO)
    first, last = (
        End(plug.opposite, circuit, 2 if circuit in stereo else 1)
        for plug, circuit in ((sending, sends), (receiving, takes))
    )
    branch = Branch((LeadWay(sending, receiving, wiring),), last, load_ohm)
    return _link(first, Drive.FLOATING, source_ohm, (branch,)).strongest


@lru_cache(maxsize=8192)
def _link(sender: End, drive: Drive, source_ohm: float, branches: tuple[Branch, ...]) -> Link:
    """What arrives by the first of the branches, with all of them plugged in; the same for all sockets of a kind,
    whichever device they are in: a job joins few kinds many times over. What is wrong with other leads is told of those."""
    if len(branches) > 1:
        heard = _heard(sender, drive, source_ohm, branches)[1]
        return replace(_link(sender, drive, source_ohm, branches[:1]), heard=heard)
    receiver = branches[0].receiver
    network, heard = _heard(sender, drive, source_ohm, branches)
    return Link(
        heard=heard,
        shorted=_shorted(network, sender, drive),
        fighting=_fighting(network, sender),
        dead=tuple(
            channel
            for channel in range(receiver.channels)
            if (hot := contact(receiver, (0, -1), Leg(channel, "hot"))) is not None and network.joined(hot, ground())
        ),
        copper=network.joined(COMMON, ground()),
    )


def _heard(
    sender: End, drive: Drive, source_ohm: float, branches: Sequence[Branch]
) -> tuple[Network, tuple[tuple[Arrival, ...], ...]]:
    """The network of all branches, and what each channel of the first one's input hears."""
    network = Network(sets=sender.channels)
    wire_up(network, sender, branches)
    for channel in range(sender.channels):
        _drive(network, sender, drive, source_ohm, channel)
    for number, branch in enumerate(branches):
        for hot, cold in _terminals(branch, number):
            if cold == ground(number):
                network.resistor(hot, cold, branch.load_ohm)
            else:
                network.resistor(hot, ground(number), branch.load_ohm / 2)
                network.resistor(cold, ground(number), branch.load_ohm / 2)
    terminals = list(_terminals(branches[0], 0))
    volts = network.solve(ground(), [node for pair in terminals for node in pair])
    heard = tuple(
        tuple(
            Arrival(sent, float(ratio))
            for sent, ratio in enumerate(volts[2 * index] - volts[2 * index + 1])
            if abs(ratio) > NOTHING_BELOW
        )
        for index in range(len(terminals))
    )
    # Numbers of all channels share one contact: no voltage is told for the others.
    return network, heard + ((),) * (branches[0].receiver.channels - len(heard))


def _terminals(branch: Branch, number: int) -> Iterator[tuple[Node, Node]]:
    """Between which nodes each channel of a branch's input takes its voltage."""
    for channel in range(branch.receiver.channels):
        hot, cold = (contact(branch.receiver, (number, -1), Leg(channel, role)) for role in ("hot", "cold"))
        if hot is not None:
            yield hot, ground(number) if cold is None else cold


def _drive(network: Network, sender: End, drive: Drive, source_ohm: float, channel: int) -> None:
    hot, cold = (contact(sender, SENDER, Leg(channel, role)) for role in ("hot", "cold"))
    if hot is None:
        return
    if cold is None:
        network.source(hot, COMMON, 1.0, source_ohm, channel)
    elif drive is Drive.FLOATING:
        network.source(hot, cold, 1.0, source_ohm, channel)
    elif drive is Drive.SYMMETRIC:
        network.source(hot, COMMON, 0.5, source_ohm / 2, channel)
        network.source(cold, COMMON, -0.5, source_ohm / 2, channel)
    else:
        network.source(hot, COMMON, 1.0, source_ohm / 2, channel)
        network.resistor(cold, COMMON, source_ohm / 2)


def _shorted(network: Network, sender: End, drive: Drive) -> tuple[Leg, ...]:
    """Legs that drive into a short: on the screen, or on the other leg. A floating output may have one on the screen."""
    found = []
    for channel in range(sender.channels):
        hot, cold = (contact(sender, SENDER, Leg(channel, role)) for role in ("hot", "cold"))
        if hot is None:
            continue
        floating = cold is not None and drive is Drive.FLOATING
        if (cold is not None and network.joined(hot, cold)) or (not floating and network.joined(hot, COMMON)):
            found.append(Leg(channel, "hot"))
        if cold is not None and drive is Drive.SYMMETRIC and network.joined(cold, COMMON):
            found.append(Leg(channel, "cold"))
    return tuple(found)


def _fighting(network: Network, sender: End) -> bool:
    hots = [contact(sender, SENDER, Leg(channel, "hot")) for channel in range(sender.channels)]
    return len(hots) == 2 and None not in hots and network.joined(hots[0], hots[1])
