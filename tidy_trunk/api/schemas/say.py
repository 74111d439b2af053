"""What a said line would do."""

from tidy_trunk.api.schemas.numbers import Out
from tidy_trunk.core.command import Answer, Proposal
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.words import answer_words


class ProposalOut(Out):
    title: str
    steps: list[str]
    outcome: str
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, proposal: Proposal) -> "ProposalOut":
        words = answer_words(proposal)
        return cls(
            title=words.title,
            steps=list(words.steps),
            outcome=words.outcome,
            edits=[edit_document(edit) for edit in proposal.edits],
        )


class AnswerOut(Out):
    """What a said line would do."""

    proposals: list[ProposalOut]
    completions: list[str]
    problem: str

    @classmethod
    def from_core(cls, answer: Answer) -> "AnswerOut":
        return cls(
            proposals=[ProposalOut.from_core(proposal) for proposal in answer.proposals],
            completions=list(answer.completions),
            problem=answer.problem,
        )
