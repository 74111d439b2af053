"""Rules on level: the right mode at each end, nothing clipped, the average where the job wants it, quiet gear."""

import math
from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.catalogue import (
    Circuit,
    Kind,
    PadPlace,
    Signal,
    digital_gain_key,
    gain_key,
    limiter_key,
    mode_key,
    pad_key,
)
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.checks.rules.rumble import low_cut_fixes
from tidy_trunk.core.levels import RUMBLE, TrackLevel, full_scale_at_input_dbu, input_ceiling_dbu, input_stage_dbu
from tidy_trunk.core.plan import Edit, Role, SetControl, Unit
from tidy_trunk.core.trace import Place
from tidy_trunk.core.ways import ALLOWED_MISS_DB, PADDED_FROM_DB, by_hand

HISS_WITHIN_DB: Final = 60.0
"""ASSUMED_ distance below speech from which hiss is heard nowhere: at the 65 dB(A) of a voice in a room, under 5 dB(A). On
location the room leaves 40 to 50 dB. [PRACTICE]"""

FAR_ABOVE_MINIMUM_DB: Final = 18.0
"""ASSUMED_ how far above its lowest gain a camera may stand before its preamp rules the noise."""


@rule
def line_into_mic(situation: Situation) -> Iterator[Finding]:
    """A line output into a microphone input, with nothing between that takes the level down. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.sends.signal is not Signal.LINE or joint.takes.signal is not Signal.MIC:
            continue
        full_scale = full_scale_at_input_dbu(situation.rig, joint.run)
        if full_scale is None:
            continue
        takes = input_stage_dbu(joint.receiver, joint.input, joint.takes)
        peak = _peak_at_input(situation, joint)
        over = (full_scale if peak is None else peak) - takes
        if over <= 0 and (joint.pad_db >= PADDED_FROM_DB or full_scale - takes <= PADDED_FROM_DB):
            continue
        behind = joint.input.pad_place is PadPlace.LAST and joint.receiver.pad_db(joint.input) > 0
        if over > 0:
            reach = "at full scale it reaches" if peak is None else "its peaks reach"
            text = (
                f"{joint.sender.label} {joint.output.label} sends line: {reach} {_db(takes + over)} dBu, and {joint.receiver.label} "
                f"takes {_db(takes)}. It clips by {over:.1f} dB, and turning {joint.receiver.label} down cannot mend it."
            )
            if behind:
                text += " Its attenuator sits behind the converter, too late to help."
        else:
            text = (
                f"{joint.sender.label} {joint.output.label} sends line. The expected peaks just fit, but a burst to full scale "
                f"clips {joint.socket} by {full_scale - takes:.1f} dB."
            )
        yield Finding(
            rule="line-into-mic",
            severity=Severity.STOP if over > 0 else Severity.CAUTION,
            title="Line into microphone input",
            text=text,
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            measured_db=over,
            fixes=situation.way_fixes(joint.run.id),
            verify="Send tone and look for flat tops in the recorded file.",
        )


@rule
def mic_into_line(situation: Situation) -> Iterator[Finding]:
    """A microphone signal into a line input: near silence. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.sends.signal is not Signal.MIC or joint.takes.signal is not Signal.LINE:
            continue
        sounds = list(situation.mixes_of(joint.run.id))
        target = situation.rig.targets[situation.plan.defaults.target]
        if any(target.miss_db(sound.average, sound.peak) >= -ALLOWED_MISS_DB for sound in sounds):
            continue  # loud enough all the same: a shout at a hot microphone, or much gain behind
        mic = next((mode for mode in joint.input.modes if mode.signal is Signal.MIC), None)
        level = max((sound.average for sound in sounds), default=None)
        heard = f" The track would average {_db(level)} dBFS: near silence." if level is not None else ""
        fixes = situation.way_fixes(joint.run.id, 2)
        if mic is not None and not fixes:
            switch = SetControl(device=joint.receiver.device.id, control=mode_key(joint.input.id), value=mic.id)
            fixes = (Fix(f"Switch {joint.socket} to {mic.label}", (switch,)),)
        yield Finding(
            rule="mic-into-line",
            severity=Severity.STOP,
            title="Microphone into line input",
            text=f"{joint.sender.label} sends microphone level; {joint.socket} is at {joint.takes.label}.{heard}",
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=fixes,
        )


