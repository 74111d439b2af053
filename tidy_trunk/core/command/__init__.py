"""The sentence line."""

from tidy_trunk.core.command.clock import picture_delay
from tidy_trunk.core.command.commands import GRAMMAR
from tidy_trunk.core.command.connect import propose_leads
from tidy_trunk.core.command.grammar import PASSABLE, Form
from tidy_trunk.core.command.line import Answer, say
from tidy_trunk.core.command.proposal import Proposal

__all__ = ["GRAMMAR", "PASSABLE", "Answer", "Form", "Proposal", "picture_delay", "propose_leads", "say"]
