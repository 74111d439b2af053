"""A lead as it is drawn: contacts left and right, what lies between, and what each end makes of it, in words."""

from dataclasses import dataclass, replace

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    PINOUTS,
    Circuit,
    InputPort,
    LeadClass,
    OutputPort,
    Plug,
    Wiring,
)
from tidy_trunk.core.gear.wiring import JudgedUse, Link, faults, judged_uses, unmated
from tidy_trunk.core.plan import PlanIndex, Run
from tidy_trunk.core.sound.trace import run_delivery, run_link
from tidy_trunk.words.wiring import FAULT_WORDS, arrival_words, between_words, delivery_words, mono_words


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
    sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
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
        mono=mono_words(found),
        powers=tuple(
            delivery_words(given) for supply in supplies if (given := run_delivery(index, run, supply)) is not None
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
        receiving=lead.end_of(branch),
        near=contacts_of(lead.sending, sends),
        far=contacts_of(lead.end_of(branch), takes),
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
    senders: dict[tuple[object, ...], list[JudgedUse]] = {}
    for item in judged_uses(lead):
        use = _use(item)
        key = (item.takes, item.branch, use.hears, use.mono, use.powers, use.faults)
        told.setdefault(key, use)
        senders.setdefault(key, []).append(item)
    found = [replace(use, between=between_words(senders[key])) for key, use in told.items()]
    return sorted(found, key=lambda use: len(use.faults))


def _use(item: JudgedUse) -> LeadUse:
    senders = ("left", "right") if item.sends in (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO) else ("",)
    takers = ("left", "right") if len(item.link.heard) == 2 else ("",)
    return LeadUse(
        between="",
        hears=arrival_words(item.link, senders, takers),
        mono=mono_words(item.link),
        powers=tuple(delivery_words(given) for given in item.deliveries),
        faults=tuple(FAULT_WORDS[fault] for fault in item.faults),
    )


def _hears(found: Link, output: OutputPort, port: InputPort) -> tuple[tuple[str, str], ...]:
    senders = output.channels if len(output.channels) > 1 else ("",)
    takers = port.channels if len(port.channels) > 1 else ("",)
    return arrival_words(found, senders, takers)
