"""A rig as it is planned: what a set allows one to do on it, how long each takes, and what can be told from it."""

import math
from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Final

from tidy_trunk.core.drill.misset import controls_in_use, has_headphones, records
from tidy_trunk.core.gear.catalogue import Circuit, Control, Power
from tidy_trunk.core.plan import PlacedDevice, PortRef
from tidy_trunk.core.sound.levels import Report, TrackLevel, sender_of
from tidy_trunk.core.sound.trace import StageKind, upstream_of
from tidy_trunk.core.time.clock import TimecodeDevice, timecode_devices

MINUTES: Final[Mapping[str, float]] = {
    "settings": 0.3,
    "plugs": 0.3,
    "meters": 0.3,
    "listen": 0.5,
    "shout": 0.5,
    "tone": 1.0,
    "play-back": 2.0,
    "clap": 3.0,
    "swap": 2.0,
    "battery": 1.0,
}
"""ASSUMED_ how long each takes with everything at hand, in minutes; by common practice, and not measured."""


class Impression(StrEnum):
    """What one hears on a track."""

    SILENT = "silent"
    QUIET = "quiet"
    AS_PLANNED = "as-planned"
    LOUD = "loud"
    DISTORTED = "distorted"
    HISS = "hiss"
    HUM = "hum"
    DROPOUTS = "dropouts"
    UNSTEADY = "unsteady"
    HOLLOW = "hollow"
    CHATTER = "chatter"
    FLAT = "flat"
    NOTHING = "nothing"


class ClapComparison(StrEnum):
    """How a device's file lies beside the others, found by a clap."""

    AS_PLANNED = "as-planned"
    NOTHING = "nothing"
    ELSEWHERE = "elsewhere"
    OTHER_RATE = "other-rate"
    STANDS_STILL = "stands-still"
    RUNS_OFF = "runs-off"


@dataclass(frozen=True, slots=True, kw_only=True)
class Probe:
    """Something to do. code: a key of MINUTES; device, port, run: where."""

    code: str
    device: str = ""
    port: str = ""
    run: str = ""

    @property
    def id(self) -> str:
        return ":".join(filter(None, (self.code, self.device, self.port, self.run)))

    @property
    def minutes(self) -> float:
        return MINUTES[self.code]

    @property
    def is_heard(self) -> bool:
        """Whether one listens to tracks."""
        return self.code in ("listen", "play-back", "shout")

    @property
    def is_of_files(self) -> bool:
        """Whether it shows what would be wrong with the recordings."""
        return self.is_heard or self.code == "clap"


Observation = tuple[object, ...]
"""What a probe shows, to be compared with what another fault would show. ASSUMED_"""


class DrillRig:
    """A rig as it is planned, with all that can be done on it."""

    def __init__(self, report: Report) -> None:
        self.report = report
        self.index = report.index
        depths = _depths(report)
        in_use = [placed for placed in self.index.placed_devices() if self._has_part(placed)]
        self.chain = sorted(in_use, key=lambda placed: depths.get(placed.device.id, math.inf))
        self.runs = sorted(self.index.plan.runs.values(), key=lambda run: run.number)

    def _has_part(self, placed: PlacedDevice) -> bool:
        refs = [PortRef(placed.device.id, port.id) for port in placed.device_class.ports]
        return any(self.index.arriving.get(ref) or self.index.leaving.get(ref) for ref in refs)

    @cached_property
    def probes(self) -> tuple[Probe, ...]:
        """From the sources on: sockets with their switches, plugs, meters, headphones, other cables, batteries."""
        return tuple(self._probes())

    def _probes(self) -> Iterator[Probe]:
        for placed in self.chain:
            yield from (Probe(code="settings", device=placed.device.id, port=port) for port in self._ports(placed))
            if any(not track.is_silent for track in self.report.tracks_of(placed.device.id)):
                yield from self._at_tracks(placed)
            if {Power.BATTERY, Power.MAINS} <= set(placed.device_class.traits.powers):
                yield Probe(code="battery", device=placed.device.id)
        for run in self.runs:
            circuit = self.index.placed(run.sending.device).output(run.sending.port).circuit
            if circuit.is_analogue or circuit is Circuit.TIMECODE:
                yield Probe(code="plugs", run=run.id)
                if run.parts:
                    yield Probe(code="swap", run=run.id)
        if sum(records(placed) for placed in self.chain) > 1:
            yield Probe(code="clap")

    def _at_tracks(self, placed: PlacedDevice) -> Iterator[Probe]:
        device = placed.device.id
        yield Probe(code="meters", device=device)
        if any(
            port.is_headphone and not self.index.leaving.get(PortRef(device, port.id))
            for port in placed.device_class.outputs
        ):
            yield Probe(code="listen", device=device)
            yield Probe(code="shout", device=device)
        if records(placed):
            yield Probe(code="play-back", device=device)
        if any(self.tone_sender(track) for track in self.report.tracks_of(device)):
            yield Probe(code="tone", device=device)

    def tone_sender(self, track: TrackLevel) -> str:
        """The device before a track's own that can send tone to it; "" where none does."""
        sender = sender_of(self.index, track.trace.stage)
        return "" if sender is None else sender.device

    def _ports(self, placed: PlacedDevice) -> Iterator[str]:
        """Sockets and tracks in use that have anything to set, and "" for the device itself."""
        own = [""] if records(placed) or has_headphones(placed) or placed.device.id in self.clocks else []
        yield from dict.fromkeys([*own, *(control.port for control in self.controls(placed.device.id))])

    @cached_property
    def microphones(self) -> Mapping[str, frozenset[str]]:
        """By track, the microphones that were planned to reach it; none for a track that is not planned."""
        found = defaultdict[str, frozenset[str]](frozenset)
        for track in self.report.tracks:
            upstream = upstream_of(track.trace.stage)
            found[track.trace.id] = frozenset(stage.device for stage in upstream if stage.kind is StageKind.MICROPHONE)
        return found

    @cached_property
    def sources_of(self) -> Mapping[str, frozenset[str]]:
        """By microphone, what it hears."""
        found = defaultdict[str, frozenset[str]](frozenset)
        for track in self.report.tracks:
            if len(self.microphones[track.trace.id]) == 1:
                (microphone,) = self.microphones[track.trace.id]
                found[microphone] |= frozenset(track.sources)
        return found

    @cached_property
    def clocks(self) -> Mapping[str, TimecodeDevice]:
        """What keeps time in it, by device."""
        return {item.device: item for item in timecode_devices(self.report)}

    def controls(self, device: str, port: str | None = None) -> tuple[Control, ...]:
        """What is set on a device, on one of its sockets or tracks."""
        in_use = controls_in_use(self.index, self.index.placed(device))
        return tuple(control for control in in_use if port is None or control.port == port)


def _depths(report: Report) -> dict[str, int]:
    """How far along the sound each device is; what no track comes by is not in it."""
    found: dict[str, int] = {}
    for track in report.tracks:
        for stage in upstream_of(track.trace.stage) if track.trace.stage.feeds else ():
            if stage.run is None and stage.device:
                found[stage.device] = max(found.get(stage.device, stage.depth), stage.depth)
    return found
