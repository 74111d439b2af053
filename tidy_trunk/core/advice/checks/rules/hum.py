"""Rules on hum loops."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.plan import Aspect
from tidy_trunk.core.sound.hum import COMPUTER, EARTH, Grade, Loop

_BREAKS: Final = (
    "One device on battery, a charger that is no computer, or an isolating transformer breaks it. "
    "Never lift a protective earth."
)
"""What opens a loop. [HANDBOOK] §9"""

_GRADED: Final = {
    Grade.COMPUTER: (
        Severity.CAUTION,
        "Ticks from a computer",
        "A computer's USB, or that of a monitor or hub on it, drives ticks and clicks through its return, perhaps into one "
        "file only. " + _BREAKS,
    ),
    Grade.EARTH: (
        Severity.CAUTION,
        "Hum loop",
        "Its return carries what flows between the two earths: hum, perhaps in one file only. " + _BREAKS,
    ),
    Grade.ADAPTERS: (
        Severity.NOTE,
        "Loop through a wall adapter",
        "A double-insulated adapter lets hardly any current through, so it is mostly clean.",
    ),
}
"""How bad each is, and why. [HANDBOOK] §9"""


@looks_at(Aspect.POWER)
def hum_loop(situation: Situation) -> Iterator[Finding]:
    """Circles through mains or a computer and the screen of unbalanced leads, by what drives them. [HANDBOOK] §9"""
    causes: dict[tuple[str, ...], list[Loop]] = {}
    for loop in situation.loops:
        causes.setdefault(loop.cause, []).append(loop)
    for together in causes.values():
        loop, *more = together
        joint = situation.joint(loop.run)
        severity, title, why = _GRADED[loop.grade]
        numbers = sorted(situation.joint(other.run).run.number for other in together)
        runs = f"Cables {', '.join(map(str, numbers))} are" if more else f"Cable {numbers[0]} is"
        closes = "close circles, one of them" if more else "closes a circle"
        yield Finding(
            rule="hum-loop",
            severity=severity,
            title=title,
            text=f"{runs} unbalanced and {closes}: {_circle(situation, loop)}. {why}",
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
            more_runs=tuple(other.run for other in more),
            verify="Listen at the receiving device with the final power in place.",
        )


def _circle(situation: Situation, loop: Loop) -> str:
    names = {EARTH: "mains", COMPUTER: "the computer"}
    labels = [names.get(node) or situation.rig.unit(node).label for node in loop.nodes]
    return " → ".join([*labels, labels[0]])
