"""What a rig gives and what it asks for, read off its plan."""

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.checks import PlacedFinding, Severity, check
from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, LeadClass, controls_of
from tidy_trunk.core.plan import PlanIndex, PortRef, Role
from tidy_trunk.core.rigs.brief import Brief
from tidy_trunk.core.rigs.build import Built
from tidy_trunk.core.sound.levels import Report, TrackLevel
from tidy_trunk.core.sound.trace import KnownParts, Stage, parts_on_all_ways
from tidy_trunk.core.time.clock import SyncMeans, pairs, timecode_devices

USUAL_CABLE_COST: Final = 1
"""ASSUMED_ cost class of a cable: the cheapest."""


class SyncMethod(StrEnum):
    """What joins picture and sound afterwards, the least work first."""

    NONE = "none"  # the sound is in the camera, and there is one camera
    TIMECODE = "timecode"
    SOUND = "sound"
    CAMERA_MICROPHONE = "camera-microphone"
    CLAP = "clap"


SYNC_OF: Final = {
    SyncMeans.TIMECODE: SyncMethod.TIMECODE,
    SyncMeans.SOUND: SyncMethod.SOUND,
    SyncMeans.OWN_MICROPHONE: SyncMethod.CAMERA_MICROPHONE,
    SyncMeans.CLAP: SyncMethod.CLAP,
}
"""By what a camera and a recorder meet. [HANDBOOK] §8"""


@dataclass(frozen=True, slots=True, kw_only=True)
class RigFigures:
    """What one rig gives and costs.

    apart: microphones that have a track of their own. mixed: devices that hold several of them in one mix.
    left_out: microphones that no track has.
    copies: on how many devices each source is recorded at least. shared: what all recordings of a source hang on beside its
    microphone, where there is more than one.
    heard, unheard: recording devices at which one can and cannot listen while they record.
    under_room_db: how far all gear lies below the room's noise, A-weighted, on the worst of the tracks that matter most: those of
    one microphone each, where there are such; inf where the gear adds none. copy_under_room_db: on the worst of all others.
    headroom_db: least distance of the expected peaks of those tracks from any clipping; inf for float all the way.
    settings: switches and knobs that do not stand as they are when new. pressed: devices on which record is pressed. jams: in a day.
    automatic_off: cameras and recorders whose automatic level is switched off.
    is_in_camera: whether what a recorder or mixer holds arrives at a camera too, or at a switcher.
    to_get: classes of devices, and cables, that nobody named and that do not lie in the trunk: each as often as it is needed. cost: of these together.
    """

    apart: int
    mixed: tuple[str, ...]
    left_out: tuple[str, ...]
    copies: int
    shared: tuple[str, ...]
    sync: SyncMethod
    heard: tuple[str, ...]
    unheard: tuple[str, ...]
    under_room_db: float
    copy_under_room_db: float
    headroom_db: float
    settings: int
    pressed: tuple[str, ...]
    automatic_off: tuple[str, ...]
    jams: int
    is_in_camera: bool
    to_get: tuple[tuple[str, int], ...]
    cables_to_get: tuple[LeadClass, ...]
    cost: int
    cautions: tuple[PlacedFinding, ...]


def figures(built: Built, brief: Brief, lying: Mapping[str, int]) -> RigFigures:
    """Everything that tells one rig from another. Source of the rows: [HANDBOOK] §13"""
    report = built.report
    index = report.index
    tracks = [track for track in report.tracks if track.is_reached and track.role is not Role.TIMECODE]
    begun = {track.trace.id: set(report.branches(track.trace.stage)) for track in tracks}
    reached = {name for names in begun.values() for name in names}
    alone = {next(iter(names)) for names in begun.values() if len(names) == 1}
    recording = tuple(dict.fromkeys(track.trace.device for track in tracks))
    copies, shared = _copies(report, tracks)
    own = [track for track in tracks if len(begun[track.trace.id]) == 1]
    first = [track for track in own or tracks if track.trace.device == (own or tracks)[0].trace.device]
    others = [track for track in tracks if track.trace.device != first[0].trace.device]
    to_get = _to_get(index, brief, lying)
    cables = _to_be_got(_special_cables(index), lying)
    devices = index.plan.devices.values()
    return RigFigures(
        apart=len(alone & set(built.microphones)),
        mixed=tuple(dict.fromkeys(name.partition(".")[0] for name, names in begun.items() if len(names) > 1)),
        left_out=tuple(name for name in built.microphones if name not in reached),
        copies=copies,
        shared=shared,
        sync=_sync(report, recording),
        heard=tuple(name for name in recording if _has_headphones(index, name)),
        unheard=tuple(name for name in recording if not _has_headphones(index, name)),
        under_room_db=min(map(_under_room_db, first)),
        copy_under_room_db=min(map(_under_room_db, others), default=math.inf),
        headroom_db=min(track.headroom_db for track in first),
        settings=sum(_moved(index, device.id) for device in devices),
        pressed=(*recording, *(device.id for device in devices if _is_idle_camera(index, device.id, recording))),
        automatic_off=tuple(device.id for device in devices if _switches_automatic_off(index, device.id)),
        jams=sum(len(device.jam.at_min) for device in devices if device.jam is not None),
        is_in_camera=_is_in_camera(index),
        to_get=to_get,
        cables_to_get=cables,
        cost=sum(count * (index.class_of(name).cost or 0) for name, count in to_get) + USUAL_CABLE_COST * len(cables),
        cautions=tuple(PlacedFinding(item, index) for item in check(report) if item.severity is not Severity.NOTE),
    )


