"""The sentence line."""

from tidy_trunk.core.say.connect import Proposal
from tidy_trunk.core.say.line import Answer, say

__all__ = ["Answer", "Proposal", "say"]
