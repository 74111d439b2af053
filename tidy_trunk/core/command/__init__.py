"""The sentence line."""

from tidy_trunk.core.command.clock import picture_delay
from tidy_trunk.core.command.commands import GRAMMAR
from tidy_trunk.core.command.connect import propose_leads
from tidy_trunk.core.command.draft import Draft
from tidy_trunk.core.command.grammar import PASSABLE, Form
from tidy_trunk.core.command.line import Answer, say
from tidy_trunk.core.command.proposal import Proposal
from tidy_trunk.core.command.words import find_classes

__all__ = [
    "GRAMMAR",
    "PASSABLE",
    "Answer",
    "Draft",
    "Form",
    "Proposal",
    "find_classes",
    "picture_delay",
    "propose_leads",
    "say",
]
