"""What a walk along the chain looks at, device by device, in the order in which sound goes."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.line_up import LineUpStep, State, line_up_steps
from tidy_trunk.core.base.timecode import name_of
from tidy_trunk.core.gear.catalogue import Circuit, ControlKind, InputPort, Kind, Power, Supply, controls_of
from tidy_trunk.core.plan import Hazard, PlacedDevice, PortRef, Rig, Role, Run, times_words
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import Place, upstream_of
from tidy_trunk.core.time.clock import Gets, TimecodeDevice, timecode_devices

TRODDEN: Final = frozenset({Hazard.WALKWAY, Hazard.DOORWAY})
"""Where people walk: leads there are taped or ramped. [HANDBOOK] §9"""

TIME: Final = "Timecode"
"""ASSUMED_ heading of what is looked at on two clocks at once."""

LAST: Final = "At the end"
"""ASSUMED_ heading of what is done once for all."""

SOCKETS: Final = frozenset({Circuit.UNBALANCED_STEREO, Circuit.UNBALANCED})
"""What works loose: small plugs want strain relief. [HANDBOOK] §4"""


@dataclass(frozen=True, slots=True, kw_only=True)
class WalkItem:
    """One thing to look at. id: the same for the same thing in every walk; group: the device, as a heading.

    text: what must be so; why: what happens else, or how it is done safely, "" where it needs no word.
    """

    id: str
    group: str
    text: str
    why: str = ""


def walk_items(report: Report) -> tuple[WalkItem, ...]:
    """Every item of a plan's walk. A device that nothing comes from or goes to is passed by."""
    found: list[WalkItem] = []
    steps = line_up_steps(report)
    clocks = timecode_devices(report)
    for unit in _in_order(report):
        mine = [step for step in steps if step.device == unit.device.id and not step.warning]
        found += _of_device(report, unit, mine)
    in_chain = {item.group for item in found}
    for unit in report.rig.units():
        if unit.device_class.kind is Kind.CAMERA and unit.label not in in_chain:
            found += _of_camera_alone(unit)
    found += [item for timecode_device in clocks for item in _of_clock(report, timecode_device)]
    return (*found, *_at_the_end(report))


def _of_camera_alone(unit: PlacedDevice) -> Iterator[WalkItem]:
    """A camera that no sound is led to: it records by itself, and its own microphone is what it is found by."""

    def item(name: str, text: str, why: str = "") -> WalkItem:
        return WalkItem(id=f"{unit.device.id}.{name}", group=unit.label, text=text, why=why)

    if unit.power is not None:
        yield item("power", f"Powered by {unit.power}, with enough for the next hours.")
    yield item("card", "A card with room for the day is in it.")
    yield item(
        "own-microphone", "Its own microphone is on, and its meter moves.", "What it hears finds its files later."
    )
    yield item("rolling", "It rolls when it is told to: the mark on its screen is red.")


def _in_order(report: Report) -> list[PlacedDevice]:
    """The devices that sound goes through, those nearest to the sources first."""
    depths: dict[str, int] = {}
    for track in report.tracks:
        for stage in upstream_of(track.trace.stage) if track.trace.stage.feeds else ():
            if stage.place not in (Place.SOUND, Place.LEAD):
                depths[stage.device] = max(depths.get(stage.device, stage.depth), stage.depth)
    return [report.rig.unit(device) for device in sorted(depths, key=lambda device: depths[device])]


