"""What can be done about a run: ways to match its level, other leads."""

from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.jobs import CableChainChoice
from tidy_trunk.words import FAULT_WORDS


class CableChainOut(Out):
    """Other leads for a run; `faults` is empty where the right signal arrives. in_trunk: all of it is owned, and serves no other run."""

    label: str
    faults: list[str]
    unbalanced_m: float
    edits: list[AnyEdit]
    in_trunk: bool = False

    @classmethod
    def from_core(cls, choice: CableChainChoice, in_trunk: bool) -> "CableChainOut":
        return cls(
            label=choice.label,
            faults=[FAULT_WORDS[fault] for fault in choice.faults],
            unbalanced_m=choice.unbalanced_m,
            edits=[edit_document(choice.edit)],
            in_trunk=in_trunk,
        )
