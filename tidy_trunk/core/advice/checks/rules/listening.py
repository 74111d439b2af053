"""Rules on listening: at the last point there is, and in time."""

from collections.abc import Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, rule
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import PlacedDevice, PortRef
from tidy_trunk.core.time.clock import BROADCAST, latency


@rule
def headphone_feed(situation: Situation) -> Iterator[Finding]:
    """The headphone socket feeds a device, and nobody can listen there. [HANDBOOK] §6"""
    for joint in situation.joints:
        if not joint.output.is_headphone or joint.receiver.device_class.kind is DeviceKind.HEADPHONES:
            continue
        others = [
            port for port in joint.sender.device_class.outputs if port.is_headphone and port.id != joint.output.id
        ]
        if any(not situation.index.leaving.get(PortRef(joint.sender.device.id, port.id)) for port in others):
            continue
        shared = situation.index.leaving[joint.run.sending]
        listens = any(
            situation.index.placed(run.receiving.device).device_class.kind is DeviceKind.HEADPHONES for run in shared
        )
        yield Finding(
            rule="headphone-feed",
            severity=Severity.CAUTION if _has_line_out(joint.sender) and not listens else Severity.NOTE,
            facts={"listens": listens},
            source="HANDBOOK",
            device=joint.sender.device.id,
            run=joint.run.id,
        )


def _has_line_out(placed: PlacedDevice) -> bool:
    """Whether sound could be taken from it by another output than the headphones'."""
    return any(port.circuit.is_analogue and not port.is_headphone for port in placed.device_class.outputs)


@rule
def cannot_listen(situation: Situation) -> Iterator[Finding]:
    """A recorder or camera at which, and behind which, nobody can hear what it records. [HANDBOOK] §7"""
    index = situation.index
    recording = {track.trace.device for track in situation.report.tracks if track.is_reached}
    for placed in index.placed_devices():
        if placed.device.id not in recording or _has_headphones(placed):
            continue
        after = {
            run.receiving.device
            for port in placed.device_class.outputs
            for run in index.leaving.get(PortRef(placed.device.id, port.id), [])
        }
        if any(_has_headphones(index.placed(device)) for device in after):
            continue
        yield Finding(
            rule="cannot-listen",
            severity=Severity.NOTE,
            source="HANDBOOK",
            device=placed.device.id,
        )


def _has_headphones(placed: PlacedDevice) -> bool:
    return any(port.is_headphone for port in placed.device_class.outputs)


@rule
def listening_late(situation: Situation) -> Iterator[Finding]:
    """Headphones so far down the chain that what is heard comes too late for the lips. [EBU-R37]"""
    for joint in situation.joints:
        if joint.receiver.device_class.kind is not DeviceKind.HEADPHONES:
            continue
        port = joint.run.receiving
        stages = [situation.report.tracer.input(port.device, port.port, channel) for channel in (0, 1)]
        late = max((latency(situation.index, stage) for stage in stages), key=lambda item: item.most_ms)
        if late.most_ms <= BROADCAST.late_ms:
            continue
        worst = max(late.parts, key=lambda part: part.ms)
        yield Finding(
            rule="listening-late",
            severity=Severity.CAUTION,
            facts={"through": worst.what, "late_ms": late.most_ms},
            source="EBU-R37",
            device=joint.sender.device.id,
            run=joint.run.id,
        )
