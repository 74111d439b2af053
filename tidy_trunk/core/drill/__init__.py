"""Faults hidden in a rig, what a set allows one to find out, and the order in which they are best looked for."""

from tidy_trunk.core.drill.draw import (
    DESCRIBED_OTHERWISE,
    FEWEST_FAULTS,
    LARGEST_SEED,
    Drill,
    DrillLevel,
    draw_drill,
    drill_of,
    rungs_of,
)
from tidy_trunk.core.drill.ear import EarState, EarTask, ear_sound, has_more, staircase
from tidy_trunk.core.drill.hidden import LIKELY, HiddenFault
from tidy_trunk.core.drill.misset import has_headphones, records
from tidy_trunk.core.drill.observed import FaultyRig
from tidy_trunk.core.drill.order import AND, NO_FAULT, SearchOrder, SearchStep, faults_of
from tidy_trunk.core.drill.rig import ClapComparison, DrillRig, Impression, Observation, Probe
from tidy_trunk.core.drill.rig_faults import RigFaults
from tidy_trunk.core.drill.training import KindProgress, PlayedFault, due_kind, progress

__all__ = [
    "AND",
    "DESCRIBED_OTHERWISE",
    "FEWEST_FAULTS",
    "LARGEST_SEED",
    "LIKELY",
    "NO_FAULT",
    "ClapComparison",
    "Drill",
    "DrillLevel",
    "DrillRig",
    "EarState",
    "EarTask",
    "FaultyRig",
    "HiddenFault",
    "Impression",
    "KindProgress",
    "Observation",
    "PlayedFault",
    "Probe",
    "RigFaults",
    "SearchOrder",
    "SearchStep",
    "draw_drill",
    "drill_of",
    "due_kind",
    "ear_sound",
    "faults_of",
    "has_headphones",
    "has_more",
    "progress",
    "records",
    "rungs_of",
    "staircase",
]
