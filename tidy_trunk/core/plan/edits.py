"""Edits: named commands on a plan, each a pure function from plan to plan with its plain sentence."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Protocol, TypeVar

from tidy_trunk.core.catalogue import Figure, Setting, find_control
from tidy_trunk.core.plan.model import (
    SPEECH_PEAK_ABOVE_DB,
    SPEECH_QUIET_BELOW_DB,
    Defaults,
    Device,
    OwnClass,
    Part,
    Plan,
    PortRef,
    Run,
    Source,
)
from tidy_trunk.core.plan.rig import Rig
from tidy_trunk.core.plan.validate import validate
from tidy_trunk.errors import PlanError, UnknownItemError

_T = TypeVar("_T")


class Edit(Protocol):
    """A command on a plan. `apply` raises PlanError or InputError where it cannot be done, and changes nothing."""

    def apply(self, plan: Plan) -> Plan: ...

    def sentence(self, plan: Plan) -> str:
        """What it does to this plan (the state before), in plain words."""
        ...


def free_id(wanted: str, taken: Mapping[str, object]) -> str:
    """A short readable id made from a label, not yet taken."""
    slug = re.sub(r"[^a-z0-9]+", "-", wanted.lower()).strip("-")[:40] or "item"
    number, candidate = 1, slug
    while candidate in taken:
        number += 1
        candidate = f"{slug}-{number}"
    return candidate


def apply_edits(plan: Plan, edits: Sequence[Edit]) -> tuple[Plan, str]:
    """Apply edits in order; the new plan and one sentence for all of them.

    Raises:
        PlanError, InputError: One of them cannot be done; the plan given stays as it was.
    """
    sentences = []
    for edit in edits:
        sentences.append(edit.sentence(plan))
        plan = edit.apply(plan)
    validate(plan)
    return plan, "; ".join(sentences)


def _put(items: Mapping[str, _T], key: str, value: _T) -> dict[str, _T]:
    return {**items, key: value}


def _without(items: Mapping[str, _T], key: str) -> dict[str, _T]:
    return {name: value for name, value in items.items() if name != key}


def _device(plan: Plan, device_id: str) -> Device:
    return Rig(plan).unit(device_id).device


def _with_device(plan: Plan, device: Device) -> Plan:
    return replace(plan, devices=_put(plan.devices, device.id, device))


def _find(items: Mapping[str, _T], key: str, what: str) -> _T:
    if key not in items:
        raise UnknownItemError(f"there is no {what} '{key}'; the job has {', '.join(items) or 'none'}")
    return items[key]


@dataclass(frozen=True, slots=True, kw_only=True)
class SetJob:
    """Name and defaults of the job; what is None stays."""

    name: str | None = None
    frame_rate: str | None = None
    target: str | None = None
    alignment_dbfs: float | None = None
    mains_hz: int | None = None
    room_noise_db_spl: float | None = None

    def _changes(self) -> dict[str, object]:
        named = ("frame_rate", "target", "alignment_dbfs", "mains_hz", "room_noise_db_spl")
        return {name: getattr(self, name) for name in named if getattr(self, name) is not None}

    def apply(self, plan: Plan) -> Plan:
        values = {name: getattr(plan.defaults, name) for name in Defaults.__dataclass_fields__}
        defaults = Defaults(**{**values, **self._changes()})
        return replace(plan, name=plan.name if self.name is None else self.name.strip(), defaults=defaults)

    def sentence(self, plan: Plan) -> str:
        parts = [f"name {self.name.strip()}"] if self.name is not None else []
        words = {
            "frame_rate": "frame rate",
            "alignment_dbfs": "tone",
            "mains_hz": "mains",
            "room_noise_db_spl": "room noise",
        }
        parts += [f"{words.get(name, name)} {value}" for name, value in self._changes().items()]
        return f"Job: {', '.join(parts) or 'nothing changed'}"


@dataclass(frozen=True, slots=True, kw_only=True)
class AddDevice:
    """A device of a class, with default settings."""

    class_id: str
    label: str | None = None
    id: str | None = None

    def _label(self, plan: Plan) -> str:
        if self.label:
            return self.label.strip()
        own = plan.classes.get(self.class_id)
        base = own.label if own else Rig(plan).class_of(self.class_id).label.split(",")[0]
        count = sum(
            1 for device in plan.devices.values() if device.label == base or device.label.startswith(base + " ")
        )
        return f"{base} {count + 1}" if count else base

    def apply(self, plan: Plan) -> Plan:
        Rig(plan).class_of(self.class_id)
        label = self._label(plan)
        device_id = self.id or free_id(label, plan.devices)
        if device_id in plan.devices:
            raise PlanError(f"there is a device '{device_id}' already: give the new one another id")
        return _with_device(plan, Device(id=device_id, label=label, class_id=self.class_id))

    def sentence(self, plan: Plan) -> str:
        return f"Add {self._label(plan)}"


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyDevice:
    """A second device with the settings of a first."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        copy = replace(_device(plan, self.device), id=free_id(self.label, plan.devices), label=self.label.strip())
        return _with_device(plan, copy)

    def sentence(self, plan: Plan) -> str:
        return f"Copy {_device(plan, self.device).label} as {self.label.strip()}"


