"""What a move does: the words on the button of a fix."""

from collections.abc import Sequence

from tidy_trunk.core.gear.catalogue import Power, Supply
from tidy_trunk.core.plan import Part, PlanIndex, PortRef, Role, SetControl
from tidy_trunk.words.edits import sentence
from tidy_trunk.words.messages.said import says
from tidy_trunk.words.names import times_words
from tidy_trunk.words.numbers import khz
from tidy_trunk.words.terms import term

MOST_SPELLED = 3
"""ASSUMED_ how many settings still read as one line."""

_POWERS = {Power.BATTERY: "its battery", Power.CHARGER: "a USB charger", Power.ADAPTER: "a double-insulated adapter"}


def socket_words(at: PlanIndex, socket: PortRef) -> str:
    placed = at.placed(socket.device)
    return f"{placed.label} {placed.port(socket.port).label}"


@says
def set_controls(at: PlanIndex, edits: Sequence[SetControl]) -> str:
    """What each edit does, by socket; where there are many, how many and on what."""
    if len(edits) <= MOST_SPELLED:
        sockets: dict[str, list[str]] = {}
        for edit in edits:
            socket, _, what = sentence(edit, at.plan).partition(": ")
            sockets.setdefault(socket, []).append(what)
        return "; ".join(f"{socket}: {', '.join(whats)}" for socket, whats in sockets.items())
    labels = list(dict.fromkeys(at.placed(edit.device).label for edit in edits))
    devices = f"{', '.join(labels[:-1])} and {labels[-1]}" if labels[1:] else labels[0]
    return f"Set {len(edits)} controls of {devices}"


@says
def gain_plan(at: PlanIndex) -> str:
    return "Apply the gain plan"


@says
def keep_for(at: PlanIndex, role: Role) -> str:
    return f"Use the track for {role}"


@says
def timecode_rate_of_job(at: PlanIndex, device: str) -> str:
    return f"Set {at.placed(device).label} to the job's frame rate"


@says
def free_run(at: PlanIndex, device: str) -> str:
    return f"Set {at.placed(device).label} to free run"


@says
def switch_mode(at: PlanIndex, socket: PortRef, mode: str) -> str:
    label = next(item.label for item in at.placed(socket.device).port(socket.port).modes if item.id == mode)
    return f"Switch {socket_words(at, socket)} to {label}"


@says
def jam(at: PlanIndex, giver: str, at_min: Sequence[int], is_worst_case: bool) -> str:
    worst = ", at the worst drift" if is_worst_case else ""
    return f"Jam from {at.placed(giver).label} at {times_words(at_min)}{worst}"


@says
def jam_when_day_begins(at: PlanIndex, device: str, giver: str) -> str:
    return f"Jam {at.placed(device).label} from {at.placed(giver).label} at the start of the day"


@says
def set_delay(at: PlanIndex, device: str, ms: float) -> str:
    return f"Set {at.placed(device).label}'s delay to {ms:.1f} ms"


@says
def timecode_cable(at: PlanIndex, giver: str) -> str:
    return f"Run a timecode cable from {at.placed(giver).label} and leave it connected"


@says
def add_generator(at: PlanIndex, device: str) -> str:
    return f"Add a timecode generator that stays on {at.placed(device).label}"


@says
def sample_rate(at: PlanIndex, device: str, rate_hz: int) -> str:
    return f"Set {at.placed(device).label} to {khz(rate_hz)}"


@says
def job_sample_rate(at: PlanIndex, rate_hz: int) -> str:
    return f"Record all of the job at {khz(rate_hz)}"


@says
def power_from(at: PlanIndex, device: str, power: Power) -> str:
    return f"Run {at.placed(device).label} from {_POWERS[power]}"


@says
def isolating_transformers(at: PlanIndex, runs: Sequence[str]) -> str:
    what = "an isolating transformer" if len(runs) == 1 else "isolating transformers"
    numbers = " and ".join(str(at.plan.runs[run].number) for run in runs)
    return f"Put {what} into cable{'s' if len(runs) > 1 else ''} {numbers}"


