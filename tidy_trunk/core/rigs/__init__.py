"""Whole rigs for a job that is said in a line or two."""

from tidy_trunk.core.rigs.brief import (
    MOST_CAMERAS,
    MOST_MICROPHONES,
    MOST_PEOPLE,
    Brief,
    Delivery,
    Microphone,
    Placing,
    Problem,
    Subject,
)
from tidy_trunk.core.rigs.build import Approach
from tidy_trunk.core.rigs.choose import MOST_RIGS, Rig, Rigs, Wish, find_rigs, first_rig
from tidy_trunk.core.rigs.figures import RigFigures, Sync
from tidy_trunk.core.rigs.reading import Reading, read_brief

__all__ = [
    "MOST_CAMERAS",
    "MOST_MICROPHONES",
    "MOST_PEOPLE",
    "MOST_RIGS",
    "Approach",
    "Brief",
    "Delivery",
    "Microphone",
    "Placing",
    "Problem",
    "Reading",
    "Rig",
    "RigFigures",
    "Rigs",
    "Subject",
    "Sync",
    "Wish",
    "find_rigs",
    "first_rig",
    "read_brief",
]
