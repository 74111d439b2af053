"""The controls of a device: every switch, knob and menu item that a setting can name."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.timecode import RATES
from tidy_trunk.core.gear.catalogue.connectors import Circuit
from tidy_trunk.core.gear.catalogue.devices import Bus, DeviceClass, InputPort, OutputPort, Port, Power
from tidy_trunk.core.gear.catalogue.span import Span
from tidy_trunk.errors import RangeError, UnknownItemError

Setting = str | float | bool
Settings = Mapping[str, Setting]


class ControlKind(StrEnum):
    """How a control is moved."""

    CHOICE = "choice"
    KNOB = "knob"
    SWITCH = "switch"
    FREQUENCY = "frequency"


@dataclass(frozen=True, slots=True, kw_only=True)
class Control:
    """One control. `id` is the key of its setting; `port` the port it belongs to, "" for the device itself."""

    id: str
    port: str
    label: str
    kind: ControlKind
    default: Setting
    options: tuple[tuple[str, str], ...] = ()
    span: Span | None = None

    def check(self, value: Setting) -> Setting:
        """The value as it is kept.

        Raises:
            RangeError: Not an option, not a position of the knob, or not on/off.
        """
        if self.kind is ControlKind.SWITCH:
            if not isinstance(value, bool):
                raise RangeError(f"{self.label} is on or off, not {value!r}")
            return value
        if self.kind is ControlKind.CHOICE:
            if value not in [option for option, _ in self.options]:
                known = ", ".join(option for option, _ in self.options)
                raise RangeError(f"{self.label} cannot be {value!r}: use {known}")
            return value
        if isinstance(value, bool) or not isinstance(value, int | float):
            raise RangeError(f"{self.label} takes a number, not {value!r}")
        if self.span is None:
            if value and not LOWEST_MHZ <= value <= HIGHEST_MHZ:
                raise RangeError(
                    f"{self.label} must be between {LOWEST_MHZ:g} and {HIGHEST_MHZ:g} MHz, or 0 for not set, and not {value:g}"
                )
            return round(float(value), 3)
        if not self.span.minimum_db <= value <= self.span.maximum_db:
            raise RangeError(
                f"{self.label} goes from {self.span.minimum_db:g} to {self.span.maximum_db:g} dB, not to {value:g} dB"
            )
        return self.span.snapped_db(value)

    @property
    def takes(self) -> str:
        """What it can be set to, in words."""
        if self.kind is ControlKind.SWITCH:
            return "on or off"
        if self.kind is ControlKind.CHOICE:
            return ", ".join(label for _, label in self.options)
        if self.span is None:
            return f"{LOWEST_MHZ:g} to {HIGHEST_MHZ:g} MHz"
        if self.span.lowest_is_off:
            return f"off, and {self.span.minimum_db + self.span.step_db:g} to {self.span.maximum_db:g} dB"
        return f"{self.span.minimum_db:g} to {self.span.maximum_db:g} dB"

    def words(self, value: Setting) -> str:
        """A value as a recordist reads it."""
        if self.kind is ControlKind.SWITCH:
            return "on" if value else "off"
        if self.kind is ControlKind.CHOICE:
            return dict(self.options).get(str(value), str(value))
        if self.kind is ControlKind.FREQUENCY:
            return f"{float(value):.3f} MHz" if value else "not set"
        if self.span is not None and self.span.is_off(float(value)):
            return "off"
        return f"{float(value):+g} dB".replace("-", "−").replace("+0 dB", "0 dB")


def mode_key(port_id: str) -> str:
    return f"{port_id}.mode"


def gain_key(port_id: str, mode_id: str) -> str:
    return f"{port_id}.{mode_id}.gain_db"


def trim_key(port_id: str, mode_id: str) -> str:
    return f"{port_id}.{mode_id}.trim_db"


def pad_key(port_id: str) -> str:
    return f"{port_id}.pad"


def switch_key(port_id: str, what: str, place: str) -> str:
    """Key of a thing that may have several switches: `phantom`, `plug_in`, `auto` at "switch" or "menu"."""
    return f"{port_id}.{what}.{place}"


def limiter_key(port_id: str) -> str:
    return f"{port_id}.limiter"


def low_cut_key(port_id: str) -> str:
    return f"{port_id}.low_cut"


def digital_gain_key(port_id: str) -> str:
    return f"{port_id}.digital_gain_db"


def pan_key(port_id: str) -> str:
    return f"{port_id}.pan"


def frequency_key(port_id: str) -> str:
    return f"{port_id}.frequency_mhz"


def bus_gain_key(bus_id: str) -> str:
    return f"{bus_id}.gain_db"


def armed_key(bus_id: str) -> str:
    return f"{bus_id}.armed"


def link_key(port_id: str) -> str:
    return f"{port_id}.linked"


CAPSULE_PAD_KEY = "capsule.pad_db"
CELL_KEY = "capsule.cell"
POWER_KEY = "power"
SAMPLE_RATE_KEY = "sample_rate"
FOUR_TRACKS_KEY = "four_tracks"
TIMECODE_RATE_KEY = "timecode_rate"
TIMECODE_RUN_KEY = "timecode_run"

GAIN: Final = "gain"
"""ASSUMED_ label of a gain knob."""

RATE_OF_JOB = "job"
FREE_RUN, RECORD_RUN = "free", "record"

PAN_LEFT, PAN_CENTRE, PAN_RIGHT = "left", "centre", "right"

LOWEST_MHZ: Final = 25.0
"""ASSUMED_ lowest frequency of a radio microphone."""

HIGHEST_MHZ: Final = 7_000.0
"""ASSUMED_ highest frequency of a radio microphone: above the 5.8 GHz band."""

USUAL_RATE_HZ: Final = 48_000
"""Sample rate of sound for picture. [PRACTICE]"""


def controls_of(device: DeviceClass) -> Mapping[str, Control]:
    """Every control of a class by id, largest switch first; worked out once."""
    found: Mapping[str, Control] | None = device.kept.get("controls")
    if found is None:
        found = device.kept["controls"] = _controls_of(device)
    return found


def _controls_of(device: DeviceClass) -> Mapping[str, Control]:
    found: list[Control] = [*_device_controls(device), *_capsule_controls(device)]
    for port in device.ports:
        found += _mode_controls(port)
        if isinstance(port, InputPort):
            found += _input_controls(port)
        else:
            found += _trim_controls(port)
        if port.circuit is Circuit.RADIO:
            label = "frequency"
            found.append(
                Control(id=frequency_key(port.id), port=port.id, label=label, kind=ControlKind.FREQUENCY, default=0.0)
            )
    for bus in device.buses:
        found += _bus_controls(bus)
    followers = {other for port in device.inputs if port.one_knob for other in port.linked_to}
    return {control.id: control for control in found if not _follows(control, followers)}


def _follows(control: Control, followers: Collection[str]) -> bool:
    """Whether it would be the knob of an input that another one's knob moves, always."""
    return control.kind is ControlKind.KNOB and control.port in followers and control.label == GAIN


