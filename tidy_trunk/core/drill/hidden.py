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
from tidy_trunk.core.plan import Disconnect, Edit, MoveRun, PlacedDevice, PlanIndex, PortRef, Run, SetControl, SetParts

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
    for control in controls_of(unit.device_class).values():
        if not _is_in_use(index, unit, control):
            continue
        stands = unit.device.settings.get(control.id, control.default)
        other = _other(unit, control, stands)
        if other is None:
            continue
        code, value = other
        edit = SetControl(device=unit.device.id, control=control.id, value=value)
        yield HiddenFault(
            id=f"{code}:{unit.device.id}.{control.id}",
            code=code,
            device=unit.device.id,
            control=control.id,
            edits=(edit,),
        )


def _is_in_use(index: PlanIndex, unit: PlacedDevice, control: Control) -> bool:
    """Whether something goes through the socket or the track that it belongs to."""
    if control.port in {bus.id for bus in unit.device_class.buses} or not control.port:
        return True
    ref = PortRef(unit.device.id, control.port)
    return bool(index.arriving.get(ref) or index.leaving.get(ref)) and unit.acts(control)


def _other(unit: PlacedDevice, control: Control, stands: str | float | bool) -> tuple[str, str | float | bool] | None:
    """What kind of fault a control is good for, and where it stands then; None where for none."""
    part = control.id.rsplit(".", 2)
    if ".auto." in control.id and not stands:
        return "automatic", True
    if ".phantom." in control.id and stands:
        return "phantom", False
    if control.id.endswith(".pad") and not stands:
        return "pad", True
    if control.id.endswith(".armed") and stands:
        return "armed", False
    if control.id == CELL_KEY and stands:
        return "cell", False
    if control.id == POWER_KEY and stands == Power.BATTERY and Power.MAINS in unit.device_class.traits.powers:
        return "mains", Power.MAINS
    if part[-1] == "mode" and control.kind is ControlKind.CHOICE:
        return "mode", next(option for option, _ in control.options if option != stands)
    if control.kind is ControlKind.FREQUENCY and stands and unit.device_class.outputs and not unit.device_class.capsule:
        return "frequency", round(float(stands) + OFF_FREQUENCY_MHZ, 3)
    if control.kind is ControlKind.KNOB and control.span is not None:
        lower, higher = float(stands) - MOVED_DB, float(stands) + MOVED_DB
        span = control.span
        value = span.snapped_db(lower if lower >= span.minimum_db + span.step_db else min(higher, span.maximum_db))
        return ("gain", value) if abs(value - float(stands)) >= MOVED_DB / 2 else None
    return None


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
                type(part)(lead=other.id, length_m=other.short_m or part.length_m),
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
