"""A search for what is wrong: what is suspected, what to try next, and what was found."""

from tidy_trunk.core.advice.adviser import Adviser
from tidy_trunk.core.advice.fault_search import Search, Symptom
from tidy_trunk.results.advice import FixOut
from tidy_trunk.results.numbers import Out
from tidy_trunk.words.fault_search import SYMPTOMS, suspect_words, trial_words


class SymptomOut(Out):
    id: Symptom
    label: str


class SuspectOut(Out):
    """share: how likely it is among what is left, 0 to 1."""

    id: str
    title: str
    share: float


class SearchTestOut(Out):
    """Something to try, and a question of yes or no about it."""

    id: str
    does: str
    asks: str
    minutes: float


class CauseOut(Out):
    """What is left: its fix in words, the edits that make it where the plan itself is wrong, and what to write down."""

    title: str
    fix: str
    edits: FixOut | None
    log: str


class SearchOut(Out):
    symptom: Symptom
    track: str
    symptoms: list[SymptomOut]
    left: list[SuspectOut]
    next: SearchTestOut | None
    cause: CauseOut | None

    @classmethod
    def from_core(cls, found: Search, adviser: Adviser) -> "SearchOut":
        index = adviser.report.index
        suspects = {suspect.id: suspect for suspect, _ in found.left}
        following = None
        if found.next is not None:
            words = trial_words(found.next, suspects, index)
            following = SearchTestOut(id=found.next.id, does=words.does, asks=words.asks, minutes=found.next.minutes)
        return cls(
            symptom=found.symptom,
            track=found.track,
            symptoms=[SymptomOut(id=symptom, label=label) for symptom, label in SYMPTOMS.items()],
            left=[
                SuspectOut(id=suspect.id, title=suspect_words(suspect, index).title, share=round(share, 3))
                for suspect, share in found.left
            ],
            next=following,
            cause=_cause(found, adviser),
        )


def _cause(found: Search, adviser: Adviser) -> CauseOut | None:
    if found.cause is None:
        return None
    words = suspect_words(found.cause, adviser.report.index)
    fixes = adviser.fixes(found.cause.finding) if found.cause.finding is not None else ()
    edits = FixOut.from_core(adviser.plan, fixes[0]) if fixes else None
    return CauseOut(title=words.title, fix=words.fix, edits=edits, log=words.log)
