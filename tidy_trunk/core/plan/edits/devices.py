"""Edits on devices: which there are, how they are set and routed, and their figures."""

from dataclasses import dataclass, replace

from tidy_trunk.core.gear.catalogue import Figure, Setting, find_control
from tidy_trunk.core.plan.edits.base import device_of, free_id, put, with_device, without
from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.model import Device, OwnClass, Plan
from tidy_trunk.errors import PlanError


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
        own = plan.classes.get(self.class_id)
        base = own.label if own else PlanIndex(plan).class_of(self.class_id).label.split(",")[0]
        count = sum(
            1 for device in plan.devices.values() if device.label == base or device.label.startswith(base + " ")
        )
        return f"{base} {count + 1}" if count else base

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
        unit = PlanIndex(plan).unit(self.device)
        value = find_control(unit.device_class, self.control).check(self.value)
        return with_device(plan, replace(unit.device, settings=put(unit.device.settings, self.control, value)))


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
        own = plan.classes.get(device.class_id)
        base, inherited = (own.base, own.figures) if own else (device.class_id, {})
        class_id = free_id(f"own {self.label}", plan.classes)
        copy = OwnClass(id=class_id, label=self.label.strip(), base=base, figures={**inherited, **device.figures})
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