@says
def use_cables(at: PlanIndex, parts: Sequence[Part]) -> str:
    return f"Use {' and '.join(at.lead_of(part).label for part in parts)}" if parts else "Plug it in directly"


@says
def remove_cable(at: PlanIndex, run: str) -> str:
    return f"Remove cable {at.plan.runs[run].number}"


@says
def strain_relief(at: PlanIndex) -> str:
    return "Mark strain relief as fitted"


@says
def cable_length(at: PlanIndex, length_m: float) -> str:
    return f"Use {length_m:g} m"


@says
def go_balanced(at: PlanIndex, output: PortRef) -> str:
    return f"Run it balanced from {socket_words(at, output)}, adapter at the receiving end"


@says
def use_aes3_cable(at: PlanIndex) -> str:
    return "Use the 110 Ω cable"


@says
def other_output(at: PlanIndex, output: PortRef) -> str:
    return f"Use {socket_words(at, output)} instead"


@says
def inputs_down(at: PlanIndex, device: str, by_db: float) -> str:
    return f"Turn {at.placed(device).label}'s inputs down by {by_db:.0f} dB"


@says
def limiter(at: PlanIndex, socket: PortRef, on: bool) -> str:
    return f"Turn the limiter of {socket_words(at, socket)} {'on' if on else 'off'}"


@says
def automatic_level_off(at: PlanIndex) -> str:
    return "Turn automatic level off"


@says
def attenuator_off(at: PlanIndex) -> str:
    return "Switch the attenuator off"


@says
def low_cut(at: PlanIndex, socket: PortRef, cut_hz: int | None) -> str:
    where = socket_words(at, socket)
    return f"Switch low cut of {where} off" if cut_hz is None else f"Set low cut of {where} to {cut_hz} Hz"


@says
def supply_on(at: PlanIndex, supply: Supply, socket: PortRef) -> str:
    return f"Switch {term(supply)} on at {socket_words(at, socket)}"


@says
def supply_off(at: PlanIndex, supply: Supply) -> str:
    return f"Switch {term(supply)} off"


@says
def fresh_cell(at: PlanIndex, device: str) -> str:
    return f"Put a fresh cell into {at.placed(device).label}"


@says
def tune(at: PlanIndex, device: str, mhz: float) -> str:
    return f"Set {at.placed(device).label} to {mhz:.3f} MHz"


@says
def move_frequency(at: PlanIndex, device: str, mhz: float) -> str:
    return f"Move {at.placed(device).label} to {mhz:.3f} MHz, if it is legal there"


@says
def frequencies_cleared(at: PlanIndex) -> str:
    return "Mark the frequencies as cleared for this place"


@says
def route(at: PlanIndex, socket: PortRef, bus: str) -> str:
    return f"Route {socket_words(at, socket)} to {at.placed(socket.device).place_label(bus)}"


@says
def both_sides(at: PlanIndex, device: str) -> str:
    return f"Send the same on both sides of {at.placed(device).label}"


@says
def insert_delay(at: PlanIndex, ms: float) -> str:
    return f"Put an audio delay unit in between, set to {ms:.0f} ms"


@says
def arm(at: PlanIndex, device: str, buses: tuple[str, ...]) -> str:
    labels = " and ".join(at.placed(device).bus(bus).label for bus in buses)
    return f"Arm {'tracks' if len(buses) > 1 else 'track'} {labels} of {at.placed(device).label}"


@says
def four_tracks(at: PlanIndex, device: str) -> str:
    return f"Switch {at.placed(device).label} to four tracks"


@says
def own_knob(at: PlanIndex, socket: PortRef, lower_db: float) -> str:
    return f"Unlink {at.placed(socket.device).port(socket.port).label} and set it {lower_db:g} dB lower"