def _of_device(report: Report, unit: PlacedDevice, steps: Sequence[LineUpStep]) -> Iterator[WalkItem]:
    def item(name: str, text: str, why: str = "") -> WalkItem:
        return WalkItem(id=f"{unit.device.id}.{name}", group=unit.label, text=text, why=why)

    if unit.power is not None:
        enough = "" if unit.power in (Power.MAINS, Power.ADAPTER) else ", with enough for the next hours"
        yield item("power", f"Powered by {unit.power}{enough}.")
    if unit.device_class.capsule is not None and unit.device_class.capsule.cell and unit.has_cell_in:
        yield item("cell", "A fresh cell is in it.", "It has no gauge: log when it went in.")
    rates = unit.device_class.traits.sample_rates_hz
    if unit.sample_rate_hz is not None and len(rates) > 1:
        yield item("rate", f"Set to {unit.sample_rate_hz / 1000:g} kHz.")
    for port in unit.device_class.ports:
        frequency = unit.frequency_mhz(port)
        if frequency is not None:
            why = "Both ends alike, and legal where you stand: ask the regulator."
            yield item(f"{port.id}.frequency", f"{_begun(port.label)}: {frequency:.3f} MHz.", why)
    for port_in in unit.device_class.inputs:
        runs = report.rig.arriving.get(PortRef(unit.device.id, port_in.id), [])
        if runs and port_in.circuit is not Circuit.RADIO:
            yield from _of_input(report, unit, port_in, runs)
    armed = [track.trace.bus for track in report.tracks if track.trace.device == unit.device.id and track.is_reached]
    if armed:
        names = ", ".join(unit.place_label(bus).removeprefix("track ") for bus in armed)
        yield item("armed", f"Armed: {'track' if len(armed) == 1 else 'tracks'} {names}.")
    for step in steps:
        done = step.state is State.DONE
        text = (
            f"{_begun(unit.place_label(step.bus))} shows {_db(step.shows_dbfs)} dBFS for tone at {_db(step.sent_dbfs)}."
        )
        yield item(f"{step.bus}.tone", text, "" if done else "Not lined up yet: read the meter and write it down.")
    if any(port.is_headphone for port in unit.device_class.outputs) and armed:
        yield item("listen", "Listened to on headphones here.", "Set them low before they are on the ears.")


def _of_clock(report: Report, timecode_device: TimecodeDevice) -> Iterator[WalkItem]:
    """A label is read from a device and from who gives it its time, at the same moment."""
    unit = report.rig.unit(timecode_device.device)
    if not timecode_device.giver:
        return
    giver = report.rig.unit(timecode_device.giver).label

    def item(name: str, text: str, why: str = "") -> WalkItem:
        return WalkItem(id=f"{timecode_device.device}.{name}", group=TIME, text=text, why=why)

    if timecode_device.gets is Gets.SOUND:
        track = unit.place_label(timecode_device.track.partition(".")[2])
        yield item(
            "timecode", f"{unit.label}: {track} moves with {giver}.", "It is loud and shrill: not on headphones."
        )
        return
    run = "record run" if timecode_device.records_run else "free run"
    yield item("timecode-rate", f"{unit.label}: timecode at {name_of(timecode_device.rate)}, {run}.")
    when = "" if timecode_device.jam is None else f", jammed at {times_words(timecode_device.jam.at_min)}"
    why = "" if not timecode_device.forgets else "It forgets when it is switched off: jam it after every battery."
    yield item("timecode", f"{unit.label} and {giver} show the same label{when}.", why)


def _of_input(report: Report, unit: PlacedDevice, port: InputPort, runs: list[Run]) -> Iterator[WalkItem]:
    """A lead and where it goes in: the lead first, then each switch, then the knob."""
    key = f"{unit.device.id}.{port.id}"

    def item(name: str, text: str, why: str = "") -> WalkItem:
        return WalkItem(id=f"{key}.{name}", group=unit.label, text=text, why=why)

    for run in runs:
        yield from _of_run(report, unit, run)
    controls = {
        control.id: control
        for control in controls_of(unit.device_class).values()
        if control.port == port.id and unit.acts(control)
    }
    settings = unit.device.settings
    automatic = {control.id for control in controls.values() if ".auto." in control.id}
    phantom = {control.id for control in controls.values() if ".phantom." in control.id}
    for control_id in sorted(automatic):
        control = controls[control_id]
        is_on = bool(settings.get(control_id, control.default))
        is_meant = is_on and _is_for_guide(report, unit, port)
        why = "Look in both places: one of them is enough to ride the level."
        if is_on:
            why = (
                "It only finds sync."
                if is_meant
                else "The plan still has it on: it undoes every gain that is set here."
            )
        text = f"{_begun(port.label)}: {control.label} is {'on' if is_meant else 'off'}."
        yield item(control_id.rsplit(".", 1)[-1] + ".auto", text, why)
    if phantom:
        on = Supply.P48 in unit.supplies(port)
        text = f"{_begun(port.label)}: 48 V is {'on, its lamp lit' if on else 'off'}."
        yield item("phantom", text, "Mute, connect, switch on, wait, open." if on else "")
    words = [
        f"{control.label} {control.words(settings.get(control.id, control.default))}"
        for control in controls.values()
        if control.id not in automatic | phantom and control.kind is not ControlKind.FREQUENCY
    ]
    if words:
        yield item("set", f"{_begun(port.label)}: {', '.join(words)}.")


