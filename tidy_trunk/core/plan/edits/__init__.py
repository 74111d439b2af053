"""Edits: named commands on a plan, each a pure function from plan to plan."""

from tidy_trunk.core.plan.edits.base import Edit, apply_edits, edited, free_id
from tidy_trunk.core.plan.edits.clocks import DropPairDrift, RemoveBreak, SetBreak, SetJam, TakePairDrift
from tidy_trunk.core.plan.edits.devices import (
    AddDevice,
    CopyClass,
    CopyDevice,
    FeedOutput,
    RemoveClass,
    RemoveDevice,
    RenameDevice,
    RouteBus,
    SaveClass,
    SetControl,
    SetFigure,
)
from tidy_trunk.core.plan.edits.job import SetJob
from tidy_trunk.core.plan.edits.leads import DrawLead, RemoveLead, SaveLead
from tidy_trunk.core.plan.edits.line_ups import DropLineUp, TakeLineUp
from tidy_trunk.core.plan.edits.measured import DropGainLaw, DropMeterError, TakeGainLaw, TakeMeterError
from tidy_trunk.core.plan.edits.runs import Connect, Disconnect, MoveRun, SetParts, SetPath, SetStrainRelief
from tidy_trunk.core.plan.edits.shooting import (
    AddTake,
    PlaceDevice,
    RemoveMove,
    RemoveSetUp,
    SaveMove,
    SaveSetUp,
    ShiftDay,
)
from tidy_trunk.core.plan.edits.sources import AddSource, Hear, RemoveSource, SetSource
from tidy_trunk.core.plan.edits.targets import RemoveTarget, SaveTarget, SetRole

__all__ = [
    "AddDevice",
    "AddSource",
    "AddTake",
    "Connect",
    "CopyClass",
    "CopyDevice",
    "Disconnect",
    "DrawLead",
    "DropGainLaw",
    "DropLineUp",
    "DropMeterError",
    "DropPairDrift",
    "Edit",
    "FeedOutput",
    "Hear",
    "MoveRun",
    "PlaceDevice",
    "RemoveBreak",
    "RemoveClass",
    "RemoveDevice",
    "RemoveLead",
    "RemoveMove",
    "RemoveSetUp",
    "RemoveSource",
    "RemoveTarget",
    "RenameDevice",
    "RouteBus",
    "SaveClass",
    "SaveLead",
    "SaveMove",
    "SaveSetUp",
    "SaveTarget",
    "SetBreak",
    "SetControl",
    "SetFigure",
    "SetJam",
    "SetJob",
    "SetParts",
    "SetPath",
    "SetRole",
    "SetSource",
    "SetStrainRelief",
    "ShiftDay",
    "TakeGainLaw",
    "TakeLineUp",
    "TakeMeterError",
    "TakePairDrift",
    "apply_edits",
    "edited",
    "free_id",
]
