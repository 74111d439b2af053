"""Timecode devices: the source of each, over which connection, and its drift once it runs free."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum

from tidy_trunk.core.base.timecode import Drift, FrameRate, drift
from tidy_trunk.core.gear.catalogue import (
    RATE_OF_JOB,
    RECORD_RUN,
    TIMECODE_RATE_KEY,
    TIMECODE_RUN_KEY,
    Circuit,
    DeviceKind,
    channel_refs,
)
from tidy_trunk.core.plan import Jam, PlacedDevice, Plan, PlanIndex, PortRef, Role, Run, SetRole, pair_key
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import StageKind, trace_plan, upstream_of


class TimecodeFrom(StrEnum):
    """How a device comes by its time."""

    GIVES = "master"  # of others, without a source of its own
    SOCKET = "cable"  # at its timecode socket, and stays on it
    JAMS = "jam"  # and runs alone between jams
    SOUND = "track"  # as sound
    NOTHING = "none"


@dataclass(frozen=True, slots=True, kw_only=True)
class RelativeDrift:
    """How fast a device parts from its giver. is_measured: together, not from what each clock is good for."""

    ppm: float
    is_measured: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class TimecodeDevice:
    """A device that records or keeps time.

    giver: from whom it gets its time, "" without a source. jam: where it runs alone between jams.
    track: on which it is recorded as sound, "" elsewhere; loss_db: of the lead that brings it there; beside: tracks of
    the same socket, scratch at best.
    rate, records_run: how its labels count, and whether they stand still between takes.
    ppm: what its clock is good for, None where nobody knows. forgets: it loses timecode when it is switched off.
    genlocked_to: whose beat its frames keep, "" where nobody's.
    relative_drift, alone: how fast, and by how far over the day, it parts from its giver on its own; None where it cannot.
    """

    device: str
    gets: TimecodeFrom
    giver: str
    jam: Jam | None
    track: str
    loss_db: float
    beside: tuple[str, ...]
    has_socket: bool
    rate: FrameRate
    records_run: bool
    ppm: float | None
    forgets: bool | None
    genlocked_to: str
    relative_drift: RelativeDrift | None
    alone: Drift | None


@dataclass(frozen=True, slots=True, kw_only=True)
class TimecodeTrack:
    """A track that takes timecode as sound: from whom, what the leads take off, and the tracks of the same socket."""

    track: str
    giver: str
    loss_db: float
    beside: tuple[str, ...]


def day_hours(index: PlanIndex) -> float:
    """How long the job's day is."""
    return (index.plan.defaults.day_ends_min - index.plan.defaults.day_begins_min) / 60


def timecode_devices(report: Report) -> tuple[TimecodeDevice, ...]:
    """Every recording device and clock of a job, in the order of the plan."""
    sounds: dict[str, TimecodeTrack] = {}
    for sound in timecode_tracks(report):
        sounds.setdefault(sound.track.partition(".")[0], sound)
    found = [
        _timecode_device(report.index, placed, sounds.get(placed.device.id)) for placed in report.index.placed_devices()
    ]
    return tuple(item for item in found if item is not None)


def _timecode_device(index: PlanIndex, placed: PlacedDevice, sound: TimecodeTrack | None) -> TimecodeDevice | None:
    traits, device = placed.device_class.traits, placed.device.id
    if placed.device_class.kind is not DeviceKind.CLOCK and not placed.device_class.is_recording:
        return None
    jams, genlocks = _from(index, placed, Circuit.TIMECODE), _from(index, placed, Circuit.GENLOCK)
    gets, giver = TimecodeFrom.NOTHING, ""
    if jams:
        gets, giver = TimecodeFrom.SOCKET, jams[0]
    elif placed.device.jam is not None:
        gets, giver = TimecodeFrom.JAMS, placed.device.jam.giver
    elif sound is not None:
        gets, giver = TimecodeFrom.SOUND, sound.giver
    elif _gives(index, placed):
        gets = TimecodeFrom.GIVES
    genlocked_to = genlocks[0] if genlocks else ""
    parts = relative_drift(index, giver, device) if gets in (TimecodeFrom.SOCKET, TimecodeFrom.JAMS) else None
    limit = index.plan.defaults.drift_limit_frames
    rate = FrameRate.parse(index.plan.defaults.frame_rate)
    return TimecodeDevice(
        device=device,
        gets=gets,
        giver=giver,
        jam=placed.device.jam if gets is TimecodeFrom.JAMS else None,
        track=sound.track if sound is not None and gets is TimecodeFrom.SOUND else "",
        loss_db=sound.loss_db if sound is not None else 0.0,
        beside=sound.beside if sound is not None else (),
        has_socket=any(port.circuit is Circuit.TIMECODE for port in placed.device_class.inputs),
        rate=rate_of(index, placed),
        records_run=placed.device.settings.get(TIMECODE_RUN_KEY) == RECORD_RUN,
        ppm=None if traits.clock_ppm is None else traits.clock_ppm.value,
        forgets=None if traits.keeps_timecode_when_off is None else not traits.keeps_timecode_when_off,
        genlocked_to=genlocked_to,
        relative_drift=parts,
        alone=None if parts is None else drift(parts.ppm, 0.0, rate, day_hours(index), limit),
    )


