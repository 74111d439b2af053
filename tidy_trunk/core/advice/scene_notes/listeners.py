"""Who hears what on the set: from which recorder a take can be played back, over which output, and what a live stream gets.

Source: [HANDBOOK] §14, what is easily forgotten: playback on set, and a live stream fed by the recorder.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, OutputPort
from tidy_trunk.core.plan import PlanIndex, PortRef, Run
from tidy_trunk.core.sound.levels import Report, TrackLevel

LISTENERS: Final = (DeviceKind.SPEAKER, DeviceKind.HEADPHONES, DeviceKind.MONITOR)
"""What people hear a take by, best first: a loudspeaker is heard by all who stand there. [PRACTICE]"""

PLAYERS: Final = (DeviceKind.RECORDER, DeviceKind.COMPUTER, DeviceKind.CAMERA)
"""What plays a take back, best first: a recorder has the sound that counts. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaybackPath:
    """A way for a take to be heard. output: of the recorder; run: the lead that goes in there; listener: at its end.

    With listener and run "" nothing is plugged in there, and something could be.
    """

    recorder: str
    output: PortRef
    run: str = ""
    listener: str = ""
    kind: DeviceKind | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class StreamFeed:
    """What goes out live on one channel of a device. sources: whose voices; average_dbfs: of them, None in silence."""

    device: str
    bus: str
    sources: tuple[str, ...]
    average_dbfs: float | None
    miss_db: float | None


def playbacks(report: Report) -> tuple[PlaybackPath, ...]:
    """Ways to play a take back, best first; where nobody could hear one, the free output at which somebody could."""
    index = report.index
    recording = {track.trace.device for track in report.tracks if track.is_reached}
    players = [
        placed.device.id
        for placed in index.placed_devices()
        if placed.device.id in recording and placed.device_class.kind in PLAYERS and placed.device_class.traits.media
    ]
    found = sorted(_heard(index, players), key=lambda way: _rank(index, way))
    players.sort(key=lambda device: PLAYERS.index(index.placed(device).device_class.kind))
    return tuple(found) or tuple(_free(index, players))[:1]


def _rank(index: PlanIndex, way: PlaybackPath) -> tuple[int, int]:
    player = index.placed(way.recorder).device_class.kind
    return PLAYERS.index(player), LISTENERS.index(way.kind) if way.kind is not None else len(LISTENERS)


def _heard(index: PlanIndex, players: Iterable[str]) -> Iterator[PlaybackPath]:
    for device in players:
        for output in index.placed(device).device_class.outputs:
            ref = PortRef(device, output.id)
            for run in index.leaving.get(ref, []):
                for listener in _listeners(index, run, {device}):
                    kind = index.placed(listener).device_class.kind
                    yield PlaybackPath(recorder=device, output=ref, run=run.id, listener=listener, kind=kind)


def _listeners(index: PlanIndex, run: Run, seen: set[str]) -> Iterator[str]:
    """Devices that people hear by at the end of a run, through whatever lies between."""
    device = run.receiving.device
    if device in seen:
        return
    seen.add(device)
    placed = index.placed(device)
    if placed.device_class.kind in LISTENERS:
        yield device
    elif not placed.device_class.is_recording or placed.device_class.kind is DeviceKind.MIXER:
        for output in placed.device_class.outputs:
            for onward in index.leaving.get(PortRef(device, output.id), []):
                yield from _listeners(index, onward, seen)


def _free(index: PlanIndex, players: Iterable[str]) -> Iterator[PlaybackPath]:
    """At each player the output to plug something into: the headphones' first, as people look for it there."""
    for device in players:
        outputs = sorted(index.placed(device).device_class.outputs, key=lambda port: not port.is_headphone)
        for output in outputs:
            ref = PortRef(device, output.id)
            if _is_for_ears(output) and not index.leaving.get(ref):
                yield PlaybackPath(recorder=device, output=ref)
                break


def _is_for_ears(output: OutputPort) -> bool:
    return output.is_headphone or output.circuit in (Circuit.BALANCED, Circuit.UNBALANCED_STEREO)


def stream_feeds(report: Report) -> tuple[StreamFeed, ...]:
    """What a live switcher sends on, channel by channel: its programme is what everybody hears who watches. [PRACTICE]"""
    return tuple(
        _feed(track)
        for track in report.tracks
        if report.index.placed(track.trace.device).device_class.kind is DeviceKind.SWITCHER
    )


def _feed(track: TrackLevel) -> StreamFeed:
    return StreamFeed(
        device=track.trace.device,
        bus=track.trace.bus,
        sources=track.sources,
        average_dbfs=None if track.is_silent else track.sound.average,
        miss_db=track.miss_db,
    )
