"""The plan with its classes and settings looked up: what stands where, right now."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Final, TypeVar

from tidy_trunk.core.gear.catalogue import (
    CELL_KEY,
    FOUR_TRACKS_KEY,
    PAN_CENTRE,
    PAN_LEFT,
    POWER_KEY,
    SAMPLE_RATE_KEY,
    USUAL_RATE_HZ,
    Bus,
    Circuit,
    Control,
    ControlKind,
    DeviceClass,
    DeviceKind,
    InputMode,
    InputPort,
    LeadClass,
    OutputMode,
    OutputPort,
    Port,
    Power,
    Signal,
    Supply,
    armed_key,
    built_in,
    bus_gain_key,
    channel_refs,
    digital_gain_key,
    frequency_key,
    gain_key,
    limiter_key,
    link_key,
    low_cut_key,
    mode_key,
    pad_key,
    pan_key,
    switch_key,
    trim_key,
    with_figures,
    with_laws,
)
from tidy_trunk.core.gear.wiring import Link
from tidy_trunk.core.plan.measured import MeterError, meter_of_class
from tidy_trunk.core.plan.model import Device, Part, Plan, PortRef, Run
from tidy_trunk.core.plan.targets import TARGETS, Role, Target
from tidy_trunk.errors import UnknownItemError

PAN_LAW_DB: Final = 3.0
"""What a pan knob takes off in the middle, so that a voice is as loud wherever it stands: constant power. [PRACTICE]"""


M = TypeVar("M", InputMode, OutputMode)


def _chosen(device: Device, port_id: str, modes: tuple[M, ...]) -> M:
    """The mode that a port is switched to; the first unless something else is said. Asked very often: no generator."""
    if len(modes) > 1:
        wanted = device.settings.get(mode_key(port_id))
        if wanted is not None:
            for mode in modes:
                if mode.id == wanted:
                    return mode
    return modes[0]


@dataclass(frozen=True, slots=True)
class PlacedDevice:
    """A device with its class, and how its controls stand."""

    device: Device
    device_class: DeviceClass

    @property
    def label(self) -> str:
        return self.device.label

    def port(self, port_id: str) -> Port:
        port = self.device_class.port_of.get(port_id)
        if port is not None:
            return port
        known = ", ".join(port.id for port in self.device_class.ports)
        raise UnknownItemError(f"{self.label} has no port '{port_id}'; it has {known}")

    def input(self, port_id: str) -> InputPort:
        port = self.port(port_id)
        if not isinstance(port, InputPort):
            raise UnknownItemError(f"{self.label} {port.label} is an output: a cable ends at an input")
        return port

    def output(self, port_id: str) -> OutputPort:
        port = self.port(port_id)
        if not isinstance(port, OutputPort):
            raise UnknownItemError(f"{self.label} {port.label} is an input: a cable begins at an output")
        return port

    def acts(self, control: Control) -> bool:
        """Whether a control does anything as the device is set now: of the knobs, those of a port's mode."""
        if control.kind is not ControlKind.KNOB:
            return True
        port = self.device_class.port_of.get(control.port)
        if port is None:
            return True  # a knob of a track
        mode = self.input_mode(port) if isinstance(port, InputPort) else self.output_mode(port)
        return control.id in (gain_key(port.id, mode.id), trim_key(port.id, mode.id), digital_gain_key(port.id))

    def input_mode(self, port: InputPort) -> InputMode:
        return _chosen(self.device, port.id, port.modes)

    def timecode_channels(self, port: OutputPort) -> tuple[int, ...]:
        """Which channels of an output carry timecode, as it is switched now."""
        if port.circuit is Circuit.TIMECODE:
            return tuple(range(len(port.channels)))
        on = self.output_mode(port).timecode_on
        return (port.channels.index(on),) if on else ()

    def output_mode(self, port: OutputPort) -> OutputMode:
        return _chosen(self.device, port.id, port.modes)

    def gain_mark_db(self, port: InputPort, mode: InputMode) -> float:
        """As the knob stands; where one knob moves two inputs, that of the one that leads."""
        port, mode = self._leading(port, mode)
        if mode.gain is None:
            return 0.0
        return float(self.device.settings.get(gain_key(port.id, mode.id), mode.gain.default_db))

    def gain_db(self, port: InputPort, mode: InputMode) -> float:
        """What the knob gives there: as it is marked, unless something else was measured."""
        gain = self._leading(port, mode)[1].gain
        return gain.gain_db(self.gain_mark_db(port, mode)) if gain is not None else 0.0

    def above_best_db(self, port: InputPort) -> float:
        """How far a camera's microphone input stands from the step above its lowest, where other gear's is best; else 0.

        The very lowest is often "off", and higher up its preamp is the worst of the chain. [PRACTICE]
        """
        mode = self.input_mode(port)
        if mode.gain is None or self.device_class.kind is not DeviceKind.CAMERA or mode.signal is not Signal.MIC:
            return 0.0
        return abs(self.gain_mark_db(port, mode) - mode.gain.above_lowest_db(1))

    def _leading(self, port: InputPort, mode: InputMode) -> tuple[InputPort, InputMode]:
        leader = self.leader_of(port)
        return (port, mode) if leader is port else (leader, self.input_mode(leader))

    def leader_of(self, port: InputPort) -> InputPort:
        """The input whose knob moves this one: itself, unless one knob is switched to both."""
        for other in self.device_class.inputs:
            if port.id in other.linked_to and (other.one_knob or self.device.settings.get(link_key(other.id), False)):
                return other
        return port

    @property
    def power(self) -> Power | None:
        """Where it gets its power; None for what needs none or is fed by what it is plugged into."""
        powers = self.device_class.traits.powers
        if len(powers) < 2:
            return powers[0] if powers else None
        return Power(str(self.device.settings.get(POWER_KEY, powers[0])))

    @property
    def sample_rate_hz(self) -> int | None:
        """At which it records or sends; None for what has no converter of its own."""
        rates = self.device_class.traits.sample_rates_hz
        usual = USUAL_RATE_HZ if USUAL_RATE_HZ in rates else next(iter(rates), None)
        wanted = self.device.settings.get(SAMPLE_RATE_KEY)
        return usual if wanted is None else int(str(wanted))

    def is_recorded(self, bus: Bus) -> bool:
        """Whether a bus is written to a file as the device is set now."""
        if not bus.recorded or (bus.needs_four_tracks and not self.device.settings.get(FOUR_TRACKS_KEY, False)):
            return False
        return bus.armed is None or bool(self.device.settings.get(armed_key(bus.id), bus.armed))

    def frequency_mhz(self, port: Port) -> float | None:
        """On which a radio port is set; None where it is not set."""
        return float(self.device.settings.get(frequency_key(port.id), 0.0)) or None

    def trim_mark_db(self, port: OutputPort, mode: OutputMode) -> float:
        """As the output level stands."""
        if mode.trim is None:
            return 0.0
        return float(self.device.settings.get(trim_key(port.id, mode.id), mode.trim.default_db))

    def trim_db(self, port: OutputPort, mode: OutputMode) -> float:
        """What the output level gives there: as it is marked, unless something else was measured."""
        return mode.trim.gain_db(self.trim_mark_db(port, mode)) if mode.trim is not None else 0.0

    def pad_db(self, port: InputPort) -> float:
        """Loss of the input's attenuator, 0 where there is none or it is off."""
        on = self.device.settings.get(pad_key(port.id), False)
        return port.pad_db.value if port.pad_db is not None and on else 0.0

    def limiter_dbfs(self, port: InputPort) -> float | None:
        """What the input's limiter keeps peaks at; None where there is none or it is off."""
        on = self.device.settings.get(limiter_key(port.id), False)
        return port.limiter_dbfs.value if port.limiter_dbfs is not None and on else None

    def low_cut_hz(self, port: InputPort) -> int | None:
        """From where down the input cuts; None where it has no low cut or that is off."""
        wanted = self.device.settings.get(low_cut_key(port.id), "off")
        return None if wanted == "off" or not port.low_cut_hz else int(str(wanted))

    def digital_gain_db(self, port: InputPort) -> float:
        """Gain behind the converter, 0 where there is none."""
        if port.digital_gain is None:
            return 0.0
        return float(self.device.settings.get(digital_gain_key(port.id), port.digital_gain.default_db))

    def pan_loss_db(self, bus: Bus, port: InputPort) -> float:
        """What a pan knob takes off on the way to a mix: nothing at full left or right, inf on the other side."""
        if port.pan is None or bus.id not in port.pan:
            return 0.0
        stands = self.device.settings.get(pan_key(port.id), PAN_CENTRE)
        if stands == PAN_CENTRE:
            return PAN_LAW_DB
        return 0.0 if bus.id == port.pan[0 if stands == PAN_LEFT else 1] else math.inf

    def places_on(self, at: str, what: str, places: tuple[str, ...], default: bool) -> tuple[str, ...]:
        """In which of its places a thing of a port, or of a track, is switched on."""
        settings = self.device.settings
        return tuple(place for place in places if settings.get(switch_key(at, what, place), default))

    def phantom_on(self, port: InputPort) -> tuple[str, ...]:
        return self.places_on(port.id, "phantom", port.phantom_places, False)

    def supplies(self, port: InputPort) -> tuple[Supply, ...]:
        """What the input feeds to its plug as it is set now: a supply with two switches needs both."""
        mode = self.input_mode(port)
        given = []
        for supply in mode.supplies:
            what, places = port.switches_of(supply)
            if self.places_on(port.id, what, places, False) == places:
                given.append(supply)
        return tuple(given)

    def bus(self, bus_id: str) -> Bus:
        return next(bus for bus in self.device_class.buses if bus.id == bus_id)

    def bus_label(self, bus_id: str) -> str:
        """A track or mix as it is named in sentences: `Camera B track L`, `Pack A on air`."""
        return f"{self.label} {self.place_label(bus_id)}"

    def place_label(self, key: str) -> str:
        """A bus, or a channel of a port, as it is named beside its device; the key itself where there is none."""
        for bus in self.device_class.buses:
            if bus.id == key:
                return f"track {bus.label}" if bus.recorded else bus.label
        for port in self.device_class.ports:
            for ref, channel in zip(channel_refs(port), port.channels, strict=True):
                if ref == key:
                    return f"{port.label} {channel}" if len(port.channels) > 1 else port.label
        return key

    def where_label(self, key: str) -> str:
        """A socket, or a track with knobs of its own, as it is named beside its device; "" for the whole device."""
        port = self.device_class.port_of.get(key)
        return port.label if port is not None else self.place_label(key)

    @property
    def has_cell_in(self) -> bool:
        return bool(self.device.settings.get(CELL_KEY, False))

    def bus_inputs(self, bus: Bus) -> tuple[str, ...]:
        """Channel references that feed a mix or track as it is routed and panned now."""
        refs = self.device.routing.get(bus.id, bus.inputs)
        if not self.device_class.is_panned:
            return refs
        ports = self.device_class.channel_of
        return tuple(ref for ref in refs if self.pan_loss_db(bus, ports[ref][0]) < math.inf)

    def fed_bus(self, channel_ref: str) -> Bus | None:
        """What an output channel gives: as somebody has routed it, else as its position says, else as the class."""
        bus_id = self.device.feeds.get(channel_ref, self._fed_here(channel_ref))
        return next((bus for bus in self.device_class.buses if bus.id == bus_id), None)

    def _fed_here(self, channel_ref: str) -> str | None:
        port = self.device_class.port_of.get(channel_ref.partition(".")[0])
        in_mode = self.output_mode(port).feeds if isinstance(port, OutputPort) else {}
        return in_mode.get(channel_ref, self.device_class.feeds.get(channel_ref))

    def automatic_level_place(self, key: str) -> InputPort | Bus:
        """The input, or the track, that has automatic level under that id."""
        return self.input(key) if key in self.device_class.port_of else self.bus(key)

    def bus_gain_mark_db(self, bus: Bus) -> float:
        """As a track's own knob stands."""
        return (
            float(self.device.settings.get(bus_gain_key(bus.id), bus.gain.default_db)) if bus.gain is not None else 0.0
        )

    def bus_gain_db(self, bus: Bus) -> float:
        """What a track's own knob gives there."""
        return bus.gain.gain_db(self.bus_gain_mark_db(bus)) if bus.gain is not None else 0.0

    def automatic_level_on(self, at: InputPort | Bus) -> tuple[str, ...]:
        """In which of its places automatic level of an input, or of one track alone, is on."""
        return self.places_on(at.id, "auto", at.automatic_level_places, at.automatic_level_default)

    def side_db(self, port: OutputPort, channel: int) -> float:
        """By how much a channel of an output is louder than its full scale says, as it is switched now."""
        sides = self.output_mode(port).side_db
        return sides[channel] if channel < len(sides) else 0.0


