"""What a cable does: what arrives at each contact, which power gets through, what is wrong."""

from collections.abc import Mapping, Sequence
from typing import Final

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio
from tidy_trunk.core.gear.catalogue import Circuit, Drive, Supply
from tidy_trunk.core.gear.wiring import DeliveredSupply, Fault, JudgedUse, Link
from tidy_trunk.words.numbers import signed

_SAME_DB: Final = 0.05
"""ASSUMED_ difference that is printed as none."""

FAULT_WORDS: Final[Mapping[Fault, str]] = {
    Fault.NUMBERS: "a digital signal into an analogue input",
    Fault.VOLTAGE: "an analogue signal into a digital input",
    Fault.NOTHING: "nothing arrives",
    Fault.OPPOSITE: "the two sides are in opposite polarity",
    Fault.DIFFERENCE: "left minus right: the middle cancels",
    Fault.FIGHTING: "two outputs are joined and drive each other",
    Fault.SHORTED: "a leg of the output is shorted",
    Fault.SWAPPED: "left and right arrive on the wrong sides",
    Fault.MIXED: "left and right are summed to mono",
    Fault.INVERTED: "polarity is inverted",
    Fault.LOST: "one side is lost",
    Fault.ONE_SIDE: "one side stays silent",
}
"""Each fault in words. [HANDBOOK] §4"""


def between_words(items: Sequence[JudgedUse]) -> str:
    """`floating or symmetric balanced output into a stereo socket (L)`."""
    outputs: dict[str, list[str]] = {}
    for item in items:
        outputs.setdefault(_OUTPUTS[item.sends], []).append(_DRIVES[item.drive])
    words = [f"{' or '.join(filter(None, drives))} {output}".strip() for output, drives in outputs.items()]
    branch = f" ({items[0].branch})" if items[0].branch else ""
    return f"{', or '.join(words)} into {_CIRCUITS[items[0].takes]}{branch}"


_CIRCUITS = {
    Circuit.BALANCED: "a balanced input",
    Circuit.BALANCED_STEREO: "a balanced pair of inputs",
    Circuit.UNBALANCED: "a mono socket",
    Circuit.UNBALANCED_STEREO: "a stereo socket",
}
_OUTPUTS = {
    Circuit.BALANCED: "balanced output",
    Circuit.BALANCED_STEREO: "balanced pair of outputs",
    Circuit.UNBALANCED: "mono output",
    Circuit.UNBALANCED_STEREO: "stereo output",
}
_DRIVES = {
    None: "",
    Drive.FLOATING: "floating",
    Drive.SYMMETRIC: "symmetric",
    Drive.HOT_ONLY: "hot-only",
}


def arrival_words(found: Link, senders: Sequence[str], takers: Sequence[str]) -> tuple[tuple[str, str], ...]:
    """For each channel of the socket, by name: `left, −0.5 dB`; `right inverted, −6.2 dB`; `nothing`."""
    words = []
    for index, (name, heard) in enumerate(zip(takers, found.heard, strict=True)):
        parts = []
        for arrival in heard:
            loss = db_from_ratio(abs(arrival.ratio))
            level = "" if abs(loss) < _SAME_DB else f", {signed(loss)} dB"
            inverted = " inverted" if arrival.ratio < 0 else ""
            parts.append(f"{senders[arrival.channel] or 'the signal'}{inverted}{level}")
        nothing = "nothing: shorted to the screen" if index in found.dead else "nothing"
        words.append((name, " and ".join(parts) or nothing))
    return tuple(words)


def mono_words(found: Link) -> str:
    if len(found.heard) != 2 or not any(found.heard):
        return ""
    level = found.mono_sum_db
    if level == SILENCE_DB:
        return "cancels when summed to mono"
    return f"summed to mono {'0' if abs(level) < _SAME_DB else signed(level)} dB"


def _volts_words(volts: float) -> str:
    """Whole volts with a minus sign; nothing has none."""
    return f"{round(volts)} V".replace("-", "−")


def delivery_words(given: DeliveredSupply) -> str:
    name = {Supply.P48: "48 V", Supply.PLUG_IN: "plug-in power", Supply.T_POWER: "T-power"}[given.supply]
    if given.passes:
        return f"{name} gets through"
    if given.is_shorted:
        return f"this cable loads {name}, {given.short_ma:.0f} mA: switch it off"
    if given.is_felt:
        legs = f"{_volts_words(given.hot_v)} on hot, {_volts_words(given.cold_v)} on cold"
        return f"{name} gets through on one leg: {legs}"
    return f"{name} does not get through"
