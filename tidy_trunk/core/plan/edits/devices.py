"""Edits on devices: which there are, how they are set and routed, and their figures."""

from dataclasses import dataclass, replace
from itertools import count, islice

from tidy_trunk.core.gear.catalogue import (
    Control,
    DeviceClass,
    Figure,
    Setting,
    built_in,
    channel_refs,
    controls_of,
    figures_of,
    find_control,
    with_figures,
)
from tidy_trunk.core.plan.edits.base import device_of, find, free_id, put, with_device, without
from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.model import Device, Plan
from tidy_trunk.errors import InputError, PlanError


@dataclass(frozen=True, slots=True, kw_only=True)
class AddDevice:
    """A device of a class, with default settings."""

    class_id: str
    label: str | None = None
    id: str | None = None

    def label_in(self, plan: Plan) -> str:
        """What it is called there: the label that was given, else that of its class with a number."""
        if self.label:
            return self.label.strip()
        label = PlanIndex(plan).class_of(self.class_id).label
        base = label if self.class_id in plan.classes else label.split(",")[0]
        taken = {device.label for device in plan.devices.values()}
        numbered = (f"{base} {number}" for number in count(2))
        return next(label for label in (base, *islice(numbered, len(taken))) if label not in taken)

    def apply(self, plan: Plan) -> Plan:
        PlanIndex(plan).class_of(self.class_id)
        label = self.label_in(plan)
        device_id = self.id or free_id(label, plan.devices)
        if device_id in plan.devices:
            raise PlanError(f"there is a device '{device_id}' already: give the new one another id")
        return with_device(plan, Device(id=device_id, label=label, class_id=self.class_id))


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyDevice:
    """A second device with the settings of a first."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        copy = replace(device_of(plan, self.device), id=free_id(self.label, plan.devices), label=self.label.strip())
        return with_device(plan, copy)


@dataclass(frozen=True, slots=True, kw_only=True)
class RenameDevice:
    """Another label; the id stays."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        return with_device(plan, replace(device_of(plan, self.device), label=self.label.strip()))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveDevice:
    """A device with its runs."""

    device: str

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        runs = {
            key: run for key, run in plan.runs.items() if device.id not in (run.sending.device, run.receiving.device)
        }
        sources = {
            key: replace(
                source,
                heard_by=without(source.heard_by, device.id),
                off_axis_deg=without(source.off_axis_deg, device.id),
            )
            for key, source in plan.sources.items()
        }
        line_ups = {
            track: found
            for track, found in plan.line_ups.items()
            if device.id not in (found.sender, track.partition(".")[0])
        }
        devices = {
            key: replace(other, jam=None) if other.jam is not None and other.jam.giver == device.id else other
            for key, other in without(plan.devices, device.id).items()
        }
        drifts = {key: found for key, found in plan.pair_drifts.items() if device.id not in (found.first, found.second)}
        return replace(plan, devices=devices, runs=runs, sources=sources, line_ups=line_ups, pair_drifts=drifts)


@dataclass(frozen=True, slots=True, kw_only=True)
class SetControl:
    """Move one control of a device."""

    device: str
    control: str
    value: Setting

    def apply(self, plan: Plan) -> Plan:
        placed = PlanIndex(plan).placed(self.device)
        value = find_control(placed.device_class, self.control).check(self.value)
        return with_device(plan, replace(placed.device, settings=put(placed.device.settings, self.control, value)))


@dataclass(frozen=True, slots=True, kw_only=True)
class RouteBus:
    """Which input channels feed a track or mix."""

    device: str
    bus: str
    inputs: tuple[str, ...]

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        return with_device(plan, replace(device, routing=put(device.routing, self.bus, self.inputs)))