def _under_room_db(track: TrackLevel) -> float:
    return track.room_noise_a - track.gear_noise_a if math.isfinite(track.gear_noise_a) else math.inf


def _copies(report: Report, tracks: list[TrackLevel]) -> tuple[int, tuple[str, ...]]:
    """On how many devices each source is at least; and what all recordings of such a source share beside microphones."""
    fewest, shared = math.inf, set()
    for source in report.index.plan.sources:
        stages: dict[str, list[Stage]] = {}
        for track in tracks:
            if source in track.sources:
                stages.setdefault(track.trace.device, []).append(track.trace.stage)
        fewest = min(fewest, len(stages))
        if len(stages) > 1:
            known: KnownParts = {}
            ways = [parts_on_all_ways(stage, source, known) for found in stages.values() for stage in found]
            shared |= {name for kind, name in frozenset.intersection(*ways) if kind == "device"}
    index = report.index
    kept = [name for name in index.plan.devices if name in shared and not index.placed(name).device_class.is_microphone]
    return int(fewest) if math.isfinite(fewest) else 0, tuple(kept)


def _sync(report: Report, recording: tuple[str, ...]) -> SyncMethod:
    """What the worst pair of a camera and whatever holds the sound meets by."""
    index = report.index
    if _is_programme(index, recording):
        return SyncMethod.NONE  # what leaves the switcher is together
    cameras = [placed.device.id for placed in index.placed_devices() if placed.device_class.kind is DeviceKind.CAMERA]
    found = [SYNC_OF[pair.by[0]] for pair in pairs(report, timecode_devices(report))]
    if not found and any(name not in recording for name in cameras):
        found = [SyncMethod.CAMERA_MICROPHONE]
    order = list(SyncMethod)
    return max(found, key=order.index, default=SyncMethod.NONE)


def _is_in_camera(index: PlanIndex) -> bool:
    senders, takers = (
        (DeviceKind.RECORDER, DeviceKind.MIXER, DeviceKind.PREAMP, DeviceKind.DELAY),
        (DeviceKind.CAMERA, DeviceKind.SWITCHER),
    )
    kinds = [
        (index.placed(run.sending.device).device_class.kind, index.placed(run.receiving.device).device_class.kind)
        for run in index.plan.runs.values()
        if index.placed(run.sending.device).output(run.sending.port).circuit is not Circuit.TIMECODE
    ]
    return any(sender in senders and taker in takers for sender, taker in kinds)


def _is_programme(index: PlanIndex, recording: tuple[str, ...]) -> bool:
    """Whether a switcher takes pictures and sound together."""
    return any(index.placed(name).device_class.kind is DeviceKind.SWITCHER for name in recording)


def _has_headphones(index: PlanIndex, device: str) -> bool:
    """Whether headphones can hang there: at a socket that feeds nothing else."""
    return any(
        port.is_headphone and not index.leaving.get(PortRef(device, port.id))
        for port in index.placed(device).device_class.outputs
    )


def _moved(index: PlanIndex, device: str) -> int:
    placed = index.placed(device)
    controls = controls_of(placed.device_class)
    return sum(
        value != controls[name].default for name, value in placed.device.settings.items() if placed.acts(controls[name])
    )


def _switches_automatic_off(index: PlanIndex, device: str) -> bool:
    """Whether automatic level, which is on when the device is new, is switched off."""
    settings = index.placed(device).device.settings
    return any(".auto." in name and value is False for name, value in settings.items())


def _is_idle_camera(index: PlanIndex, device: str, recording: tuple[str, ...]) -> bool:
    return index.placed(device).device_class.kind is DeviceKind.CAMERA and device not in recording


def _to_get(index: PlanIndex, brief: Brief, lying: Mapping[str, int]) -> tuple[tuple[str, int], ...]:
    """Classes that the rig needs more often than they were named; nothing of what goes with a radio that was named, nothing of
    one's own, and nothing that lies in the trunk."""
    microphones = brief.microphones or ()
    named = Counter(
        (*(item.class_id for item in microphones), *(brief.recorders or ()), *(brief.cameras or ()), *brief.devices)
    )
    by_radio = sum(item.by_radio for item in microphones)
    needed = Counter(device.class_id for device in index.plan.devices.values())
    found = []
    for class_id, count in needed.items():
        kind = index.class_of(class_id).kind
        has = named[class_id]
        if kind in (DeviceKind.TRANSMITTER, DeviceKind.RECEIVER):
            has = max(has, by_radio)
        has = max(has, lying.get(class_id, 0))
        if class_id in index.plan.classes or (kind is DeviceKind.CAMERA and brief.cameras is None) or count <= has:
            continue
        found.append((class_id, count - has))
    return tuple(found)


def _to_be_got(cables: Sequence[LeadClass], lying: Mapping[str, int]) -> tuple[LeadClass, ...]:
    """Those of which there are not enough: a piece is for one place."""
    left = Counter(lying)
    found = []
    for lead in cables:
        if left[lead.id] > 0:
            left[lead.id] -= 1
        else:
            found.append(lead)
    return tuple(found)


def _special_cables(index: PlanIndex) -> tuple[LeadClass, ...]:
    """The cables that not everybody carries, each once however many tails of it are used: attenuators, isolators, splitters, and
    adapters from one kind of plug to another."""
    pieces = {
        part.shared or f"{run.id}.{at}": index.lead_of(part)
        for run in index.plan.runs.values()
        for at, part in enumerate(run.parts)
    }
    return tuple(
        lead
        for lead in pieces.values()
        if lead.loss_db is not None
        or lead.isolates
        or len(lead.ways) > 1
        or (lead.is_adapter and lead.sending.connector != lead.receiving.connector)
    )
