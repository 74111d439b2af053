"""Generators of plans for property tests: whatever a user could have clicked together, wise or not."""

from hypothesis import strategies as st

from tidy_trunk.core.gear.catalogue import ControlKind, Supply, built_in, controls_of
from tidy_trunk.core.plan import AddDevice, AddSource, Connect, Edit, Hear, Plan, PortRef, SetControl, apply_edits
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import TidyTrunkError

MICROPHONES = [item.id for item in built_in().devices.values() if item.capsule]
OTHERS = [item.id for item in built_in().devices.values() if not item.capsule]


def taken(plan: Plan, edit: Edit) -> Plan:
    """The plan after an edit, or as it was where the edit cannot be."""
    try:
        after = apply_edits(plan, [edit])
        trace_plan(after)
    except TidyTrunkError:
        return plan
    return after


@st.composite
def settings_of(draw: st.DrawFn, class_id: str) -> tuple[str, str | float | bool]:
    control = draw(st.sampled_from(list(controls_of(built_in().devices[class_id]).values())))
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
        if built_in().devices[plan.devices[name].class_id].capsule:
            plan = taken(plan, Hear(source="s", device=name, distance_m=draw(st.floats(0.05, 5))))
    for _ in range(draw(st.integers(1, 8))):
        one, other = draw(st.sampled_from(names)), draw(st.sampled_from(names))
        sender, receiver = (
            built_in().devices[plan.devices[one].class_id],
            built_in().devices[plan.devices[other].class_id],
        )
        if not sender.outputs or not receiver.inputs:
            continue
        output, port = draw(st.sampled_from(sender.outputs)), draw(st.sampled_from(receiver.inputs))
        joins = find_cable_chains(output, port, length_m=draw(st.sampled_from([0.1, 0.5, 3.0, 20.0])))
        parts = draw(st.sampled_from([join.parts for join in joins] or [()]))
        plan = taken(plan, Connect(sending=PortRef(one, output.id), receiving=PortRef(other, port.id), parts=parts))
    for _ in range(draw(st.integers(0, 6))):
        name = draw(st.sampled_from(names))
        if controls_of(built_in().devices[plan.devices[name].class_id]):
            control, value = draw(settings_of(plan.devices[name].class_id))
            plan = taken(plan, SetControl(device=name, control=control, value=value))
    return plan


MIDS = [item.id for item in built_in().devices.values() if item.inputs and item.outputs and not item.capsule]
ENDS = [item.id for item in built_in().devices.values() if item.inputs and item.is_recording]


@st.composite
def chains(draw: st.DrawFn) -> Plan:
    """Microphones through mixers and recorders into cameras, by leads that fit, with knobs anywhere and nothing that rides."""
    plan = Plan(name="Chain")
    microphones = draw(st.lists(st.sampled_from(MICROPHONES), min_size=1, max_size=3))
    mids = draw(st.lists(st.sampled_from(MIDS), min_size=1, max_size=2))
    ends = draw(st.lists(st.sampled_from(ENDS), min_size=1, max_size=2))
    rows = [
        [f"{row}{number}" for number in range(len(ids))]
        for row, ids in zip("mxe", (microphones, mids, ends), strict=True)
    ]
    for name, class_id in zip([name for row in rows for name in row], [*microphones, *mids, *ends], strict=True):
        plan = taken(plan, AddDevice(id=name, class_id=class_id, label=name))
    for number in range(draw(st.integers(1, 2))):
        plan = taken(
            plan, AddSource(id=f"s{number}", label=f"Source {number}", average_db_spl=draw(st.floats(50, 100)))
        )
    for name in rows[0]:
        plan = taken(
            plan,
            Hear(source=draw(st.sampled_from(list(plan.sources))), device=name, distance_m=draw(st.floats(0.1, 3))),
        )
    for name in rows[0] + rows[1] * 2:
        after = rows[1] if name in rows[0] else rows[2] + rows[1][rows[1].index(name) + 1 :]
        plan = taken(plan, _joined(draw, plan, name, draw(st.sampled_from(after))))
    for name in rows[1] + rows[2]:
        for control in controls_of(built_in().devices[plan.devices[name].class_id]).values():
            if control.kind is ControlKind.KNOB and draw(st.booleans()):
                value = draw(st.floats(control.span.minimum_db, control.span.maximum_db))
                plan = taken(plan, SetControl(device=name, control=control.id, value=value))
            elif control.label.startswith(("automatic level", "limiter")):
                plan = taken(plan, SetControl(device=name, control=control.id, value=False))
            elif control.label in ("low cut", "pan", "mode") and draw(st.integers(0, 3)) == 0:
                value = draw(st.sampled_from([option for option, _ in control.options]))
                plan = taken(plan, SetControl(device=name, control=control.id, value=value))
    return powered(plan)


def powered(plan: Plan) -> Plan:
    """Every microphone with its cell in, and what it needs switched on at the inputs that it is plugged into."""
    for name, device in plan.devices.items():
        capsule = built_in().devices[device.class_id].capsule
        if capsule is not None and capsule.cell:
            plan = taken(plan, SetControl(device=name, control="capsule.cell", value=True))
        for run in plan.runs.values():
            if run.sending.device != name or capsule is None:
                continue
            receiver = plan.devices[run.receiving.device]
            for control in controls_of(built_in().devices[receiver.class_id]):
                wanted = {Supply.P48: ".phantom.", Supply.PLUG_IN: ".plug_in."}
                if any(
                    control.startswith(run.receiving.port + wanted[need]) for need in capsule.needs if need in wanted
                ):
                    plan = taken(plan, SetControl(device=receiver.id, control=control, value=True))
    return plan


def _joined(draw: st.DrawFn, plan: Plan, one: str, other: str) -> Edit:
    """A run between two devices by one of their pairs of ports that a lead joins."""
    sender, receiver = built_in().devices[plan.devices[one].class_id], built_in().devices[plan.devices[other].class_id]
    used = {run.receiving for run in plan.runs.values()} | {run.sending for run in plan.runs.values()}
    pairs = [
        (PortRef(one, output.id), PortRef(other, port.id), joins[0].parts)
        for output in sender.outputs
        for port in receiver.inputs
        if not {PortRef(one, output.id), PortRef(other, port.id)} & used
        and (joins := find_cable_chains(output, port, length_m=3.0))
    ]
    sending, receiving, parts = draw(st.sampled_from(pairs or [(PortRef(one, "none"), PortRef(other, "none"), ())]))
    return Connect(sending=sending, receiving=receiving, parts=parts)
