"""What can be hidden in a rig: a switch, a knob, a cable, a plug or a clock that is other than planned."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.plan import Edit

LIKELY: Final[Mapping[str, float]] = {
    "automatic": 3.0,
    "phantom": 3.0,
    "mode": 2.0,
    "gain": 2.0,
    "pad": 1.0,
    "limiter": 1.0,
    "linked": 1.0,
    "pan": 1.0,
    "armed": 2.0,
    "rolling": 2.0,
    "monitor": 1.0,
    "frequency": 2.0,
    "cell": 2.0,
    "mains": 2.0,
    "pad-missing": 3.0,
    "wrong-cable": 2.0,
    "crossed": 0.5,
    "one-leg": 1.0,
    "wrong-input": 2.0,
    "wrong-output": 2.0,
    "wrong-mix": 1.0,
    "break": 1.0,
    "loose": 4.0,
    "timecode-out": 2.0,
    "timecode-beside": 1.0,
    "not-jammed": 2.0,
    "timecode-rate": 1.0,
    "timecode-run": 1.0,
    "sample-rate": 1.0,
}
"""ASSUMED_ how likely each kind of fault is beside the others, 1 for a rare one; from common practice, and not measured."""

IN_THE_CABLE: Final = frozenset(
    {"break", "wrong-cable", "pad-missing", "crossed", "one-leg", "loose", "timecode-out", "timecode-beside"}
)
"""Kinds that are gone with the right cable plugged in at both ends. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class HiddenFault:
    """A fault. id: of it in this rig; code: its kind; device, control, run: where it is.

    edits: that make the plan so; none for what no plan says: a loose plug, or a recorder that was never started.
    """

    id: str
    code: str
    device: str = ""
    control: str = ""
    run: str = ""
    edits: tuple[Edit, ...] = ()

    @property
    def weight(self) -> float:
        return LIKELY[self.code]
