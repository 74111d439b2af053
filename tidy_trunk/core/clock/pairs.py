"""By what picture and sound will meet afterwards: for every camera and every recorder."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from tidy_trunk.core.catalogue import Kind
from tidy_trunk.core.clock.keepers import Keeper, first_giver
from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import Role


class Meets(StrEnum):
    """What both have, the surest first."""

    TIMECODE = "timecode"
    SOUND = "the same sound"
    CLAP = "a clap alone"


@dataclass(frozen=True, slots=True, kw_only=True)
class Pair:
    """A camera and a recorder. by: all that both have; sources: those that both hear; a clap is always made besides."""

    camera: str
    recorder: str
    by: tuple[Meets, ...]
    sources: tuple[str, ...]


def pairs(report: Report, keepers: Sequence[Keeper]) -> tuple[Pair, ...]:
    """Every camera with every recorder that records something, in the order of the plan. Source: [HANDBOOK] §8"""
    rig = report.rig
    known = {keeper.device: keeper for keeper in keepers}
    heard: dict[str, list[str]] = {}
    for track in report.tracks:
        if track.role is not Role.TIMECODE and not track.is_silent:
            sources = heard.setdefault(track.trace.device, [])
            sources += [source for source in track.sources if source not in sources]
    cameras = [device for device in rig.plan.devices if rig.unit(device).device_class.kind is Kind.CAMERA]
    recorders = [
        device
        for device in rig.plan.devices
        if heard.get(device) and rig.unit(device).device_class.kind not in (Kind.CAMERA, Kind.SWITCHER)
    ]
    found = []
    for camera in cameras:
        for recorder in recorders:
            givers = {first_giver(rig, known, device) for device in (camera, recorder)}
            both = tuple(source for source in heard.get(camera, []) if source in heard[recorder])
            by = [Meets.TIMECODE] if len(givers) == 1 and "" not in givers else []
            by += [Meets.SOUND] if both else []
            found.append(Pair(camera=camera, recorder=recorder, by=tuple(by) or (Meets.CLAP,), sources=both))
    return tuple(found)
