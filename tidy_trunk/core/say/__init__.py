"""The sentence line."""

from tidy_trunk.core.say.grammar import GRAMMAR, PASSABLE, Form
from tidy_trunk.core.say.line import Answer, say
from tidy_trunk.core.say.proposal import Proposal

__all__ = ["GRAMMAR", "PASSABLE", "Answer", "Form", "Proposal", "say"]
