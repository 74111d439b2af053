"""How late sound is where it arrives: through air, radio, converters and beside pictures."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.base.units import air_ms
from tidy_trunk.core.gear.catalogue import Circuit, Figure
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef
from tidy_trunk.core.sound.trace import Stage, StageKey, StageKind

CONVERTED_MS: Final = 1.0
"""ASSUMED_ what a device takes that turns sound into numbers and back, where nothing else is said of it."""


WITH_PICTURE: Final = frozenset({Circuit.HDMI, Circuit.SDI})
"""Leads that bring sound with its picture. [PRACTICE]"""


@dataclass(frozen=True, slots=True)
class LatencyPart:
    """What one thing on the way takes, in ms; what: a device as it is called, or air."""

    what: str
    ms: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Latency:
    """Of the earliest and the latest sound that arrives, in ms; parts: what the latest one comes through, in order."""

    least_ms: float
    most_ms: float
    parts: tuple[LatencyPart, ...]


PICTURE_DELAY, SDI_DELAY = "traits.picture_delay_frames", "traits.sdi_delay_frames"
"""Paths of the figures that say how late a picture is; the second over SDI, where that differs. ASSUMED_"""


def picture_delay(placed: PlacedDevice, circuit: Circuit) -> tuple[str, Figure | None]:
    """How late a picture is over HDMI or SDI, in frames, with the path of the figure that says so."""
    traits = placed.device_class.traits
    if circuit is Circuit.SDI and traits.sdi_delay_frames is not None:
        return SDI_DELAY, traits.sdi_delay_frames
    return PICTURE_DELAY, traits.picture_delay_frames


def picture_late_frames(index: PlanIndex, sender: PortRef, seen: frozenset[str] = frozenset()) -> float | None:
    """By how many frames the picture that leaves by an output is late; None where nothing is known of it.

    What passes pictures on is as late as the latest that comes in, and adds its own. Source: [HANDBOOK] §8
    """
    placed = index.placed(sender.device)
    own = picture_delay(placed, placed.output(sender.port).circuit)[1]
    before = latest_picture_frames(index, sender.device, seen) if sender.device not in seen else None
    if own is None and before is None:
        return None
    return (own.value if own is not None else 0.0) + (before or 0.0)


def pictures_in(index: PlanIndex, device: str) -> list[PortRef]:
    """The outputs that send a picture into a device."""
    ports = [port for port in index.placed(device).device_class.inputs if port.circuit in WITH_PICTURE]
    return [run.sending for port in ports for run in index.arriving.get(PortRef(device, port.id), [])]


def latest_picture_frames(index: PlanIndex, device: str, seen: frozenset[str] = frozenset()) -> float | None:
    """By how many frames the latest picture that comes into a device is late; None where none comes, or none is known."""
    found = [picture_late_frames(index, sender, seen | {device}) for sender in pictures_in(index, device)]
    return max((frames for frames in found if frames is not None), default=None)


def own_ms(index: PlanIndex, device: str, *, with_picture: bool, circuit: Circuit = Circuit.HDMI) -> float:
    """What a device itself adds to sound that goes through it; beside its picture, as late as that is."""
    traits = index.placed(device).device_class.traits
    figure = picture_delay(index.placed(device), circuit)[1]
    if with_picture and figure is not None:
        rate = FrameRate.parse(index.plan.defaults.frame_rate)
        return figure.value / float(rate.ratio) * 1000
    if traits.sound_delay_ms is not None:
        return traits.sound_delay_ms.value
    return CONVERTED_MS if traits.sample_rates_hz else 0.0


def latency(index: PlanIndex, stage: Stage, known: dict[StageKey, Latency] | None = None) -> Latency:
    """How late the sound of a stage is against the moment at which it was made. Source: [HANDBOOK] §8"""
    known = {} if known is None else known
    if stage.key not in known:
        known[stage.key] = _latency(index, stage, known)
    return known[stage.key]


def programme_ms(index: PlanIndex, stage: Stage) -> float:
    """How late the latest sound of a track is where it comes out of its device."""
    return latency(index, stage).most_ms + own_ms(index, stage.device, with_picture=_came_with_picture(index, stage))


def _came_with_picture(index: PlanIndex, stage: Stage) -> bool:
    """Whether a device got the sound of a stage with a picture, and keeps both together."""
    if stage.kind is StageKind.INPUT:
        return index.placed(stage.device).input(stage.name).circuit in WITH_PICTURE
    return any(_came_with_picture(index, feed) for feed, _ in stage.feeds if feed.device == stage.device)


def _latency(index: PlanIndex, stage: Stage, known: dict[StageKey, Latency]) -> Latency:
    if stage.kind is StageKind.SOUND:
        part = LatencyPart("air", air_ms(index.plan.sources[stage.name].heard_by[stage.device]))
        return Latency(least_ms=part.ms, most_ms=part.ms, parts=(part,))
    before = [latency(index, feed, known) for feed, _ in stage.feeds]
    if not before:
        return Latency(least_ms=0.0, most_ms=0.0, parts=())
    latest = max(before, key=lambda item: item.most_ms)
    added = 0.0
    placed = index.placed(stage.device)
    if stage.kind is StageKind.OUTPUT and not placed.device_class.is_capsule_out(placed.output(stage.name)):
        circuit = placed.output(stage.name).circuit
        pictures = circuit in WITH_PICTURE or _came_with_picture(index, stage)
        added = own_ms(index, stage.device, with_picture=pictures, circuit=circuit)
    parts = (*latest.parts, LatencyPart(placed.label, added)) if added else latest.parts
    return Latency(least_ms=min(item.least_ms for item in before) + added, most_ms=latest.most_ms + added, parts=parts)
