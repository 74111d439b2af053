"""Moves, options and answers of the typed line, as they are shown."""

from typing import Final, NamedTuple

from tidy_trunk.core.advice.adviser import Move
from tidy_trunk.core.advice.options import MatchingOption
from tidy_trunk.core.command import Proposal
from tidy_trunk.words.edits import sentences
from tidy_trunk.words.findings import headline
from tidy_trunk.words.messages import worded
from tidy_trunk.words.numbers import listed

MOST_IN_TITLE: Final = 2
"""ASSUMED_ how many sentences still read as one line."""


def label_of(move: Move) -> str:
    """What stands on the button of a move, and which cautions it leaves."""
    first, *more = [(item.code, worded(item)) for item in move.does]
    # What begins with a device keeps its letters.
    label = "; ".join([first[1], *(said if code == "set-controls" else _lower(said) for code, said in more)])
    return f"{label}; it leaves: {listed([_lower(headline(found)) for found in move.brings])}" if move.brings else label


class OptionWords(NamedTuple):
    """A matching option of a cable; `needs`, `loses` and `risk` are "" where there is nothing to say."""

    label: str
    verdict: str
    needs: str
    loses: str
    risk: str


def option_words(option: MatchingOption) -> OptionWords:
    return OptionWords(
        label=worded(option.does),
        verdict=worded(option.verdict),
        needs="" if option.needs is None else worded(option.needs),
        loses="" if option.loses is None else worded(option.loses),
        risk="; ".join(map(worded, option.risks)),
    )


class AnswerWords(NamedTuple):
    """An answer: what it does and which stop is left with it, what each edit does where that says more, and the result."""

    title: str
    steps: tuple[str, ...]
    outcome: str


def answer_words(proposal: Proposal) -> AnswerWords:
    steps = tuple(sentences(proposal.plan, proposal.edits))
    if proposal.does is not None:
        title = worded(proposal.does)
    else:
        title = steps[0] if len(steps) > MOST_IN_TITLE else "; ".join(steps)
    # What has another name than its edits shows them too.
    says_all = (proposal.does is None or proposal.does.code == "add-class") and len(steps) <= MOST_IN_TITLE
    if proposal.stops:
        title = f"{title}: {_lower(headline(proposal.stops[0]))}"
    outcome = "" if proposal.outcome is None else worded(proposal.outcome)
    return AnswerWords(title, () if says_all else steps, outcome)


def _lower(title: str) -> str:
    """A title within a sentence; a name such as P48 keeps its letters."""
    return title if title[1].isdigit() else title[0].lower() + title[1:]