@rule
def clipping(situation: Situation) -> Iterator[Finding]:
    """Peaks above what a stage can take, other than by line into a microphone input. [AES17], [HANDBOOK] §6"""
    told: set[tuple[str, str]] = set()
    for track in situation.report.tracks:
        clip = track.clip
        if clip is None or (clip.device, clip.where) in told:
            continue
        told.add((clip.device, clip.where))
        joint = _joint_that_clips(situation, track)
        if joint is not None and joint.sends.signal is Signal.LINE and joint.takes.signal is Signal.MIC:
            continue  # line-into-mic says it better
        unit = situation.rig.unit(clip.device)
        over = f"{clip.over_db:.1f} dB (±{track.sound.tolerance_db:.0f})"
        sure = "clip" if clip.over_db > track.sound.tolerance_db else "likely clip"
        yield Finding(
            rule="clipping",
            severity=Severity.STOP,
            title=f"{clip.where} clips on {clip.noise} alone" if clip.noise else f"{clip.where} {sure}s",
            text=(
                f"The peaks of {clip.noise} go over {clip.where} by {over} even while nobody speaks. "
                if clip.noise
                else f"Peaks {sure} {clip.where} by {over}. "
            )
            + "What is cut off there stays cut off, however low it is turned afterwards.",
            source="AES17",
            device=unit.device.id,
            run=joint.run.id if joint is not None else "",
            track=track.trace.id if joint is None else "",
            measured_db=clip.over_db,
            fixes=_clip_fixes(situation, track, joint),
            verify="Record the loudest moment of a rehearsal and look for flat tops.",
        )


@rule
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
            told.setdefault((burst.device, burst.where), []).append(track)
    for (device, where), tracks in told.items():
        worst = max(tracks, key=lambda track: track.sound.burst_clip.over_db if track.sound.burst_clip else 0.0).sound
        assert worst.burst_clip is not None  # that is why it is told
        over, spare = worst.burst_clip.over_db, worst.burst_clip.spare_db
        doubtful = spare < worst.tolerance_db
        yield Finding(
            rule="burst-clips",
            severity=Severity.NOTE,
            title=f"{where} may clip" if doubtful else f"A burst clips {where}",
            text=(
                f"The expected peaks fit{f' by {spare:.0f} dB (±{worst.tolerance_db:.0f})' if doubtful else ''}, but a laugh or a shout would go {over:.0f} dB over at {where}. Turn it down, let "
                "the limiter catch it, or put the source on a second track that is lower."
            ),
            source="PRACTICE",
            device=device,
            about=where,
            measured_db=over,
            verify="Ask whether it is rehearsed: an interview laughs without warning.",
        )


@rule
def off_target(situation: Situation) -> Iterator[Finding]:
    """An average outside the job's target. [PRACTICE] for the targets"""
    for track in situation.report.tracks:
        target = track.target
        if track.miss_db is None or track.clip is not None or abs(track.miss_db) <= ALLOWED_MISS_DB:
            continue
        level = track.sound.peak if target.of_peaks else track.sound.average
        side = "above" if track.miss_db > 0 else "below"
        yield Finding(
            rule="off-target",
            severity=Severity.CAUTION if abs(track.miss_db) > track.sound.tolerance_db else Severity.NOTE,
            title=f"{abs(track.miss_db):.0f} dB {side} target",
            text=(
                f"{_track_label(situation, track)} would {'peak' if target.of_peaks else 'average'} at {_db(level)} dBFS "
                f"(±{track.sound.tolerance_db:.0f}); {target.label} wants {target.words}."
            ),
            source="PRACTICE",
            device=track.trace.device,
            track=track.trace.id,
            measured_db=track.miss_db,
            fixes=_gain_fixes(situation, track),
            verify="Let them speak as they will in the take and read the meter.",
        )


@rule
def gear_above_room(situation: Situation) -> Iterator[Finding]:
    """Hiss of the gear above the noise of the room. [HANDBOOK] §7: whether a hiss matters is told by the difference"""
    for track in situation.report.tracks:
        if track.is_silent or track.clip is not None or track.role is Role.TIMECODE:
            continue
        above = track.sound.gear_noise_a - track.sound.room_noise_a
        if track.sound.gear_noise_a < track.sound.average - HISS_WITHIN_DB:
            continue
        ruling = max(
            (noise for noise in track.sound.noises if not noise.is_room), key=lambda noise: noise.a_level, default=None
        )
        if above <= 0 or not math.isfinite(above) or ruling is None:
            continue
        yield Finding(
            rule="gear-above-room",
            severity=Severity.NOTE if track.role is Role.GUIDE else Severity.CAUTION,
            title="Hiss above the room",
            text=(
                f"{_track_label(situation, track)}: the gear makes {_db(track.sound.gear_noise_a)} dBFS of noise by ear (A-weighted), "
                f"{above:.0f} dB above the room. Most of it is {ruling.name}, {_db(ruling.a_level)} dBFS. More gain before that point lowers it."
            ),
            source="HANDBOOK",
            device=track.trace.device,
            track=track.trace.id,
            measured_db=above,
            fixes=_gain_fixes(situation, track),
            verify="Listen on headphones to what the device records, between words.",
        )


