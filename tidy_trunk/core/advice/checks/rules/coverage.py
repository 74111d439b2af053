"""Rules on what is heard and recorded at all."""

import math
from collections.abc import Iterable, Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, rule
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import ROOMS, Role
from tidy_trunk.core.sound.levels import TrackLevel
from tidy_trunk.core.sound.trace import upstream_of


@rule
def too_far(situation: Situation) -> Iterator[Finding]:
    """A microphone beyond the critical distance hears more of the room than of the source. [HANDBOOK] §15.6"""
    room = ROOMS[situation.plan.defaults.room]
    for source in situation.plan.sources.values():
        for device, distance_m in source.heard_by.items():
            capsule = situation.index.placed(device).device_class.capsule
            critical_m = room.critical_distance_m(capsule.pattern.directivity) if capsule is not None else math.inf
            if distance_m <= critical_m:
                continue
            yield Finding(
                rule="too-far",
                severity=Severity.CAUTION if distance_m > 2 * critical_m else Severity.NOTE,
                facts={"distance_m": distance_m, "critical_m": critical_m},
                source="HANDBOOK",
                device=device,
                about=source.id,
            )


@rule
def source_without_track(situation: Situation) -> Iterator[Finding]:
    """Somebody is to be heard, and no track holds him. [HANDBOOK] §1"""
    reached = {source for track in situation.report.tracks if track.is_reached for source in track.sources}
    for source in situation.plan.sources.values():
        if source.id in reached:
            continue
        yield Finding(
            rule="source-without-track",
            severity=Severity.STOP,
            facts={"ends": _dead_ends(situation, source.heard_by)},
            source="HANDBOOK",
            device=next(iter(source.heard_by), ""),
            tracks=(f"source.{source.id}",),
        )


@rule
def track_without_source(situation: Situation) -> Iterator[Finding]:
    """A plug is in, and nothing to be heard comes through it; or a recorder or camera that records nothing. [PRACTICE]"""
    for placed in situation.index.placed_devices():
        if not placed.device_class.is_recording:
            continue
        device = placed.device.id
        tracks = [track for track in situation.report.tracks if track.trace.device == device]
        if not any(joint.receiver.device.id == device for joint in situation.joints):
            if placed.device_class.kind is DeviceKind.CAMERA or any(track.is_reached for track in tracks):
                continue  # a camera is there for its picture; both may hear by their own microphones
            yield Finding(
                rule="track-without-source",
                severity=Severity.CAUTION if situation.plan.sources else Severity.NOTE,
                facts={"begins": ()},
                source="HANDBOOK",
                device=device,
            )
            continue
        told: set[tuple[str, int]] = set()
        silent = [track for track in tracks if track.trace.stage.feeds and not track.is_reached]
        for track in sorted(silent, key=lambda item: len(item.trace.stage.feeds)):
            inputs = {(feed.name, feed.channel) for feed, _ in track.trace.stage.feeds}
            if not inputs <= told:  # else it is a mix of what was told of
                told |= inputs
                spare = track.role is Role.GUIDE or not situation.plan.sources or _is_side_of_another(track, tracks)
                yield Finding(
                    rule="track-without-source",
                    severity=Severity.NOTE if spare else Severity.CAUTION,
                    facts={"begins": _begins(track)},
                    source="HANDBOOK",
                    device=device,
                    tracks=(track.trace.id,),
                )


def _dead_ends(situation: Situation, microphones: Iterable[str]) -> tuple[str, ...]:
    """Devices to which some microphones are led, which record nothing, and from which something could go on and does not."""
    runs = situation.plan.runs.values()
    way = list(microphones)
    for device in way:  # it grows on the way
        way += [
            run.receiving.device for run in runs if run.sending.device == device and run.receiving.device not in way
        ]
    leaving = {run.sending.device for run in runs}
    classes = {name: situation.index.placed(name).device_class for name in way if name not in leaving}
    return tuple(
        name for name, found in classes.items() if found.capsule is None and found.outputs and not found.is_recording
    )


def _begins(track: TrackLevel) -> tuple[str, ...]:
    """Devices from which nothing comes though the track begins there."""
    ends = (stage for stage in upstream_of(track.trace.stage) if not stage.feeds)
    return tuple(dict.fromkeys(stage.device for stage in ends))


def _is_side_of_another(track: TrackLevel, tracks: Iterable[TrackLevel]) -> bool:
    """Whether another track takes the other side of the same socket, and has something on it."""
    sides = {(feed.name, feed.channel) for feed, _ in track.trace.stage.feeds}
    others = {(feed.name, feed.channel) for other in tracks if other.is_reached for feed, _ in other.trace.stage.feeds}
    return any(name == socket and channel != side for name, channel in sides for socket, side in others)
