"""Whole rigs for a job that is said in a line or two."""

from tidy_trunk.core.rigs.brief import (
    MOST_CAMERAS,
    MOST_MICROPHONES,
    MOST_PEOPLE,
    Brief,
    BriefProblem,
    Delivery,
    Microphone,
    SourcePlacing,
    Subject,
)
from tidy_trunk.core.rigs.build import Approach
from tidy_trunk.core.rigs.choose import ENOUGH_HEADROOM_DB, MOST_RIGS, SAME_DB, Rig, Rigs, Wish, find_rigs, first_rig
from tidy_trunk.core.rigs.figures import USUAL_CABLE_COST, RigFigures, SyncMethod
from tidy_trunk.core.rigs.reading import LONGEST, Reading, read_brief
from tidy_trunk.core.rigs.two_things import ConnectionOption, ConnectionOptions, WantedConnection, join_two

__all__ = [
    "ENOUGH_HEADROOM_DB",
    "LONGEST",
    "MOST_CAMERAS",
    "MOST_MICROPHONES",
    "MOST_PEOPLE",
    "MOST_RIGS",
    "SAME_DB",
    "USUAL_CABLE_COST",
    "Approach",
    "Brief",
    "BriefProblem",
    "ConnectionOption",
    "ConnectionOptions",
    "Delivery",
    "Microphone",
    "Reading",
    "Rig",
    "RigFigures",
    "Rigs",
    "SourcePlacing",
    "Subject",
    "SyncMethod",
    "WantedConnection",
    "Wish",
    "find_rigs",
    "first_rig",
    "join_two",
    "read_brief",
]
