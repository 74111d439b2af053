"""What of one's own equipment is meant where only a kind was named: one's own comes first."""

from collections.abc import Iterator, Mapping
from typing import Final

from tidy_trunk.core.gear.catalogue import DeviceClass, DeviceKind, Signal, built_in

NOTHING_LIES: Final[Mapping[str, int]] = {}
"""ASSUMED_ trunk of whoever has said nothing of it."""


def own_recorder(own: Mapping[str, DeviceClass], lying: Mapping[str, int], microphones: int) -> str | None:
    """The recorder of one's own that has inputs enough, and of those the one that has fewest; None where none has.

    own: classes of the user's own. lying: by class of device or cable, how many lie in the trunk.
    """
    known = [(_inputs(item), item.id) for item in _devices(own, lying) if item.kind is DeviceKind.RECORDER]
    return min((found for found in known if found[0] >= microphones), default=(0, None))[1]


def own_camera(own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> str | None:
    """The first camera of one's own; None where there is none."""
    return next((item.id for item in _devices(own, lying) if item.kind is DeviceKind.CAMERA), None)


def _devices(own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> Iterator[DeviceClass]:
    yield from own.values()
    yield from (item for name in lying if name not in own and (item := built_in().devices.get(name)) is not None)


def _inputs(item: DeviceClass) -> int:
    """Microphones that a device takes, one to a channel."""
    takers = [port for port in item.inputs if any(mode.signal is Signal.MIC for mode in port.modes)]
    return sum(len(port.channels) for port in takers)