@dataclass(frozen=True, slots=True, kw_only=True)
class RenameDevice:
    """Another label; the id stays."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        return _with_device(plan, replace(_device(plan, self.device), label=self.label.strip()))

    def sentence(self, plan: Plan) -> str:
        return f"{_device(plan, self.device).label} is now {self.label.strip()}"


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveDevice:
    """A device with its runs."""

    device: str

    def apply(self, plan: Plan) -> Plan:
        device = _device(plan, self.device)
        runs = {
            key: run for key, run in plan.runs.items() if device.id not in (run.sending.device, run.receiving.device)
        }
        sources = {
            key: replace(source, heard_by=_without(source.heard_by, device.id)) for key, source in plan.sources.items()
        }
        return replace(plan, devices=_without(plan.devices, device.id), runs=runs, sources=sources)

    def sentence(self, plan: Plan) -> str:
        return f"Remove {_device(plan, self.device).label} and its runs"


@dataclass(frozen=True, slots=True, kw_only=True)
class SetControl:
    """Move one control of a device."""

    device: str
    control: str
    value: Setting

    def apply(self, plan: Plan) -> Plan:
        unit = Rig(plan).unit(self.device)
        value = find_control(unit.device_class, self.control).check(self.value)
        return _with_device(plan, replace(unit.device, settings=_put(unit.device.settings, self.control, value)))

    def sentence(self, plan: Plan) -> str:
        unit = Rig(plan).unit(self.device)
        control = find_control(unit.device_class, self.control)
        where = f" {unit.port(control.port).label}" if control.port else ""
        return f"{unit.label}{where}: {control.label} to {control.words(control.check(self.value))}"


@dataclass(frozen=True, slots=True, kw_only=True)
class RouteBus:
    """Which input channels feed a track or mix."""

    device: str
    bus: str
    inputs: tuple[str, ...]

    def apply(self, plan: Plan) -> Plan:
        device = _device(plan, self.device)
        return _with_device(plan, replace(device, routing=_put(device.routing, self.bus, self.inputs)))

    def sentence(self, plan: Plan) -> str:
        return f"{_device(plan, self.device).label}: {self.bus} from {', '.join(self.inputs) or 'nothing'}"


@dataclass(frozen=True, slots=True, kw_only=True)
class FeedOutput:
    """Which track or mix an output channel gives out."""

    device: str
    channel: str
    bus: str

    def apply(self, plan: Plan) -> Plan:
        device = _device(plan, self.device)
        return _with_device(plan, replace(device, feeds=_put(device.feeds, self.channel, self.bus)))

    def sentence(self, plan: Plan) -> str:
        return f"{_device(plan, self.device).label}: {self.channel} gives {self.bus}"


@dataclass(frozen=True, slots=True, kw_only=True)
class AddSource:
    """Somebody or something to be heard. Quiet and peak are those of speech where they are not given."""

    label: str
    average_db_spl: float
    quiet_db_spl: float | None = None
    peak_db_spl: float | None = None
    heard_by: Mapping[str, float] = field(default_factory=dict)
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        source_id = self.id or free_id(self.label, plan.sources)
        if source_id in plan.sources:
            raise PlanError(f"there is a source '{source_id}' already: give the new one another id")
        source = Source(
            id=source_id,
            label=self.label.strip(),
            average_db_spl=self.average_db_spl,
            quiet_db_spl=self.average_db_spl - SPEECH_QUIET_BELOW_DB
            if self.quiet_db_spl is None
            else self.quiet_db_spl,
            peak_db_spl=self.average_db_spl + SPEECH_PEAK_ABOVE_DB if self.peak_db_spl is None else self.peak_db_spl,
            heard_by=dict(self.heard_by),
        )
        return replace(plan, sources=_put(plan.sources, source_id, source))

    def sentence(self, plan: Plan) -> str:
        return f"Add {self.label.strip()}, {self.average_db_spl:g} dB SPL at 1 m"


@dataclass(frozen=True, slots=True, kw_only=True)
class SetSource:
    """Name and levels of a source; what is None stays."""

    source: str
    label: str | None = None
    quiet_db_spl: float | None = None
    average_db_spl: float | None = None
    peak_db_spl: float | None = None

    def apply(self, plan: Plan) -> Plan:
        source = _find(plan.sources, self.source, "source")
        changed = replace(
            source,
            label=source.label if self.label is None else self.label.strip(),
            quiet_db_spl=source.quiet_db_spl if self.quiet_db_spl is None else self.quiet_db_spl,
            average_db_spl=source.average_db_spl if self.average_db_spl is None else self.average_db_spl,
            peak_db_spl=source.peak_db_spl if self.peak_db_spl is None else self.peak_db_spl,
        )
        return replace(plan, sources=_put(plan.sources, source.id, changed))

    def sentence(self, plan: Plan) -> str:
        values = {"quiet": self.quiet_db_spl, "average": self.average_db_spl, "peak": self.peak_db_spl}
        parts = [f"named {self.label.strip()}"] if self.label is not None else []
        parts += [f"{name} {value:g} dB SPL" for name, value in values.items() if value is not None]
        return f"{_find(plan.sources, self.source, 'source').label}: {', '.join(parts) or 'nothing changed'}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Hear:
    """Put a microphone at a distance from a source; None takes it away."""

    source: str
    device: str
    distance_m: float | None

    def apply(self, plan: Plan) -> Plan:
        source = _find(plan.sources, self.source, "source")
        heard = _without(source.heard_by, self.device)
        if self.distance_m is not None:
            heard[self.device] = self.distance_m
        return replace(plan, sources=_put(plan.sources, source.id, replace(source, heard_by=heard)))

    def sentence(self, plan: Plan) -> str:
        source, device = _find(plan.sources, self.source, "source"), _device(plan, self.device)
        if self.distance_m is None:
            return f"{device.label} no longer at {source.label}"
        return f"{device.label} at {self.distance_m:g} m from {source.label}"


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveSource:
    """A source that is not needed."""

    source: str

    def apply(self, plan: Plan) -> Plan:
        source = _find(plan.sources, self.source, "source")
        return replace(plan, sources=_without(plan.sources, source.id))

    def sentence(self, plan: Plan) -> str:
        return f"Remove {_find(plan.sources, self.source, 'source').label}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Connect:
    """A run from an output to an input through parts; it gets the lowest free number."""

    sending: PortRef
    receiving: PortRef
    parts: tuple[Part, ...] = ()
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        taken = {run.number for run in plan.runs.values()}
        number = next(count for count in range(1, len(taken) + 2) if count not in taken)
        run_id = self.id or free_id(f"run {number}", plan.runs)
        if run_id in plan.runs:
            raise PlanError(f"there is a run '{run_id}' already: give the new one another id")
        run = Run(id=run_id, number=number, sending=self.sending, receiving=self.receiving, parts=self.parts)
        return replace(plan, runs=_put(plan.runs, run_id, run))

    def sentence(self, plan: Plan) -> str:
        rig = Rig(plan)
        return f"Run {rig.port_label(self.sending)} to {rig.port_label(self.receiving)}{_through(rig, self.parts)}"


@dataclass(frozen=True, slots=True, kw_only=True)
class SetParts:
    """Other leads for a run."""

    run: str
    parts: tuple[Part, ...]

    def apply(self, plan: Plan) -> Plan:
        run = _find(plan.runs, self.run, "run")
        return replace(plan, runs=_put(plan.runs, run.id, replace(run, parts=self.parts)))

    def sentence(self, plan: Plan) -> str:
        return f"Run {_find(plan.runs, self.run, 'run').number}{_through(Rig(plan), self.parts) or ' plugged directly'}"


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveRun:
    """Another output or input for a run, and other leads where its plugs change."""

    run: str
    sending: PortRef | None = None
    receiving: PortRef | None = None
    parts: tuple[Part, ...] | None = None

    def apply(self, plan: Plan) -> Plan:
        run = _find(plan.runs, self.run, "run")
        moved = replace(
            run,
            sending=self.sending or run.sending,
            receiving=self.receiving or run.receiving,
            parts=run.parts if self.parts is None else self.parts,
        )
        return replace(plan, runs=_put(plan.runs, run.id, moved))

    def sentence(self, plan: Plan) -> str:
        run, rig = _find(plan.runs, self.run, "run"), Rig(plan)
        ends = f"{rig.port_label(self.sending or run.sending)} to {rig.port_label(self.receiving or run.receiving)}"
        return f"Run {run.number} now from {ends}{_through(rig, self.parts or ())}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Disconnect:
    """Take a run out."""

    run: str

    def apply(self, plan: Plan) -> Plan:
        run = _find(plan.runs, self.run, "run")
        return replace(plan, runs=_without(plan.runs, run.id))

    def sentence(self, plan: Plan) -> str:
        return f"Remove {Rig(plan).run_label(_find(plan.runs, self.run, 'run'))}"


@dataclass(frozen=True, slots=True, kw_only=True)
class SetFigure:
    """One figure of one device, measured or from its manual; None goes back to the class."""

    device: str
    path: str
    figure: Figure | None

    def apply(self, plan: Plan) -> Plan:
        device = _device(plan, self.device)
        figures = _without(device.figures, self.path)
        if self.figure is not None:
            figures[self.path] = self.figure
        return _with_device(plan, replace(device, figures=figures))

    def sentence(self, plan: Plan) -> str:
        label, what = _device(plan, self.device).label, self.path.replace("_", " ").replace(".", " ")
        if self.figure is None:
            return f"{label}: {what} as in its class"
        return f"{label}: {what} {self.figure.value:g}, {self.figure.provenance}"


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyClass:
    """A class of the user's own, from a device as it stands with its figures; the device takes it."""

    device: str
    label: str

    def apply(self, plan: Plan) -> Plan:
        device = _device(plan, self.device)
        own = plan.classes.get(device.class_id)
        base, inherited = (own.base, own.figures) if own else (device.class_id, {})
        class_id = free_id(f"own {self.label}", plan.classes)
        copy = OwnClass(id=class_id, label=self.label.strip(), base=base, figures={**inherited, **device.figures})
        plan = replace(plan, classes=_put(plan.classes, class_id, copy))
        return _with_device(plan, replace(device, class_id=class_id, figures={}))

    def sentence(self, plan: Plan) -> str:
        return f"New class {self.label.strip()} from {_device(plan, self.device).label}"


def _through(rig: Rig, parts: Sequence[Part]) -> str:
    if not parts:
        return ""
    names = []
    for part in parts:
        lead = rig.lead_of(part)
        names.append(f"{part.length_m:g} m {lead.label}" if not lead.is_adapter else lead.label)
    return f" by {' and '.join(names)}"
