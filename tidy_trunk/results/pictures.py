"""A lead as it is drawn: contacts left and right, what lies between, and what each end makes of it, in words."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio
from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    PINOUTS,
    Circuit,
    Drive,
    InputPort,
    LeadClass,
    OutputPort,
    Plug,
    Supply,
    Wiring,
)
from tidy_trunk.core.gear.wiring import Delivery, Judgement, Link, faults, judge, unmated
from tidy_trunk.core.plan import PlanIndex, Run
from tidy_trunk.core.sound.trace import run_delivery, run_link
from tidy_trunk.words import FAULT_WORDS

_SAME_DB = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadPicture:
    """One lead: the contacts of both ends in order, with what each carries in its usual use."""

    label: str
    length_m: float | None
    sending: Plug
    receiving: Plug
    near: tuple[tuple[str, str], ...]
    far: tuple[tuple[str, str], ...]
    wiring: Wiring


@dataclass(frozen=True, slots=True, kw_only=True)
class RunPicture:
    """A run opened: its leads, what each channel of the socket hears, where power goes, what is wrong."""

    leads: tuple[LeadPicture, ...]
    hears: tuple[tuple[str, str], ...]
    mono: str
    powers: tuple[str, ...]
    faults: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadUse:
    """A lead in one kind of use."""

    between: str
    hears: tuple[tuple[str, str], ...]
    mono: str
    powers: tuple[str, ...]
    faults: tuple[str, ...]


def run_picture(index: PlanIndex, run: Run) -> RunPicture:
    """What the leads of a run do, as the screen shows it."""
    sender, receiver = index.unit(run.sending.device), index.unit(run.receiving.device)
    output, port = sender.output(run.sending.port), receiver.input(run.receiving.port)
    leads = [(index.lead_of(part), part.branch) for part in run.parts]
    mismatch = unmated(output, [lead for lead, _ in leads], port)
    found = run_link(index, run)
    wrong = faults(output, leads, port, found) if mismatch is None else ()
    supplies = dict.fromkeys(supply for mode in port.modes for supply in mode.supplies)
    return RunPicture(
        leads=tuple(
            lead_picture(
                lead,
                branch,
                part.length_m,
                output.circuit if at == 0 and mismatch is None else None,
                port.circuit if at == len(leads) - 1 and mismatch is None else None,
            )
            for at, (part, (lead, branch)) in enumerate(zip(run.parts, leads, strict=True))
        ),
        hears=_hears(found, output, port),
        mono=_mono(found),
        powers=tuple(
            _power_words(given) for supply in supplies if (given := run_delivery(index, run, supply)) is not None
        ),
        faults=(f"{mismatch.first} does not go into {mismatch.second}",)
        if mismatch
        else tuple(FAULT_WORDS[fault] for fault in wrong),
    )


def lead_picture(
    lead: LeadClass,
    branch: str,
    length_m: float | None = None,
    sends: Circuit | None = None,
    takes: Circuit | None = None,
) -> LeadPicture:
    """A lead as it is drawn; `sends` and `takes` say what its ends are used for, where that is known."""
    return LeadPicture(
        label=f"{lead.label} ({branch})" if branch else lead.label,
        length_m=length_m,
        sending=lead.sending,
        receiving=lead.receiving,
        near=contacts_of(lead.sending, sends),
        far=contacts_of(lead.receiving, takes),
        wiring=lead.ways[branch],
    )


def contacts_of(plug: Plug, circuit: Circuit | None = None) -> tuple[tuple[str, str], ...]:
    """The contacts of an end, each with what it carries: (2, hot). Without a circuit, in the use that tells most."""
    uses = [
        pins for (connector, use), pins in PINOUTS.items() if connector == plug.connector and circuit in (None, use)
    ]
    pins = max(uses, key=lambda pins: len(set(pins.values())), default={})
    stereo = {leg.channel for leg in pins.values()} == {0, 1}
    names = []
    for contact in CONNECTORS[plug.connector].contacts:
        leg = pins.get(contact)
        side = ("left ", "right ")[leg.channel] if leg and stereo and leg.role != "screen" else ""
        names.append((contact, f"{side}{leg.role}" if leg else ""))
    return tuple(names)


def lead_uses(lead: LeadClass) -> list[LeadUse]:
    """What a lead does between each two kinds of sockets that it fits; those that agree in all are told once."""
    told: dict[tuple[object, ...], LeadUse] = {}
    senders: dict[tuple[object, ...], list[Judgement]] = {}
    for item in judge(lead):
        use = _use(item)
        key = (item.takes, item.branch, use.hears, use.mono, use.powers, use.faults)
        told.setdefault(key, use)
        senders.setdefault(key, []).append(item)
    found = [replace(use, between=_between_words(senders[key])) for key, use in told.items()]
    return sorted(found, key=lambda use: len(use.faults))


def _between_words(items: Sequence[Judgement]) -> str:
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


def _use(item: Judgement) -> LeadUse:
    senders = ("left", "right") if item.sends in (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO) else ("",)
    takers = ("left", "right") if len(item.link.heard) == 2 else ("",)
    return LeadUse(
        between="",
        hears=_hears_words(item.link, senders, takers),
        mono=_mono(item.link),
        powers=tuple(_power_words(given) for given in item.deliveries),
        faults=tuple(FAULT_WORDS[fault] for fault in item.faults),
    )


def _hears(found: Link, output: OutputPort, port: InputPort) -> tuple[tuple[str, str], ...]:
    senders = output.channels if len(output.channels) > 1 else ("",)
    takers = port.channels if len(port.channels) > 1 else ("",)
    return _hears_words(found, senders, takers)


def _hears_words(found: Link, senders: Sequence[str], takers: Sequence[str]) -> tuple[tuple[str, str], ...]:
    """For each channel of the socket, by name: `left, −0.5 dB`; `right inverted, −6.2 dB`; `nothing`."""
    words = []
    for index, (name, heard) in enumerate(zip(takers, found.heard, strict=True)):
        parts = []
        for arrival in heard:
            loss = db_from_ratio(abs(arrival.ratio))
            level = "" if abs(loss) < _SAME_DB else f", {loss:+.1f} dB".replace("-", "−")
            inverted = " inverted" if arrival.ratio < 0 else ""
            parts.append(f"{senders[arrival.channel] or 'the signal'}{inverted}{level}")
        nothing = "nothing: shorted to the screen" if index in found.dead else "nothing"
        words.append((name, " and ".join(parts) or nothing))
    return tuple(words)


def _mono(found: Link) -> str:
    if len(found.heard) != 2 or not any(found.heard):
        return ""
    level = found.mono_sum_db
    if level == SILENCE_DB:
        return "summed to mono nothing is left"
    return f"summed to mono {level:+.1f} dB".replace("-", "−").replace("+0.0 dB", "0 dB").replace("−0.0 dB", "0 dB")


def _volts_words(volts: float) -> str:
    """Whole volts with a minus sign; nothing has none."""
    return f"{round(volts)} V".replace("-", "−")


def _power_words(given: Delivery) -> str:
    name = {Supply.P48: "48 V", Supply.PLUG_IN: "plug-in power", Supply.T_POWER: "T-power"}[given.supply]
    if given.passes:
        return f"{name} gets through"
    if given.is_shorted:
        return f"{name} is shorted on the way, {given.short_ma:.0f} mA: switch it off"
    if given.is_felt:
        legs = f"{_volts_words(given.hot_v)} on hot, {_volts_words(given.cold_v)} on cold"
        return f"{name} gets through on one leg: {legs}"
    return f"{name} does not get through"
