"""What a set allows one to find out, and what each of it shows with a fault: from the same levels that the screens show."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Final

from tidy_trunk.core.drill.hidden import HiddenFault, controls_in_use
from tidy_trunk.core.gear.catalogue import Control, LeadClass, Power
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef, Run, edited
from tidy_trunk.core.sound.levels import Report, TrackLevel
from tidy_trunk.core.sound.simulation import meter_shows_dbfs, strays
from tidy_trunk.core.sound.trace import upstream_of

MINUTES: Final[Mapping[str, float]] = {
    "settings": 0.3,
    "plugs": 0.3,
    "meters": 0.3,
    "listen": 0.5,
    "play-back": 2.0,
    "swap": 2.0,
    "battery": 1.0,
}
"""ASSUMED_ how long each takes with everything at hand, in minutes; by common practice, and not measured."""

BUCKET_DB: Final = 6.0
"""ASSUMED_ difference in level that an ear is sure of without a comparison."""


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
        return self.code in ("listen", "play-back")


Observation = tuple[object, ...]
"""What a probe shows, to be compared with what another fault would show. ASSUMED_"""


class DrillRig:
    """A rig as it is planned, with all that can be done on it."""

    def __init__(self, report: Report) -> None:
        self.report = report
        self.index = report.index
        depths = _depths(report)
        in_use = [unit for unit in self.index.units() if self._has_part(unit)]
        self.chain = sorted(in_use, key=lambda unit: depths.get(unit.device.id, math.inf))
        self.runs = sorted(self.index.plan.runs.values(), key=lambda run: run.number)

    def _has_part(self, unit: PlacedDevice) -> bool:
        refs = [PortRef(unit.device.id, port.id) for port in unit.device_class.ports]
        return any(self.index.arriving.get(ref) or self.index.leaving.get(ref) for ref in refs)

    @cached_property
    def probes(self) -> tuple[Probe, ...]:
        """From the sources on: sockets with their switches, plugs, meters, headphones, other cables, batteries."""
        return tuple(self._probes())

    def _probes(self) -> Iterator[Probe]:
        for unit in self.chain:
            yield from (Probe(code="settings", device=unit.device.id, port=port) for port in self._ports(unit))
            recorded = [bus for bus in unit.device_class.buses if self.report.track(f"{unit.device.id}.{bus.id}")]
            if recorded:
                yield Probe(code="meters", device=unit.device.id)
                free = [
                    port
                    for port in unit.device_class.outputs
                    if port.is_headphone and not self.index.leaving.get(PortRef(unit.device.id, port.id))
                ]
                yield Probe(code="listen" if free else "play-back", device=unit.device.id)
            if {Power.BATTERY, Power.MAINS} <= set(unit.device_class.traits.powers):
                yield Probe(code="battery", device=unit.device.id)
        for run in self.runs:
            if self.index.unit(run.sending.device).output(run.sending.port).circuit.is_analogue:
                yield Probe(code="plugs", run=run.id)
                if run.parts:
                    yield Probe(code="swap", run=run.id)

    def _ports(self, unit: PlacedDevice) -> Iterator[str]:
        """Sockets and tracks in use that have anything to set, and "" for the device itself."""
        used = dict.fromkeys(control.port for control in self.controls(unit.device.id))
        yield from used

    def controls(self, device: str, port: str | None = None) -> tuple[Control, ...]:
        """What is set on a device, on one of its sockets or tracks."""
        in_use = controls_in_use(self.index, self.index.unit(device))
        return tuple(control for control in in_use if port is None or control.port == port)


def _depths(report: Report) -> dict[str, int]:
    """How far along the sound each device is; what no track comes by is not in it."""
    found: dict[str, int] = {}
    for track in report.tracks:
        for stage in upstream_of(track.trace.stage) if track.trace.stage.feeds else ():
            if stage.run is None and stage.device:
                found[stage.device] = max(found.get(stage.device, stage.depth), stage.depth)
    return found


class FaultyRig:
    """A rig with a fault in it, or with none."""

    def __init__(self, rig: DrillRig, fault: HiddenFault | None) -> None:
        self.rig = rig
        self.fault = fault
        edits = () if fault is None else fault.edits
        self.report = rig.report.edited(edited(rig.index.plan, edits)) if edits else rig.report

    @property
    def index(self) -> PlanIndex:
        return self.report.index

    def observe(self, probe: Probe) -> Observation:
        """What an probe shows. Equal observations cannot be told apart."""
        match probe.code:
            case "settings":
                unit = self.index.unit(probe.device)
                return tuple(
                    (control.id, unit.device.settings.get(control.id, control.default))
                    for control in self.rig.controls(probe.device, probe.port)
                )
            case "plugs":
                return self._plugs(probe.run)
            case "meters":
                return tuple((track.trace.id, self.reads(track)) for track in self.tracks(probe.device))
            case "listen" | "play-back":
                return tuple((track.trace.id, tuple(sorted(self.heard(track)))) for track in self.tracks(probe.device))
            case "swap":
                return (self._is_in_cable(probe.run),)
            case "battery":
                return (self.fault is not None and self.fault.code == "mains" and self.fault.device == probe.device,)
        raise ValueError(probe.code)

    def heard(self, track: TrackLevel) -> frozenset[Impression]:
        """What one hears of a track, beside what was planned for it."""
        planned = self.rig.report.track(track.trace.id)
        found = set()
        if track.is_silent:
            found.add(Impression.SILENT)
        elif planned is not None and not planned.is_silent:
            louder_db = track.sound.average - planned.sound.average
            if abs(louder_db) >= BUCKET_DB:
                found.add(Impression.LOUD if louder_db > 0 else Impression.QUIET)
            if track.clip is not None and planned.clip is None:
                found.add(Impression.DISTORTED)
            if self._hisses(track) and not self._hisses(planned):
                found.add(Impression.HISS)
        upstream = {stage.run.id for stage in upstream_of(track.trace.stage) if stage.run is not None}
        if self._strays & upstream and not self._planned_strays & upstream:
            found.add(Impression.HUM)
        if not track.is_silent and any(self.is_loose(run_id) for run_id in upstream):
            found.add(Impression.DROPOUTS)
        if self._is_automatic(track):
            found.add(Impression.UNSTEADY)
        return frozenset(found or {Impression.AS_PLANNED})

    def meter_dbfs(self, track: TrackLevel) -> float | None:
        """What the meter shows while somebody speaks, which may lie as those of its class do; None in silence."""
        level = track.sound.average
        return meter_shows_dbfs(self.index.plan, track.trace.device, level) if math.isfinite(level) else None

    def reads(self, track: TrackLevel) -> Impression:
        """A meter beside what it should read: nobody tells a fault from the very decibel."""
        planned = self.rig.report.track(track.trace.id)
        now, then = self.meter_dbfs(track), None if planned is None else self.meter_dbfs(planned)
        if now is None:
            return Impression.AS_PLANNED if then is None else Impression.SILENT
        if then is None or abs(now - then) < BUCKET_DB:
            return Impression.AS_PLANNED
        return Impression.LOUD if now > then else Impression.QUIET

    def _hisses(self, track: TrackLevel) -> bool:
        return track.gear_noise_a > track.room_noise_a

    def _is_automatic(self, track: TrackLevel) -> bool:
        fault = self.fault
        if fault is None or fault.code != "automatic":
            return False
        port = fault.control.partition(".")[0]
        feeds = {feed.name for feed, _ in track.trace.stage.feeds} | {track.trace.bus}
        return track.trace.device == fault.device and port in feeds

    def tracks(self, device: str) -> Sequence[TrackLevel]:
        """Those that something was planned for, or that have something now."""
        planned = {track.trace.id for track in self.rig.report.tracks_of(device) if not track.is_silent}
        return [track for track in self.report.tracks_of(device) if track.trace.id in planned or not track.is_silent]

    def _plugs(self, run_id: str) -> Observation:
        """Where a cable goes, what it looks like from outside, and whether a plug moves when one wiggles it."""
        run = self.plugged(run_id)
        return (run.sending, run.receiving, self._looks_of(run), self.is_loose(run_id))

    def looks_planned(self, run_id: str) -> bool:
        """Whether a cable looks like the one that was planned, whatever is inside."""
        return self._looks_of(self.plugged(run_id)) == self._looks_of(self.rig.index.plan.runs[run_id])

    def is_loose(self, run_id: str) -> bool:
        return self.fault is not None and self.fault.code == "loose" and self.fault.run == run_id

    def _looks_of(self, run: Run) -> Observation:
        return tuple(_looks(self.index.lead_of(part)) for part in run.parts)

    def plugged(self, run_id: str) -> Run:
        """A broken cable is plugged in as any other."""
        return self.index.plan.runs.get(run_id) or self.rig.index.plan.runs[run_id]

    def _is_in_cable(self, run_id: str) -> bool:
        """Whether the fault is gone with the right cable in place of the one that is there."""
        fault = self.fault
        return (
            fault is not None and fault.run == run_id and fault.code in ("break", "wrong-cable", "pad-missing", "loose")
        )

    @cached_property
    def _strays(self) -> frozenset[str]:
        return frozenset(strays(self.index))

    @cached_property
    def _planned_strays(self) -> frozenset[str]:
        return frozenset(strays(self.rig.index))


def _looks(lead: LeadClass) -> Observation:
    """Of a cable: its plugs, and what is printed on it. How it is wired inside is not seen."""
    loss_db = None if lead.loss_db is None else lead.loss_db.value
    return (lead.sending, lead.receiving, loss_db, lead.isolates, len(lead.ways))
