"""Rules on level: the right mode at each end, nothing clipped, the average where the job wants it, quiet gear."""

import math
from collections.abc import Callable, Iterable, Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, level_rule
from tidy_trunk.core.advice.options import ALLOWED_MISS_DB, PADDED_FROM_DB
from tidy_trunk.core.base.units import LOWEST_SIGNAL_DB
from tidy_trunk.core.gear.catalogue import (
    DeviceKind,
    PadPlace,
    Pattern,
    Signal,
)
from tidy_trunk.core.plan import PlacedDevice, PortRef, Role
from tidy_trunk.core.sound.levels import (
    SignalLevels,
    SpectrumShape,
    StageLevel,
    TrackLevel,
    a_change_db,
    full_scale_at_input_dbu,
    input_ceiling_dbu,
    input_stage_dbu,
)
from tidy_trunk.core.sound.trace import StageKind, upstream_of

HISS_WITHIN_DB: Final = 60.0
"""ASSUMED_ distance below speech from which hiss is heard nowhere: at the 65 dB(A) of a voice in a room, under 5 dB(A). On
location the room leaves 40 to 50 dB. [PRACTICE]"""

STANDS_OUT_DB: Final = 1.0
"""ASSUMED_ how much louder than the room a hiss is where it is told of: the figures are good for less than that."""

PLACE_BELOW_DB: Final = 10.0
"""ASSUMED_ how far the noise of a place lies below a voice, both A-weighted, where each word is understood without effort."""

NEAR_M: Final = 0.3
"""ASSUMED_ distance within which a microphone cannot go nearer: a lavalier on the chest, a handheld at the mouth."""

FAR_ABOVE_MINIMUM_DB: Final = 18.0
"""ASSUMED_ how far above its lowest gain a camera may stand before its preamp rules the noise."""


@level_rule
def line_into_mic(situation: Situation) -> Iterator[Finding]:
    """A line output into a microphone input, with nothing between that takes the level down. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.sends.signal is not Signal.LINE or joint.takes.signal is not Signal.MIC:
            continue
        full_scale = full_scale_at_input_dbu(situation.index, joint.run)
        if full_scale is None:
            continue
        tracks = situation.tracks_of(joint.run.id)
        takes = input_stage_dbu(joint.receiver, joint.input, joint.takes)
        peak = _peak_at_input(situation, joint)
        over = (full_scale if peak is None else peak) - takes
        if over <= 0 and (joint.pad_db >= PADDED_FROM_DB or full_scale - takes <= PADDED_FROM_DB):
            continue
        if over <= 0 and any(track.clip is not None for track in tracks):
            continue  # it clips behind the gain: `clipping` says it
        has_late_pad = joint.input.pad_place is PadPlace.LAST and joint.receiver.pad_db(joint.input) > 0
        yield Finding(
            rule="line-into-mic",
            severity=Severity.STOP if over > 0 else Severity.CAUTION,
            facts={"takes_dbu": takes, "full_scale_dbu": full_scale, "peak_dbu": peak, "has_late_pad": has_late_pad},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            tracks=situation.track_ids_of(joint.run.id),
            measured_db=over,
        )


@level_rule
def mic_into_line(situation: Situation) -> Iterator[Finding]:
    """A microphone signal into a line input: near silence. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.sends.signal is not Signal.MIC or joint.takes.signal is not Signal.LINE:
            continue
        sounds = list(situation.mixes_of(joint.run.id))
        target = situation.index.targets[situation.plan.defaults.target]
        if any(target.miss_db(sound.average, sound.peak) >= -ALLOWED_MISS_DB for sound in sounds):
            continue  # loud enough all the same: a shout at a hot microphone, or much gain behind
        level = max((sound.average for sound in sounds), default=None)
        yield Finding(
            rule="mic-into-line",
            severity=Severity.STOP,
            facts={"average_dbfs": level},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            tracks=situation.track_ids_of(joint.run.id),
        )


