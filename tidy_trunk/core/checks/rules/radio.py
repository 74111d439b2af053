"""Rules on radio microphones."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.catalogue import Kind, Signal
from tidy_trunk.core.checks.rule import Finding, Fix, Severity, Situation, rule
from tidy_trunk.core.ways import gain_way

LOWEST_PEAK_DBFS: Final = -18.0
"""ASSUMED_ peaks that a transmitter should reach: lower, and the radio's own noise is turned up with the voice."""


@rule
def transmitter_low(situation: Situation) -> Iterator[Finding]:
    """Set the transmitter's gain first: what it loses, receiver and recorder cannot make good. [HANDBOOK] §6"""
    for joint in situation.joints:
        unit = joint.receiver
        if unit.device_class.kind is not Kind.TRANSMITTER or joint.takes.signal is not Signal.MIC:
            continue
        bus = unit.device_class.buses[0]
        sound = situation.report.reckoner.track_sound(situation.report.tracer.bus(unit.device.id, bus.id))
        if not -200 < sound.peak < LOWEST_PEAK_DBFS:
            continue
        turn = gain_way(situation.report, joint.run.id)
        yield Finding(
            rule="transmitter-low",
            severity=Severity.CAUTION,
            title=f"{unit.label} is turned down",
            text=(
                f"{unit.label} sends peaks of only {sound.peak:.0f} dBFS. Turn it up first, then the receiver, then the recorder: "
                "gain that comes later lifts the radio's noise as well. Mind that its frequency must be legal where you stand."
            ).replace(" -", " −"),
            source="HANDBOOK",
            device=unit.device.id,
            run=joint.run.id,
            measured_db=sound.peak,
            fixes=(Fix(turn.sentence(situation.plan), (turn,)),) if turn is not None else (),
            verify="Let the wearer speak as in the take and watch the transmitter's own meter.",
        )
