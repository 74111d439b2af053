"""The sentence line: what a typed line means, answered with what it would do before anything changes."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.plan import Plan
from tidy_trunk.core.say import clock, runs, settings, things
from tidy_trunk.core.say.complete import beginnings, completions
from tidy_trunk.core.say.connect import MOST_PROPOSALS
from tidy_trunk.core.say.proposal import NotUnderstoodError, Proposal
from tidy_trunk.errors import TidyTrunkError

_VERBS = {
    "add": things.add,
    "copy": things.copy,
    "rename": things.rename,
    "name": things.rename,
    "remove": things.remove,
    "set": settings.set_,
    "route": settings.route,
    "feed": settings.feed,
    "use": settings.use,
    "jam": clock.jam,
    "late": clock.late,
    "break": clock.break_,
}


@dataclass(frozen=True, slots=True)
class Answer:
    """Proposals to choose from, ways to go on typing, and what was not understood."""

    proposals: tuple[Proposal, ...]
    completions: tuple[str, ...]
    problem: str


def say(plan: Plan, text: str) -> Answer:
    """What a line means in this plan; never raises for what is typed. Forms: `grammar.GRAMMAR`."""
    line = " ".join(text.split())
    if not line:
        return Answer((), beginnings(plan), "")
    try:
        proposals = tuple(_understand(plan, line))[:MOST_PROPOSALS]
        problem = "" if proposals else f"nothing here answers to '{line}': look at the names in Runs"
    except TidyTrunkError as error:
        proposals, problem = (), error.message
    return Answer(proposals, completions(plan, line + (" " if text.endswith(" ") else "")), problem)


def _understand(plan: Plan, line: str) -> Iterator[Proposal]:
    first, _, rest = line.partition(" ")
    verb = first.lower()
    if verb in _VERBS and rest:
        yield from _VERBS[verb](plan, rest)
    elif verb in runs.RUN_VERBS and (runs.names_run(rest) or not runs.TO.search(line)):
        yield from runs.of_run(plan, verb, rest)
    elif runs.TO.search(line):
        yield from runs.connect(plan, line)
    elif re.search(r"\sat\s", line):
        yield from things.hear(plan, line)
    else:
        raise NotUnderstoodError(
            f"'{line}' is not understood yet. Say a run (boom to bag 1, 7 m), add bag recorder, founder at boom, or set bag 1 gain 40. "
            "The help lists all forms."
        )