@level_rule
def clipping(situation: Situation) -> Iterator[Finding]:
    """Expected peaks above what a stage can take. [HANDBOOK] §7: clipping is lost for good, whatever comes after"""
    told: dict[tuple[str, str], list[tuple[TrackLevel, Joint | None]]] = {}
    for track in situation.report.tracks:
        if track.clip is not None:
            joint = _joint_where(situation, track, lambda level: level.over_db)
            place = joint.run.id if joint is not None else _socket_of(track.clip.where)  # both sides at once
            told.setdefault((track.clip.device, place), []).append((track, joint))
    for (device, place), found in told.items():
        worst, joint = max(found, key=lambda item: item[0].clip.over_db if item[0].clip else 0.0)
        clip = worst.clip
        assert clip is not None  # that is why it is told
        places = {track.clip.where for track, _ in found if track.clip is not None}
        where = (joint.socket if joint is not None else place) if len(places) > 1 else clip.where
        yield Finding(
            rule="clipping",
            severity=Severity.STOP,
            facts={"where": where, "noise": clip.noise, "tolerance_db": worst.sound.tolerance_db},
            source="AES17",
            device=device,
            run=joint.run.id if joint is not None else "",
            tracks=tuple(track.trace.id for track, _ in found),
            measured_db=clip.over_db,
        )


@level_rule
def burst_clips(situation: Situation) -> Iterator[Finding]:
    """A laugh, cough or shout above what a stage takes, of a source that no other track has whole. [PRACTICE]"""
    whole = {source for track in situation.report.tracks if not track.sound.burst_clip for source in track.sources}
    told: dict[tuple[str, str], list[TrackLevel]] = {}
    for track in situation.report.tracks:
        burst = track.sound.burst_clip
        if (
            track.clip is None
            and track.role in (Role.DIALOGUE, Role.EFFECTS)
            and burst is not None
            and burst.over_db > ALLOWED_MISS_DB
            and not set(track.sources) & whole
        ):
            told.setdefault((burst.device, _socket_of(burst.where)), []).append(track)
    for (device, socket), tracks in told.items():
        track = max(tracks, key=lambda track: track.sound.burst_clip.over_db if track.sound.burst_clip else 0.0)
        worst, joint = track.sound, _joint_where(situation, track, lambda level: level.burst_over_db)
        assert worst.burst_clip is not None  # that is why it is told
        places = {track.sound.burst_clip.where for track in tracks if track.sound.burst_clip is not None}
        where = socket if len(places) > 1 else worst.burst_clip.where
        yield Finding(
            rule="burst-clips",
            severity=Severity.NOTE,
            facts={
                "spare_db": worst.burst_clip.spare_db,
                "tolerance_db": worst.tolerance_db,
                "can_limit": _can_limit(situation, track, device),
            },
            source="PRACTICE",
            device=device,
            run=joint.run.id if joint is not None else "",
            tracks=tuple(track.trace.id for track in tracks),
            about=where,
            measured_db=worst.burst_clip.over_db,
        )


def _can_limit(situation: Situation, track: TrackLevel, device: str) -> bool:
    """Whether a limiter is off on the way of a track into a device, or at its input."""
    there = [
        before
        for stage in upstream_of(track.trace.stage)
        if (stage.kind, stage.device) == (StageKind.INPUT, device)
        for before in upstream_of(stage)
        if before.kind is StageKind.INPUT
    ]
    for stage in there:
        placed = situation.index.placed(stage.device)
        port = placed.input(stage.name)
        if port.limiter_dbfs is not None and placed.limiter_dbfs(port) is None:
            return True
    return False


def _socket_of(where: str) -> str:
    """A stage as it is named in sentences, without the side of its socket."""
    return where.removesuffix(" L").removesuffix(" R")


