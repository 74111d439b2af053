"""The lines of a checklist: what must be so, and what happens else or how it is done safely."""

from collections.abc import Callable
from typing import Final, NamedTuple

from tidy_trunk.core.advice.walk import LAST, ROUND, TIMECODE, WalkItem
from tidy_trunk.core.base.timecode import FrameRate, name_of
from tidy_trunk.core.gear.catalogue import Control, Power
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, Run
from tidy_trunk.words.names import begun, times_words
from tidy_trunk.words.numbers import unsigned
from tidy_trunk.words.terms import term


class WalkWords(NamedTuple):
    """heading: what it stands under; text: what must be so; why: "" where it needs no word."""

    heading: str
    text: str
    why: str = ""


class ItemPlace:
    """Where an item is, by the names that the user gave."""

    def __init__(self, index: PlanIndex, item: WalkItem) -> None:
        self.index, self.item = index, item

    @property
    def placed(self) -> PlacedDevice:
        return self.index.placed(self.item.device)

    def run(self, run_id: str) -> Run:
        return self.index.plan.runs[run_id]

    def port(self, port_id: str) -> str:
        return begun(self.placed.where_label(port_id))

    def names(self, device_ids: tuple[str, ...]) -> str:
        return ", ".join(self.index.placed(device).label for device in device_ids)


WalkLine = tuple[str, str]
_LINES: Final[dict[str, Callable[..., WalkLine]]] = {}


def walk_words(item: WalkItem, index: PlanIndex) -> WalkWords:
    """An item in words. `index`: of the plan that is walked along."""
    headings = {TIMECODE: "Timecode", LAST: "At the end", ROUND: "From device to device"}
    heading = headings.get(item.group) or index.placed(item.group).label
    return WalkWords(heading, *_LINES[item.what](ItemPlace(index, item), **item.facts))


def _line(function: Callable[..., WalkLine]) -> Callable[..., WalkLine]:
    _LINES[function.__name__.strip("_").replace("_", "-")] = function
    return function


@_line
def _power(at: ItemPlace, *, power: Power, lasts: bool) -> WalkLine:
    return (
        f"Powered by {term(power)}{'' if lasts else ', with enough for the next hours'}.",
        "What runs out ends the take.",
    )


@_line
def _cell(at: ItemPlace) -> WalkLine:
    return "A fresh cell is in it.", "It has no gauge: log when it went in."


@_line
def _rate(at: ItemPlace) -> WalkLine:
    return (
        f"Set to {(at.placed.sample_rate_hz or 0) / 1000:g} kHz.",
        "Another rate plays at another speed, or is refused.",
    )


@_line
def _card(at: ItemPlace) -> WalkLine:
    return "A card with room for the day is in it.", "A full card stops in the middle of a take."


@_line
def _own_microphone(at: ItemPlace) -> WalkLine:
    return "Its own microphone is on, and its meter moves.", "What it hears finds its files later."


@_line
def _rolling(at: ItemPlace) -> WalkLine:
    return "It rolls when it is told to: the mark on its screen is red.", "Sound alone has nothing to be synced to."


@_line
def _frequency(at: ItemPlace, *, port: str) -> WalkLine:
    mhz = at.placed.frequency_mhz(at.placed.port(port)) or 0.0
    return f"{at.port(port)}: {mhz:.3f} MHz.", "Both ends alike, and legal where you stand: ask the regulator."


@_line
def _rolls_first(at: ItemPlace, *, port: str) -> WalkLine:
    return f"{at.port(port)}: listened to while it records.", "It is dead until the recorder rolls."


@_line
def _armed(at: ItemPlace, *, buses: tuple[str, ...]) -> WalkLine:
    names = ", ".join(at.placed.place_label(bus).removeprefix("track ") for bus in buses)
    return (
        f"Armed: {'track' if len(buses) == 1 else 'tracks'} {names}.",
        "A track that is not armed is empty, whatever its meter shows.",
    )


@_line
def _tone(at: ItemPlace, *, bus: str, shows_dbfs: float, sent_dbfs: float, is_done: bool) -> WalkLine:
    text = f"{begun(at.placed.place_label(bus))} shows {unsigned(shows_dbfs)} dBFS for tone at {unsigned(sent_dbfs)}."
    return text, "" if is_done else "Not lined up yet: read the meter and write it down."