@dataclass(frozen=True, slots=True, kw_only=True)
class FeedOutput:
    """Which track or mix an output channel gives out."""

    device: str
    channel: str
    bus: str

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        return with_device(plan, replace(device, feeds=put(device.feeds, self.channel, self.bus)))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetFigure:
    """One figure of one device, measured or from its manual; None goes back to the class."""

    device: str
    path: str
    figure: Figure | None

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        figures = without(device.figures, self.path)
        if self.figure is not None:
            figures[self.path] = self.figure
        return with_device(plan, replace(device, figures=figures))


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyClass:
    """A class of the user's own, from a device as it stands with its figures; the device takes it."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        class_id = free_id(f"own {self.label}", plan.classes)
        copy = replace(
            with_figures(own_or_built_in(plan, device.class_id), device.figures), id=class_id, label=self.label.strip()
        )
        # What was measured of the knobs and the meter of the class is so of its copy.
        laws = [replace(law, class_id=class_id) for law in plan.gain_laws.values() if law.class_id == device.class_id]
        meters = [
            replace(meter, class_id=class_id) for meter in plan.meters.values() if meter.class_id == device.class_id
        ]
        plan = replace(
            plan,
            classes=put(plan.classes, class_id, copy),
            gain_laws={**plan.gain_laws, **{law.key: law for law in laws}},
            meters={**plan.meters, **{meter.class_id: meter for meter in meters}},
        )
        return with_device(plan, replace(device, class_id=class_id, figures={}))


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveClass:
    """A class of the user's own: a new one, or another description of one that there is.

    Devices of it keep what can still be set, routed and fed; cables into a socket that is no longer there are refused.
    """

    device_class: DeviceClass

    def apply(self, plan: Plan) -> Plan:
        item = self.device_class
        if item.id in built_in().devices:
            raise PlanError(f"a built-in class has the id '{item.id}': choose another")
        fitted = {key: _fitted(device, item) for key, device in plan.devices.items() if device.class_id == item.id}
        laws = {
            key: law
            for key, law in plan.gain_laws.items()
            if law.class_id != item.id or law.control in controls_of(item)
        }
        return replace(
            plan, classes=put(plan.classes, item.id, item), devices={**plan.devices, **fitted}, gain_laws=laws
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveClass:
    """A class of the user's own that no device uses, with what was measured of it."""

    class_id: str

    def apply(self, plan: Plan) -> Plan:
        item = find(plan.classes, self.class_id, "class of your own")
        for device in plan.devices.values():
            if device.class_id == item.id:
                raise PlanError(f"{device.label} is a {item.label}: remove the device first, or give it another class")
        laws = {key: law for key, law in plan.gain_laws.items() if law.class_id != item.id}
        return replace(
            plan, classes=without(plan.classes, item.id), gain_laws=laws, meters=without(plan.meters, item.id)
        )


def own_or_built_in(plan: Plan, class_id: str) -> DeviceClass:
    """A class as it is described, without what was measured of it. Raises UnknownItemError."""
    PlanIndex(plan).class_of(class_id)
    return plan.classes.get(class_id) or built_in().devices[class_id]


def _fitted(device: Device, item: DeviceClass) -> Device:
    """A device as far as it goes with another description of its class."""
    controls, paths = controls_of(item), {named.path for named in figures_of(item)}
    buses = {bus.id: bus for bus in item.buses}
    channels = {ref for port in item.outputs for ref in channel_refs(port)}
    return replace(
        device,
        settings={
            key: value for key, value in device.settings.items() if key in controls and _takes(controls[key], value)
        },
        routing={
            bus: refs
            for bus, refs in device.routing.items()
            if bus in buses and all(ref in item.channel_of for ref in refs)
        },
        feeds={ref: bus for ref, bus in device.feeds.items() if ref in channels and bus in buses},
        roles={bus: role for bus, role in device.roles.items() if bus in buses},
        figures={path: figure for path, figure in device.figures.items() if path in paths},
    )


def _takes(control: Control, value: Setting) -> bool:
    try:
        control.check(value)
    except InputError:
        return False
    return True
