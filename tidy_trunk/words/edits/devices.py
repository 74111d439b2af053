"""Edits on devices."""

from tidy_trunk.core.gear.catalogue import figures_of, find_control
from tidy_trunk.core.plan import (
    AddDevice,
    CopyClass,
    CopyDevice,
    FeedOutput,
    Plan,
    PlanIndex,
    RemoveClass,
    RemoveDevice,
    RenameDevice,
    RouteBus,
    SaveClass,
    SetControl,
    SetFigure,
)
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.numbers import plain


@sentence.register
def add_device(edit: AddDevice, plan: Plan) -> str:
    return f"Add {edit.label_in(plan)}"


@sentence.register
def copy_device(edit: CopyDevice, plan: Plan) -> str:
    return f"Copy {plan.devices[edit.device].label} as {edit.label.strip()}"


@sentence.register
def rename_device(edit: RenameDevice, plan: Plan) -> str:
    return f"Rename {plan.devices[edit.device].label} to {edit.label.strip()}"


@sentence.register
def remove_device(edit: RemoveDevice, plan: Plan) -> str:
    return f"Remove {plan.devices[edit.device].label} and its cables"


@sentence.register
def set_control(edit: SetControl, plan: Plan) -> str:
    placed = PlanIndex(plan).placed(edit.device)
    control = find_control(placed.device_class, edit.control)
    where = f" {where}" if (where := placed.where_label(control.port)) else ""
    return f"{placed.label}{where}: {control.label} to {control.words(control.check(edit.value))}"


@sentence.register
def route_bus(edit: RouteBus, plan: Plan) -> str:
    placed = PlanIndex(plan).placed(edit.device)
    inputs = ", ".join(placed.place_label(channel) for channel in edit.inputs)
    return f"{placed.label}: {placed.place_label(edit.bus)} from {inputs or 'nothing'}"


@sentence.register
def feed_output(edit: FeedOutput, plan: Plan) -> str:
    placed = PlanIndex(plan).placed(edit.device)
    return f"{placed.label}: {placed.place_label(edit.channel)} from {placed.place_label(edit.bus)}"


@sentence.register
def set_figure(edit: SetFigure, plan: Plan) -> str:
    placed = PlanIndex(plan).placed(edit.device)
    named = next((item for item in figures_of(placed.device_class) if item.path == edit.path), None)
    what = f"{placed.label} {named.label if named else edit.path}"
    if edit.figure is None:
        return f"{what}: as in its class"
    return f"{what}: {edit.figure.value:g} {named.unit if named else ''}, {edit.figure.provenance}"


@sentence.register
def copy_class(edit: CopyClass, plan: Plan) -> str:
    return f"New class {edit.label.strip()} from {plan.devices[edit.device].label}"


@sentence.register
def save_class(edit: SaveClass, plan: Plan) -> str:
    label, known = edit.device_class.label, plan.classes.get(edit.device_class.id)
    if known is None:
        return f"New class {label}"
    before = {named.path: named.figure for named in figures_of(known)}
    changed = [named for named in figures_of(edit.device_class) if before.get(named.path) != named.figure]
    if len(changed) != 1:
        return f"Change class {label}"
    (named,) = changed
    return f"{label}: {named.label} {plain(named.figure.value)} {named.unit}, {named.figure.provenance}"


@sentence.register
def remove_class(edit: RemoveClass, plan: Plan) -> str:
    return f"Remove class {plan.classes[edit.class_id].label}"
