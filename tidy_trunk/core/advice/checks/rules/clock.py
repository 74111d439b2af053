"""Rules on time: labels that mean the same, clocks that stay together, and something to sync by."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.base.timecode import FrameRate, name_of
from tidy_trunk.core.gear.catalogue import (
    Circuit,
    Power,
    Provenance,
)
from tidy_trunk.core.plan import (
    Aspect,
    Role,
    clock_words,
)
from tidy_trunk.core.time.clock import (
    ACCEPTED,
    OFTEN_MIN,
    ClockDay,
    Gets,
    LateScreen,
    Meets,
    Pair,
    TimecodeDevice,
    clock_day,
    day_hours,
    first_giver,
    jams_for,
    jams_too_often,
    pairs,
)

clock_rule = looks_at(Aspect.CLOCK | Aspect.POWER | Aspect.RATES)
"""Clocks run from batteries, and lose their time with them."""

BATTERY_SHARE: Final = 0.8
"""Of a battery's energy that is got out of it. [PRACTICE]"""

GENERATOR: Final = "timecode-generator"
"""ASSUMED_ class of what is clipped to a device and gives it time."""

BOX_LEAD_M: Final = 1.0
"""ASSUMED_ length of the lead between a device and the box that is clipped to it."""

SOUND_CIRCUITS: Final = tuple(circuit for circuit in Circuit if circuit.is_analogue)
"""What timecode can be sent into as sound. [PRACTICE]"""


@clock_rule
def timecode_on_wrong_track(situation: Situation) -> Iterator[Finding]:
    """A track that takes timecode as sound and is kept for something to be heard. [HANDBOOK] §8"""
    for sound in situation.timecode_tracks:
        track = situation.report.known_track(sound.track)
        if track.role is Role.TIMECODE:
            continue
        label = situation.rig.unit(track.trace.device).bus_label(track.trace.bus)
        giver = situation.rig.unit(sound.giver).label
        yield Finding(
            rule="timecode-on-wrong-track",
            severity=Severity.CAUTION,
            title=f"{label} is timecode, not {track.role}",
            text=(
                f"{label} takes the timecode of {giver} as sound and is kept for {track.role}: whoever edits will listen to it, "
                "and its level is judged as a voice. Keep it for timecode."
            ),
            source="HANDBOOK",
            device=track.trace.device,
            tracks=(sound.track,),
            verify="Keep it off headphones and speakers: it is loud and shrill.",
        )


@clock_rule
def beside_timecode(situation: Situation) -> Iterator[Finding]:
    """The neighbour of a timecode track in one socket, kept for more than finding sync by. [HANDBOOK] §§4, 8"""
    told: set[str] = set()
    for sound in situation.timecode_tracks:
        for beside in sound.beside:
            track = situation.report.track(beside)
            if track is None or track.role not in (Role.DIALOGUE, Role.EFFECTS) or beside in told:
                continue
            told.add(beside)
            unit = situation.rig.unit(track.trace.device)
            yield Finding(
                rule="beside-timecode",
                severity=Severity.CAUTION,
                title=f"{unit.bus_label(track.trace.bus)} lies beside timecode",
                text=(
                    f"Timecode on {unit.bus_label(sound.track.partition('.')[2])} bleeds into {unit.place_label(track.trace.bus)}, "
                    "which shares its socket: it is scratch at best. Measure the bleed, and keep the track for guide."
                ),
                source="HANDBOOK",
                device=track.trace.device,
                tracks=(beside,),
                verify="Record ten seconds of silence beside the timecode, and measure the bleed.",
            )


@clock_rule
def timecode_rate(situation: Situation) -> Iterator[Finding]:
    """A device whose labels count otherwise than the job's. [ST12-1]"""
    wanted = FrameRate.parse(situation.plan.defaults.frame_rate)
    for timecode_device in situation.timecode_devices:
        if timecode_device.rate == wanted:
            continue
        label = situation.rig.unit(timecode_device.device).label
        same_speed = timecode_device.rate.ratio == wanted.ratio
        uses_labels = timecode_device.gets is not Gets.NOTHING
        yield Finding(
            rule="timecode-rate",
            severity=Severity.STOP if uses_labels and not same_speed else Severity.CAUTION,
            title=f"{label} counts at {name_of(timecode_device.rate)}",
            text=(
                f"The job is at {name_of(wanted)}; {label} is set to {name_of(timecode_device.rate)}: {_how_apart(timecode_device.rate, wanted)}. "
                "Set every device to one rate and one drop-frame flag."
            ),
            source="ST12-1",
            device=timecode_device.device,
        )


