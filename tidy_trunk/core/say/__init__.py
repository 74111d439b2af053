"""The sentence line."""

from tidy_trunk.core.say.clock import picture_delay
from tidy_trunk.core.say.commands import GRAMMAR
from tidy_trunk.core.say.connect import propose_leads
from tidy_trunk.core.say.grammar import PASSABLE, Form
from tidy_trunk.core.say.line import Answer, say
from tidy_trunk.core.say.proposal import Proposal

__all__ = ["GRAMMAR", "PASSABLE", "Answer", "Form", "Proposal", "picture_delay", "propose_leads", "say"]
