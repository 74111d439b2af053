"""What a walk along the chain looks at, device by device, in the order in which sound goes."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Final

from tidy_trunk.core.advice.line_up import LineUpStep, State, line_up_steps
from tidy_trunk.core.gear.catalogue import (
    Circuit,
    Control,
    ControlKind,
    DeviceKind,
    InputPort,
    Power,
    Supply,
    controls_of,
)
from tidy_trunk.core.plan import Hazard, PlacedDevice, PlanIndex, PortRef, Role, Run
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import StageKind, upstream_of
from tidy_trunk.core.time.clock import TimecodeDevice, TimecodeFrom, timecode_devices

TRODDEN: Final = frozenset({Hazard.WALKWAY, Hazard.DOORWAY})
"""Where people walk: leads there are taped or ramped. [HANDBOOK] §9"""

SOCKETS: Final = frozenset({Circuit.UNBALANCED_STEREO, Circuit.UNBALANCED})
"""What works loose: small plugs want strain relief. [HANDBOOK] §4"""

TIMECODE: Final = "timecode"
"""Group of what is looked at on two clocks at once. [HANDBOOK] §8"""

LAST: Final = "end"
"""Group of what is done once for all. [HANDBOOK] §6"""


@dataclass(frozen=True, slots=True, kw_only=True)
class WalkItem:
    """One thing to look at, without words. id: the same for the same thing in every walk.

    what: the kind of thing, which its words are chosen by; facts: what those need beside the plan, by name.
    device: where it is; "" for what is looked at on several at once. group: the device, TIMECODE or LAST.
    """

    id: str
    what: str
    group: str
    device: str = ""
    facts: Mapping[str, Any] = field(default_factory=dict)


def walk_items(report: Report) -> tuple[WalkItem, ...]:
    """Every item of a plan's walk. A device that nothing comes from or goes to is passed by."""
    found: list[WalkItem] = []
    steps = line_up_steps(report)
    clocks = timecode_devices(report)
    for placed in _in_order(report):
        mine = [step for step in steps if step.device == placed.device.id and not step.warning]
        found += _of_device(report, placed, mine)
    in_chain = {item.device for item in found}
    for placed in report.index.placed_devices():
        if placed.device_class.kind is DeviceKind.CAMERA and placed.device.id not in in_chain:
            found += _of_camera_alone(placed)
    found += [item for timecode_device in clocks for item in _of_clock(timecode_device)]
    return (*found, *_at_the_end(report))


def _item(placed: PlacedDevice, what: str, name: str = "", **facts: object) -> WalkItem:
    """`name`: what tells it apart from others of its kind on the device."""
    device = placed.device.id
    return WalkItem(id=f"{device}.{name or what}", what=what, group=device, device=device, facts=facts)


def _of_camera_alone(placed: PlacedDevice) -> Iterator[WalkItem]:
    """A camera that no sound is led to: it records by itself, and its own microphone is what it is found by."""
    if placed.power is not None:
        yield _item(placed, "power", power=placed.power, lasts=False)
    yield _item(placed, "card")
    yield _item(placed, "own-microphone")
    yield _item(placed, "rolling")


def _in_order(report: Report) -> list[PlacedDevice]:
    """The devices that sound goes through, those nearest to the sources first."""
    depths: dict[str, int] = {}
    for track in report.tracks:
        for stage in upstream_of(track.trace.stage) if track.trace.stage.feeds else ():
            if stage.kind not in (StageKind.SOUND, StageKind.LEAD):
                depths[stage.device] = max(depths.get(stage.device, stage.depth), stage.depth)
    return [report.index.placed(device) for device in sorted(depths, key=lambda device: depths[device])]


def _of_device(report: Report, placed: PlacedDevice, steps: Sequence[LineUpStep]) -> Iterator[WalkItem]:
    if placed.power is not None:
        yield _item(placed, "power", power=placed.power, lasts=placed.power in (Power.MAINS, Power.ADAPTER))
    if placed.device_class.capsule is not None and placed.device_class.capsule.cell and placed.has_cell_in:
        yield _item(placed, "cell")
    if placed.sample_rate_hz is not None and len(placed.device_class.traits.sample_rates_hz) > 1:
        yield _item(placed, "rate")
    for port in placed.device_class.ports:
        if placed.frequency_mhz(port) is not None:
            yield _item(placed, "frequency", f"{port.id}.frequency", port=port.id)
    for port_in in placed.device_class.inputs:
        runs = report.index.arriving.get(PortRef(placed.device.id, port_in.id), [])
        if runs and port_in.circuit is not Circuit.RADIO:
            yield from _of_input(report, placed, port_in, runs)
    for port_out in placed.device_class.outputs:
        if port_out.only_while_recording and report.index.leaving.get(PortRef(placed.device.id, port_out.id)):
            yield _item(placed, "rolls-first", f"{port_out.id}.rolls", port=port_out.id)
    for track in report.tracks_of(placed.device.id):
        own = tuple(control for control in controls_of(placed.device_class).values() if control.port == track.trace.bus)
        if own and track.is_reached:
            yield _item(placed, "settings", f"{track.trace.bus}.set", port=track.trace.bus, controls=own)
    armed = [track.trace.bus for track in report.tracks if track.trace.device == placed.device.id and track.is_reached]
    if armed:
        yield _item(placed, "armed", buses=tuple(armed))
    for step in steps:
        yield _item(
            placed,
            "tone",
            f"{step.bus}.tone",
            bus=step.bus,
            shows_dbfs=step.shows_dbfs,
            sent_dbfs=step.sent_dbfs,
            is_done=step.state is State.DONE,
        )
    if any(port.is_headphone for port in placed.device_class.outputs) and armed:
        yield _item(placed, "listen")


