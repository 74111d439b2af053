"""The answers of the typed line."""

from tidy_trunk.core.command import Proposal
from tidy_trunk.words.findings import headline


def title_of(proposal: Proposal) -> str:
    """What a proposal does, and which stop is left with it."""
    if not proposal.stops:
        return proposal.title
    stop = headline(proposal.stops[0])
    # A name such as P48 keeps its letters.
    return f"{proposal.title}: {stop if stop[1].isdigit() else stop[0].lower() + stop[1:]}"
