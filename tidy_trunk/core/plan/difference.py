"""What tells two states of a job apart, in sentences."""

from collections.abc import Iterator, Mapping, Sequence
from typing import TypeVar

from tidy_trunk.core.gear.catalogue import CELL_KEY, Control, Setting, channel_refs, controls_of, figures_of
from tidy_trunk.core.plan.clocks import Jam, PairDrift, times_words
from tidy_trunk.core.plan.edits import default_words
from tidy_trunk.core.plan.edits.clocks import drift_words
from tidy_trunk.core.plan.edits.line_ups import track_words
from tidy_trunk.core.plan.edits.measured import error_words, knob_words, meter_words
from tidy_trunk.core.plan.index import PlacedDevice, PlanIndex
from tidy_trunk.core.plan.line_ups import LineUp
from tidy_trunk.core.plan.measured import GainLaw, MeterError
from tidy_trunk.core.plan.model import Defaults, Device, Part, Plan, Run
from tidy_trunk.core.plan.path import path_words
from tidy_trunk.core.plan.targets import Role

_T = TypeVar("_T")


def differences(before: Plan, after: Plan) -> tuple[str, ...]:
    """What changes from one state to another, in the order in which a job is read; empty where nothing does.

    Both plans must be well formed.
    """
    return tuple(_all(before, after))


def _all(before: Plan, after: Plan) -> Iterator[str]:
    if before.name != after.name:
        yield f"the job is called {after.name}, not {before.name}"
    for name in Defaults.__dataclass_fields__:
        value = getattr(after.defaults, name)
        if getattr(before.defaults, name) != value:
            yield f"{default_words(name, value)}, was {default_words(name, getattr(before.defaults, name))}"
    first, second = PlanIndex(before), PlanIndex(after)
    yield from _items("class", before.classes, after.classes)
    yield from _items("cable of your own", before.leads, after.leads)
    yield from _items("target", before.targets, after.targets)
    for old_device, device in _pairs(before.devices, after.devices):
        yield from _device(first, second, old_device, device)
    yield from _items("source", before.sources, after.sources)
    for old_run, run in _pairs(before.runs, after.runs):
        yield from _run(first, second, old_run, run)
    for old_found, found in _pairs(before.line_ups, after.line_ups):
        yield _line_up(before, after, old_found, found)
    for old_law, law in _pairs(before.gain_laws, after.gain_laws):
        yield _gain_law(before, after, old_law, law)
    for old_meter, meter in _pairs(before.meters, after.meters):
        yield _meter(before, after, old_meter, meter)
    yield from _items("break", before.breaks, after.breaks)
    for old_drift, drift in _pairs(before.pair_drifts, after.pair_drifts):
        yield _pair_drift(before, after, old_drift, drift)


def _pair_drift(before: Plan, after: Plan, old: PairDrift | None, new: PairDrift | None) -> str:
    plan, drift = (after, new) if new is not None else (before, old)
    if drift is None:
        return ""
    first, second = (plan.devices[name].label for name in (drift.first, drift.second))
    measured = f"measured, {drift_words(drift.ppm)}" if new is not None else "as good as their classes again"
    return f"the clocks of {first} and {second} are {measured}"


def _gain_law(before: Plan, after: Plan, old: GainLaw | None, new: GainLaw | None) -> str:
    if new is None:
        return f"{knob_words(before, old.class_id, old.control) if old else ''} is as it is marked again"
    return f"{knob_words(after, new.class_id, new.control)} is measured at {len(new.points)} positions"


def _meter(before: Plan, after: Plan, old: MeterError | None, new: MeterError | None) -> str:
    if new is None:
        return f"{meter_words(before, old.class_id) if old else ''} is believed again"
    return f"{meter_words(after, new.class_id)} {error_words(new)}"


def _line_up(before: Plan, after: Plan, old: LineUp | None, new: LineUp | None) -> str:
    if new is None:
        return f"{track_words(before, old.track) if old else ''} is lined up no more"
    was = f", was {_plain(old.read_dbfs)}" if old else ""
    return f"{track_words(after, new.track)} is lined up: {_plain(new.read_dbfs)} dBFS for {_plain(new.sent_dbfs)}{was}"


def _pairs(before: Mapping[str, _T], after: Mapping[str, _T]) -> Iterator[tuple[_T | None, _T | None]]:
    """Things of the same id, of which one may be missing; what is gone comes first."""
    for key, item in before.items():
        if key not in after:
            yield item, None
    for key, item in after.items():
        if before.get(key) != item:
            yield before.get(key), item


def _items(what: str, before: Mapping[str, _T], after: Mapping[str, _T]) -> Iterator[str]:
    """Things of which only the name is told, and what about them is new."""
    for old, new in _pairs(before, after):
        label = getattr(new or old, "label", "")
        if old is None or new is None:
            yield f"{what} {label} is {'new' if old is None else 'gone'}"
            continue
        names = [name for name in old.__dataclass_fields__ if getattr(old, name) != getattr(new, name)]  # type: ignore[attr-defined]
        yield f"{what} {label}: {', '.join(_field(name, getattr(old, name), getattr(new, name)) for name in names)}"


