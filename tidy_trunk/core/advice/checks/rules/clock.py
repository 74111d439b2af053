"""Rules on time: labels that mean the same, clocks that stay together, and something to sync by."""

from collections.abc import Iterator
from typing import Final, NamedTuple

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.base.timecode import Delay, FrameRate
from tidy_trunk.core.gear.catalogue import (
    INSIDE,
    Circuit,
    Provenance,
)
from tidy_trunk.core.plan import (
    Aspect,
    Role,
    battery,
)
from tidy_trunk.core.time.clock import (
    ACCEPTED,
    OFTEN_MIN,
    ClockDay,
    ClockPair,
    FreeRun,
    LateScreen,
    SyncMeans,
    SyncWindow,
    TimecodeDevice,
    TimecodeFrom,
    clock_day,
    day_hours,
    first_giver,
    jams_for,
    jams_too_often,
    pairs,
)

clock_rule = looks_at(Aspect.CLOCK | Aspect.POWER | Aspect.RATES)
"""Clocks run from batteries, and lose their time with them."""

DROPPED_S_PER_HOUR: Final = 3.6
"""How far drop-frame and non-drop labels part: 108 of 108,000 labels in an hour. [ST12-1]"""

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
        yield Finding(
            rule="timecode-on-wrong-track",
            severity=Severity.CAUTION,
            facts={"giver": sound.giver},
            source="HANDBOOK",
            device=track.trace.device,
            tracks=(sound.track,),
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
            yield Finding(
                rule="beside-timecode",
                severity=Severity.CAUTION,
                facts={"timecode": sound.track.partition(".")[2], "bleed_db": _bleed_db(situation, beside)},
                source="HANDBOOK",
                device=track.trace.device,
                tracks=(beside,),
            )


def _bleed_db(situation: Situation, track_id: str) -> float | None:
    """What was measured at the socket of a track; None where nothing was."""
    device, _, bus = track_id.partition(".")
    placed = situation.index.placed(device)
    ports = (placed.device_class.channel_of[ref][0] for ref in placed.bus_inputs(placed.bus(bus)))
    return next((port.bleed_db.value for port in ports if port.bleed_db is not None), None)


@clock_rule
def timecode_rate(situation: Situation) -> Iterator[Finding]:
    """A device whose labels count otherwise than the job's. [ST12-1]"""
    wanted = FrameRate.parse(situation.plan.defaults.frame_rate)
    for timecode_device in situation.timecode_devices:
        if timecode_device.rate == wanted:
            continue
        same_speed = timecode_device.rate.ratio == wanted.ratio
        uses_labels = timecode_device.gets is not TimecodeFrom.NOTHING
        yield Finding(
            rule="timecode-rate",
            severity=Severity.STOP if uses_labels and not same_speed else Severity.CAUTION,
            facts={"rate": timecode_device.rate, "apart_s": _apart_s(timecode_device.rate, wanted)},
            source="ST12-1",
            device=timecode_device.device,
        )


def _apart_s(rate: FrameRate, wanted: FrameRate) -> float:
    """How far labels of two rates part in an hour of real time: each counts its own seconds. [ST12-1]"""
    if rate.ratio == wanted.ratio:
        return DROPPED_S_PER_HOUR
    first, second = (float(one.ratio) / one.nominal for one in (rate, wanted))
    return abs(first - second) * 3600


@clock_rule
def record_run(situation: Situation) -> Iterator[Finding]:
    """Labels that stand still between takes, on a device that is to meet others by them. [HANDBOOK] §8"""
    for timecode_device in situation.timecode_devices:
        if not timecode_device.records_run or timecode_device.gets in (TimecodeFrom.NOTHING, TimecodeFrom.SOUND):
            continue
        yield Finding(
            rule="record-run",
            severity=Severity.STOP,
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
            facts={"mode": gives.label},
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
        yield Finding(
            rule="missed-jam",
            severity=Severity.CAUTION,
            facts={"giver": timecode_device.giver, "missed": _missed(situation, timecode_device, day)},
            source="HANDBOOK",
            device=timecode_device.device,
        )


class MissedLimit(NamedTuple):
    """When a clock is beyond its limit, in minutes of the day.

    unset_until_min: until when it has no time at all, where the day has begun by then; else None.
    free_run: the first in which it is beyond the limit; None where it has no time before that matters.
    against: the device that it is compared with, where that is not its giver; else "".
    ppm: how fast it parts from its giver, and whether that was measured.
    every_min: how often it would have to be jammed at the worst, where that stops the work; else None.
    """

    unset_until_min: int | None
    free_run: FreeRun | None
    beyond_min: int
    against: str
    ppm: float
    is_measured: bool
    every_min: int | None


def _missed(situation: Situation, timecode_device: TimecodeDevice, day: ClockDay) -> MissedLimit:
    free_run = next((free_run for free_run in day.free_runs if free_run.beyond_min is not None), None)
    drift = timecode_device.relative_drift
    return MissedLimit(
        unset_until_min=day.unset_until_min,
        free_run=free_run,
        beyond_min=day.beyond_min or 0,
        against=free_run.against if free_run is not None and free_run.against != timecode_device.giver else "",
        ppm=drift.ppm if drift is not None else 0.0,
        is_measured=drift is not None and drift.is_measured,
        every_min=_too_often(situation, timecode_device, day),
    )


def _too_often(situation: Situation, timecode_device: TimecodeDevice, day: ClockDay) -> int | None:
    """How often a clock asks for a jam, where nobody would do that; else None."""
    if day.every_min is None or day.every_min >= OFTEN_MIN:
        return None
    jams = jams_for(situation.clocks, timecode_device.device)
    return int(day.every_min) if jams is None or jams_too_often(jams) else None


@clock_rule
def forgets_timecode(situation: Situation) -> Iterator[Finding]:
    """A jammed device that loses its time with its battery, and the battery does not last. [HANDBOOK] §8"""
    hours = day_hours(situation.index)
    for timecode_device in situation.timecode_devices:
        placed = situation.index.placed(timecode_device.device)
        lasts = battery(placed, situation.index.plan.defaults.temperature_c)
        if not timecode_device.forgets or timecode_device.jam is None or lasts is None:
            continue
        lasts_h = lasts.usual_min / 60
        if lasts_h >= hours:
            continue
        yield Finding(
            rule="forgets-timecode",
            severity=Severity.NOTE,
            facts={"lasts_h": lasts_h, "day_h": hours},
            source="HANDBOOK",
            device=timecode_device.device,
        )


@clock_rule
def two_clocks(situation: Situation) -> Iterator[Finding]:
    """Two devices that give time and get none: half of the labels mean another moment. [HANDBOOK] §8"""
    known = {timecode_device.device: timecode_device for timecode_device in situation.timecode_devices}
    roots: dict[str, list[str]] = {}
    for device, timecode_device in known.items():
        root = first_giver(situation.index, known, device)
        if root and timecode_device.gets is not TimecodeFrom.GIVES:
            roots.setdefault(root, []).append(device)
    if len(roots) < 2:
        return
    first, *others = sorted(roots, key=lambda root: -len(roots[root]))
    for other in others:
        yield Finding(
            rule="two-clocks",
            severity=Severity.CAUTION,
            facts={"first": first, "taking": tuple(roots[other])},
            source="HANDBOOK",
            device=other,
        )


@clock_rule
def genlock_alone(situation: Situation) -> Iterator[Finding]:
    """Genlock without timecode: frames in step, and no label says which is which. [PRACTICE]"""
    for timecode_device in situation.timecode_devices:
        if not timecode_device.genlocked_to or timecode_device.gets in (TimecodeFrom.SOCKET, TimecodeFrom.JAMS):
            continue
        yield Finding(
            rule="genlock-alone",
            severity=Severity.CAUTION,
            facts={"giver": timecode_device.genlocked_to},
            source="PRACTICE",
            device=timecode_device.device,
        )


@clock_rule
def nothing_to_sync_by(situation: Situation) -> Iterator[Finding]:
    """A camera and a recorder that have nothing in common but a clap. [HANDBOOK] §8"""
    heard: dict[str, list[ClockPair]] = {}
    for pair in pairs(situation.report, situation.timecode_devices):
        if pair.by == (SyncMeans.OWN_MICROPHONE,):
            heard.setdefault(pair.camera, []).append(pair)
        # Double system: what its own microphone hears is what they have in common.
        elif pair.has_clap_alone and _has_been_wired(situation, pair.camera):
            yield _unsynced(pair, Severity.CAUTION)
    for mine in heard.values():
        nearest, *others = sorted(mine, key=lambda pair: pair.reach.metres if pair.reach is not None else 0.0)
        yield _unsynced(nearest, Severity.NOTE, tuple(pair.recorder for pair in others))


def _unsynced(pair: ClockPair, severity: Severity, others: tuple[str, ...] = ()) -> Finding:
    """`others`: recorders of which a camera hears no less, by its own microphone too."""
    return Finding(
        rule="nothing-to-sync-by",
        severity=severity,
        facts={"by_ear": severity is Severity.NOTE, "reach": pair.reach, "others": others},
        source="HANDBOOK",
        device=pair.camera,
        about=pair.recorder,
    )


def _has_been_wired(situation: Situation, camera: str) -> bool:
    """Whether something goes into a camera, or its own microphone is in the catalogue and no track takes it."""
    inside = any(port.plug.connector == INSIDE for port in situation.index.placed(camera).device_class.inputs)
    return inside or any(joint.receiver.device.id == camera for joint in situation.joints)


class EarlySound(NamedTuple):
    """How early sound is against the latest picture, late where it is negative, ± `within_ms`; the windows that it misses;
    and the delay that mends it, None where only the pictures can be held back."""

    early_ms: float
    within_ms: float
    missed: tuple[SyncWindow, ...]
    delay: Delay | None


@clock_rule
def early_sound(situation: Situation) -> Iterator[Finding]:
    """Sound that comes to a live switcher by a way of its own, before its picture. [BT1359]"""
    for screen in situation.screens:
        for sound in screen.sounds if screen.is_switcher else ():
            missed = [window for window, holds in sound.windows if not holds]
            if not missed:
                continue
            yield Finding(
                rule="early-sound",
                severity=Severity.NOTE if ACCEPTED not in missed else Severity.CAUTION,
                facts={
                    "sender": sound.sender,
                    "how": EarlySound(
                        sound.early_ms, _picture_within_ms(situation, screen), tuple(missed), sound.delay
                    ),
                },
                source="BT1359",
                device=screen.device,
                run=sound.run,
            )


def _picture_within_ms(situation: Situation, screen: LateScreen) -> float:
    """± of how late the latest picture is, from the figures of the device that sends it; 0 where they were measured."""
    latest = max(screen.pictures, key=lambda picture: picture.late_frames)
    traits = situation.index.placed(latest.camera).device_class.traits
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
        yield Finding(
            rule="pictures-apart",
            severity=Severity.CAUTION,
            facts={"held": tuple((picture.camera, picture.hold_frames) for picture in held)},
            source="HANDBOOK",
            device=screen.device,
        )
