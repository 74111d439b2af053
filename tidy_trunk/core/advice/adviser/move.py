"""A move: a few edits that may mend something. Who proposes which for a finding is registered here, and tried elsewhere."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, PlacedFinding
from tidy_trunk.core.plan import Edit, Message, PlanIndex, SetControl, message


@dataclass(frozen=True, slots=True)
class Move:
    """Edits that are made together, what they do, to be said on a button, and the cautions that they bring."""

    does: tuple[Message, ...]
    edits: tuple[Edit, ...]
    brings: tuple[PlacedFinding, ...] = ()


def move(does: Message, *edits: Edit) -> Move:
    return Move((does,), edits)


def behind(edits: Sequence[Edit], more: Sequence[Edit]) -> tuple[Edit, ...]:
    """Edits and then more of them; what the later ones set again is not set before."""
    again = {(edit.device, edit.control) for edit in more if isinstance(edit, SetControl)}
    kept = [edit for edit in edits if not (isinstance(edit, SetControl) and (edit.device, edit.control) in again)]
    return (*kept, *more)


def setting(index: PlanIndex, edits: Sequence[SetControl]) -> Message:
    """Controls set: the edits themselves say it."""
    return message("set-controls", index, edits=tuple(edits))


Maker = Callable[[Question, Finding], Iterable[Move]]
MAKERS: Final[dict[str, list[Maker]]] = {}
"""By rule, whoever knows moves for its findings. [HANDBOOK]"""


def moves_for(*rules: str) -> Callable[[Maker], Maker]:
    """Register a maker of moves for the findings of some rules. Nothing has to be sure: each move is tried on the plan."""

    def register(maker: Maker) -> Maker:
        for rule in rules:
            MAKERS.setdefault(rule, []).append(maker)
        return maker

    return register