@level_rule
def off_target(situation: Situation) -> Iterator[Finding]:
    """An average outside the job's target. [PRACTICE] for the targets

    A float file has no target to miss: its level can be set in the edit, as long as nothing clips before it.
    """
    missed = [
        track
        for track in situation.first_tracks
        if track.miss_db is not None
        and track.clip is None
        and abs(track.miss_db) > ALLOWED_MISS_DB
        and not situation.index.placed(track.trace.device).device_class.traits.is_float
    ]
    for tracks in _sides_alike(missed, lambda track: track.miss_db or 0.0):
        track, target, miss = tracks[0], tracks[0].target, tracks[0].miss_db or 0.0
        level = track.sound.peak if target.of_peaks else track.sound.average
        grave = abs(miss) > track.sound.tolerance_db and track.role is not Role.GUIDE
        yield Finding(
            rule="off-target",
            severity=Severity.CAUTION if grave else Severity.NOTE,
            facts={"buses": _buses(tracks), "level_dbfs": level, "tolerance_db": track.sound.tolerance_db},
            source="PRACTICE",
            device=track.trace.device,
            tracks=tuple(track.trace.id for track in tracks),
            measured_db=miss,
        )


@level_rule
def gear_above_room(situation: Situation) -> Iterator[Finding]:
    """Hiss of the gear above the noise of the room. [HANDBOOK] §7: whether a hiss matters is told by the difference"""
    hissing = [track for track in situation.first_tracks if _hiss_over_room_db(track) > STANDS_OUT_DB]
    for tracks in _sides_alike(hissing, _hiss_over_room_db):
        track, above = tracks[0], _hiss_over_room_db(tracks[0])
        ruling = max((noise for noise in track.sound.noises if not noise.is_room), key=lambda noise: noise.a_level)
        yield Finding(
            rule="gear-above-room",
            severity=Severity.NOTE if track.role is Role.GUIDE else Severity.CAUTION,
            facts={
                "buses": _buses(tracks),
                "noise_dbfs": track.gear_noise_a,
                "most": ruling.name,
                "most_dbfs": ruling.a_level,
            },
            source="HANDBOOK",
            device=track.trace.device,
            tracks=tuple(track.trace.id for track in tracks),
            measured_db=above,
        )


def _hiss_over_room_db(track: TrackLevel) -> float:
    """By how much the ear finds the gear above the room, where it is heard beside the voice at all; else 0 or less."""
    if track.is_silent or track.clip is not None or track.role is Role.TIMECODE:
        return 0.0
    gear = track.gear_noise_a
    above = gear - track.room_noise_a
    return above if math.isfinite(above) and gear >= track.sound.average - HISS_WITHIN_DB else 0.0


@level_rule
def loud_place(situation: Situation) -> Iterator[Finding]:
    """The noise of the place beside the voice: nothing that is set mends it. [HANDBOOK] §7"""
    near = [track for track in situation.report.tracks if _place_near_db(track) > 0]
    for tracks in _sides_alike(near, _place_near_db):
        yield Finding(
            rule="loud-place",
            severity=Severity.CAUTION,
            facts={
                "buses": _buses(tracks),
                "noise_dbfs": tracks[0].room_noise_a,
                "below_db": PLACE_BELOW_DB - _place_near_db(tracks[0]),
                **_how_it_is_heard(situation, tracks[0]),
            },
            source="HANDBOOK",
            device=tracks[0].trace.device,
            tracks=tuple(track.trace.id for track in tracks),
            measured_db=_place_near_db(tracks[0]),
        )


def _how_it_is_heard(situation: Situation, track: TrackLevel) -> dict[str, bool]:
    """Whether a microphone could go nearer, and whether one hears all round."""
    heard = [stage for stage in upstream_of(track.trace.stage) if stage.kind is StageKind.SOUND]
    capsules = [situation.index.placed(stage.device).device_class.capsule for stage in heard]
    return {
        "is_far": any(situation.plan.sources[stage.name].heard_by[stage.device] > NEAR_M for stage in heard),
        "hears_all_round": any(capsule is None or capsule.pattern is Pattern.OMNI for capsule in capsules),
    }


def _place_near_db(track: TrackLevel) -> float:
    """By how much the place comes nearer to the voice than is good for it, by ear; 0 or less where it does not."""
    if track.is_silent or track.role is not Role.DIALOGUE or track.clip is not None:
        return 0.0
    voice = track.sound.average + a_change_db(SpectrumShape.VOICE, track.sound.cuts)
    near = PLACE_BELOW_DB - (voice - track.room_noise_a)
    return near if math.isfinite(near) else 0.0