def _field(name: str, old: object, new: object) -> str:
    words = name.replace("_db_spl", "").replace("_", " ")
    if isinstance(new, bool):
        return words if new else f"not {words}"
    if isinstance(old, int | float | str) and isinstance(new, int | float | str):
        return f"{words} {_plain(new)}, was {_plain(old)}"
    return f"{words} changed"


def _plain(value: float | str) -> str:
    return value if isinstance(value, str) else f"{value:g}".replace("-", "−")


def _device(first: PlanIndex, second: PlanIndex, old: Device | None, new: Device | None) -> Iterator[str]:
    if new is None:
        yield f"{old.label if old else ''} is gone"
        return
    if old is None:
        yield f"{new.label} is new: {second.unit(new.id).device_class.label}"
        return
    if old.label != new.label:
        yield f"{old.label} is called {new.label}"
    unit, was = second.unit(new.id), first.unit(old.id)
    if old.class_id != new.class_id:
        yield f"{new.label} is of class {unit.device_class.label}, was {was.device_class.label}"
        return
    controls = controls_of(unit.device_class)
    for key in dict.fromkeys([*old.settings, *new.settings]):
        before, now = old.settings.get(key), new.settings.get(key)
        if before != now and key in controls:
            yield _setting(second, new, controls[key], before, now)
    fed, was_fed = _fed(unit), _fed(was)
    for place, feeds in fed.items():
        if feeds != was_fed[place]:
            yield f"{new.label}: {place} from {feeds}, was from {was_fed[place]}"
    for bus in unit.device_class.buses:
        then, now_for = (device.roles.get(bus.id, Role.DIALOGUE) for device in (old, new))
        if then != now_for:
            yield f"{unit.bus_label(bus.id)} is for {now_for}, was for {then}"
    if old.jam != new.jam:
        yield f"{new.label} is jammed {_jam(second, new.jam)}, was {_jam(first, old.jam)}"
    names = {named.path: named for named in figures_of(unit.device_class)}
    for path in dict.fromkeys([*old.figures, *new.figures]):
        if old.figures.get(path) != new.figures.get(path):
            figure = names[path].figure
            yield f"{new.label} {names[path].label}: {_plain(figure.value)} {names[path].unit}, {figure.provenance}"


def _jam(index: PlanIndex, jam: Jam | None) -> str:
    return "by nobody" if jam is None else f"from {index.unit(jam.giver).label} at {times_words(jam.at_min)}"


def _setting(index: PlanIndex, device: Device, control: Control, before: Setting | None, now: Setting | None) -> str:
    port = f" {index.unit(device.id).port(control.port).label}" if control.port else ""
    then, here = (control.words(control.default if value is None else value) for value in (before, now))
    label = "cell" if control.id == CELL_KEY else control.label
    return f"{device.label}{port}: {label} {here}, was {then}"


def _fed(unit: PlacedDevice) -> dict[str, str]:
    """What feeds each track, mix and output channel, in words."""
    found = {}
    for bus in unit.device_class.buses:
        inputs = ", ".join(unit.place_label(channel) for channel in unit.bus_inputs(bus))
        found[unit.place_label(bus.id)] = inputs or "nothing"
    for port in unit.device_class.outputs:
        for channel in channel_refs(port):
            fed = unit.fed_bus(channel)
            found[unit.place_label(channel)] = unit.place_label(fed.id) if fed else "nothing"
    return found


def _run(first: PlanIndex, second: PlanIndex, old: Run | None, new: Run | None) -> Iterator[str]:
    if new is None:
        yield f"{first.run_label(old)} is gone" if old else ""
        return
    if old is None:
        yield f"{second.run_label(new)} is new, by {_parts(second, new.parts)}"
        return
    label = f"cable {new.number}"
    if old.number != new.number:
        yield f"cable {old.number} has number {new.number}"
    if (old.sending, old.receiving) != (new.sending, new.receiving):
        yield f"{label} goes from {second.port_label(new.sending)} to {second.port_label(new.receiving)}"
    if old.parts != new.parts:
        yield f"{label} by {_parts(second, new.parts)}, was {_parts(first, old.parts)}"
    if old.path != new.path:
        yield f"{label}: {path_words(new.path)}, was {path_words(old.path)}"
    if old.strain_relief != new.strain_relief:
        yield f"{label}: {'strain relief fitted' if new.strain_relief else 'no strain relief'}"


def _parts(index: PlanIndex, parts: Sequence[Part]) -> str:
    return " and ".join(f"{part.length_m:g} m {index.lead_of(part).label}" for part in parts) or "no cable"
