"""A gain plan for a whole job: what to set, in the order of the work, why, and what comes of it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.catalogue import Control, ControlKind, InputPort, Setting, controls_of
from tidy_trunk.core.checks import Finding, Severity, check
from tidy_trunk.core.gain.order import devices_in_order
from tidy_trunk.core.gain.settle import Pins, Progress, settle_device
from tidy_trunk.core.levels import Report, Sound, TrackLevel
from tidy_trunk.core.plan import Edit, Plan, PortRef, Rig, SetControl, Unit, apply_edits
from tidy_trunk.core.trace import accept
from tidy_trunk.errors import TidyTrunkError

NO_PINS: Final[Pins] = frozenset()
"""ASSUMED_ that everything may be moved unless somebody pins it."""

JUST_DB: Final = 0.5
"""ASSUMED_ what is printed as no decibel at all."""

_MOST_CURES = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One control to move: `was` and `now` in words, and why in a sentence."""

    device: str
    control: str
    label: str
    was: str
    now: str
    why: str
    edit: SetControl


@dataclass(frozen=True, slots=True)
class TrackChange:
    """A recorded track before and after; the stages are those of two different plans."""

    label: str
    before: TrackLevel
    after: TrackLevel


@dataclass(frozen=True, slots=True, kw_only=True)
class GainPlan:
    """Steps in the order of the work, the tracks with what they would hold, and the stops that no setting cures."""

    steps: tuple[Step, ...]
    tracks: tuple[TrackChange, ...]
    stops_before: int
    stops_left: tuple[Finding, ...]

    @property
    def edits(self) -> tuple[Edit, ...]:
        return tuple(step.edit for step in self.steps)


def gain_plan(report: Report, pins: Pins = NO_PINS) -> GainPlan:
    """Where every knob and level switch of a job should stand.

    From the microphones on, device by device; at each joint every position is tried. First nothing may clip, then
    something must arrive, on target, sure of the sender's full scale, with room for a burst; then the gear should not
    be heard, a camera stand one step above its lowest, few things be moved, and knobs stand on round positions.
    Switches that end a stop (phantom power, say) are thrown too, and automatic level and low cut before all else. A plan that would be worse than what stands is none.

    Args:
        report: The job as it stands.
        pins: Controls to leave alone, as (device, control).

    Source: [HANDBOOK] §6, order of work and where gain belongs.
    """
    before = report.rig.plan
    stops = _stops(report)
    cures: dict[tuple[str, str], str] = {}
    plan = _cured(_switched(report, pins, cures), pins, cures)
    progress = Progress(plan)
    done: set[str] = set()
    for device in devices_in_order(progress.rig):
        settle_device(progress, device, pins, done)
    plan = _cured(progress.plan, pins, cures)
    after = Report(accept(plan))
    left = _stops(after)
    if len(left) > len(stops):
        plan, after, left = before, report, stops
    return GainPlan(
        steps=tuple(_steps(report, after, cures)),
        tracks=tuple(_tracks(report, after)),
        stops_before=len(stops),
        stops_left=tuple(left),
    )


def _stops(report: Report) -> list[Finding]:
    return [finding for finding in check(report) if finding.severity is Severity.STOP]


def _cured(plan: Plan, pins: Pins, cures: dict[tuple[str, str], str]) -> Plan:
    """The plan with every stop ended that switches alone can end; `cures` is told which switch ended what."""
    for _ in range(_MOST_CURES):
        stops = _stops(Report(accept(plan)))
        changed, ended = plan, dict(cures)
        for finding in stops:
            edits = _switches(finding, pins)
            if edits:
                try:
                    changed, _ = apply_edits(changed, edits)
                except TidyTrunkError:
                    continue
                ended.update({(edit.device, edit.control): finding.title for edit in edits})
        if changed is plan or len(_stops(Report(accept(changed)))) >= len(stops):
            return plan
        plan = changed
        cures.update(ended)
    return plan


def _switched(report: Report, pins: Pins, cures: dict[tuple[str, str], str]) -> Plan:
    """The plan with what would undo a gain plan, or take its headroom, switched as the checks say."""
    plan = report.rig.plan
    for finding in check(report):
        edits = _switches(finding, pins) if finding.rule in _SWITCHED else []
        for edit in edits:
            plan = edit.apply(plan)
            cures[edit.device, edit.control] = finding.title
    return plan