def _sides_alike(tracks: Iterable[TrackLevel], by_db: Callable[[TrackLevel], float]) -> list[list[TrackLevel]]:
    """Tracks that the same sockets feed and that are off by the same: left and right are told in one finding."""
    found: dict[tuple[object, ...], list[TrackLevel]] = {}
    for track in tracks:
        sockets = frozenset(feed.name for feed, _ in track.trace.stage.feeds)
        found.setdefault((track.trace.device, sockets, round(by_db(track))), []).append(track)
    return list(found.values())


@level_rule
def automatic_level(situation: Situation) -> Iterator[Finding]:
    """Automatic level on: it lifts the noise between words and undoes every setting. [HANDBOOK] §6"""
    told = set()
    for joint in situation.joints:
        where = (joint.receiver.device.id, joint.input.id)
        if not joint.receiver.automatic_level_on(joint.input) or where in told:
            continue
        told.add(where)
        lifted = _lifted(situation, joint)
        yield Finding(
            rule="automatic-level",
            severity=Severity.NOTE if _is_for_guide(situation, joint) else Severity.CAUTION,
            facts={"sends_timecode": joint.sends_timecode, "noise_dbfs": None if lifted is None else lifted.noise},
            source="PRACTICE",
            device=where[0],
            about=joint.input.id,
            measured_db=None if lifted is None else lifted.lifted_db,
        )
    yield from _automatic_tracks(situation)


@level_rule
def knob_is_off(situation: Situation) -> Iterator[Finding]:
    """A gain at its lowest, which is off. [PRACTICE]"""
    told = set()
    for joint in situation.joints:
        placed, leader = joint.receiver, joint.receiver.leader_of(joint.input)
        mode = placed.input_mode(leader)
        if mode.gain is None or (placed.device.id, leader.id) in told:
            continue
        if mode.gain.is_off(placed.gain_mark_db(leader, mode)):
            told.add((placed.device.id, leader.id))
            yield Finding(
                rule="knob-is-off",
                severity=Severity.STOP,
                facts={"lowest_db": mode.gain.minimum_db},
                source="PRACTICE",
                device=placed.device.id,
                run=joint.run.id,
            )


def _automatic_tracks(situation: Situation) -> Iterator[Finding]:
    """Tracks with automatic level of their own; beside the same source on a track set by hand it is a safety, and right."""
    for placed in situation.index.placed_devices():
        tracks = [track for track in situation.report.tracks_of(placed.device.id) if track.is_reached]
        on = [track for track in tracks if placed.automatic_level_on(placed.bus(track.trace.bus))]
        by_hand = {source for track in tracks if track not in on for source in track.sources}
        for track in on:
            if set(track.sources) <= by_hand and track.sources:
                continue
            lifts = track.sound.lifted_db >= 1
            yield Finding(
                rule="automatic-level",
                severity=Severity.NOTE if track.role is Role.GUIDE else Severity.CAUTION,
                facts={"sends_timecode": False, "noise_dbfs": track.sound.noise if lifts else None},
                source="PRACTICE",
                device=placed.device.id,
                about=track.trace.bus,
                measured_db=track.sound.lifted_db if lifts else None,
            )


def _is_for_guide(situation: Situation, joint: Joint) -> bool:
    """Whether all that an input is recorded for is to find sync by."""
    roles = {track.role for track in situation.tracks_of(joint.run.id)}
    return roles == {Role.GUIDE}


def _lifted(situation: Situation, joint: Joint) -> SignalLevels | None:
    """What of a run's tracks it lifts, where it does."""
    return next((track.sound for track in situation.tracks_of(joint.run.id) if track.sound.lifted_db >= 1), None)


