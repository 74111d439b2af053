"""What a lead does by itself, between every kind of socket that it fits."""

from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.gear.catalogue import (
    PINOUTS,
    Circuit,
    Drive,
    Figure,
    InputMode,
    InputPort,
    LeadClass,
    OutputMode,
    OutputPort,
    Plug,
    Signal,
    Supply,
)
from tidy_trunk.core.gear.wiring.faults import Fault, faults
from tidy_trunk.core.gear.wiring.power import DeliveredSupply, delivery
from tidy_trunk.core.gear.wiring.sound import Link, link

_SOURCE_OHM, _LOAD_OHM = 150.0, 2_500.0
_SIDES = ("L", "R")
_STEREO = (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO)


@dataclass(frozen=True, slots=True)
class JudgedUse:
    """A lead between two kinds of sockets. `drive` is None for an unbalanced output."""

    sends: Circuit
    drive: Drive | None
    takes: Circuit
    branch: str
    link: Link
    faults: tuple[Fault, ...]
    deliveries: tuple[DeliveredSupply, ...]


def judged_uses(lead: LeadClass) -> Iterator[JudgedUse]:
    """Every use of a lead, between sockets of 150 Ω and 2.5 kΩ: sound one way, power the other. [HANDBOOK] §4"""
    for branch, seen in ((branch, lead.at_branch(branch)) for branch in lead.ways):
        for sends in _circuits(lead.sending):
            for drive in Drive if sends.is_balanced else (None,):
                for takes in _circuits(seen.receiving):
                    yield _between(seen, branch, sends, drive, takes)


def _circuits(plug: Plug) -> list[Circuit]:
    return [circuit for connector, circuit in PINOUTS if connector == plug.connector and circuit.is_analogue]


def _between(lead: LeadClass, branch: str, sends: Circuit, drive: Drive | None, takes: Circuit) -> JudgedUse:
    output = OutputPort(
        id="out",
        label="out",
        plug=lead.sending.opposite,
        circuit=sends,
        channels=_SIDES if sends in _STEREO else ("1",),
        modes=(OutputMode(id="any", label="any", signal=Signal.LINE, source_ohm=Figure(_SOURCE_OHM)),),
        drive=drive or Drive.FLOATING,
    )
    port = InputPort(
        id="in",
        label="in",
        plug=lead.receiving.opposite,
        circuit=takes,
        channels=_SIDES if takes in _STEREO else ("1",),
        modes=(InputMode(id="any", label="any", signal=Signal.MIC, impedance_ohm=Figure(_LOAD_OHM)),),
    )
    supplies = (Supply.P48,) if takes.is_balanced else (Supply.PLUG_IN,)
    leads = [(lead, branch)]
    found = link(output, leads, port)
    return JudgedUse(
        sends,
        drive,
        takes,
        branch,
        found,
        faults(output, leads, port, found),
        tuple(delivery(output, leads, port, supply) for supply in supplies),
    )
