"""What is said of each message of the core: one function for a code."""

from tidy_trunk.words.messages import answers, levels, moves, options
from tidy_trunk.words.messages.said import SAYERS, worded

__all__ = ["SAYERS", "answers", "levels", "moves", "options", "worded"]
