"""Rigs drawn at random, wise or not: every class, mode, attenuator, split, two-way cable, feed, routing, pan, room."""

from random import Random

from tidy_trunk.core.gear.catalogue import ControlKind, Figure, built_in, channel_refs, controls_of, figures_of, mates
from tidy_trunk.core.plan import (
    ROOMS,
    AddDevice,
    AddSource,
    Connect,
    Edit,
    FeedOutput,
    Hear,
    Part,
    Plan,
    PortRef,
    RouteBus,
    SetControl,
    SetFigure,
    SetJob,
    Weighting,
)
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import TidyTrunkError

MICROPHONES = [item.id for item in built_in().devices.values() if item.capsule]
MIDDLES = [item.id for item in built_in().devices.values() if item.inputs and item.outputs and not item.capsule]
ENDS = [item.id for item in built_in().devices.values() if item.inputs and item.is_recording]


MOST = (3, 4, 2)
FEW = (2, 1, 1)


def drawn(seed: int, most: tuple[int, int, int] = MOST) -> Plan:
    """A plan that the program accepts: at most so many microphones, of what stands between, and of what records."""
    by = Random(seed)
    plan = _taken(Plan(name=f"Drawn {seed}"), _job(by))
    # Classes take turns, so that a hundred plans in a row hold every one of them.
    rows = [_turns(by, seed, ids, count) for ids, count in zip((MICROPHONES, MIDDLES, ENDS), most, strict=True)]
    names = [f"{row}{at}" for row, ids in zip("mxe", rows, strict=True) for at in range(len(ids))]
    for name, class_id in zip(names, [item for ids in rows for item in ids], strict=True):
        plan = _taken(plan, AddDevice(id=name, class_id=class_id, label=name))
    for number in range(by.randint(1, 2)):
        plan = _taken(plan, _source(by, number))
    for name in names:
        if name[0] == "m":
            distance, angle = by.choice([0.02, 0.1, 0.5, 1.0, 4.0]), by.choice([0.0, 0.0, 45.0, 100.0])
            plan = _taken(
                plan, Hear(source=by.choice(list(plan.sources)), device=name, distance_m=distance, off_axis_deg=angle)
            )
    for name in names + [name for name in names if name[0] != "e"]:
        for edit in _joined(by, plan, name, by.choice(names)):
            plan = _taken(plan, edit)
    for name in names:
        plan = _set(by, plan, name)
    return plan


def _taken(plan: Plan, edit: Edit) -> Plan:
    try:
        after = edit.apply(plan)
        trace_plan(after)
    except TidyTrunkError:
        return plan
    return after


def _turns(by: Random, seed: int, ids: list[str], most: int) -> list[str]:
    return [
        ids[(seed + at * 7) % len(ids)] if by.random() < 0.7 else by.choice(ids) for at in range(by.randint(1, most))
    ]


def _job(by: Random) -> Edit:
    return SetJob(
        room=by.choice(list(ROOMS)), room_noise_db_spl=by.choice([0.0, 20.0, 35.0, 60.0]), rumble_db_spl=by.choice([0.0, 0.0, 50.0, 95.0])
    )  # fmt: skip


def _source(by: Random, number: int) -> Edit:
    average = by.uniform(40, 105)
    return AddSource(
        id=f"s{number}", label=f"Source {number}", average_db_spl=average, weighting=by.choice(list(Weighting)),
    )  # fmt: skip


def _joined(by: Random, plan: Plan, one: str, other: str) -> list[Edit]:
    """A run, or two that share a lead: one output to two inputs, two outputs to one, both channels of one each."""
    sender, receiver = built_in().devices[plan.devices[one].class_id], built_in().devices[plan.devices[other].class_id]
    if not sender.outputs or not receiver.inputs or one == other:
        return []
    output, port = by.choice(sender.outputs), by.choice(receiver.inputs)
    ends = PortRef(one, output.id), PortRef(other, port.id)
    kind = by.random()
    if kind < 0.35:
        shared = f"y {one} {output.id} {other}"
        ports = [port, by.choice([item for item in receiver.inputs if item is not port] or [port])]
        split = by.choice(["xlr-2xlr", "trs-2xlr", "ta5-2xlr", "multi-2xlr"])
        return [
            Connect(sending=ends[0], receiving=PortRef(other, taker.id), parts=(Part(lead=split, length_m=0.5, branch=side, shared=shared),))
            for side, taker in zip("LR", dict.fromkeys(ports), strict=False)
        ]  # fmt: skip
    if kind < 0.5:
        two = by.choice(["2xlr-trs", "2xlr-trs-pad-25", "2trs-trs", "2xlr-xlr5"])
        part = Part(lead=two, length_m=0.5, branch=by.choice("LR"), shared=f"two {other} {port.id}")
        return [Connect(sending=ends[0], receiving=ends[1], parts=(part,))]
    if kind < 0.65:
        fits = [
            lead
            for lead in built_in().leads.values()
            if mates(output.plug, lead.sending) and mates(lead.receiving, port.plug) and "" in lead.ways
        ]
        if fits:
            return [Connect(sending=ends[0], receiving=ends[1], parts=(Part(lead=by.choice(fits).id, length_m=1.0),))]
    joins = find_cable_chains(output, port, length_m=by.choice([0.3, 3.0]))
    return [Connect(sending=ends[0], receiving=ends[1], parts=by.choice(joins[:4]).parts if joins else ())]


def _set(by: Random, plan: Plan, name: str) -> Plan:
    device_class = built_in().devices[plan.devices[name].class_id]
    for control in controls_of(device_class).values():
        likely = 0.9 if any(word in control.id for word in ("phantom", "plug_in", "cell")) else 0.35
        if by.random() > likely:
            continue
        if control.kind is ControlKind.SWITCH:
            value = by.random() < (0.85 if likely == 0.9 else 0.4)
        elif control.kind is ControlKind.CHOICE:
            value = by.choice([option for option, _ in control.options])
        elif control.kind is ControlKind.KNOB:
            value = by.uniform(control.span.minimum_db, control.span.maximum_db)
        else:
            continue
        plan = _taken(plan, SetControl(device=name, control=control.id, value=value))
    refs = [ref for port in device_class.inputs for ref in channel_refs(port)]
    if device_class.buses and refs and by.random() < 0.5:
        inputs = tuple(by.sample(refs, min(len(refs), by.randint(1, 3))))
        plan = _taken(plan, RouteBus(device=name, bus=by.choice(device_class.buses).id, inputs=inputs))
    outputs = [ref for port in device_class.outputs for ref in channel_refs(port)]
    if device_class.feeds and by.random() < 0.3:
        plan = _taken(plan, FeedOutput(device=name, channel=by.choice(outputs), bus=by.choice(device_class.buses).id))
    levels = [item for item in figures_of(device_class) if item.path.endswith(("_dbu", "_dbfs", "ohm", "pa"))]
    if levels and by.random() < 0.3:
        item = by.choice(levels)
        figure = Figure(item.figure.value * by.uniform(0.8, 1.25), item.figure.tolerance)
        plan = _taken(plan, SetFigure(device=name, path=item.path, figure=figure))
    return plan
