"""A fault hidden in a rig, what a set allows one to find out, and the order in which it is best looked for."""

from tidy_trunk.core.drill.draw import FEWEST_FAULTS, LARGEST_SEED, Drill, RigFaults, draw_drill, drill_of
from tidy_trunk.core.drill.hidden import HiddenFault
from tidy_trunk.core.drill.observed import DrillRig, FaultyRig, Impression, Observation, Probe
from tidy_trunk.core.drill.order import NO_FAULT, SearchOrder, SearchStep

__all__ = [
    "FEWEST_FAULTS",
    "LARGEST_SEED",
    "NO_FAULT",
    "Drill",
    "DrillRig",
    "FaultyRig",
    "HiddenFault",
    "Impression",
    "Observation",
    "Probe",
    "RigFaults",
    "SearchOrder",
    "SearchStep",
    "draw_drill",
    "drill_of",
]
