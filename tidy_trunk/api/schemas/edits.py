"""Edits that answer a question, to be sent back as they are."""

from collections.abc import Sequence

from tidy_trunk.core.plan import Edit
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.results.numbers import Out


class EditsOut(Out):
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, edits: Sequence[Edit]) -> "EditsOut":
        return cls(edits=[edit_document(edit) for edit in edits])
