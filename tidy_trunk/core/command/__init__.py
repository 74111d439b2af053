"""The sentence line."""

from tidy_trunk.core.command.clock import minutes, picture_delay
from tidy_trunk.core.command.commands import GRAMMAR
from tidy_trunk.core.command.connect import propose_leads
from tidy_trunk.core.command.day_sheet import SheetLine, sheet_edits
from tidy_trunk.core.command.draft import Draft
from tidy_trunk.core.command.grammar import PASSABLE, LineForm
from tidy_trunk.core.command.line import LineAnswer, say
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal
from tidy_trunk.core.command.runs import joined
from tidy_trunk.core.command.words import DeviceMatch, find_classes, find_leads, split_words

__all__ = [
    "GRAMMAR",
    "PASSABLE",
    "DeviceMatch",
    "Draft",
    "LineAnswer",
    "LineForm",
    "NotUnderstoodError",
    "Proposal",
    "SheetLine",
    "find_classes",
    "find_leads",
    "joined",
    "minutes",
    "picture_delay",
    "propose_leads",
    "say",
    "sheet_edits",
    "split_words",
]
