"""What each probe shows with a fault in the rig: from the same levels and clocks that the screens show."""

import math
from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import Final

from tidy_trunk.core.drill.hidden import IN_THE_CABLE, HiddenFault
from tidy_trunk.core.drill.misset import records
from tidy_trunk.core.drill.miswired import SMALL_PLUGS
from tidy_trunk.core.drill.rig import ClapComparison, DrillRig, Impression, Observation, Probe
from tidy_trunk.core.gear.catalogue import Bus, LeadClass, channel_refs
from tidy_trunk.core.plan import PlanIndex, PortRef, Run, edited
from tidy_trunk.core.sound.levels import LevelSolver, Report, TrackLevel
from tidy_trunk.core.sound.simulation import meter_shows_dbfs, strays
from tidy_trunk.core.sound.trace import upstream_of
from tidy_trunk.core.time.clock import TimecodeDevice, TimecodeFrom, timecode_devices, timecode_tracks

BUCKET_DB: Final = 6.0
"""ASSUMED_ difference in level that an ear is sure of without a comparison."""

TONE_DB: Final = 1.0
"""ASSUMED_ difference that a steady tone shows on a meter."""

FLAT_DB: Final = 3.0
"""ASSUMED_ by how much more a limiter has to press a shout down before it is heard."""


def _chain(clocks: Mapping[str, TimecodeDevice], device: str) -> tuple[tuple[str, TimecodeFrom], ...]:
    """By whom and how a device gets its time, and these theirs, up to where it comes from."""
    found = dict[str, TimecodeFrom]()
    while device in clocks and device not in found:
        found[device] = clocks[device].gets
        device = clocks[device].giver
    return tuple(found.items())