@level_rule
def limiter(situation: Situation) -> Iterator[Finding]:
    """On where a microphone goes straight into the camera; off behind gear that limits already. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.receiver.device_class.kind is not DeviceKind.CAMERA or joint.input.limiter_dbfs is None:
            continue
        on = joint.receiver.limiter_dbfs(joint.input) is not None
        straight = joint.sender.device_class.feeding is not None
        missing = straight and not on and joint.takes.signal is Signal.MIC
        twice = on and not straight and _limits(joint.sender)
        if not missing and not twice:
            continue
        yield Finding(
            rule="limiter",
            severity=Severity.NOTE,
            facts={"is_straight": straight},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _limits(placed: PlacedDevice) -> bool:
    return any(placed.limiter_dbfs(port) is not None for port in placed.device_class.inputs)


@level_rule
def camera_gain(situation: Situation) -> Iterator[Finding]:
    """A camera fed by other gear belongs just above its lowest gain, which is often "off"; where it is known to be, `knob_is_off`
    says so. [PRACTICE]"""
    for joint in situation.joints:
        gain = joint.takes.gain
        fed = joint.sender.device_class.feeding is None
        if (
            joint.receiver.device_class.kind is not DeviceKind.CAMERA
            or joint.takes.signal is not Signal.MIC
            or gain is None
            or not fed
        ):
            continue
        now = joint.receiver.gain_mark_db(joint.input, joint.takes)
        least = gain.minimum_db + gain.step_db
        if gain.is_off(now):
            continue
        if now < least:
            yield Finding(
                rule="camera-gain",
                severity=Severity.CAUTION,
                source="PRACTICE",
                device=joint.receiver.device.id,
                run=joint.run.id,
            )
        elif now - gain.minimum_db > FAR_ABOVE_MINIMUM_DB:
            yield Finding(
                rule="camera-gain",
                severity=Severity.NOTE,
                source="PRACTICE",
                device=joint.receiver.device.id,
                run=joint.run.id,
                measured_db=now - gain.minimum_db,
            )


@level_rule
def pad_behind_converter(situation: Situation) -> Iterator[Finding]:
    """A camera's attenuator behind its converter: it turns the file down and saves nothing. [HANDBOOK] §6"""
    for joint in situation.joints:
        pad_db = joint.receiver.pad_db(joint.input)
        if pad_db == 0 or joint.input.pad_place is not PadPlace.LAST:
            continue
        yield Finding(
            rule="pad-behind-converter",
            severity=Severity.CAUTION,
            facts={"pad_db": pad_db, "takes_dbu": input_ceiling_dbu(joint.receiver, joint.input, joint.takes)},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@level_rule
def two_attenuators(situation: Situation) -> Iterator[Finding]:
    """An attenuator in the cable and one at the input, of which one is enough: the other only costs noise. [PRACTICE]"""
    for joint in situation.joints:
        own_db = joint.receiver.pad_db(joint.input) if joint.input.pad_place is not PadPlace.LAST else 0.0
        full_scale = full_scale_at_input_dbu(situation.index, joint.run)
        if not own_db or joint.pad_db < PADDED_FROM_DB or full_scale is None:
            continue
        # What the input takes without its attenuator, and what arrives there by the cable as it is.
        bare_dbu = input_stage_dbu(joint.receiver, joint.input, joint.takes) - own_db
        if full_scale > bare_dbu:
            continue
        yield Finding(
            rule="two-attenuators",
            severity=Severity.CAUTION,
            facts={"own_db": own_db, "cable_db": joint.pad_db},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _peak_at_input(situation: Situation, joint: Joint) -> float | None:
    """Predicted peak in dBu at the terminals; None where no sound is planned there."""
    for track in situation.tracks_of(joint.run.id):
        for feed, _ in track.trace.stage.feeds:
            level = situation.report.solver.level(feed)
            if feed.name == joint.input.id and level.unit == "dBu" and level.sound.peak > LOWEST_SIGNAL_DB:
                return level.sound.peak
    return None


def _joint_where(
    situation: Situation, track: TrackLevel, over_db: Callable[[StageLevel[SignalLevels]], float]
) -> Joint | None:
    """The run that ends at the first input on the way to a track that something goes over at; None where it is no input."""
    for stage in situation.report.main_path(track.trace.stage):
        if over_db(situation.report.solver.level(stage)) > 0:
            runs = (
                situation.index.arriving.get(PortRef(stage.device, stage.name))
                if stage.kind is StageKind.INPUT
                else None
            )
            return situation.joint(runs[0].id) if runs else None
    return None


def _buses(tracks: Iterable[TrackLevel]) -> tuple[str, ...]:
    return tuple(track.trace.bus for track in tracks)
