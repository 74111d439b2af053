"""Generators of plans for property tests: whatever a user could have clicked together, wise or not."""

from hypothesis import strategies as st

from tidy_trunk.core.catalogue import DEVICES, ControlKind, controls_of
from tidy_trunk.core.joins import find_joins
from tidy_trunk.core.plan import AddDevice, AddSource, Connect, Edit, Hear, Plan, PortRef, SetControl, apply_edits
from tidy_trunk.core.trace import accept
from tidy_trunk.errors import TidyTrunkError

MICROPHONES = [item.id for item in DEVICES.values() if item.capsule]
OTHERS = [item.id for item in DEVICES.values() if not item.capsule]


def taken(plan: Plan, edit: Edit) -> Plan:
    """The plan after an edit, or as it was where the edit cannot be."""
    try:
        after, _ = apply_edits(plan, [edit])
        accept(after)
    except TidyTrunkError:
        return plan
    return after


@st.composite
def settings_of(draw: st.DrawFn, class_id: str) -> tuple[str, str | float | bool]:
    control = draw(st.sampled_from(list(controls_of(DEVICES[class_id]).values())))
    if control.kind is ControlKind.SWITCH:
        return control.id, draw(st.booleans())
    if control.kind is ControlKind.CHOICE:
        return control.id, draw(st.sampled_from([option for option, _ in control.options]))
    if control.kind is ControlKind.FREQUENCY:
        return control.id, draw(st.sampled_from([0.0, 520.125, 520.6, 521.4]))
    return control.id, draw(st.floats(control.span.minimum_db, control.span.maximum_db))


@st.composite
def plans(draw: st.DrawFn, most_devices: int = 6) -> Plan:
    """A few devices with settings, some of them joined by leads of the catalogue, right ones and wrong ones."""
    plan = Plan(name="Drawn")
    classes = draw(st.lists(st.sampled_from(OTHERS), min_size=1, max_size=most_devices))
    classes += draw(st.lists(st.sampled_from(MICROPHONES), min_size=1, max_size=3))
    for number, class_id in enumerate(classes):
        plan = taken(plan, AddDevice(id=f"d{number}", class_id=class_id, label=f"Device {number}"))
    level = draw(st.floats(40, 110))
    plan = taken(plan, AddSource(id="s", label="Source", average_db_spl=level))
    names = list(plan.devices)
    for name in names:
        if DEVICES[plan.devices[name].class_id].capsule:
            plan = taken(plan, Hear(source="s", device=name, distance_m=draw(st.floats(0.05, 5))))
    for _ in range(draw(st.integers(1, 8))):
        one, other = draw(st.sampled_from(names)), draw(st.sampled_from(names))
        sender, receiver = DEVICES[plan.devices[one].class_id], DEVICES[plan.devices[other].class_id]
        if not sender.outputs or not receiver.inputs:
            continue
        output, port = draw(st.sampled_from(sender.outputs)), draw(st.sampled_from(receiver.inputs))
        joins = find_joins(output, port, length_m=draw(st.sampled_from([0.1, 0.5, 3.0, 20.0])))
        parts = draw(st.sampled_from([join.parts for join in joins] or [()]))
        plan = taken(plan, Connect(sending=PortRef(one, output.id), receiving=PortRef(other, port.id), parts=parts))
    for _ in range(draw(st.integers(0, 6))):
        name = draw(st.sampled_from(names))
        if controls_of(DEVICES[plan.devices[name].class_id]):
            control, value = draw(settings_of(plan.devices[name].class_id))
            plan = taken(plan, SetControl(device=name, control=control, value=value))
    return plan