@_line
def _listen(at: ItemPlace) -> WalkLine:
    return "Listened to on headphones here.", "Set them low before they are on the ears."


@_line
def _timecode_track(at: ItemPlace, *, giver: str, bus: str) -> WalkLine:
    text = f"{at.placed.label}: {at.placed.place_label(bus)} moves with {at.names((giver,))}."
    return text, "It is loud and shrill: not on headphones."


@_line
def _timecode_rate(at: ItemPlace, *, rate: FrameRate, records_run: bool) -> WalkLine:
    return f"{at.placed.label}: timecode at {name_of(rate)}, {'record run' if records_run else 'free run'}.", ""


@_line
def _timecode_label(at: ItemPlace, *, giver: str, jams_min: tuple[int, ...], forgets: bool) -> WalkLine:
    when = f", jammed at {times_words(jams_min)}" if jams_min else ""
    why = "It forgets when it is switched off: jam it after every battery." if forgets else ""
    return f"{at.placed.label} and {at.names((giver,))} show the same label{when}.", why


@_line
def _automatic_level(at: ItemPlace, *, port: str, control: Control, is_on: bool, is_for_guide: bool) -> WalkLine:
    if not is_on:
        why = "Look in both places: one of them is enough to ride the level."
    elif is_for_guide:
        why = "It only finds sync."
    else:
        why = "The plan still has it on: it undoes every gain that is set here."
    return f"{at.port(port)}: {control.label} is {'on' if is_on and is_for_guide else 'off'}.", why


@_line
def _phantom(at: ItemPlace, *, port: str, is_on: bool) -> WalkLine:
    text = f"{at.port(port)}: 48 V is {'on, its lamp lit' if is_on else 'off'}."
    return text, "Mute, connect, switch on, wait, open." if is_on else ""


@_line
def _settings(at: ItemPlace, *, port: str, controls: tuple[Control, ...]) -> WalkLine:
    stands = at.placed.device.settings
    words = [f"{control.label} {control.words(stands.get(control.id, control.default))}" for control in controls]
    return f"{at.port(port)}: {', '.join(words)}.", ""


@_line
def _cable(at: ItemPlace, *, run: str, has_pad: bool, alike: str) -> WalkLine:
    cable = at.run(run)
    leads = " and ".join(lead.label for lead, _ in at.index.leads_of(cable))
    how = f"{leads}, its tape at both ends" if leads else "plugged in directly"
    why = ""
    if has_pad:
        why = "Its attenuator goes to the receiving end, and it looks like the plain cable."
    elif alike:
        beside = begun(at.index.placed(cable.sending.device).input(alike).label)
        why = f"{beside} beside it looks the same: plugged in there, the cable gives silence."
    return f"Cable {cable.number} from {at.index.port_label(cable.sending)}: {how}.", why


@_line
def _strain_relief(at: ItemPlace, *, run: str) -> WalkLine:
    text = f"Cable {at.run(run).number}: strain relief fitted, no weight on the socket."
    return text, "Small plugs work loose: wiggle it while you listen."


@_line
def _leg(at: ItemPlace, *, run: str) -> WalkLine:
    text = f"Cable {at.run(run).number}: with this leg pulled, only the meter of its own side falls."
    return text, "The colours of Y-cables mislead."


@_line
def _taped(at: ItemPlace, *, run: str) -> WalkLine:
    text = f"Cable {at.run(run).number} is taped or ramped where people walk."
    return text, "Local rules for cables on floors decide."


@_line
def _spare(at: ItemPlace, *, run: str) -> WalkLine:
    return f"A spare for cable {at.run(run).number} is at hand.", "It cannot be repeated, and cables fail."


@_line
def _tapped(at: ItemPlace, *, microphones: tuple[str, ...]) -> WalkLine:
    text = f"Each microphone tapped while somebody watches the meters: {at.names(microphones)}."
    return text, "The right one moves, and no other. If none does: both ends of the radio, input, arming, power, plug."


