"""Rules on what is heard and recorded at all."""

import math
from collections.abc import Iterable, Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, rule
from tidy_trunk.core.gear.catalogue import Kind
from tidy_trunk.core.plan import ROOMS, Role
from tidy_trunk.core.sound.levels import TrackLevel


@rule
def too_far(situation: Situation) -> Iterator[Finding]:
    """A microphone beyond the critical distance hears more of the room than of the source. [HANDBOOK] textbook"""
    room = ROOMS[situation.plan.defaults.room]
    for source in situation.plan.sources.values():
        for device, distance_m in source.heard_by.items():
            unit = situation.rig.unit(device)
            capsule = unit.device_class.capsule
            critical_m = room.critical_distance_m(capsule.pattern.directivity) if capsule is not None else math.inf
            if distance_m <= critical_m:
                continue
            yield Finding(
                rule="too-far",
                severity=Severity.CAUTION if distance_m > 2 * critical_m else Severity.NOTE,
                title=f"{unit.label} hears the room",
                text=(
                    f"{unit.label} is {distance_m:g} m from {source.label}; in a {room.label} it hears as much room as voice from "
                    f"{critical_m:.1f} m on. Go nearer, or take a lavalier: no gain and no equaliser takes a room away."
                ),
                source="HANDBOOK",
                device=device,
                about=source.id,
                verify="Listen to the end of a word: does it stop, or does the room go on?",
            )


@rule
def source_without_track(situation: Situation) -> Iterator[Finding]:
    """Somebody is to be heard, and no track holds him. [HANDBOOK] §1"""
    reached = {source for track in situation.report.tracks if track.is_reached for source in track.sources}
    for source in situation.plan.sources.values():
        if source.id in reached:
            continue
        if source.heard_by:
            names = " and ".join(situation.rig.unit(device).label for device in source.heard_by)
            text = f"{names} hears it but reaches no recorded track: connect it, or route its input to a track."
        else:
            text = "No microphone is at it: say which one hears it, and from how far."
        yield Finding(
            rule="source-without-track",
            severity=Severity.STOP,
            title=f"{source.label} is on no track",
            text=text,
            source="HANDBOOK",
            device=next(iter(source.heard_by), ""),
            tracks=(f"source.{source.id}",),
        )


@rule
def track_without_source(situation: Situation) -> Iterator[Finding]:
    """A plug is in, and nothing to be heard comes through it; or a recorder or camera that records nothing."""
    for unit in situation.rig.units():
        if not unit.device_class.is_recording:
            continue
        device = unit.device.id
        tracks = [track for track in situation.report.tracks if track.trace.device == device]
        if not any(joint.receiver.device.id == device for joint in situation.joints):
            if unit.device_class.kind is Kind.CAMERA:
                continue  # it is there for its picture, and hears by its own microphone
            yield Finding(
                rule="track-without-source",
                severity=Severity.CAUTION if situation.plan.sources else Severity.NOTE,
                title=f"{unit.label} records nothing",
                text=f"Nothing is plugged into {unit.label}. Connect it, or take it off the job.",
                source="HANDBOOK",
                device=device,
            )
            continue
        for track in tracks:
            if track.trace.stage.feeds and not track.is_reached:
                spare = track.role is Role.GUIDE or not situation.plan.sources or _is_side_of_another(track, tracks)
                yield Finding(
                    rule="track-without-source",
                    severity=Severity.NOTE if spare else Severity.CAUTION,
                    title="Nothing to hear on this track",
                    text=f"{unit.bus_label(track.trace.bus)} has a plug at its input, but no source comes through it.",
                    source="HANDBOOK",
                    device=device,
                    tracks=(track.trace.id,),
                )


def _is_side_of_another(track: TrackLevel, tracks: Iterable[TrackLevel]) -> bool:
    """Whether another track takes the other side of the same socket, and has something on it."""
    sides = {(feed.name, feed.channel) for feed, _ in track.trace.stage.feeds}
    others = {(feed.name, feed.channel) for other in tracks if other.is_reached for feed, _ in other.trace.stage.feeds}
    return any(name == socket and channel != side for name, channel in sides for socket, side in others)
