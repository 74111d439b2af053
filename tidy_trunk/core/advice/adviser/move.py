"""A move: a few edits that may mend something. Who proposes which for a finding is registered here, and tried elsewhere."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
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

    def then(self, more: "Move") -> "Move":
        """Both, one after the other; a control that the second sets again is neither set nor named before."""
        does = [_without(item, more.edits) for item in self.does]
        return Move((*(item for item in does if item is not None), *more.does), behind(self.edits, more.edits))


def move(does: Message, *edits: Edit) -> Move:
    return Move((does,), edits)


def behind(edits: Sequence[Edit], more: Sequence[Edit]) -> tuple[Edit, ...]:
    """Edits and then more of them; what the later ones set again is not set before."""
    return (*_not_again(edits, more), *more)


def _not_again(edits: Sequence[Edit], more: Sequence[Edit]) -> tuple[Edit, ...]:
    again = {(edit.device, edit.control) for edit in more if isinstance(edit, SetControl)}
    return tuple(edit for edit in edits if not (isinstance(edit, SetControl) and (edit.device, edit.control) in again))


def _without(does: Message, more: Sequence[Edit]) -> Message | None:
    """What is said of a move before another one; None where nothing of it is left."""
    if does.code != "set-controls":
        return does
    kept = _not_again(does.facts["edits"], more)
    return replace(does, facts={"edits": kept}) if kept else None


def setting(index: PlanIndex, edits: Sequence[SetControl]) -> Message:
    """Controls set: the edits themselves say it."""
    return message("set-controls", index, edits=tuple(edits))


Maker = Callable[[Question, Finding], Iterable[Move]]
MAKERS: Final[dict[str, list[Maker]]] = {}
"""By rule, whoever knows moves for its findings."""


def moves_for(*rules: str) -> Callable[[Maker], Maker]:
    """Register a maker of moves for the findings of some rules. Nothing has to be sure: each move is tried on the plan."""

    def register(maker: Maker) -> Maker:
        for rule in rules:
            MAKERS.setdefault(rule, []).append(maker)
        return maker

    return register