@rule
def automatic_level(situation: Situation) -> Iterator[Finding]:
    """Automatic level on: it lifts the noise between words and undoes every setting. [HANDBOOK] §6"""
    told = set()
    for joint in situation.joints:
        where = (joint.receiver.device.id, joint.input.id)
        on = joint.receiver.automatic_level_on(joint.input)
        if not on or where in told:
            continue
        told.add(where)
        yield Finding(
            rule="automatic-level",
            severity=Severity.CAUTION,
            title="Automatic level is on",
            text=f"{joint.socket}: automatic level is on in the {' and the '.join(on)}. {_does(situation, joint)}",
            source="PRACTICE",
            device=where[0],
            about=joint.input.id,
            fixes=(Fix("Turn automatic level off", by_hand(joint.receiver, joint.input)),),
        )


def _does(situation: Situation, joint: Joint) -> str:
    if joint.output.circuit is Circuit.TIMECODE:
        return "It turns the whole socket down by the timecode, and what stands beside it goes with it."
    for track in situation.tracks_of(joint.run.id):
        sound = track.sound
        if sound.lifted_db >= 1:
            return (
                f"It may lift the noise between words by {sound.lifted_db:.0f} dB, to {_db(sound.noise)} dBFS, and undoes the gain "
                "that is planned here."
            )
    return "It lifts the noise between words and undoes the gain that is planned here."


@rule
def limiter(situation: Situation) -> Iterator[Finding]:
    """On where a microphone goes straight into the camera; off behind gear that limits already. [HANDBOOK] §6"""
    for joint in situation.joints:
        if joint.receiver.device_class.kind is not Kind.CAMERA or joint.input.limiter_dbfs is None:
            continue
        on = joint.receiver.limiter_dbfs(joint.input) is not None
        straight = joint.sender.device_class.capsule is not None
        if joint.takes.signal is not Signal.MIC or on is straight or not (straight or _limits(joint.sender)):
            continue
        key = limiter_key(joint.input.id)
        switch = SetControl(device=joint.receiver.device.id, control=key, value=straight)
        yield Finding(
            rule="limiter",
            severity=Severity.NOTE,
            title="No limiter" if straight else "Limited twice",
            text=(
                f"{joint.sender.label} goes straight into {joint.socket}, and nobody rides its gain: its limiter catches a burst."
                if straight
                else f"{joint.sender.label} limits already. A second limiter at {joint.socket} breathes with it, and hides a level that is too high."
            ),
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=(Fix(f"Turn {joint.receiver.label}'s limiter {'on' if straight else 'off'}", (switch,)),),
        )


def _limits(unit: Unit) -> bool:
    return any(unit.limiter_dbfs(port) is not None for port in unit.device_class.inputs)


@rule
def camera_gain(situation: Situation) -> Iterator[Finding]:
    """A camera fed by other gear belongs just above its lowest gain; the very lowest is often "off". [PRACTICE]"""
    for joint in situation.joints:
        gain = joint.takes.gain
        fed = joint.sender.device_class.capsule is None
        if (
            joint.receiver.device_class.kind is not Kind.CAMERA
            or joint.takes.signal is not Signal.MIC
            or gain is None
            or not fed
        ):
            continue
        key = gain_key(joint.input.id, joint.takes.id)
        now = joint.receiver.gain_mark_db(joint.input, joint.takes)
        least = gain.minimum_db + gain.step_db
        fix = Fix(
            f"Set {joint.receiver.label} one step above its lowest",
            (SetControl(device=joint.receiver.device.id, control=key, value=least),),
        )
        if now < least:
            yield Finding(
                rule="camera-gain",
                severity=Severity.CAUTION,
                title="Camera gain at its lowest",
                text=f"{joint.socket} stands at its lowest gain, which on many cameras is off. Go one step up.",
                source="PRACTICE",
                device=joint.receiver.device.id,
                run=joint.run.id,
                fixes=(fix,),
            )
        elif now - gain.minimum_db > FAR_ABOVE_MINIMUM_DB:
            yield Finding(
                rule="camera-gain",
                severity=Severity.NOTE,
                title="Camera gain far up",
                text=(
                    f"{joint.socket} stands {now - gain.minimum_db:g} dB above its lowest gain. Its preamp is the worst of the chain: "
                    f"send more from {joint.sender.label} and turn the camera down."
                ),
                source="PRACTICE",
                device=joint.receiver.device.id,
                run=joint.run.id,
                measured_db=now - gain.minimum_db,
                fixes=(fix,),
            )


