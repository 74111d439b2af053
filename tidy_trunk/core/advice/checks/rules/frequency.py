"""Rules on radio frequencies."""

from collections.abc import Iterator
from itertools import combinations
from typing import Final

from tidy_trunk.core.advice.checks.rule import Carrier, Finding, Severity, Situation, looks_at
from tidy_trunk.core.base.radio import CHANNEL_MHZ, products
from tidy_trunk.core.gear.catalogue import Circuit
from tidy_trunk.core.plan import Aspect

radio_rule = looks_at(Aspect.RADIO)

SAME_MHZ: Final = 0.005
"""ASSUMED_ how far apart two displays may be and still mean one frequency."""

MOST_TOLD: Final = 3
"""ASSUMED_ products named for one channel: the nearest ones."""

MOST_NAMED: Final = 6
"""ASSUMED_ transmitters named in one sentence."""


@radio_rule
def frequency_mismatch(situation: Situation) -> Iterator[Finding]:
    """Transmitter and receiver of one link on two frequencies. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.output.circuit is not Circuit.RADIO:
            continue
        sends, takes = joint.sender.frequency_mhz(joint.output), joint.receiver.frequency_mhz(joint.input)
        if sends is None or takes is None or abs(sends - takes) <= SAME_MHZ:
            continue
        yield Finding(
            rule="frequency-mismatch",
            severity=Severity.STOP,
            facts={"sends_mhz": sends, "takes_mhz": takes},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@radio_rule
def frequency_twice(situation: Situation) -> Iterator[Finding]:
    """Two transmitters within one channel. [HANDBOOK] §6"""
    carriers = situation.carriers
    for first, second in combinations(carriers, 2):
        if abs(first.mhz - second.mhz) > CHANNEL_MHZ:
            continue
        yield Finding(
            rule="frequency-twice",
            severity=Severity.STOP,
            facts={"first_mhz": first.mhz, "second_mhz": second.mhz},
            source="HANDBOOK",
            device=second.placed.device.id,
            about=first.placed.device.id,
        )


@radio_rule
def intermodulation(situation: Situation) -> Iterator[Finding]:
    """2a − b or a + b − c of transmitters in use falls on another one. [HANDBOOK] §6

    Those that share a frequency count as one: what they do to each other is told by `frequency_twice`.
    """
    by_mhz: dict[float, list[Carrier]] = {}
    for carrier in situation.carriers:
        by_mhz.setdefault(carrier.mhz, []).append(carrier)
    devices = {carriers[0].placed.device.id + carriers[0].port.id: carriers[0] for carriers in by_mhz.values()}
    guard = situation.plan.defaults.radio_guard_mhz
    found = products({name: carrier.mhz for name, carrier in devices.items()}, guard, MOST_TOLD)
    for victim in situation.carriers:
        near = [
            product._replace(
                first=devices[product.first].placed.device.id,
                second=devices[product.second].placed.device.id,
                third=devices[product.third].placed.device.id,
            )
            for product in found
            if devices[product.victim].mhz == victim.mhz
        ]
        if not near:
            continue
        yield Finding(
            rule="intermodulation",
            severity=Severity.CAUTION,
            facts={"mhz": victim.mhz, "products": tuple(near)},
            source="HANDBOOK",
            device=victim.placed.device.id,
            about=victim.port.id,
        )


@radio_rule
def frequency_legal(situation: Situation) -> Iterator[Finding]:
    """A frequency must be legal where one stands: the regulator says which are. [PRACTICE]"""
    radios = [joint for joint in situation.joints if joint.output.circuit is Circuit.RADIO]
    if not radios or situation.plan.defaults.frequencies_cleared:
        return
    carriers = situation.carriers
    unset = len({joint.sender.device.id for joint in radios} - {carrier.placed.device.id for carrier in carriers})
    yield Finding(
        rule="frequency-legal",
        severity=Severity.NOTE,
        facts={
            "carriers": tuple((carrier.placed.device.id, carrier.mhz) for carrier in carriers[:MOST_NAMED]),
            "unset": unset,
        },
        source="PRACTICE",
        device=radios[0].sender.device.id,
    )