def _from(index: PlanIndex, placed: PlacedDevice, circuit: Circuit) -> list[str]:
    """The devices that are plugged into the sockets for it, with what belongs there."""
    ports = [port for port in placed.device_class.inputs if port.circuit is circuit]
    runs = [run for port in ports for run in index.arriving.get(PortRef(placed.device.id, port.id), [])]
    return [run.sending.device for run in runs if _carries(index, run, circuit)]


def _carries(index: PlanIndex, run: Run, circuit: Circuit) -> bool:
    """Whether a run brings timecode or genlock, as its output is switched now."""
    placed = index.placed(run.sending.device)
    output = placed.output(run.sending.port)
    return output.circuit is circuit or (circuit is Circuit.TIMECODE and bool(placed.timecode_channels(output)))


def _gives(index: PlanIndex, placed: PlacedDevice) -> bool:
    ports = [port.id for port in placed.device_class.outputs if placed.timecode_channels(port)]
    by_lead = any(index.leaving.get(PortRef(placed.device.id, port)) for port in ports)
    return by_lead or any(
        other.jam is not None and other.jam.giver == placed.device.id for other in index.plan.devices.values()
    )


def rate_of(index: PlanIndex, placed: PlacedDevice) -> FrameRate:
    """At which a device counts: the job's, unless it is set to another."""
    name = str(placed.device.settings.get(TIMECODE_RATE_KEY, RATE_OF_JOB))
    return FrameRate.parse(index.plan.defaults.frame_rate if name == RATE_OF_JOB else name)


def relative_drift(index: PlanIndex, first: str, second: str) -> RelativeDrift | None:
    """How fast two clocks part at the worst: as it was measured, else as bad as both may be; None where nobody knows.

    A device that keeps the other's beat does not part from it. Source: [HANDBOOK] §8
    """
    for one, other in ((first, second), (second, first)):
        if other in _from(index, index.placed(one), Circuit.GENLOCK):
            return RelativeDrift(ppm=0.0, is_measured=False)
    measured = index.plan.pair_drifts.get(pair_key(first, second))
    if measured is not None:
        return RelativeDrift(ppm=measured.worst_ppm, is_measured=True)
    figures = [index.placed(device).device_class.traits.clock_ppm for device in (first, second)]
    sizes = [figure.value for figure in figures if figure is not None]
    return RelativeDrift(ppm=sum(sizes), is_measured=False) if len(sizes) == 2 else None


def timecode_tracks(report: Report) -> tuple[TimecodeTrack, ...]:
    """Every track to which timecode comes as sound, in the order of the plan."""
    index, found = report.index, []
    if not any(_carries(index, run, Circuit.TIMECODE) for run in index.plan.runs.values()):
        return ()
    for track in report.tracks:
        device = track.trace.device
        for stage in upstream_of(track.trace.stage):
            if stage.kind is not StageKind.LEAD or stage.run is None or stage.device != device:
                continue
            sender = index.placed(stage.run.sending.device)
            given = sender.timecode_channels(sender.output(stage.run.sending.port))
            if not any(feed.channel in given for feed, _ in stage.feeds):
                continue
            losses = [index.lead_of(part).loss_db for part in stage.run.parts]
            found.append(
                TimecodeTrack(
                    track=track.trace.id,
                    giver=stage.run.sending.device,
                    loss_db=sum(loss.value for loss in losses if loss is not None),
                    beside=_beside(index, device, track.trace.bus, stage.run.receiving.port),
                )
            )
    return tuple(found)


def _beside(index: PlanIndex, device: str, bus: str, port_id: str) -> tuple[str, ...]:
    """The other tracks that take a channel of the same socket."""
    placed = index.placed(device)
    refs = set(channel_refs(placed.input(port_id)))
    return tuple(
        f"{device}.{other.id}"
        for other in placed.device_class.buses
        if other.id != bus and placed.is_recorded(other) and refs & set(placed.bus_inputs(other))
    )


def first_giver(index: PlanIndex, known: Mapping[str, TimecodeDevice], device: str) -> str:
    """Where a device's time comes from in the end: the device that has no source itself; "" without a source."""
    seen: list[str] = []
    here = device
    while here in known and here not in seen:
        seen.append(here)
        timecode_device = known[here]
        if timecode_device.gets is TimecodeFrom.GIVES:
            return here
        here = timecode_device.giver
    return here if here and here not in known and here in index.plan.devices else ""


def kept_for_timecode(connected: Plan, device: str) -> Iterator[SetRole]:
    """What takes timecode as sound is for nothing else, and its neighbour for guide at best. Source: [HANDBOOK] §8"""
    index = PlanIndex(connected)
    sounds = [sound for sound in timecode_tracks(Report(trace_plan(connected))) if sound.track.startswith(f"{device}.")]
    taken = {sound.track for sound in sounds}
    for sound in sounds:
        yield SetRole(device=device, bus=sound.track.partition(".")[2], role=Role.TIMECODE)
        for beside in (track.partition(".")[2] for track in sound.beside if track not in taken):
            if index.role_of(device, beside) in (Role.DIALOGUE, Role.EFFECTS):
                yield SetRole(device=device, bus=beside, role=Role.GUIDE)