@rule
def pad_behind_converter(situation: Situation) -> Iterator[Finding]:
    """A camera's attenuator behind its converter: it turns the file down and saves nothing. [HANDBOOK] §6"""
    for joint in situation.joints:
        pad_db = joint.receiver.pad_db(joint.input)
        if pad_db == 0 or joint.input.pad_place is not PadPlace.LAST:
            continue
        off = SetControl(device=joint.receiver.device.id, control=pad_key(joint.input.id), value=False)
        yield Finding(
            rule="pad-behind-converter",
            severity=Severity.CAUTION,
            title="Attenuator behind the converter",
            text=(
                f"The {pad_db:g} dB attenuator of {joint.socket} acts on the finished numbers. The input still takes only "
                f"{_db(input_ceiling_dbu(joint.receiver, joint.input, joint.takes))} dBu: what clips there stays clipped, only lower."
            ),
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=(Fix("Switch it off", (off,)),),
        )


def _peak_at_input(situation: Situation, joint: Joint) -> float | None:
    """Predicted peak in dBu at the terminals; None where no sound is planned there."""
    for track in situation.tracks_of(joint.run.id):
        for feed, _ in track.trace.stage.feeds:
            level = situation.report.reckoner.level(feed)
            if feed.name == joint.input.id and level.unit == "dBu" and level.sound.peak > -200:
                return level.sound.peak
    return None


def _joint_that_clips(situation: Situation, track: TrackLevel) -> Joint | None:
    """The run that ends at the input that clips on the way to a track; None where a bus or microphone clips."""
    for stage in situation.report.main_path(track.trace.stage):
        level = situation.report.reckoner.level(stage)
        if level.over_db > 0:
            if stage.place is not Place.INPUT:
                return None
            return next(
                (
                    joint
                    for joint in situation.joints
                    if (joint.receiver.device.id, joint.input.id) == (stage.device, stage.name)
                ),
                None,
            )
    return None


def _gain_fixes(situation: Situation, track: TrackLevel) -> tuple[Fix, ...]:
    """For a track of one run the knob that feeds it, or where that cannot reach, the ways; a mix is set at its inputs."""
    runs = {lead.run.id for feed, _ in track.trace.stage.feeds for lead, _ in feed.feeds if lead.run is not None}
    if len(runs) != 1:
        return ()
    run_id = runs.pop()
    turn = situation.gain_way(run_id)
    if turn is not None:
        return (Fix(turn.sentence(situation.plan), (turn,)),)
    return situation.way_fixes(run_id, 2)


def _clip_fixes(situation: Situation, track: TrackLevel, joint: Joint | None) -> tuple[Fix, ...]:
    """At an input the ways to match its run; a mix, and an output behind it, come down at the inputs of their device."""
    rumbles = track.clip is not None and track.clip.noise == RUMBLE
    cuts = low_cut_fixes(joint) if joint is not None and rumbles else ()
    if joint is not None:
        return (*cuts, *situation.way_fixes(joint.run.id), *(_gain_fixes(situation, track) if cuts else ()))
    return _inputs_down(situation, track)


def _inputs_down(situation: Situation, track: TrackLevel) -> tuple[Fix, ...]:
    """All inputs of the mix that clips, or that drives an output into clipping, turned down alike."""
    clip, path = track.clip, situation.report.main_path(track.trace.stage)
    mix = next((stage for stage in path if clip and stage.device == clip.device and stage.place is Place.BUS), None)
    if clip is None or mix is None:
        return ()
    unit, by_db = situation.rig.unit(mix.device), clip.over_db + 1
    edits: list[Edit] = []
    for feed, _ in mix.feeds:
        port = unit.input(feed.name)
        mode = unit.input_mode(port)
        if mode.gain is not None:
            wanted = mode.gain.nearest_db(unit.gain_db(port, mode) - by_db)
            edits.append(SetControl(device=unit.device.id, control=gain_key(port.id, mode.id), value=wanted))
        elif port.digital_gain is not None:
            wanted = port.digital_gain.nearest_db(unit.digital_gain_db(port) - by_db)
            edits.append(SetControl(device=unit.device.id, control=digital_gain_key(port.id), value=wanted))
    return (Fix(f"Turn {unit.label}'s inputs down by {by_db:.0f} dB", tuple(edits)),) if edits else ()


def _track_label(situation: Situation, track: TrackLevel) -> str:
    return situation.rig.unit(track.trace.device).bus_label(track.trace.bus)


def _db(value: float) -> str:
    return f"{value:+.1f}".replace("-", "−")
