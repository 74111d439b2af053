"""What is known of a class of device beside its signal path, as lines of a name and a value."""

from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, ToneTrigger, Traits
from tidy_trunk.words.terms import term

Facts = tuple[tuple[str, str], ...]


def class_facts(item: DeviceClass) -> Facts:
    """All that is known, as (name, words); a microphone's pattern and powering first."""
    pattern = (("hears", term(item.capsule.pattern)),) if item.capsule is not None else ()
    return (*pattern, *_powering(item), *_traits(item.traits), *_ties(item), *_limits(item))


def _traits(traits: Traits) -> Facts:
    """In the order in which a day asks for it."""
    kept = {True: "kept when off", False: "lost when off: jam again after every battery", None: ""}
    return _known(
        ("file", f"{traits.bits} bit{' float' if traits.is_float else ''}" if traits.bits else ""),
        ("sample rates", ", ".join(f"{rate / 1000:g} kHz" for rate in traits.sample_rates_hz)),
        ("clock", _value(traits.clock_ppm, "ppm", "±")),
        ("timecode", kept[traits.keeps_timecode_when_off]),
        ("picture late by", _value(traits.picture_delay_frames, "frames")),
        ("picture late over SDI", _value(traits.sdi_delay_frames, "frames")),
        ("sound late by", _value(traits.sound_delay_ms, "ms")),
        ("power", _value(traits.power_w, "W")),
        ("phantom power for all", _value(traits.phantom_budget_ma, "mA")),
        ("battery", _value(traits.battery_wh, "Wh")),
        ("media", traits.media),
        ("size of the media", _value(traits.media_gb, "GB")),
        ("picture", _value(traits.picture_mbps, "Mbit/s")),
        ("meters", traits.meters),
        ("meters read high by", _value(traits.meter_reads_high_db, "dB")),
        ("tone, fixed at", _value(traits.tone_dbfs, "dBFS")),
        ("tone by", "" if traits.tone_by is ToneTrigger.SWITCH else term(traits.tone_by)),
        ("hold", traits.hold),
        ("longest clip", _value(traits.clip_limit_min, "min")),
        ("gets too hot after", _value(traits.heat_limit_min, "min")),
        ("warm-up", _value(traits.warm_up_min, "min")),
    )


def _limits(item: DeviceClass) -> Facts:
    """What not every device of its class can do, or not always."""
    modes = [(port, mode) for port in item.ports for mode in port.modes]
    since = [f"{port.label}, {mode.label} from {mode.since}" for port, mode in modes if mode.since]
    live = [port.label for port in item.outputs if port.only_while_recording]
    return _known(
        ("from firmware", ", ".join(since)),
        ("live only while recording", ", ".join(live)),
        ("timecode from", "" if item.traits.makes_timecode else "another device: it makes none"),
    )


def _powering(item: DeviceClass) -> Facts:
    feeding = item.feeding
    if feeding is None or not (feeding.needs or feeding.cell):
        return ()
    current = f", {feeding.current_ma.value:g} mA" if feeding.current_ma else ""
    needs = [f"{term(supply)}{current}" for supply in feeding.needs]
    if feeding.cell:
        needs.append("its own cell, no gauge")
    return (("needs", " or ".join(needs)),)


def _ties(item: DeviceClass) -> Facts:
    """Ports that are not free of each other."""
    names = {port.id: port.label for port in item.ports}
    linked = [f"{port.label} with {names[other]}" for port in item.inputs for other in port.linked_to]
    blocked = [f"{names[other]} off while {port.label} is used" for port in item.inputs for other in port.blocks]
    return _known(("knobs linked in one routing", ", ".join(linked)), ("one or the other", ", ".join(blocked)))


def _known(*facts: tuple[str, str]) -> Facts:
    return tuple((name, words) for name, words in facts if words)


def _value(figure: Figure | None, unit: str, sign: str = "") -> str:
    return f"{sign}{figure.value:g} {unit}" if figure is not None and figure.value else ""