def _bus_controls(bus: Bus) -> Iterator[Control]:
    if bus.armed is not None:
        yield Control(id=armed_key(bus.id), port=bus.id, label="armed", kind=ControlKind.SWITCH, default=bus.armed)
    for place in bus.automatic_level_places:
        yield Control(
            id=switch_key(bus.id, "auto", place), port=bus.id, label=f"automatic level, {place}", kind=ControlKind.SWITCH,
            default=bus.automatic_level_default,
        )  # fmt: skip
    if bus.gain is not None:
        yield _knob(bus_gain_key(bus.id), bus.id, GAIN, bus.gain)


def find_control(device: DeviceClass, control_id: str) -> Control:
    """The control of that id. Raises UnknownItemError with the known ones."""
    controls = controls_of(device)
    if control_id not in controls:
        known = ", ".join(controls) or "none"
        raise UnknownItemError(f"{device.label} has no control '{control_id}'; it has {known}")
    return controls[control_id]


def _switch(port: Port, control_id: str, label: str, default: bool) -> Control:
    return Control(id=control_id, port=port.id, label=label, kind=ControlKind.SWITCH, default=default)


def _mode_controls(port: Port) -> Iterator[Control]:
    if len(port.modes) > 1:
        options = tuple((mode.id, mode.label) for mode in port.modes)
        yield Control(
            id=mode_key(port.id),
            port=port.id,
            label="mode",
            kind=ControlKind.CHOICE,
            options=options,
            default=port.modes[0].id,
        )


