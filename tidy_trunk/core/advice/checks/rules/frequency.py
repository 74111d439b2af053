"""Rules on radio frequencies."""

from collections.abc import Iterator
from itertools import combinations
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.base.radio import CHANNEL_MHZ, products
from tidy_trunk.core.gear.catalogue import Circuit
from tidy_trunk.core.plan import Aspect

radio_rule = looks_at(Aspect.RADIO)

SAME_MHZ: Final = 0.005
"""ASSUMED_ how far apart two displays may be and still mean one frequency."""

MOST_TOLD: Final = 3
"""ASSUMED_ products named for one channel: the nearest ones."""


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
            title="Not on one frequency",
            text=f"{joint.sender.label} sends on {sends:.3f} MHz, {joint.receiver.label} listens on {takes:.3f} MHz: it hears nothing, or somebody else.",
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
            title="Two transmitters on one channel",
            text=(
                f"{first.unit.label} ({first.mhz:.3f} MHz) and {second.unit.label} ({second.mhz:.3f} MHz) are less than "
                f"{CHANNEL_MHZ * 1000:g} kHz apart: the receivers howl or swap voices."
            ),
            source="HANDBOOK",
            device=second.unit.device.id,
            about=first.unit.device.id,
        )


@radio_rule
def intermodulation(situation: Situation) -> Iterator[Finding]:
    """2a − b or a + b − c of transmitters in use falls on another one. [HANDBOOK] §6"""
    carriers = situation.carriers
    guard = situation.plan.defaults.radio_guard_mhz
    by_name = {carrier.unit.device.id + carrier.port.id: carrier for carrier in carriers}
    found = products({name: carrier.mhz for name, carrier in by_name.items()}, guard)
    for name, victim in by_name.items():
        hits = [product for product in found if product.victim == name]
        if not hits:
            continue
        said = []
        for hit in hits[:MOST_TOLD]:
            first, second, third = (by_name[item].unit.label for item in hit[:3])
            sum_ = f"twice {first}" if first == second else f"{first} plus {second}"
            said.append(f"{sum_} less {third} is {hit.mhz:.3f} MHz, {hit.distance_mhz * 1000:.0f} kHz off")
        yield Finding(
            rule="intermodulation",
            severity=Severity.CAUTION,
            title=f"Intermodulation on {victim.unit.label}",
            text=(
                f"On {victim.unit.label} ({victim.mhz:.3f} MHz): {'; '.join(said)}. With the transmitters near each other the receiver "
                "hears that too: whistles, or a squelch that stays open."
            ),
            source="HANDBOOK",
            device=victim.unit.device.id,
            about=victim.port.id,
            verify="All transmitters on, this one off: its receiver must stay quiet.",
        )


@radio_rule
def frequency_legal(situation: Situation) -> Iterator[Finding]:
    """A frequency must be legal where one stands: the regulator says which are. [PRACTICE]"""
    radios = [joint for joint in situation.joints if joint.output.circuit is Circuit.RADIO]
    if not radios or situation.plan.defaults.frequencies_cleared:
        return
    carriers = situation.carriers
    named = ", ".join(f"{carrier.unit.label} {carrier.mhz:.3f} MHz" for carrier in carriers[:6])
    unset = len({joint.sender.device.id for joint in radios} - {carrier.unit.device.id for carrier in carriers})
    missing = f" {unset} transmitter{'s have' if unset > 1 else ' has'} no frequency here yet." if unset else ""
    yield Finding(
        rule="frequency-legal",
        severity=Severity.NOTE,
        title="Is it legal to send there?",
        text=(
            f"Radio microphones need a frequency that is legal where you stand{': ' + named if named else ''}.{missing} Ask the "
            "regulator or the frequency coordinator of the place, then tick it here."
        ),
        source="PRACTICE",
        device=radios[0].sender.device.id,
    )