_SWITCHED: Final = ("automatic-level", "rumble")


def _switches(finding: Finding, pins: Pins) -> list[SetControl]:
    """The first fix of a finding that only throws switches; empty where there is none."""
    for fix in finding.fixes:
        edits = [edit for edit in fix.edits if isinstance(edit, SetControl)]
        if len(edits) == len(fix.edits) and not any((edit.device, edit.control) in pins for edit in edits):
            return edits
    return []


def _steps(before: Report, after: Report, cures: dict[tuple[str, str], str]) -> Iterator[Step]:
    """What differs, in the order of the work: from the microphones on, and at each device the largest switch first."""
    for device in devices_in_order(after.rig):
        was, unit = before.rig.unit(device), after.rig.unit(device)
        if was.device.settings == unit.device.settings:
            continue
        moved = [
            control
            for control in controls_of(unit.device_class).values()
            if _value(was, control) != _value(unit, control)
        ]
        for control in sorted(moved, key=lambda control: _WORK.index(control.kind)):
            port = f"{unit.port(control.port).label} " if control.port else ""
            yield Step(
                device=device,
                control=control.id,
                label=f"{unit.label} {port}{control.label}",
                was=control.words(_value(was, control)),
                now=control.words(_value(unit, control)),
                why=_why(after, unit, control, cures),
                edit=SetControl(device=device, control=control.id, value=_value(unit, control)),
            )


_WORK: Final = (ControlKind.CHOICE, ControlKind.SWITCH, ControlKind.KNOB, ControlKind.FREQUENCY)


def _value(unit: Unit, control: Control) -> Setting:
    return unit.device.settings.get(control.id, control.default)


def _why(report: Report, unit: Unit, control: Control, cures: dict[tuple[str, str], str]) -> str:
    cured = cures.get((unit.device.id, control.id))
    if cured is not None:
        return f"ends: {cured}"
    found = next(_reached(report, unit, control.port), None)
    if found is None:
        return "so that what follows is not driven too hard"
    label, sound = found
    what = f"{label} then averages {sound.average:.0f}, peaks {sound.peak:.0f} dBFS".replace("-", "−")
    if sound.clip is not None:
        return f"{what}, cut by {sound.clip.over_db:.0f} dB at {sound.clip.where}"
    if sound.burst_clip is not None and sound.burst_clip.over_db >= JUST_DB:
        return f"{what}; a burst would go {sound.burst_clip.over_db:.0f} dB over at {sound.burst_clip.where}"
    if sound.limited_db:
        return f"{what}; the limiter takes {sound.limited_db:.0f} dB off a burst"
    return f"{what}; a burst keeps {-sound.burst:.0f} dB" if -sound.burst >= JUST_DB else f"{what}; a burst just fits"


def _reached(report: Report, unit: Unit, port: str) -> Iterator[tuple[str, Sound]]:
    """Tracks, else mixes, that a port's own device or the one at the other end makes of it, in words with their sound."""
    rig = report.rig
    sends = (unit.device.id, port or "out")  # a control of a microphone itself acts at its output
    ends = {run.receiving for run in rig.plan.runs.values() if run.sending == sends}
    if port and isinstance(unit.port(port), InputPort):
        ends = {PortRef(unit.device.id, port)}
    for device in dict.fromkeys(end.device for end in ends):
        receiver = rig.unit(device)
        for bus in sorted(receiver.device_class.buses, key=lambda bus: not bus.recorded):
            stage = report.tracer.bus(device, bus.id)
            if any((device, feed.name) in ends for feed, _ in stage.feeds):
                yield receiver.bus_label(bus.id), report.reckoner.track_sound(stage)


def _tracks(before: Report, after: Report) -> Iterator[TrackChange]:
    for track in after.tracks:
        was = before.track(track.trace.id)
        if was is not None and not (track.is_silent and was.is_silent):
            yield TrackChange(_label(after.rig, track), was, track)


def _label(rig: Rig, track: TrackLevel) -> str:
    return rig.unit(track.trace.device).bus_label(track.trace.bus)
