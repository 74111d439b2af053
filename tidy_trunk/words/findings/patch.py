"""What is plugged into what."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.gear.wiring import Fault
from tidy_trunk.core.plan import PortRef
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def plugs_do_not_mate(at: FindingPlace, *, first: str, second: str) -> FindingWords:
    """`first`, `second`: the two ends, by name and plug."""
    return FindingWords("Plugs do not mate", f"Cable {at.number}: {first} does not go into {second}. Nothing arrives.")


_WRONG: Final[Mapping[Fault, tuple[str, str]]] = {
    Fault.OPPOSITE: (
        "Sides in opposite polarity",
        "Cable {number} puts hot on the left and cold on the right of {socket}: it sounds hollow, and in mono nothing is left. Nothing is "
        "lost for good: keep one side, or invert one. Use a cable wired mono to both sides.",
    ),
    Fault.DIFFERENCE: (
        "Stereo into a balanced input",
        "Cable {number} brings left and right of {sender} to hot and cold of {socket}: it hears left minus right, and what is in "
        "the middle vanishes.",
    ),
    Fault.NOTHING: (
        "Nothing arrives",
        "Cable {number} mates, but no contact brings the signal of {sender} to {socket}.",
    ),
    Fault.FIGHTING: (
        "Two outputs joined",
        "Cable {number} joins left and right of {sender}: each drives the other, both come out distorted or too low.",
    ),
    Fault.SHORTED: (
        "Output shorted",
        "Cable {number} ties one leg of {sender} to the screen: its output drives a short. Use a cable that leaves that leg open.",
    ),
    Fault.SWAPPED: (
        "Left and right exchanged",
        "Cable {number} does not bring left and right of {sender} to the same sides of {socket}.",
    ),
    Fault.INVERTED: (
        "Polarity inverted",
        "Cable {number} swaps hot and cold. Beside another microphone on the same voice it thins the sound.",
    ),
    Fault.NUMBERS: (
        "Digital into analogue",
        "{sender} sends digital sound, {socket} expects a voltage or other numbers: loud noise, or nothing. Use another output or "
        "input.",
    ),
    Fault.VOLTAGE: (
        "Analogue into digital",
        "{socket} takes only digital sound, {sender} sends a voltage: nothing arrives. Use another output or input.",
    ),
}
"""What each does to the sound, and what to do. [HANDBOOK] §4"""


@says
def wrong_lead(at: FindingPlace, *, fault: Fault) -> FindingWords:
    title, text = _WRONG[fault]
    return FindingWords(
        title,
        text.format(number=at.number, sender=at.sender, socket=at.socket),
        "The right and the wrong cable look the same: test the cable, and sum to mono while listening.",
    )


@says
def another_ring_count(at: FindingPlace, *, plug: str, socket: str, is_dead: bool) -> FindingWords:
    what = (
        "The signal is shorted: nothing arrives."
        if is_dead
        else "Two contacts are joined there: one side is lost or shorted."
    )
    return FindingWords(
        "Headset plug in a camera's kind of socket" if "TRRS" in plug else "Plug and socket count differently",
        f"Cable {at.number}: {plug} goes into {socket}, and its sleeve lies across two contacts. {what} "
        "An adapter made for the two puts it right.",
    )


@says
def stereo_into_mono(at: FindingPlace, *, lost: str, alone: tuple[str, ...]) -> FindingWords:
    """`lost`: the side that goes nowhere; `alone`: sources that are on that one alone."""
    names = " and ".join(map(at.source, alone))
    return FindingWords(
        f"{names} {'are' if len(alone) > 1 else 'is'} lost" if alone else "One side of it is lost",
        f"Cable {at.number} brings one side of {at.output} to {at.socket}; {lost} goes nowhere"
        + (
            f", and {names} with it: use a Y-cable and a second input."
            if alone
            else f". If something else is on {lost}, use a Y-cable and a second input."
        ),
    )


@says
def mono_into_stereo(at: FindingPlace, *, silent: str) -> FindingWords:
    """`silent`: the side on which nothing arrives."""
    return FindingWords(
        f"{silent} stays silent",
        f"Cable {at.number} reaches one side of {at.socket}; {silent} records nothing. Use a cable wired mono to "
        "both sides where both are wanted, and do not take the silent side for a backup.",
    )


@says
def port_blocked(at: FindingPlace, *, by: str) -> FindingWords:
    """`by`: the port that is used instead."""
    blocked = at.joint.input.label
    return FindingWords(
        f"{at.device} {blocked} is off",
        f"While {at.device} {at.placed.input(by).label} is used, {blocked} records nothing: cable {at.number} ends at a dead socket. "
        "Keep one of the two.",
    )


@says
def no_strain_relief(at: FindingPlace, *, loose: tuple[PortRef, ...]) -> FindingWords:
    """`loose`: the sockets in which the plug does not lock."""
    where = " and ".join(f"{at.label(ref.device)} {at.index.placed(ref.device).port(ref.port).label}" for ref in loose)
    return FindingWords(
        "Nothing holds this plug",
        f"Cable {at.number}: the plug at {where} does not lock and works loose. Tie the cable up high beside the "
        "socket, with no weight on it, and tick it here.",
    )


@says
def digital_mode(at: FindingPlace, *, sends_digital: bool) -> FindingWords:
    sent, taken = ("digital sound", "a voltage") if sends_digital else ("a voltage", "digital sound")
    return FindingWords(
        "Digital and analogue mixed up",
        f"{at.output} sends {sent}; {at.socket} is set to take {taken}.",
    )