def _how_apart(rate: FrameRate, wanted: FrameRate) -> str:
    """What becomes of labels of two rates in an hour of real time: each counts its own seconds. [ST12-1]"""
    if rate.ratio == wanted.ratio:
        return "the same frames bear other labels, and part by 3.6 s in an hour"
    first, second = (float(one.ratio) / one.nominal for one in (rate, wanted))
    apart_s = abs(first - second) * 3600
    return f"in an hour they part by {apart_s:.1f} s" if apart_s else "their seconds agree, and their frames do not"


@clock_rule
def record_run(situation: Situation) -> Iterator[Finding]:
    """Labels that stand still between takes, on a device that is to meet others by them. [HANDBOOK] §8"""
    for timecode_device in situation.timecode_devices:
        if not timecode_device.records_run or timecode_device.gets in (Gets.NOTHING, Gets.SOUND):
            continue
        label = situation.rig.unit(timecode_device.device).label
        yield Finding(
            rule="record-run",
            severity=Severity.STOP,
            title=f"{label} is at record run",
            text=(
                f"{label} counts only while it records: after the first pause its labels mean nothing to the others. "
                "Set it to free run and jam it again."
            ),
            source="HANDBOOK",
            device=timecode_device.device,
        )


@clock_rule
def sound_into_timecode(situation: Situation) -> Iterator[Finding]:
    """A timecode socket fed by an output that could give timecode, and is switched to sound. [HANDBOOK] §12"""
    for joint in situation.joints:
        gives = joint.output.timecode_mode
        if joint.input.circuit is not Circuit.TIMECODE or gives is None or joint.faults or joint.sends_timecode:
            continue
        yield Finding(
            rule="sound-into-timecode",
            severity=Severity.STOP,
            title="Sound into a timecode socket",
            text=(
                f"{joint.sender.label} {joint.output.label} is set to {joint.sends.label}, and {joint.socket} waits for "
                f"timecode: switch it to {gives.label}."
            ),
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@clock_rule
def missed_jam(situation: Situation) -> Iterator[Finding]:
    """A clock that runs alone for longer than it stays with the first of its chain, or a camera with its recorder.

    [HANDBOOK] §8
    """
    for timecode_device in situation.timecode_devices:
        day = clock_day(situation.clocks, timecode_device)
        if day is None or day.beyond_min is None or timecode_device.jam is None:
            continue
        label, giver = situation.rig.unit(timecode_device.device).label, situation.rig.unit(timecode_device.giver).label
        yield Finding(
            rule="missed-jam",
            severity=Severity.CAUTION,
            title=f"{label} is not jammed in time",
            text=_why_missed(situation, timecode_device, day, label, giver)
            + _too_often(situation, timecode_device, day),
            source="HANDBOOK",
            device=timecode_device.device,
            verify="Read a label from both at the same moment before you jam: it tells how fast they really part.",
        )


def _why_missed(situation: Situation, timecode_device: TimecodeDevice, day: ClockDay, label: str, giver: str) -> str:
    limit = situation.plan.defaults.drift_limit_frames
    if day.unset_until_min is not None:
        return f"{label} has no time from {giver} until {clock_words(day.unset_until_min)}: the day has begun by then."
    free_run = next(free_run for free_run in day.free_runs if free_run.beyond_min is not None)
    beyond = (
        f"beyond {limit:g} frames from {clock_words(day.beyond_min or 0)} on, {free_run.apart_frames:.2f} frames by "
        f"{clock_words(free_run.ends_min)}."
    )
    if free_run.against != timecode_device.giver:
        against = situation.rig.unit(free_run.against).label
        return (
            f"Jammed from {giver} at {clock_words(free_run.begins_min)}, {label} may part from {against}, with which it has to agree: "
            f"{beyond}"
        )
    known = (
        "was measured to part"
        if timecode_device.relative_drift is not None and timecode_device.relative_drift.is_measured
        else "may part"
    )
    ppm = timecode_device.relative_drift.ppm if timecode_device.relative_drift is not None else 0.0
    return f"Jammed at {clock_words(free_run.begins_min)}, {label} {known} from {giver} by {ppm:g} ppm: {beyond}"


def _too_often(situation: Situation, timecode_device: TimecodeDevice, day: ClockDay) -> str:
    """What helps a clock that nobody would jam as often as it asks for."""
    if day.every_min is None or day.every_min >= OFTEN_MIN:
        return ""
    jams = jams_for(situation.clocks, timecode_device.device)
    if jams is not None and not jams_too_often(jams):
        return ""
    return (
        f" That is the worst case, and it asks for a jam every {int(day.every_min)} min, which stops the work. Let a timecode "
        "generator stay on it, over a cable or as sound on a track, or measure how fast it really parts. What both hear puts "
        "its files right afterwards."
    )


@clock_rule
def forgets_timecode(situation: Situation) -> Iterator[Finding]:
    """A jammed device that loses its time with its battery, and the battery does not last. [HANDBOOK] §8"""
    hours = day_hours(situation.rig)
    for timecode_device in situation.timecode_devices:
        unit = situation.rig.unit(timecode_device.device)
        traits = unit.device_class.traits
        if not timecode_device.forgets or timecode_device.jam is None or unit.power is not Power.BATTERY:
            continue
        if traits.battery_wh is None or traits.power_w is None:
            continue
        lasts_h = traits.battery_wh.value * BATTERY_SHARE / traits.power_w.value
        if lasts_h >= hours:
            continue
        yield Finding(
            rule="forgets-timecode",
            severity=Severity.NOTE,
            title=f"{unit.label} forgets its time with its battery",
            text=(
                f"Its battery lasts about {lasts_h:.1f} h of a day of {hours:g} h, and it loses timecode when it is switched off: "
                "jam it again after every battery."
            ),
            source="HANDBOOK",
            device=timecode_device.device,
        )


@clock_rule
def two_clocks(situation: Situation) -> Iterator[Finding]:
    """Two devices that give time and get none: half of the labels mean another moment. [HANDBOOK] §8"""
    known = {timecode_device.device: timecode_device for timecode_device in situation.timecode_devices}
    roots: dict[str, list[str]] = {}
    for device, timecode_device in known.items():
        root = first_giver(situation.rig, known, device)
        if root and timecode_device.gets is not Gets.GIVES:
            roots.setdefault(root, []).append(device)
    if len(roots) < 2:
        return
    rig = situation.rig
    first, *others = sorted(roots, key=lambda root: -len(roots[root]))
    for other in others:
        names = " and ".join(rig.unit(device).label for device in roots[other])
        yield Finding(
            rule="two-clocks",
            severity=Severity.CAUTION,
            title=f"{rig.unit(other).label} and {rig.unit(first).label} both give time",
            text=(
                f"{names} gets time from {rig.unit(other).label}, the others from {rig.unit(first).label}, and nothing sets those "
                "two together. One master: jam the other from it."
            ),
            source="HANDBOOK",
            device=other,
        )


@clock_rule
def genlock_alone(situation: Situation) -> Iterator[Finding]:
    """Genlock without timecode: frames in step, and no label says which is which. [PRACTICE]"""
    for timecode_device in situation.timecode_devices:
        if not timecode_device.genlocked_to or timecode_device.gets in (Gets.SOCKET, Gets.JAMS):
            continue
        label, giver = (
            situation.rig.unit(timecode_device.device).label,
            situation.rig.unit(timecode_device.genlocked_to).label,
        )
        yield Finding(
            rule="genlock-alone",
            severity=Severity.CAUTION,
            title=f"{label} has genlock and no timecode",
            text=(
                f"The genlock of {giver} keeps the frames of {label} in step; it does not number them. Jam it once: with genlock "
                "it then does not part."
            ),
            source="PRACTICE",
            device=timecode_device.device,
        )


@clock_rule
def nothing_to_sync_by(situation: Situation) -> Iterator[Finding]:
    """A camera and a recorder that have nothing in common but a clap. [HANDBOOK] §8"""
    for pair in pairs(situation.report, situation.timecode_devices):
        by_ear = pair.by == (Meets.OWN_MICROPHONE,)
        if not pair.has_clap_alone and not by_ear:
            continue
        if pair.has_clap_alone and not _has_been_wired(situation, pair.camera):
            continue  # double system: what its own microphone hears is what they have in common
        camera, recorder = (situation.rig.unit(device).label for device in (pair.camera, pair.recorder))
        yield Finding(
            rule="nothing-to-sync-by",
            severity=Severity.NOTE if by_ear else Severity.CAUTION,
            title=f"{camera} and {recorder}: {'only its own microphone' if by_ear else 'nothing to sync by'}",
            text=_missing(situation, pair, camera, recorder),
            source="HANDBOOK",
            device=pair.camera,
            about=pair.recorder,
            verify="Clap at the start of each take, in shot and close to the microphones.",
        )


def _has_been_wired(situation: Situation, camera: str) -> bool:
    """Whether something goes into a camera, or its own microphone is in the catalogue and no track takes it."""
    inside = any(port.plug.connector == "inside" for port in situation.rig.unit(camera).device_class.inputs)
    return inside or any(joint.receiver.device.id == camera for joint in situation.joints)


def _missing(situation: Situation, pair: Pair, camera: str, recorder: str) -> str:
    if pair.reach is not None:
        source = situation.plan.sources[pair.reach.source].label
        return (
            f"{camera} hears what {recorder} records by its own microphone alone: {source} stands out of the noise up to about "
            f"{pair.reach.metres:.0f} m away, {pair.reach.later_ms:.0f} ms late there. Stay within that, or send it a feed."
        )
    return (
        f"{camera} gets no timecode that {recorder} has too, and hears nothing that it records: a clap is all they share. "
        "Send the camera a feed, let both have timecode, or turn its own microphone on."
    )


@clock_rule
def early_sound(situation: Situation) -> Iterator[Finding]:
    """Sound that comes to a live switcher by a way of its own, before its picture. [BT1359]"""
    for screen in situation.screens:
        for sound in screen.sounds if screen.is_switcher else ():
            missed = [window for window, holds in sound.windows if not holds]
            if not missed:
                continue
            label, sender = situation.rig.unit(screen.device).label, situation.rig.unit(sound.sender).label
            early = "early" if sound.early_ms > 0 else "late"
            cure = (
                "Hold the pictures back, or take a quicker way for the sound."
                if sound.delay is None
                else f"Delay it between {sender} and {label} by {float(sound.delay.seconds * 1000):.0f} ms: "
                f"{float(sound.delay.frame_count or 0):.1f} frames, {sound.delay.sample_count} samples."
            )
            within_ms = _picture_within_ms(situation, screen)
            doubt = f" (±{within_ms:.0f}: typical figures, until a clap has measured them)" if within_ms else ""
            yield Finding(
                rule="early-sound",
                severity=Severity.NOTE if ACCEPTED not in missed else Severity.CAUTION,
                title=f"Sound is {early} at {label}",
                text=(
                    f"What {sender} sends is {abs(sound.early_ms):.0f} ms{doubt} {early} against the latest picture: "
                    f"{' and '.join(window.beyond for window in missed)}. {cure}"
                ),
                source="BT1359",
                device=screen.device,
                run=sound.run,
                verify="Clap in shot, record the programme, and mark the frame in which the hands meet.",
            )


def _picture_within_ms(situation: Situation, screen: LateScreen) -> float:
    """± of how late the latest picture is, from the figures of the device that sends it; 0 where they were measured."""
    latest = max(screen.pictures, key=lambda picture: picture.late_frames)
    traits = situation.rig.unit(latest.camera).device_class.traits
    figure = traits.sdi_delay_frames if latest.over_sdi else traits.picture_delay_frames
    if figure is None or figure.provenance is Provenance.MEASURED:
        return 0.0
    return latest.late_ms * figure.tolerance / 100


@clock_rule
def pictures_apart(situation: Situation) -> Iterator[Finding]:
    """Cameras with different delays at one switcher: no one delay of the sound fits all of them. [HANDBOOK] §8"""
    for screen in situation.screens:
        held = [picture for picture in screen.pictures if picture.hold_frames] if screen.is_switcher else []
        if not held:
            continue
        rig = situation.rig
        names = ", ".join(f"{rig.unit(picture.camera).label} by {picture.hold_frames:g} frames" for picture in held)
        yield Finding(
            rule="pictures-apart",
            severity=Severity.CAUTION,
            title=f"Pictures are not equally late at {rig.unit(screen.device).label}",
            text=f"No one delay of the sound fits all of them. Hold back {names}, or send the sound through the camera it belongs to.",
            source="HANDBOOK",
            device=screen.device,
        )
