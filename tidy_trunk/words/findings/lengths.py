"""Where cables lie, and how long they are."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.advice.checks import Severity
from tidy_trunk.core.plan import Hazard, Passing
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.names import passing_words


@says
def unbalanced_too_long(at: FindingPlace, *, length_m: float, near: tuple[Passing, ...]) -> FindingWords:
    """`near`: what radiates beside it."""
    beside = f" and passes {' and '.join(map(passing_words, near))}" if near else ""
    return FindingWords(
        f"{length_m:g} m unbalanced",
        f"Cable {at.number} is unbalanced for {length_m:g} m{beside}. Beside dimmers, LED supplies or transmitters, "
        "1 m has buzzed: balanced cable to the receiving end, adapter of about 0.3 m there."
        + (" Or keep it well away from there." if near else ""),
        "Listen at the receiving end with the final power in place, and keep clear of mains.",
    )


@says
def lead_too_short(at: FindingPlace, *, path_m: float, needed_m: float) -> FindingWords:
    length_m = at.joint.run.length_m
    return FindingWords(
        f"{needed_m - length_m:.1f} m too short",
        f"Cable {at.number} measures {length_m:g} m; its path of {path_m:g} m needs {needed_m:.1f} m "
        "with slack for corners and both ends. A tight cable pulls at the socket and trips people.",
    )


@says
def beside_mains(at: FindingPlace, *, metres: float) -> FindingWords:
    """`metres`: 0 where nobody has said for how far."""
    if at.finding.severity is Severity.NOTE:
        title, text = "Across mains", f"Cable {at.number} crosses mains: at a right angle, and not coiled there."
    else:
        how_far = f"for {metres:g} m" if metres else "for a length that nobody has said"
        title = "Beside mains"
        text = f"Cable {at.number} lies beside mains {how_far}. Keep it half a metre away, and cross at right angles."
    return FindingWords(
        title,
        f"{text} Mains itself is for a qualified electrician.",
        "Listen for hum with lamps and dimmers as in the take.",
    )


_LAID: Final[Mapping[Hazard, str]] = {
    Hazard.WALKWAY: "crosses a walkway: ramp it or tape it down along its whole length, and mark it",
    Hazard.DOORWAY: "goes through a doorway: above the frame, or flat under a ramp, and never in the way of a fire door",
    Hazard.OVERHEAD: "hangs overhead: tie it to something that bears it, with a second tie, out of reach",
    Hazard.WET: "lies in the wet: joins off the ground and covered, and no mains near it",
    Hazard.HOT: "passes something hot: keep it off, or cover it with what does not burn",
}
"""How to lay it there. [PRACTICE]"""


@says
def laid_safely(at: FindingPlace, *, hazards: tuple[Hazard, ...]) -> FindingWords:
    return FindingWords(
        "Lay it so that nobody is hurt",
        f"Cable {at.number} {'; it '.join(_LAID[what] for what in hazards)}. Rules of the place and the people in charge of safety "
        "decide.",
        "Walk along it once as a stranger in the dark would.",
    )


@says
def treble_lost(at: FindingPlace, *, corner_hz: float) -> FindingWords:
    return FindingWords(
        "Treble lost in the cable",
        f"Cable {at.number}: {at.joint.run.length_m:g} m behind {at.joint.sends.source_ohm.value:g} Ω take 3 dB off at "
        f"{corner_hz / 1000:.1f} kHz. Put the preamp, or a source of low impedance, near the microphone.",
    )
