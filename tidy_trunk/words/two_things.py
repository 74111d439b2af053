"""Two things joined, in words: the cable, what it joins, what is set, and what arrives."""

from typing import NamedTuple

from tidy_trunk.core.plan import AddDevice, Connect, PlanIndex, SaveClass, edited
from tidy_trunk.core.rigs import ConnectionOption
from tidy_trunk.words.answers import answer_words
from tidy_trunk.words.edits import sentence
from tidy_trunk.words.numbers import unsigned
from tidy_trunk.words.rows import parts_words


class JoinedWords(NamedTuple):
    """cable: what to take, a box between first, then each run by itself; route: from where to where; settings: what to set, end by end; arrives: what is
    then recorded, or how a tone arrives."""

    cable: str
    route: str
    settings: tuple[str, ...]
    arrives: str


def joined_words(way: ConnectionOption) -> JoinedWords:
    index = PlanIndex(way.plan)
    runs = list(way.plan.runs.values())
    cables = dict.fromkeys(parts_words(index, run.parts) or "its own plug, directly" for run in runs)
    route = dict.fromkeys(f"{index.port_label(run.sending)} to {index.port_label(run.receiving)}" for run in runs)
    plan, settings = way.proposal.plan, []
    for edit in way.proposal.edits:
        if not isinstance(edit, Connect | AddDevice | SaveClass):
            settings.append(sentence(edit, plan))
        plan = edited(plan, [edit])
    if way.tone is not None and not way.plan.sources:
        sent, shown = (unsigned(value) for value in way.tone)
        arrives = f"A tone that leaves at {sent} dBFS is recorded at {shown} dBFS."
    else:
        arrives = "" if way.plan.sources == {} else answer_words(way.proposal).outcome
    boxes = [edit.label_in(way.proposal.plan) for edit in way.proposal.edits if isinstance(edit, AddDevice)]
    return JoinedWords("; ".join([*boxes, *cables]), "; ".join(route), tuple(settings), arrives)
