"""RigFaults that can be hidden in a rig: a switch, a knob, a cable or a plug that is other than planned."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue import (
    CELL_KEY,
    POWER_KEY,
    Control,
    ControlKind,
    LeadClass,
    Power,
    built_in,
    controls_of,
)
from tidy_trunk.core.plan import (
    Disconnect,
    Edit,
    MoveRun,
    Part,
    PlacedDevice,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    SetParts,
)

LIKELY: Final[Mapping[str, float]] = {
    "automatic": 3.0,
    "phantom": 3.0,
    "mode": 2.0,
    "gain": 2.0,
    "pad": 1.0,
    "armed": 2.0,
    "frequency": 2.0,
    "cell": 2.0,
    "mains": 2.0,
    "pad-missing": 3.0,
    "wrong-cable": 2.0,
    "wrong-input": 2.0,
    "break": 1.0,
    "loose": 4.0,
}
"""ASSUMED_ how likely each kind of fault is beside the others, 1 for a rare one; from common practice, and not measured."""

MOVED_DB: Final = 20.0
"""ASSUMED_ by how much a knob stands elsewhere that somebody has brushed against."""

OFF_FREQUENCY_MHZ: Final = 0.4
"""ASSUMED_ by how much a receiver is off: a step or two of the list of a group. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class HiddenFault:
    """A fault. id: of it in this rig; code: its kind; device, control, run: where it is.

    edits: that make the plan so; none for what no plan says, a loose plug.
    """

    id: str
    code: str
    device: str = ""
    control: str = ""
    run: str = ""
    edits: tuple[Edit, ...] = ()

    @property
    def weight(self) -> float:
        return LIKELY[self.code]


def possible_faults(index: PlanIndex) -> tuple[HiddenFault, ...]:
    """All that can be hidden in a rig, in the order of its devices and cables. What of it shows is for others to find out."""
    found = [fault for unit in index.units() for fault in _of_device(index, unit)]
    for run in sorted(index.plan.runs.values(), key=lambda run: run.number):
        found += _of_run(index, run)
    return tuple(found)


def _of_device(index: PlanIndex, unit: PlacedDevice) -> Iterator[HiddenFault]:
    for control in controls_in_use(index, unit):
        if not unit.acts(control):
            continue
        stands = unit.device.settings.get(control.id, control.default)
        for code, value in _others(unit, control, stands):
            edits: list[Edit] = [SetControl(device=unit.device.id, control=control.id, value=value)]
            if code == "frequency":
                ref = PortRef(unit.device.id, control.port)
                radio = [*index.arriving.get(ref, []), *index.leaving.get(ref, [])]
                edits += [Disconnect(run=run.id) for run in radio]  # nothing comes over any more
            yield HiddenFault(
                id=f"{code}:{unit.device.id}.{control.id}={value}",
                code=code,
                device=unit.device.id,
                control=control.id,
                edits=tuple(edits),
            )


def controls_in_use(index: PlanIndex, unit: PlacedDevice) -> tuple[Control, ...]:
    """Those of the whole device, of its tracks, and of the sockets that something is plugged into."""
    found = []
    for control in controls_of(unit.device_class).values():
        ref = PortRef(unit.device.id, control.port)
        is_socket = control.port in unit.device_class.port_of
        if not is_socket or index.arriving.get(ref) or index.leaving.get(ref):
            found.append(control)
    return tuple(found)


def _others(
    unit: PlacedDevice, control: Control, stands: str | float | bool
) -> Iterator[tuple[str, str | float | bool]]:
    """What kind of fault a control is good for, and where it stands then."""
    if ".auto." in control.id and not stands:
        yield "automatic", True
    elif ".phantom." in control.id and stands:
        yield "phantom", False
    elif control.id.endswith(".pad") and not stands:
        yield "pad", True
    elif control.id.endswith(".armed") and stands:
        yield "armed", False
    elif control.id == CELL_KEY and stands:
        yield "cell", False
    elif control.id == POWER_KEY and stands == Power.BATTERY and Power.MAINS in unit.device_class.traits.powers:
        yield "mains", Power.MAINS
    elif control.id.endswith(".mode") and control.kind is ControlKind.CHOICE:
        yield from (("mode", option) for option, _ in control.options if option != stands)
    elif control.kind is ControlKind.FREQUENCY and stands:
        yield "frequency", round(float(stands) + OFF_FREQUENCY_MHZ, 3)
    elif control.kind is ControlKind.KNOB and control.span is not None:
        span = control.span
        lowest = span.minimum_db + (span.step_db if span.lowest_is_off else 0.0)
        for moved_db in (-MOVED_DB, MOVED_DB):
            value = span.snapped_db(min(max(float(stands) + moved_db, lowest), span.maximum_db))
            if abs(value - float(stands)) >= MOVED_DB / 2:
                yield "gain", value


def _of_run(index: PlanIndex, run: Run) -> Iterator[HiddenFault]:
    sender, receiver = index.unit(run.sending.device), index.unit(run.receiving.device)
    output, port = sender.output(run.sending.port), receiver.input(run.receiving.port)
    if not output.circuit.is_analogue:
        return
    if run.parts:
        yield HiddenFault(id=f"break:{run.id}", code="break", run=run.id, edits=(Disconnect(run=run.id),))
    if any(plug.connector in ("trs35", "trrs35") for plug in (output.plug, port.plug)):
        yield HiddenFault(id=f"loose:{run.id}", code="loose", run=run.id)
    for at, part in enumerate(run.parts):
        lead = index.lead_of(part)
        if part.shared or part.branch:
            continue
        for other in _alike(lead):
            parts = (
                *run.parts[:at],
                Part(lead=other.id, length_m=other.short_m or part.length_m),
                *run.parts[at + 1 :],
            )
            code = "pad-missing" if lead.loss_db is not None else "wrong-cable"
            yield HiddenFault(
                id=f"{code}:{run.id}.{other.id}", code=code, run=run.id, edits=(SetParts(run=run.id, parts=parts),)
            )
    free = next(
        (
            other.id
            for other in receiver.device_class.inputs
            if other.plug == port.plug
            and other.id != port.id
            and not index.arriving.get(PortRef(run.receiving.device, other.id))
        ),
        None,
    )
    if free is not None:
        move = MoveRun(run=run.id, receiving=PortRef(run.receiving.device, free))
        yield HiddenFault(id=f"wrong-input:{run.id}", code="wrong-input", run=run.id, edits=(move,))


def _alike(lead: LeadClass) -> Iterator[LeadClass]:
    """Cables that one grabs instead: of the same plugs, and of an attenuator the plain one."""
    if lead.short_m is None and lead.loss_db is None:
        return
    for other in built_in().leads.values():
        if other.id == lead.id or other.sending != lead.sending or other.receiving != lead.receiving:
            continue
        if other.loss_db is None and not other.isolates and len(other.ways) == 1:
            yield other
            if lead.loss_db is not None:
                return