@_line
def _roles(at: ItemPlace, *, recording: tuple[str, ...]) -> WalkLine:
    text = f"Agreed who wears headphones, who watches the levels, who hands over the microphone, and who presses record on {at.names(recording)}."
    return text, "What everybody could do, nobody does."


@_line
def _counter(at: ItemPlace, *, recording: tuple[str, ...]) -> WalkLine:
    text = f"Recording: the counter runs and the lamp is on at {at.names(recording)}."
    return text, "Sound in the headphones does not prove that a recorder rolls."


@_line
def _all_power(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    return f"Powered, with enough for the next hours: {_devices(at, items)}.", "What runs out ends the take."


@_line
def _all_card(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    return f"A card with room for the day: {_devices(at, items)}.", "A full card stops in the middle of a take."


@_line
def _all_cell(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    return f"A fresh cell: {_devices(at, items)}.", "It has no gauge: log when it went in."


@_line
def _all_frequency(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    text = f"Both ends of each radio on the same frequency: {_devices(at, items)}."
    return text, "Legal where you stand: ask the regulator."


@_line
def _all_phantom(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    text = f"48 V is on, its lamp lit: {_ports(at, items)}."
    return text, "Switch and menu both. Mute, connect, switch on, wait, open."


@_line
def _all_automatic_level(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    text = f"Automatic level is off, in switch and menu: {_ports(at, items)}."
    return text, "It undoes every gain, and lifts the pauses."


@_line
def _all_pad_cable(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    numbers = ", ".join(str(at.run(item.facts["run"]).number) for item in items)
    text = f"The attenuator is in the cable, at the receiving end: cable {numbers}."
    return text, "It looks like the plain cable, and without it the input clips."


@_line
def _all_armed(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    text = f"Every track armed: {_devices(at, items)}."
    return text, "A track that is not armed is empty, whatever its meter shows."


@_line
def _all_timecode_label(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    return f"The same label as the master at one moment: {_devices(at, items)}.", "Jam again what was switched off."


@_line
def _all_rolls_first(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    return f"Rolls before anybody listens to it: {_devices(at, items)}.", "Its output is dead until it records."


@_line
def _all_own_microphone(at: ItemPlace, *, items: tuple[WalkItem, ...]) -> WalkLine:
    text = f"Its own microphone is on, and its meter moves: {_devices(at, items)}."
    return text, "What it hears finds its files later."


def _devices(at: ItemPlace, items: tuple[WalkItem, ...]) -> str:
    return at.names(tuple(dict.fromkeys(item.device for item in items)))


def _ports(at: ItemPlace, items: tuple[WalkItem, ...]) -> str:
    """Sockets with their device: `Camera mic socket`."""
    return ", ".join(
        dict.fromkeys(
            f"{at.index.placed(item.device).label} {at.index.placed(item.device).where_label(item.facts['port'])}"
            for item in items
        )
    )


@_line
def _tone_off(at: ItemPlace) -> WalkLine:
    return "The tone is off.", "It is recorded over everything else."


@_line
def _silence(at: ItemPlace) -> WalkLine:
    return (
        "Half a minute recorded: voices, then everybody still, then each one alone.",
        "Hiss and ticks hide under voices: turn the volume up in the pause, and down before anybody speaks.",
    )


@_line
def _played(at: ItemPlace, *, recording: tuple[str, ...]) -> WalkLine:
    text = f"Played back and heard on headphones: {at.names(recording)}."
    return text, "Level, noise between words, hum, clicks, the right input on every track."


@_line
def _clap(at: ItemPlace) -> WalkLine:
    return (
        "A clap in shot, close to the microphones, on every recorder and camera.",
        "It finds sync when all else fails.",
    )


@_line
def _hold(at: ItemPlace, devices: tuple[str, ...]) -> WalkLine:
    if not devices:
        return "Hold or lock is on where a device has it.", "Knobs get knocked."
    placed_devices = [at.index.placed(device) for device in devices]
    named = ", ".join(f"{placed.label} ({placed.device_class.traits.hold})" for placed in placed_devices)
    return f"Hold or lock is on: {named}, and wherever else there is one.", "Knobs get knocked."
