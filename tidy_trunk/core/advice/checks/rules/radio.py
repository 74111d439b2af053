"""Rules on radio microphones."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, level_rule
from tidy_trunk.core.base.units import LOWEST_SIGNAL_DB
from tidy_trunk.core.gear.catalogue import DeviceKind, Signal
from tidy_trunk.core.sound.trace import upstream_of

WANTED_PEAK_DBFS: Final = -10.0
"""ASSUMED_ peaks to set a transmitter for: a laugh is 10 dB louder."""

LOWEST_PEAK_DBFS: Final = -18.0
"""ASSUMED_ peaks that a transmitter should reach: lower, and the radio's own noise is turned up with the voice."""


@level_rule
def transmitter_low(situation: Situation) -> Iterator[Finding]:
    """Set the transmitter's gain first: what it loses, receiver and recorder cannot make good. [HANDBOOK] §6"""
    for joint in situation.joints:
        placed = joint.receiver
        if placed.device_class.kind is not DeviceKind.TRANSMITTER or joint.takes.signal is not Signal.MIC:
            continue
        bus, gain = placed.device_class.buses[0], joint.takes.gain
        sound = situation.report.solver.track_sound(situation.report.tracer.bus(placed.device.id, bus.id))
        if not LOWEST_SIGNAL_DB < sound.peak < LOWEST_PEAK_DBFS:
            continue
        yield Finding(
            rule="transmitter-low",
            severity=Severity.CAUTION,
            facts={"is_all_up": gain is None or placed.gain_mark_db(joint.input, joint.takes) >= gain.maximum_db},
            source="HANDBOOK",
            device=placed.device.id,
            run=joint.run.id,
            tracks=tuple(
                track.trace.id
                for track in situation.report.tracks
                if any(stage.device == placed.device.id for stage in upstream_of(track.trace.stage))
            ),
            measured_db=sound.peak,
        )
