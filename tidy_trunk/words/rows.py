"""How a device and a cable stand in the row of a chain: source, socket, mode, power, gain, cable."""

from tidy_trunk.core.gear.catalogue import CELL_KEY, Bus, InputPort, LeadClass, OutputPort, Span, Supply
from tidy_trunk.core.plan import Part, PlacedDevice, Plan, PlanIndex
from tidy_trunk.words.numbers import marked


def heard_by_words(plan: Plan, device: str) -> str:
    heard = [(source.label, source.heard_by[device]) for source in plan.sources.values() if device in source.heard_by]
    if not heard:
        return "no source yet"
    label, distance_m = heard[0]
    more = f" and {len(heard) - 1} more" if len(heard) > 1 else ""
    cell = ", cell in" if plan.devices[device].settings.get(CELL_KEY) else ""
    return f"{label} at {distance_m:g} m{more}{cell}"


def input_words(placed: PlacedDevice, port: InputPort) -> str:
    """Port, mode, power and gain: `in 1 · mic · 48 V · +38 dB`."""
    mode = placed.input_mode(port)
    words = [port.label]
    if len(port.modes) > 1:
        words.append(mode.label)
    if placed.supplies(port):
        words.append("48 V" if Supply.P48 in placed.supplies(port) else "plug-in")
    if mode.gain is not None:
        words.append(_knob_words(mode.gain, placed.gain_mark_db(port, mode)))
    if placed.pad_db(port):
        words.append(f"attenuator −{placed.pad_db(port):g}")
    if placed.automatic_level_on(port):
        words.append("automatic")
    return " · ".join(dict.fromkeys(words))


def track_knob_words(placed: PlacedDevice, bus: Bus) -> str:
    """The knobs that a track has for itself: `+12 dB · automatic`; "" where it has none."""
    words = [] if bus.gain is None else [_knob_words(bus.gain, placed.bus_gain_mark_db(bus))]
    return " · ".join([*words, "automatic"] if placed.automatic_level_on(bus) else words)


def output_words(placed: PlacedDevice, port: OutputPort) -> str:
    mode = placed.output_mode(port)
    words = [port.label]
    if len(port.modes) > 1:
        words.append(mode.label)
    if mode.trim is not None:
        words.append(_knob_words(mode.trim, placed.trim_mark_db(port, mode)))
    return " · ".join(words)


def _knob_words(span: Span, mark_db: float) -> str:
    return "off" if span.is_off(mark_db) else f"{marked(mark_db)} dB"


def parts_words(index: PlanIndex, parts: tuple[Part, ...]) -> str:
    return " + ".join(_part_words(index, part) for part in parts)


def _part_words(index: PlanIndex, part: Part) -> str:
    lead = index.lead_of(part)
    side = f" ({part.branch})" if part.branch else ""
    return (
        f"{lead.label}{side}" if lead.is_adapter and part.length_m <= 0.5 else f"{part.length_m:g} m {lead.label}{side}"
    )


def inside_words(lead: LeadClass) -> str:
    if lead.loss_db is not None:
        return f"−{lead.loss_db.value:g} dB"
    return {"xlr-crossed": "crossed", "xlr-trs": "mono to both sides", "xlr-trs-one-to-one": "straight"}.get(
        lead.id, ""
    )