def _of_clock(timecode_device: TimecodeDevice) -> Iterator[WalkItem]:
    """A label is read from a device and from who gives it its time, at the same moment."""
    device, giver = timecode_device.device, timecode_device.giver
    if not giver:
        return

    def item(what: str, name: str, **facts: object) -> WalkItem:
        return WalkItem(id=f"{device}.{name}", what=what, group=TIMECODE, device=device, facts=facts)

    if timecode_device.gets is TimecodeFrom.SOUND:
        yield item("timecode-track", "timecode", giver=giver, bus=timecode_device.track.partition(".")[2])
        return
    yield item("timecode-rate", "timecode-rate", rate=timecode_device.rate, records_run=timecode_device.records_run)
    jams = () if timecode_device.jam is None else timecode_device.jam.at_min
    yield item("timecode-label", "timecode", giver=giver, jams_min=jams, forgets=timecode_device.forgets)


def _of_input(report: Report, placed: PlacedDevice, port: InputPort, runs: list[Run]) -> Iterator[WalkItem]:
    """A lead and where it goes in: the lead first, then each switch, then the knob."""
    for run in runs:
        yield from _of_run(report, placed, run)
    controls = {
        control.id: control
        for control in controls_of(placed.device_class).values()
        if control.port == port.id and placed.acts(control)
    }
    settings = placed.device.settings
    automatic = {control.id for control in controls.values() if ".auto." in control.id}
    phantom = {control.id for control in controls.values() if ".phantom." in control.id}
    for control_id in sorted(automatic):
        yield _item(
            placed,
            "automatic-level",
            f"{port.id}.{control_id.rsplit('.', 1)[-1]}.auto",
            port=port.id,
            control=controls[control_id],
            is_on=bool(settings.get(control_id, controls[control_id].default)),
            is_for_guide=_is_for_guide(report, placed, port),
        )
    if phantom:
        yield _item(placed, "phantom", f"{port.id}.phantom", port=port.id, is_on=Supply.P48 in placed.supplies(port))
    others: tuple[Control, ...] = tuple(
        control
        for control in controls.values()
        if control.id not in automatic | phantom and control.kind is not ControlKind.FREQUENCY
    )
    if others:
        yield _item(placed, "settings", f"{port.id}.set", port=port.id, controls=others)


def _is_for_guide(report: Report, placed: PlacedDevice, port: InputPort) -> bool:
    """Whether all tracks that an input goes to are kept to find sync by."""
    roles = {
        track.role
        for track in report.tracks_of(placed.device.id)
        if any(feed.name == port.id for feed, _ in track.trace.stage.feeds)
    }
    return roles == {Role.GUIDE}


def _of_run(report: Report, placed: PlacedDevice, run: Run) -> Iterator[WalkItem]:
    def item(what: str, name: str, **facts: object) -> WalkItem:
        device = placed.device.id
        return WalkItem(id=f"{run.id}.{name}", what=what, group=device, device=device, facts={"run": run.id, **facts})

    index = report.index
    yield item("cable", "lead", has_pad=_has_pad(index, run), alike=_alike(index, run))
    if placed.input(run.receiving.port).circuit in SOCKETS:
        yield item("strain-relief", "relief")
    if any(part.branch == "R" for part in run.parts):
        yield item("leg", "leg")
    if any(passing.what in TRODDEN for stretch in run.path for passing in stretch.passes):
        yield item("taped", "taped")
    if run.parts and any(source.irreplaceable for source in index.plan.sources.values()):
        yield item("spare", "spare")


def _has_pad(index: PlanIndex, run: Run) -> bool:
    return any(lead.loss_db is not None for lead, _ in index.leads_of(run))


def _alike(index: PlanIndex, run: Run) -> str:
    """The input beside the output of a run in which its plug would fit too; "" where there is none. [PRACTICE]"""
    sender = index.placed(run.sending.device)
    plug = sender.output(run.sending.port).plug
    inputs = [port.id for port in sender.device_class.inputs if port.plug == plug and port.circuit in SOCKETS]
    return inputs[0] if inputs else ""


def _at_the_end(report: Report) -> Iterator[WalkItem]:
    def item(what: str, name: str = "", **facts: object) -> WalkItem:
        return WalkItem(id=f"{LAST}.{name or what}", what=what, group=LAST, facts=facts)

    recording = tuple(dict.fromkeys(track.trace.device for track in report.tracks if track.is_reached))
    if not recording:
        return
    placed_devices = report.index.placed_devices()
    microphones = tuple(placed.device.id for placed in placed_devices if placed.device_class.capsule is not None)
    yield item("roles", recording=recording)
    if microphones:
        yield item("tapped", microphones=microphones)
    if line_up_steps(report):
        yield item("tone-off", "tone")
    yield item("silence")
    yield item("played", recording=recording)
    yield item("counter", recording=recording)
    if len(recording) > 1 or any(placed.device_class.kind is DeviceKind.CAMERA for placed in placed_devices):
        yield item("clap")
    yield item("hold", devices=tuple(placed.device.id for placed in placed_devices if placed.device_class.traits.hold))