def _input_controls(port: InputPort) -> Iterator[Control]:
    for place in port.phantom_places:
        yield _switch(port, switch_key(port.id, "phantom", place), f"48 V, {place}", False)
    for place in port.plug_in_places:
        yield _switch(port, switch_key(port.id, "plug_in", place), f"plug-in power, {place}", False)
    for place in port.automatic_level_places:
        label = f"automatic level, {place}"
        yield _switch(port, switch_key(port.id, "auto", place), label, port.automatic_level_default)
    if port.pad_db is not None:
        yield _switch(port, pad_key(port.id), f"attenuator −{port.pad_db.value:g} dB", False)
    if port.low_cut_hz:
        options = (("off", "off"), *((str(hertz), f"{hertz} Hz") for hertz in port.low_cut_hz))
        yield Control(
            id=low_cut_key(port.id),
            port=port.id,
            label="low cut",
            kind=ControlKind.CHOICE,
            options=options,
            default="off",
        )
    if port.limiter_dbfs is not None:
        yield _switch(port, limiter_key(port.id), "limiter", False)
    if port.linked_to and not port.one_knob:
        yield _switch(port, link_key(port.id), "one knob for both", False)
    for mode in port.modes:
        if mode.gain is not None:
            yield _knob(gain_key(port.id, mode.id), port.id, GAIN, mode.gain)
    if port.digital_gain is not None:
        yield _knob(digital_gain_key(port.id), port.id, "digital gain", port.digital_gain)
    if port.pan is not None:
        options = ((PAN_CENTRE, "centre"), (PAN_LEFT, "left"), (PAN_RIGHT, "right"))
        yield Control(
            id=pan_key(port.id), port=port.id, label="pan", kind=ControlKind.CHOICE, options=options, default=PAN_CENTRE
        )


def _trim_controls(port: OutputPort) -> Iterator[Control]:
    for mode in port.modes:
        if mode.trim is not None:
            yield _knob(trim_key(port.id, mode.id), port.id, f"output level, {mode.trim_kind}", mode.trim)


def _knob(control_id: str, port_id: str, label: str, span: Span) -> Control:
    return Control(id=control_id, port=port_id, label=label, kind=ControlKind.KNOB, span=span, default=span.default_db)


def _device_controls(device: DeviceClass) -> Iterator[Control]:
    powers, rates = device.traits.powers, device.traits.sample_rates_hz
    if len(powers) > 1:
        yield _choice(POWER_KEY, "power", [(power, _POWERS[power]) for power in powers])
    if len(rates) > 1:
        usual = sorted(rates, key=lambda rate: rate != USUAL_RATE_HZ)
        yield _choice(SAMPLE_RATE_KEY, "sample rate", [(str(rate), f"{rate / 1000:g} kHz") for rate in usual])
    if device.keeps_time:
        yield _choice(
            TIMECODE_RATE_KEY, "timecode rate", [(RATE_OF_JOB, "as the job"), *((rate, rate) for rate in RATES)]
        )
        yield _choice(TIMECODE_RUN_KEY, "timecode", [(FREE_RUN, "free run"), (RECORD_RUN, "record run")])
    if any(bus.needs_four_tracks for bus in device.buses):
        label = "four-track mode"
        yield Control(id=FOUR_TRACKS_KEY, port="", label=label, kind=ControlKind.SWITCH, default=False)


_POWERS: Final = {
    Power.BATTERY: "battery",
    Power.MAINS: "mains, earthed",
    Power.ADAPTER: "wall adapter, double-insulated",
    Power.COMPUTER: "USB of a computer or monitor",
    Power.CHARGER: "USB charger",
}
"""What they are called beside the switch. [HANDBOOK] §9"""


def _choice(control_id: str, label: str, options: Sequence[tuple[str, str]]) -> Control:
    """A choice of the whole device; the first option is what it stands at."""
    return Control(
        id=control_id, port="", label=label, kind=ControlKind.CHOICE, options=tuple(options), default=options[0][0]
    )


def _signed(db: float) -> str:
    return f"{'+' if db > 0 else '−'}{abs(db):g} dB"


def _capsule_controls(device: DeviceClass) -> Iterator[Control]:
    if device.capsule is None:
        return
    positions = device.capsule.positions_db
    if len(positions) > 1:
        options = tuple((f"{0 - db:g}", _signed(db) if db else "off") for db in positions)
        yield Control(id=CAPSULE_PAD_KEY, port="", label="pad", kind=ControlKind.CHOICE, options=options, default="0")
    if device.capsule.cell:
        yield Control(id=CELL_KEY, port="", label="cell in", kind=ControlKind.SWITCH, default=False)
