"""A run that somebody wants: matched in every way that is worth trying, the best first."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.adviser import Adviser, Tried
from tidy_trunk.core.advice.detours import detours
from tidy_trunk.core.advice.move import Move
from tidy_trunk.core.advice.moves.levels import settled_towards
from tidy_trunk.core.checks import Finding, Severity
from tidy_trunk.core.plan import Edit, Plan
from tidy_trunk.core.trace import is_powered
from tidy_trunk.core.ways import AS_IT_IS, by_hand

MOST_WAYS: Final = 3
"""ASSUMED_ ways to match a run that are tried for an answer: the best ones."""

MOST_BOXES: Final = 2
"""ASSUMED_ boxes to go by that are tried where a socket cannot power a microphone."""


@dataclass(frozen=True, slots=True)
class Matched:
    """A run with what is set for it. `stops`: what would then stand and did not before; `is_plain`: nothing is set."""

    move: Move
    plan: Plan
    stops: tuple[Finding, ...]
    is_plain: bool


class Matcher:
    """Tries runs in one plan."""

    def __init__(self, adviser: Adviser) -> None:
        self._adviser = adviser

    def matched(self, title: str, run_edits: Sequence[Edit], *, bare: bool = False) -> list[Matched]:
        """Ways to make a run, best first by the judge.

        Args:
            title: What the run is called in answers.
            run_edits: The edits that make it, the first of them the run itself.
            bare: Its lead was asked for by name: nothing else is set.
        """
        plain = Move(title, tuple(run_edits))
        made = self._adviser.tried(plain.edits)
        if made is None:
            return []
        before = self._adviser.plan
        run_id = next(run for run in made.question.plan.runs if run not in before.runs)
        choices = [plain, *([] if bare else self._choices(title, run_edits, made, run_id))]
        found = []
        for move in {repr(move.edits): move for move in reversed(choices)}.values():
            tried = self._adviser.tried(move.edits)
            if tried is not None:
                found.append((self._adviser.rank(move, tried), move, tried))
        found.sort(key=lambda item: item[0])
        return [
            Matched(move, tried.question.plan, self._stops(tried), is_plain=move is plain) for _, move, tried in found
        ]

    def _choices(self, title: str, run_edits: Sequence[Edit], made: Tried, run_id: str) -> list[Move]:
        question = made.question
        run = question.plan.runs[run_id]
        if not is_powered(question.rig, run.sending.device):
            return self._by_boxes(title, made, run_id)
        found = [
            Move(f"{title}, matched", (*run_edits, *way.edits))
            for way in [way for way in question.ways(run_id) if way.id != AS_IT_IS][:MOST_WAYS]
        ]
        unit = question.rig.unit(run.receiving.device)
        manual = by_hand(unit, unit.input(run.receiving.port))
        if manual:
            found.append(Move(f"{title}, matched", (*run_edits, *manual)))
        chain = settled_towards(question, run_id)
        if chain:
            found.append(Move(f"{title}, matched", (*run_edits, *chain)))
        return found

    def _by_boxes(self, title: str, made: Tried, run_id: str) -> list[Move]:
        """Where the socket cannot power the microphone: the quietest ways by a box between."""
        return [
            Move(f"{title}, {detour.label[3:]}", detour.edits[1:])  # there is no run yet to take out
            for detour in detours(made.question.report, run_id)[:MOST_BOXES]
        ]

    def _stops(self, tried: Tried) -> tuple[Finding, ...]:
        before = {finding.id for finding in self._adviser.findings}
        return tuple(
            finding
            for finding in tried.question.findings
            if finding.severity is Severity.STOP and finding.id not in before
        )