class PlanIndex:
    """Look-ups into a plan, each worked out once. `links`: what the leads of each run do, as far as anybody asked;
    `powered`: which microphones have what they need.
    """

    def __init__(self, plan: Plan, like: "PlanIndex | None" = None) -> None:
        """`like`: look-ups into a plan that this one was made from; what both share is taken over."""
        self.plan = plan
        self.like = like
        self._placed: dict[str, PlacedDevice] = self._shared_devices()
        self.links: dict[str, Link] = {}
        self.powered: dict[str, bool] = {}
        if like is not None and like.plan.runs is plan.runs:
            self.arriving, self.leaving = like.arriving, like.leaving

    @cached_property
    def arriving(self) -> Mapping[PortRef, list[Run]]:
        """The runs that end at each port."""
        return self._by_port(lambda run: run.receiving)

    @cached_property
    def leaving(self) -> Mapping[PortRef, list[Run]]:
        """The runs that begin at each port."""
        return self._by_port(lambda run: run.sending)

    def _by_port(self, end: Callable[[Run], PortRef]) -> Mapping[PortRef, list[Run]]:
        found: dict[PortRef, list[Run]] = {}
        for run in self.plan.runs.values():
            found.setdefault(end(run), []).append(run)
        return found

    def placed(self, device_id: str) -> PlacedDevice:
        """The device of that id.

        Raises:
            UnknownItemError: No such device, or no such class.
        """
        found = self._placed.get(device_id)
        if found is None:
            found = self._placed[device_id] = self._look_up(device_id)
        return found

    def _look_up(self, device_id: str) -> PlacedDevice:
        device = self.plan.devices.get(device_id)
        if device is None:
            known = ", ".join(self.plan.devices) or "none"
            raise UnknownItemError(f"there is no device '{device_id}'; the job has {known}")
        was = self.like._placed.get(device_id) if self.like is not None and self._has_classes_of(self.like) else None
        if was is not None and was.device.class_id == device.class_id and was.device.figures is device.figures:
            return PlacedDevice(device, was.device_class)  # only its settings are otherwise
        return PlacedDevice(device, with_figures(self.class_of(device.class_id), device.figures))

    def placed_devices(self) -> list[PlacedDevice]:
        return [self.placed(device_id) for device_id in self.plan.devices]

    def _shared_devices(self) -> dict[str, PlacedDevice]:
        if self.like is None or not self._has_classes_of(self.like):
            return {}
        return {key: placed for key, placed in self.like._placed.items() if self.plan.devices.get(key) is placed.device}

    def _has_classes_of(self, other: "PlanIndex") -> bool:
        return self.plan.classes is other.plan.classes and self.plan.gain_laws is other.plan.gain_laws

    def class_of(self, class_id: str) -> DeviceClass:
        """A class of the user's own, or a built-in one, with what was measured of its knobs.

        Raises:
            UnknownItemError: No such class.
        """
        found = self.plan.classes.get(class_id) or built_in().devices.get(class_id)
        if found is None:
            raise UnknownItemError(f"there is no class of device '{class_id}': choose one of the catalogue")
        laws = [law for law in self.plan.gain_laws.values() if law.class_id == class_id] if self.plan.gain_laws else ()
        return with_laws(found, {law.control: law.points for law in laws})

    def tone_dbfs(self, device_id: str) -> float:
        """Level of the tone that a device sends: the job's, unless it has only one of its own."""
        fixed = self.placed(device_id).device_class.traits.tone_dbfs
        return self.plan.defaults.alignment_dbfs if fixed is None else fixed.value

    def meter_of(self, device_id: str) -> MeterError | None:
        """What is known of a device's meter, in this job or by its class; None where it is believed."""
        device_class = self.placed(device_id).device_class
        return self.plan.meters.get(device_class.id) or meter_of_class(device_class)

    @property
    def targets(self) -> Mapping[str, Target]:
        """The built-in targets and those of the user's own, by id."""
        return {**TARGETS, **self.plan.targets} if self.plan.targets else TARGETS

    def target_of(self, device: str, bus_id: str) -> Target:
        """What a track is wanted at, by what it is kept for; a mix is taken as dialogue."""
        defaults = self.plan.defaults
        wanted = {
            Role.DIALOGUE: defaults.target,
            Role.EFFECTS: defaults.effects_target,
            Role.GUIDE: defaults.guide_target,
            Role.TIMECODE: defaults.timecode_target,
        }
        return self.targets[wanted[self.role_of(device, bus_id)]]

    def role_of(self, device: str, bus_id: str) -> Role:
        """What a track is kept for: dialogue unless something else is said."""
        return self.plan.devices[device].roles.get(bus_id, Role.DIALOGUE)

    def lead_of(self, part: Part) -> LeadClass:
        """Raises UnknownItemError."""
        lead = built_in().leads.get(part.lead) or self.plan.leads.get(part.lead)
        if lead is None:
            raise UnknownItemError(f"there is no cable '{part.lead}': choose one of the catalogue or of your own")
        return lead.at_branch(part.branch)

    def leads_of(self, run: Run) -> list[tuple[LeadClass, float]]:
        """The leads of a run with their lengths in m, in order."""
        return [(self.lead_of(part), part.length_m) for part in run.parts]

    def port_label(self, ref: PortRef) -> str:
        placed = self.placed(ref.device)
        port = placed.port(ref.port)
        return (
            placed.label if port.id == "out" and placed.device_class.is_microphone else f"{placed.label} {port.label}"
        )

    def run_label(self, run: Run) -> str:
        return f"cable {run.number}, {self.port_label(run.sending)} to {self.port_label(run.receiving)}"

    def is_cut_off(self, device: str, port_id: str) -> bool:
        """Whether what is plugged in elsewhere turns an input off: a built-in microphone, or a socket behind a shoe."""
        return any(
            port_id in port.blocks and self.arriving.get(PortRef(device, port.id))
            for port in self.placed(device).device_class.inputs
        )

    def input_channel(self, placed: PlacedDevice, channel_ref: str) -> tuple[InputPort, int]:
        """Port and channel index of a reference such as `in1` or `mic.L`."""
        found = placed.device_class.channel_of.get(channel_ref)
        if found is not None:
            return found
        raise UnknownItemError(f"{placed.label} has no input channel '{channel_ref}'")