class FaultyRig:
    """A rig with faults in it, or with none.

    Raises InputError, PlanError: the faults cannot both be there.
    """

    def __init__(self, rig: DrillRig, faults: Sequence[HiddenFault] = ()) -> None:
        self.rig = rig
        self.faults = tuple(faults)
        edits = [edit for fault in self.faults for edit in fault.edits]
        self.report = rig.report.edited(edited(rig.index.plan, edits)) if edits else rig.report

    def _has(self, *codes: str, device: str = "", run: str = "") -> bool:
        return any(
            fault.code in codes and device in ("", fault.device) and run in ("", fault.run) for fault in self.faults
        )

    @property
    def index(self) -> PlanIndex:
        return self.report.index

    def observe(self, probe: Probe) -> Observation:
        """What a probe shows. Equal observations cannot be told apart."""
        match probe.code:
            case "settings":
                return self._settings(probe.device, probe.port)
            case "plugs":
                return self._plugs(probe.run)
            case "meters":
                return tuple((name, self.reads(name)) for name in self.heard_names(probe.device))
            case "listen" | "play-back" | "shout":
                names = self.heard_names(probe.device)
                return tuple((name, tuple(sorted(self.told_by(probe, name)))) for name in names)
            case "tone":
                return tuple((track.trace.id, self.tone_off_db(track)) for track in self.tone_tracks(probe.device))
            case "clap":
                return tuple(
                    (placed.device.id, self.together(placed.device.id)) for placed in self.rig.chain if records(placed)
                )
            case "swap":
                return (self._has(*IN_THE_CABLE, run=probe.run),)
            case "battery":
                return (self._has("mains", device=probe.device),)
        raise ValueError(probe.code)

    def _settings(self, device: str, port: str) -> Observation:
        placed = self.index.placed(device)
        stand = [
            (control.id, placed.device.settings.get(control.id, control.default))
            for control in self.rig.controls(device, port)
        ]
        if port == "":
            return (*stand, self.is_rolling(device), self.hears_all(device), self.timecode_from(device))
        return (*stand, *(bus.id for bus in self.gives(device, port)))

    def is_rolling(self, device: str) -> bool:
        """Whether its record button was pressed."""
        return not self._has("rolling", device=device)

    def hears_all(self, device: str) -> bool:
        """Whether its headphones are on all tracks, and not on the first alone."""
        return not self._has("monitor", device=device)

    def is_off_the_ears(self, probe: Probe, track_id: str) -> bool:
        """Whether a track is not on the headphones, whatever is recorded of it."""
        listens = probe.code in ("listen", "shout") and not self.hears_all(probe.device)
        return listens and track_id != self.heard_names(probe.device)[0]

    def timecode_from(self, device: str) -> tuple[TimecodeFrom, str]:
        """How it comes by its time, and from whom."""
        clock = self._clocks.get(device)
        return (TimecodeFrom.NOTHING, "") if clock is None else (clock.gets, clock.giver)

    def gives(self, device: str, port: str) -> list[Bus]:
        """Mixes and tracks that an output gives, channel by channel; none of an input."""
        placed = self.index.placed(device)
        ports = [one for one in placed.device_class.outputs if one.id == port]
        buses = [placed.fed_bus(channel) for one in ports for channel in channel_refs(one)]
        return [bus for bus in buses if bus is not None]

    @cached_property
    def _clocks(self) -> Mapping[str, TimecodeDevice]:
        return {item.device: item for item in timecode_devices(self.report)}

    def together(self, device: str) -> ClapComparison:
        """How its file would lie beside the others."""
        planned, now = self.rig.clocks.get(device), self._clocks.get(device)
        if not self.is_rolling(device):
            return ClapComparison.NOTHING
        if self.index.placed(device).sample_rate_hz != self.rig.index.placed(device).sample_rate_hz:
            return ClapComparison.RUNS_OFF
        if planned is None or now is None or planned.gets is TimecodeFrom.NOTHING:
            return ClapComparison.AS_PLANNED
        if _chain(self._clocks, device) != _chain(self.rig.clocks, device):
            return ClapComparison.ELSEWHERE
        if now.rate != planned.rate:
            return ClapComparison.OTHER_RATE
        return ClapComparison.STANDS_STILL if now.records_run and not planned.records_run else ClapComparison.AS_PLANNED

    def told_by(self, probe: Probe, track_id: str) -> frozenset[Impression]:
        """What one hears of a track, listening to it, in a shout, or played back."""
        track = self.report.track(track_id)
        if probe.code == "play-back" and (track is None or not self.is_rolling(probe.device)):
            return frozenset({Impression.NOTHING})
        if track is None or self.is_off_the_ears(probe, track_id):
            return frozenset({Impression.SILENT})
        return self.shouted(track) if probe.code == "shout" else self.heard(track)

    def heard_names(self, device: str) -> list[str]:
        """Tracks that something was planned for, or that have something now; what is not armed any more is one of them."""
        reports = (self.rig.report, self.report)
        return list(
            dict.fromkeys(
                track.trace.id for report in reports for track in report.tracks_of(device) if not track.is_silent
            )
        )

    def tone_tracks(self, device: str) -> list[TrackLevel]:
        """Tracks that a tone was planned to reach."""
        return [track for track in self.rig.report.tracks_of(device) if self.rig.tone_sender(track)]

    def tone_off_db(self, planned: TrackLevel) -> float | None:
        """By how much the tone reads otherwise than planned, in steps of a decibel; None where it does not arrive."""
        sender = self.rig.tone_sender(planned)
        now, then = (_tone_dbfs(rig, sender, planned.trace.id) for rig in (self.report, self.rig.report))
        if not math.isfinite(then) or not math.isfinite(now):
            return 0.0 if now == then else None
        return round((now - then) / TONE_DB) * TONE_DB

    def shouted(self, track: TrackLevel) -> frozenset[Impression]:
        """What one hears of a shout, beside what was planned."""
        planned = self.rig.report.track(track.trace.id)
        if track.is_silent:
            return frozenset({Impression.SILENT})
        found = set()
        clips, clipped = (
            one is not None and (one.sound.burst_clip or one.clip) is not None for one in (track, planned)
        )
        if clips and not clipped:
            found.add(Impression.DISTORTED)
        if planned is not None and track.sound.limited_db >= planned.sound.limited_db + FLAT_DB:
            found.add(Impression.FLAT)
        return frozenset(found or {Impression.AS_PLANNED})

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
        if track.trace.id in self._beside_timecode:
            found.add(Impression.CHATTER)
        if self._is_against_others(track):
            found.add(Impression.HOLLOW)
        return frozenset(found or {Impression.AS_PLANNED})

    def meter_dbfs(self, track: TrackLevel) -> float | None:
        """What the meter shows while somebody speaks, which may lie as those of its class do; None in silence."""
        level = track.sound.average
        return meter_shows_dbfs(self.index.plan, track.trace.device, level) if math.isfinite(level) else None

    def reads(self, track_id: str) -> Impression:
        """A meter beside what it should read: nobody tells a fault from the very decibel."""
        now, then = (
            None if track is None else self.meter_dbfs(track)
            for track in (self.report.track(track_id), self.rig.report.track(track_id))
        )
        if now is None:
            return Impression.AS_PLANNED if then is None else Impression.SILENT
        if then is None or abs(now - then) < BUCKET_DB:
            return Impression.AS_PLANNED
        return Impression.LOUD if now > then else Impression.QUIET

    def _hisses(self, track: TrackLevel) -> bool:
        return track.gear_noise_a > track.room_noise_a

    def _is_automatic(self, track: TrackLevel) -> bool:
        feeds = {feed.name for feed, _ in track.trace.stage.feeds} | {track.trace.bus}
        return any(
            fault.code == "automatic"
            and fault.device == track.trace.device
            and fault.control.partition(".")[0] in feeds
            for fault in self.faults
        )

    def _is_against_others(self, track: TrackLevel) -> bool:
        """Whether one of its microphones, reversed, takes something away from another one that hears the same: in this mix, or on
        another track when both are heard in one ear."""
        reverse = self._reversed & self.rig.microphones[track.trace.id]
        if track.is_silent or not reverse:
            return False
        beside = [one for one in self.report.tracks_of(track.trace.device) if not one.is_silent]
        others = frozenset().union(*(self.rig.microphones[one.trace.id] for one in beside)) - self._reversed
        heard = self.rig.sources_of
        return any(heard[mine] & heard[other] for mine in reverse for other in others)

    @cached_property
    def _beside_timecode(self) -> frozenset[str]:
        """Tracks in the same socket as timecode that comes in too loud."""
        runs = [self.index.plan.runs[fault.run] for fault in self.faults if fault.code == "timecode-beside"]
        into = {(run.sending.device, run.receiving.device) for run in runs}
        tracks = timecode_tracks(self.report) if into else ()
        return frozenset(
            beside
            for track in tracks
            if (track.giver, track.track.partition(".")[0]) in into
            for beside in track.beside
        )

    @cached_property
    def _reversed(self) -> frozenset[str]:
        """Microphones that arrive upside down where they have a track to themselves, and were not planned so."""
        return frozenset(
            microphone
            for track in self.report.tracks
            for microphone in self.rig.microphones[track.trace.id]
            if len(self.rig.microphones[track.trace.id]) == 1
            and track.sound.polarity != self.rig.report.known_track(track.trace.id).sound.polarity
        )

    def _plugs(self, run_id: str) -> Observation:
        """Where a cable goes, what it looks like from outside, and whether a plug moves when one wiggles it."""
        run = self.plugged(run_id)
        return (run.sending, run.receiving, self._looks_of(run), self.is_loose(run_id), self.is_out(run_id))

    def looks_planned(self, run_id: str) -> bool:
        """Whether a cable looks like the one that was planned, whatever is inside."""
        return self._looks_of(self.plugged(run_id)) == self._looks_of(self.rig.index.plan.runs[run_id])

    def is_loose(self, run_id: str) -> bool:
        return self._has("loose", run=run_id)

    def loose_end(self, run_id: str) -> PortRef | None:
        """Of a run with a loose plug, the end that nothing locks; None where both sit firmly."""
        run = self.plugged(run_id)
        output = self.index.placed(run.sending.device).output(run.sending.port)
        if not self.is_loose(run_id):
            return None
        return run.sending if output.plug.connector in SMALL_PLUGS else run.receiving

    def is_out(self, run_id: str) -> bool:
        """Whether a plug of it lies beside its socket."""
        return self._has("timecode-out", run=run_id)

    def _looks_of(self, run: Run) -> Observation:
        return tuple(_looks(self.index.lead_of(part)) for part in run.parts)

    def plugged(self, run_id: str) -> Run:
        """A broken cable is plugged in as any other."""
        return self.index.plan.runs.get(run_id) or self.rig.index.plan.runs[run_id]

    @cached_property
    def _strays(self) -> frozenset[str]:
        return frozenset(strays(self.index))

    @cached_property
    def _planned_strays(self) -> frozenset[str]:
        return frozenset(strays(self.rig.index))


def _tone_dbfs(report: Report, sender: str, track_id: str) -> float:
    """What a tone of the usual level reads there."""
    track = report.track(track_id)
    if track is None:  # nothing is recorded there any more
        return -math.inf
    oscillators = {sender: report.index.tone_dbfs(sender)}
    return LevelSolver(report.index, oscillators=oscillators, line_ups={}).level(track.trace.stage).sound.average


def _looks(lead: LeadClass) -> Observation:
    """Of a cable: its plugs, and what is printed on it. How it is wired inside is not seen."""
    loss_db = None if lead.loss_db is None else lead.loss_db.value
    return (lead.sending, lead.receiving, loss_db, lead.isolates, len(lead.ways))