def _is_for_guide(report: Report, unit: PlacedDevice, port: InputPort) -> bool:
    """Whether all tracks that an input goes to are kept to find sync by."""
    roles = {
        track.role
        for track in report.tracks_of(unit.device.id)
        if any(feed.name == port.id for feed, _ in track.trace.stage.feeds)
    }
    return roles == {Role.GUIDE}


def _of_run(report: Report, unit: PlacedDevice, run: Run) -> Iterator[WalkItem]:
    def item(name: str, text: str, why: str = "") -> WalkItem:
        return WalkItem(id=f"{run.id}.{name}", group=unit.label, text=text, why=why)

    rig = report.rig
    leads = " and ".join(lead.label for lead, _ in rig.leads_of(run))
    how = f"{leads}, its tape at both ends" if leads else "plugged in directly"
    yield item("lead", f"Cable {run.number} from {rig.port_label(run.sending)}: {how}.", _mixed_up(rig, run))
    port = unit.input(run.receiving.port)
    if port.circuit in SOCKETS:
        why = "Small plugs work loose: wiggle it while you listen."
        yield item("relief", f"Cable {run.number}: strain relief fitted, no weight on the socket.", why)
    if any(part.branch == "R" for part in run.parts):
        text = f"Cable {run.number}: with this leg pulled, only the meter of its own side falls."
        yield item("leg", text, "The colours of Y-cables mislead.")
    if any(passing.what in TRODDEN for stretch in run.path for passing in stretch.passes):
        yield item(
            "taped",
            f"Cable {run.number} is taped or ramped where people walk.",
            "Local rules for cables on floors decide.",
        )
    spare = len(run.parts) > 0 and any(source.irreplaceable for source in rig.plan.sources.values())
    if spare:
        yield item("spare", f"A spare for cable {run.number} is at hand.")


def _mixed_up(rig: Rig, run: Run) -> str:
    """What looks alike at the ends of a run and is not; "" where nothing does. [PRACTICE]"""
    if any(lead.loss_db is not None for lead, _ in rig.leads_of(run)):
        return "Its attenuator goes to the receiving end, and it looks like the plain cable."
    sender = rig.unit(run.sending.device)
    plug = sender.output(run.sending.port).plug
    inputs = [port for port in sender.device_class.inputs if port.plug == plug and port.circuit in SOCKETS]
    return (
        f"{_begun(inputs[0].label)} beside it looks the same: plugged in there, the cable gives silence."
        if inputs
        else ""
    )


def _at_the_end(report: Report) -> Iterator[WalkItem]:
    recording = list(dict.fromkeys(track.trace.device for track in report.tracks if track.is_reached))
    if not recording:
        return
    names = ", ".join(report.rig.unit(device).label for device in recording)
    microphones = [unit.label for unit in report.rig.units() if unit.device_class.capsule is not None]
    if len(microphones) > 1:
        yield WalkItem(
            id="end.tapped",
            group=LAST,
            text=f"Each microphone tapped while somebody watches the meters: {', '.join(microphones)}.",
            why="The right one moves, and no other. If none does: both ends of the radio, input, arming, power, plug.",
        )
    if line_up_steps(report):
        yield WalkItem(id="end.tone", group=LAST, text="The tone is off.")
    yield WalkItem(
        id="end.silence",
        group=LAST,
        text="Half a minute recorded: voices, then everybody still, then each one alone.",
        why="Hiss and ticks hide under voices: turn the volume up in the pause, and down before anybody speaks.",
    )
    yield WalkItem(
        id="end.played",
        group=LAST,
        text=f"Played back and heard on headphones: {names}.",
        why="Level, noise between words, hum, clicks, the right input on every track.",
    )
    cameras = [unit for unit in report.rig.units() if unit.device_class.kind is Kind.CAMERA]
    if len(recording) > 1 or cameras:
        yield WalkItem(
            id="end.clap", group=LAST, text="A clap in shot, close to the microphones, on every recorder and camera."
        )
    yield WalkItem(
        id="end.hold", group=LAST, text="Hold or lock is on where a device has it.", why="Knobs get knocked."
    )


def _begun(text: str) -> str:
    """As a sentence begins; the rest stays as it is written on the device."""
    return text[:1].upper() + text[1:]


def _db(value: float) -> str:
    return f"{value:.1f}".replace("-", "−")
