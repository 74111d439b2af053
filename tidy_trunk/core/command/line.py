"""The sentence line: what a typed line means, answered with what it would do before anything changes."""

from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.advice.fault_search import symptom_in
from tidy_trunk.core.command.commands import COMMANDS
from tidy_trunk.core.command.complete import MOST, beginnings, between
from tidy_trunk.core.command.connect import MOST_PROPOSALS
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal
from tidy_trunk.core.plan import Plan
from tidy_trunk.errors import TidyTrunkError


@dataclass(frozen=True, slots=True)
class LineAnswer:
    """Proposals to choose from, ways to go on typing, and what was not understood."""

    proposals: tuple[Proposal, ...]
    completions: tuple[str, ...]
    problem: str


def say(plan: Plan, text: str) -> LineAnswer:
    """What a line means in this plan; never raises for what is typed. Forms: `commands.GRAMMAR`."""
    line = " ".join(text.split())
    if not line:
        return LineAnswer((), beginnings(plan), "")
    try:
        proposals = tuple(_understand(plan, line))[:MOST_PROPOSALS]
        problem = (
            "" if proposals else f"nothing here is called that: '{line}'. The names stand in Connections and Equipment"
        )
    except TidyTrunkError as error:
        proposals, problem = (), error.message
    return LineAnswer(proposals, _completions(plan, line + (" " if text.endswith(" ") else "")), problem)


def _understand(plan: Plan, line: str) -> Iterator[Proposal]:
    command = next((command for command in COMMANDS if command.is_meant(line)), None)
    if command is None and symptom_in(line) is not None:
        raise NotUnderstoodError(f"'{line}' is no command. What is wrong? searches for its cause: g x")
    if command is None:
        raise NotUnderstoodError(
            f"'{line}' is not understood. Type a connection (boom to bag 1, 7 m), add bag recorder, founder at boom, or set bag 1 gain 40. "
            "Help lists all commands."
        )
    yield from command.meaning(plan, line.partition(" ")[2] if command.verbs else line)


def _completions(plan: Plan, line: str) -> tuple[str, ...]:
    """Whole lines that go on from what is typed, at most six."""
    found = dict.fromkeys(item for item in _goes_on(plan, line.lower()) if item.strip() != line.strip())
    return tuple(found)[:MOST]


def _goes_on(plan: Plan, line: str) -> Iterator[str]:
    verb, space, rest = line.partition(" ")
    begun = [(name, command) for command in COMMANDS for name in command.verbs if name.startswith(verb)]
    meant = next((command for name, command in begun if name == verb), None)
    if not space:
        yield from (f"{name} cable " if command.of_run else f"{name} " for name, command in begun)
    if meant is not None and (space or not begun):
        yield from (f"{verb} {more}" for more in meant.go_on(plan, rest))
    elif meant is None:
        yield from between(plan, line)
