"""Hum loops."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.sound.hum import COMPUTER, EARTH, Grade
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says

_BREAKS: Final = (
    "One device on battery, a charger that is no computer, or an isolating transformer breaks it. "
    "Never lift a protective earth."
)
"""What opens a loop. [HANDBOOK] §9"""

_GRADED: Final[Mapping[Grade, tuple[str, str]]] = {
    Grade.COMPUTER: (
        "Ticks from a computer",
        "A computer's USB, or that of a monitor or hub on it, drives ticks and clicks through its return, perhaps into one "
        f"file only. {_BREAKS}",
    ),
    Grade.EARTH: (
        "Hum loop",
        f"Its return carries what flows between the two earths: hum, perhaps in one file only. {_BREAKS}",
    ),
    Grade.ADAPTERS: (
        "Loop through a wall adapter",
        "A double-insulated adapter lets hardly any current through, so it is mostly clean.",
    ),
}
"""What drives each, and what breaks it. [HANDBOOK] §9"""


@says
def hum_loop(at: FindingPlace, *, grade: Grade, nodes: tuple[str, ...]) -> FindingWords:
    """`nodes`: the devices and mains on the circle, in order."""
    title, why = _GRADED[grade]
    more = at.finding.more_runs
    numbers = sorted(at.index.plan.runs[run].number for run in (at.finding.run, *more))
    cables = f"Cables {', '.join(map(str, numbers))} are" if more else f"Cable {numbers[0]} is"
    closes = "close circles, one of them" if more else "closes a circle"
    names = {EARTH: "mains", COMPUTER: "the computer"}
    labels = [names.get(node) or at.label(node) for node in (*nodes, nodes[0])]
    return FindingWords(
        title,
        f"{cables} unbalanced and {closes}: {' → '.join(labels)}. {why}",
        "Listen at the receiving device with the final power in place.",
    )
