"""What is said of each edit: one function for a class of edits, in the module that has the name of the edits' module."""

from tidy_trunk.words.edits import clocks, devices, job, leads, line_ups, measured, runs, shooting, sources, targets
from tidy_trunk.words.edits.said import in_one, sentence, sentences

__all__ = [
    "clocks",
    "devices",
    "in_one",
    "job",
    "leads",
    "line_ups",
    "measured",
    "runs",
    "sentence",
    "sentences",
    "shooting",
    "sources",
    "targets",
]
