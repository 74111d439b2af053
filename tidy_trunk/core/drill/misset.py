"""Faults of a device: a switch, a knob or a menu that stands elsewhere, a recorder that was never started, a jam that was missed."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.drill.hidden import HiddenFault
from tidy_trunk.core.gear.catalogue import (
    CELL_KEY,
    POWER_KEY,
    RATE_OF_JOB,
    RECORD_RUN,
    SAMPLE_RATE_KEY,
    TIMECODE_RATE_KEY,
    TIMECODE_RUN_KEY,
    Control,
    ControlKind,
    Power,
    Setting,
    channel_refs,
    controls_of,
)
from tidy_trunk.core.plan import Disconnect, Edit, FeedOutput, PlacedDevice, PlanIndex, PortRef, SetControl, SetJam

MOVED_DB: Final = 20.0
"""ASSUMED_ by how much a knob stands elsewhere that somebody has brushed against."""

OFF_FREQUENCY_MHZ: Final = 0.4
"""ASSUMED_ by how much a receiver is off: a step or two of the list of a group. [PRACTICE]"""

_SWITCHED: Final = (
    (".auto.", "automatic", True),
    (".phantom.", "phantom", False),
    (".armed", "armed", False),
    (".pad", "pad", True),
    (".linked", "linked", True),
)
"""By what the id of a switch holds, the kind of fault, and where it stands then. [HANDBOOK] §§4 to 9"""


def of_device(index: PlanIndex, placed: PlacedDevice) -> Iterator[HiddenFault]:
    device = placed.device.id
    for control in controls_in_use(index, placed):
        if not placed.acts(control):
            continue
        stands = placed.device.settings.get(control.id, control.default)
        for code, value in _others(index, placed, control, stands):
            edits: list[Edit] = [SetControl(device=device, control=control.id, value=value)]
            if code == "frequency":
                ref = PortRef(device, control.port)
                radio = [*index.arriving.get(ref, []), *index.leaving.get(ref, [])]
                edits += [Disconnect(run=run.id) for run in radio]  # nothing comes over any more
            yield HiddenFault(
                id=f"{code}:{device}.{control.id}={value}",
                code=code,
                device=device,
                control=control.id,
                edits=tuple(edits),
            )
    if records(placed):
        yield HiddenFault(id=f"rolling:{device}", code="rolling", device=device)
    if has_headphones(placed) and sum(placed.is_recorded(bus) for bus in placed.device_class.buses) > 1:
        yield HiddenFault(id=f"monitor:{device}", code="monitor", device=device)
    if placed.device.jam is not None:
        missed = SetJam(device=device, giver=None)
        yield HiddenFault(id=f"not-jammed:{device}", code="not-jammed", device=device, edits=(missed,))
    yield from _other_mixes(index, placed)


def records(placed: PlacedDevice) -> bool:
    """Whether it has a record button."""
    return placed.device_class.is_recording


def has_headphones(placed: PlacedDevice) -> bool:
    """Whether one can listen at it."""
    return any(port.is_headphone for port in placed.device_class.outputs)


def controls_in_use(index: PlanIndex, placed: PlacedDevice) -> tuple[Control, ...]:
    """Those of the whole device, of its tracks, and of the sockets that something is plugged into."""
    found = []
    for control in controls_of(placed.device_class).values():
        ref = PortRef(placed.device.id, control.port)
        is_socket = control.port in placed.device_class.port_of
        if not is_socket or index.arriving.get(ref) or index.leaving.get(ref):
            found.append(control)
    return tuple(found)


def _others(index: PlanIndex, placed: PlacedDevice, control: Control, stands: Setting) -> Iterator[tuple[str, Setting]]:
    """What kind of fault a control is good for, and where it stands then."""
    switched = next(((code, value) for part, code, value in _SWITCHED if _is_switch(control, part)), None)
    if switched is not None:
        code, value = switched
        if bool(stands) != value:
            yield code, value
    elif control.id.endswith(".limiter"):
        yield "limiter", not stands
    elif control.id == CELL_KEY and stands:
        yield "cell", False
    elif control.id == POWER_KEY and stands == Power.BATTERY and Power.MAINS in placed.device_class.traits.powers:
        yield "mains", Power.MAINS
    elif control.id == TIMECODE_RUN_KEY and stands != RECORD_RUN:
        yield "timecode-run", RECORD_RUN
    elif control.id == TIMECODE_RATE_KEY and stands == RATE_OF_JOB:
        yield "timecode-rate", _another_rate(index)
    elif control.id == SAMPLE_RATE_KEY:
        yield from (("sample-rate", rate) for rate in _other_options(control, str(placed.sample_rate_hz))[:1])
    elif control.id.endswith((".mode", ".pan")) and control.kind is ControlKind.CHOICE:
        code = control.id.rpartition(".")[2]
        yield from ((code, option) for option in _other_options(control, stands))
    elif control.kind is ControlKind.FREQUENCY and stands:
        yield "frequency", round(float(stands) + OFF_FREQUENCY_MHZ, 3)
    elif control.kind is ControlKind.KNOB and control.span is not None:
        span = control.span
        lowest = span.minimum_db + (span.step_db if span.lowest_is_off else 0.0)
        for moved_db in (-MOVED_DB, MOVED_DB):
            value_db = span.snapped_db(min(max(float(stands) + moved_db, lowest), span.maximum_db))
            if abs(value_db - float(stands)) >= MOVED_DB / 2:
                yield "gain", value_db


def _is_switch(control: Control, part: str) -> bool:
    within = part in control.id if part.endswith(".") else control.id.endswith(part)
    return control.kind is ControlKind.SWITCH and within


def _other_options(control: Control, stands: Setting) -> list[str]:
    return [option for option, _ in control.options if option != stands]


def _another_rate(index: PlanIndex) -> str:
    """What a camera stands at that comes from another job: film's 24 beside television's 25, and the other way round. [PRACTICE]"""
    return "25" if FrameRate.parse(index.plan.defaults.frame_rate).nominal != 25 else "24"


def _other_mixes(index: PlanIndex, placed: PlacedDevice) -> Iterator[HiddenFault]:
    """An output that gives another mix or track than planned."""
    for port in placed.device_class.outputs:
        if not index.leaving.get(PortRef(placed.device.id, port.id)):
            continue
        for channel in channel_refs(port):
            planned = placed.fed_bus(channel)
            others = [bus for bus in placed.device_class.buses if planned is not None and bus.id != planned.id]
            for bus in others[:1]:
                edit = FeedOutput(device=placed.device.id, channel=channel, bus=bus.id)
                fault_id = f"wrong-mix:{placed.device.id}.{channel}={bus.id}"
                yield HiddenFault(id=fault_id, code="wrong-mix", device=placed.device.id, edits=(edit,))
