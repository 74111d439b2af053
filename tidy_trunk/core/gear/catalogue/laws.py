"""A class of device whose knobs do what was measured, and not what is written beside them."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from tidy_trunk.core.gear.catalogue.controls import controls_of, gain_key, trim_key
from tidy_trunk.core.gear.catalogue.devices import DeviceClass, InputMode, OutputMode
from tidy_trunk.core.gear.catalogue.span import LawPoint, Span
from tidy_trunk.errors import UnknownItemError


def span_of(device: DeviceClass, control_id: str) -> Span:
    """The range of a gain or output level. Raises UnknownItemError: no such knob."""
    control = controls_of(device).get(control_id)
    if control is None or control.span is None:
        knobs = ", ".join(item.id for item in controls_of(device).values() if item.span is not None) or "none"
        raise UnknownItemError(f"{device.label} has no knob '{control_id}'; it has {knobs}")
    return control.span


def with_laws(device: DeviceClass, laws: Mapping[str, Sequence[LawPoint]]) -> DeviceClass:
    """A copy of a class in which the knobs of these control ids follow a law; ids that it does not have are left out.

    Raises:
        RangeError: A law that does not rise.
    """
    if not laws:
        return device

    def takes(port_id: str, mode: InputMode) -> InputMode:
        law = laws.get(gain_key(port_id, mode.id))
        return mode if law is None or mode.gain is None else replace(mode, gain=replace(mode.gain, law=tuple(law)))

    def sends(port_id: str, mode: OutputMode) -> OutputMode:
        law = laws.get(trim_key(port_id, mode.id))
        return mode if law is None or mode.trim is None else replace(mode, trim=replace(mode.trim, law=tuple(law)))

    inputs = tuple(replace(port, modes=tuple(takes(port.id, mode) for mode in port.modes)) for port in device.inputs)
    outputs = tuple(replace(port, modes=tuple(sends(port.id, mode) for mode in port.modes)) for port in device.outputs)
    return replace(device, inputs=inputs, outputs=outputs)
