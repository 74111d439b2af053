"""A class of device whose knobs do what was measured, and not what is written beside them."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from tidy_trunk.core.gear.catalogue.controls import bus_gain_key, controls_of, gain_key, trim_key
from tidy_trunk.core.gear.catalogue.devices import Bus, DeviceClass, InputMode, InputPort, OutputMode, OutputPort
from tidy_trunk.core.gear.catalogue.span import LawPoint, Span
from tidy_trunk.errors import UnknownItemError


def span_of(device: DeviceClass, control_id: str) -> Span:
    """The range of a gain or output level. Raises UnknownItemError: no such knob."""
    control = controls_of(device).get(control_id)
    if control is None or control.span is None:
        knobs = ", ".join(item.id for item in controls_of(device).values() if item.span is not None) or "none"
        raise UnknownItemError(f"{device.label} has no knob '{control_id}'; it has {knobs}")
    return control.span


def with_spans(device: DeviceClass, change: Callable[[str, Span], Span]) -> DeviceClass:
    """A copy of a class with each of its knobs changed: `change` is given the id of its control, and its range."""

    def takes(port: InputPort, mode: InputMode) -> InputMode:
        return mode if mode.gain is None else replace(mode, gain=change(gain_key(port.id, mode.id), mode.gain))

    def sends(port: OutputPort, mode: OutputMode) -> OutputMode:
        return mode if mode.trim is None else replace(mode, trim=change(trim_key(port.id, mode.id), mode.trim))

    def kept(bus: Bus) -> Bus:
        return bus if bus.gain is None else replace(bus, gain=change(bus_gain_key(bus.id), bus.gain))

    return replace(
        device,
        inputs=tuple(replace(port, modes=tuple(takes(port, mode) for mode in port.modes)) for port in device.inputs),
        outputs=tuple(replace(port, modes=tuple(sends(port, mode) for mode in port.modes)) for port in device.outputs),
        buses=tuple(kept(bus) for bus in device.buses),
    )


def with_laws(device: DeviceClass, laws: Mapping[str, Sequence[LawPoint]]) -> DeviceClass:
    """A copy of a class in which the knobs of these control ids follow a law; ids that it does not have are left out.

    Raises:
        RangeError: A law that does not rise.
    """
    if not laws:
        return device

    return with_spans(device, lambda key, span: replace(span, law=tuple(laws[key])) if key in laws else span)
