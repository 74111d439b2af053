"""Rules on listening: at the last point there is, and in time."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.catalogue import Circuit, Kind
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.joins import find_joins
from tidy_trunk.core.plan import MoveRun, PortRef, Unit
from tidy_trunk.core.timecode import FrameRate

LATE_MS: Final = 60.0
"""Sound later than the picture by more than this is not accepted. [EBU-R37], from memory"""


@rule
def headphone_feed(situation: Situation) -> Iterator[Finding]:
    """The headphone socket feeds a device, and nobody can listen there. [HANDBOOK] §6"""
    for joint in situation.joints:
        if not joint.output.is_headphone or joint.receiver.device_class.kind is Kind.HEADPHONES:
            continue
        others = [
            port for port in joint.sender.device_class.outputs if port.is_headphone and port.id != joint.output.id
        ]
        if any(not situation.rig.leaving.get(PortRef(joint.sender.device.id, port.id)) for port in others):
            continue
        yield Finding(
            rule="headphone-feed",
            severity=Severity.CAUTION,
            title=f"Nobody can listen at {joint.sender.label}",
            text=(
                f"Run {joint.run.number} takes the headphone socket of {joint.sender.label} to {joint.receiver.label}: the monitor is "
                "gone, and whoever turns the volume turns the recording."
            ),
            source="HANDBOOK",
            device=joint.sender.device.id,
            run=joint.run.id,
            fixes=_other_output(situation, joint),
            verify="Listen at the receiving end instead; set headphones low before putting them on.",
        )


def _other_output(situation: Situation, joint: Joint) -> tuple[Fix, ...]:
    """The best way that leaves the headphones alone; none where the sender has no other output."""
    for port in joint.sender.device_class.outputs:
        ref = PortRef(joint.sender.device.id, port.id)
        if port.is_headphone or not port.circuit.is_analogue or situation.rig.leaving.get(ref):
            continue
        joins = find_joins(port, joint.input, length_m=max(joint.run.length_m, 0.3), own=situation.rig.own_leads)
        if joins and joins[0].is_right:
            move = MoveRun(run=joint.run.id, sending=ref, parts=joins[0].parts)
            return (Fix(f"Take {joint.sender.label} {port.label} instead", (move,)),)
    return ()


@rule
def cannot_listen(situation: Situation) -> Iterator[Finding]:
    """A recorder or camera at which, and behind which, nobody can hear what it records. [HANDBOOK] §7"""
    rig = situation.rig
    for unit in rig.units():
        records = any(track.trace.device == unit.device.id and not track.is_silent for track in situation.report.tracks)
        if not records or _has_headphones(unit):
            continue
        after = {
            run.receiving.device
            for port in unit.device_class.outputs
            for run in rig.leaving.get(PortRef(unit.device.id, port.id), [])
        }
        if any(_has_headphones(rig.unit(device)) for device in after):
            continue
        yield Finding(
            rule="cannot-listen",
            severity=Severity.NOTE,
            title=f"{unit.label} cannot be heard",
            text=(
                f"{unit.label} has no headphone socket, and nothing behind it has one: hum, clicks and a wrong input show only in "
                "its file. Record half a minute, play it back, and do it again after every change."
            ),
            source="HANDBOOK",
            device=unit.device.id,
            verify="Play the test recording back before the first take.",
        )


def _has_headphones(unit: Unit) -> bool:
    return any(port.is_headphone for port in unit.device_class.outputs)


@rule
def listening_late(situation: Situation) -> Iterator[Finding]:
    """Headphones so far down the chain that what is heard comes too late for the lips. [EBU-R37]"""
    for joint in situation.joints:
        if joint.receiver.device_class.kind is not Kind.HEADPHONES:
            continue
        late_ms, worst = _lateness(situation, joint.sender.device.id, joint.output.circuit, frozenset())
        if late_ms <= LATE_MS:
            continue
        yield Finding(
            rule="listening-late",
            severity=Severity.CAUTION,
            title="Monitoring is late",
            text=(
                f"What {joint.receiver.label} plays has come through {worst} and is {late_ms:.0f} ms late: too late to judge lip sync "
                "or to ride a level. Listen at the recorder for that, here only for what arrives."
            ),
            source="EBU-R37",
            device=joint.sender.device.id,
            run=joint.run.id,
        )


def _lateness(situation: Situation, device: str, circuit: Circuit, seen: frozenset[str]) -> tuple[float, str]:
    """Latest sound at a device's output, in ms, and the device that adds most of it."""
    if device in seen:
        return 0.0, ""
    unit = situation.rig.unit(device)
    traits = unit.device_class.traits
    own = traits.sound_delay_ms.value if traits.sound_delay_ms else 0.0
    with_picture = any(
        joint.output.circuit is Circuit.HDMI for joint in situation.joints if joint.receiver.device.id == device
    )
    if (circuit is Circuit.HDMI or with_picture) and traits.picture_delay_frames is not None:
        rate = FrameRate.parse(situation.plan.defaults.frame_rate)
        own += traits.picture_delay_frames.value / float(rate.ratio) * 1000
    before = [
        _lateness(situation, joint.sender.device.id, joint.output.circuit, seen | {device})
        for joint in situation.joints
        if joint.receiver.device.id == device
    ]
    latest = max(before, default=(0.0, ""))
    return latest[0] + own, unit.label if own >= latest[0] else latest[1]
