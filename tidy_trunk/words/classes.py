"""What a class of device or cable is, in lines: each socket with its positions, and what it records."""

from collections.abc import Iterator

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    Bus,
    DeviceClass,
    Figure,
    InputMode,
    InputPort,
    LeadClass,
    OutputMode,
    OutputPort,
    Port,
    Span,
    Wiring,
)
from tidy_trunk.words.numbers import marked, plain
from tidy_trunk.words.terms import term


def port_lines(port: Port) -> list[str]:
    """A socket, position by position; then what holds for all of them."""
    if isinstance(port, InputPort):
        return [*map(_input_mode, port.modes), *_of_input(port)]
    return [*map(_output_mode, port.modes), *_of_output(port)]


def track_lines(item: DeviceClass) -> list[str]:
    """What it records, and what it mixes."""
    return [_track(bus, item) for bus in item.buses]


def cable_lines(item: LeadClass) -> list[str]:
    """Both ends, and which contacts are joined."""
    ends = f"{item.sending.words} to {item.receiving.words}"
    if item.tail is not None:
        ends += f", a tail to {item.tail.words}"
    length = f"{plain(item.short_m)} m" if item.short_m is not None else "made to length"
    ways = [f"{f'{branch}: ' if branch else ''}{_wiring(way)}" for branch, way in item.ways.items()]
    loss = [f"takes off {_told(item.loss_db, 'dB')}"] if item.loss_db is not None else []
    return [ends, length, "balanced" if item.balanced else "unbalanced", *loss, *ways]


def _told(figure: Figure, unit: str, within: str = " dB") -> str:
    """A figure with its ± and where it comes from: `−10.5 dBu ±1 dB, measured`."""
    return f"{marked(figure.value) if unit.startswith('dB') else plain(figure.value)} {unit} ±{plain(figure.tolerance)}{within}, {figure.provenance}"


def _knob(span: Span) -> str:
    off = ", the lowest is off" if span.lowest_is_off else ""
    law = ", measured" if span.law else ""
    return f"{marked(span.minimum_db)} to {marked(span.maximum_db)} dB in steps of {plain(span.step_db)}{off}{law}"


def _input_mode(mode: InputMode) -> str:
    told = [f"{plain(mode.impedance_ohm.value)} Ω"]
    told += [f"full scale {_told(mode.full_scale_dbu, 'dBu')}"] if mode.full_scale_dbu else []
    told += [f"clips at {_told(mode.clip_dbu, 'dBu')}"] if mode.clip_dbu else []
    told += [f"input noise {_told(mode.ein_dbu, 'dBu')}"] if mode.ein_dbu else []
    told += [f"gain {_knob(mode.gain)}"] if mode.gain else []
    told += [term(supply) for supply in mode.supplies] + ([f"from firmware {mode.since} on"] if mode.since else [])
    return f"{mode.label}: {'; '.join(told)}"


def _output_mode(mode: OutputMode) -> str:
    told = [f"{plain(mode.source_ohm.value)} Ω"]
    told += [f"full scale {_told(mode.full_scale_dbu, 'dBu')}"] if mode.full_scale_dbu else []
    told += [f"noise {_told(mode.noise_dbu, 'dBu')}"] if mode.noise_dbu else []
    told += [f"output level {_knob(mode.trim)}, {mode.trim_kind}"] if mode.trim else []
    told += [f"timecode on {mode.timecode_on}"] if mode.timecode_on else []
    told += [f"right side {marked(mode.side_db[1])} dB"] if len(mode.side_db) > 1 else []
    return f"{mode.label}: {'; '.join(told)}"


def _of_input(port: InputPort) -> Iterator[str]:
    for what, places in (
        ("48 V", port.phantom_places),
        ("plug-in power", port.plug_in_places),
        ("automatic level", port.automatic_level_places),
    ):
        if places:
            yield f"{what}: {' and '.join(places)}"
    if port.pad_db is not None:
        yield f"attenuator {_told(port.pad_db, 'dB')}, {term(port.pad_place)}"
    if port.low_cut_hz:
        yield f"low cut {', '.join(map(str, port.low_cut_hz))} Hz"
    if port.limiter_dbfs is not None:
        yield f"limiter {_told(port.limiter_dbfs, 'dBFS')}, {term(port.limiter_place)}"
    if port.idle_noise_dbfs is not None:
        yield f"noise without sound {_told(port.idle_noise_dbfs, 'dBFS')}"


def _of_output(port: OutputPort) -> Iterator[str]:
    if port.only_while_recording:
        yield "only while it records"


def _track(bus: Bus, item: DeviceClass) -> str:
    names = [
        f"{item.channel_of[ref][0].label}{'' if len(item.channel_of[ref][0].channels) == 1 else ' ' + ref.split('.')[-1]}"
        for ref in bus.inputs
    ]
    told = [
        f"track {bus.label}" if bus.recorded else bus.label,
        f"from {', '.join(names)}" if names else "from nothing",
    ]
    told += [f"gain {_knob(bus.gain)}"] if bus.gain else []
    told += ["automatic level of its own"] if bus.automatic_level_places else []
    told += [f"record switch, {'on' if bus.armed else 'off'} when new"] if bus.armed is not None else []
    return "; ".join(told)


def _wiring(way: Wiring) -> str:
    cores = [f"{wire.near} to {wire.far}{f' by {plain(wire.ohm)} Ω' if wire.ohm else ''}" for wire in way.wires]
    across = [
        f"{bridge.first} and {bridge.second} of the {bridge.end} end {f'by {plain(bridge.ohm)} Ω' if bridge.ohm else 'joined'}"
        for bridge in way.bridges
    ]
    windings = [f"transformer from {'/'.join(item.near)} to {'/'.join(item.far)}" for item in way.windings]
    return ", ".join([*cores, *across, *windings])


def plug_words(port: Port) -> str:
    """The connector of a socket as it is drawn: `3.5 mm TRS`."""
    return CONNECTORS[port.plug.connector].label
