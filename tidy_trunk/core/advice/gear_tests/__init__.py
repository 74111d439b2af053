"""Know your own gear: what no manual says of a device, how it is found out, and what follows from the answer."""

from tidy_trunk.core.advice.gear_tests.answers import answered, known
from tidy_trunk.core.advice.gear_tests.found import (
    FigureFound,
    GearAnswer,
    GearFinding,
    GearRecording,
    GearTestOutcome,
    KnobFound,
    LegsFound,
    LowestFound,
    MeterFound,
    PadFound,
    RecordedChannel,
)
from tidy_trunk.core.advice.gear_tests.gear_tests import (
    GearTest,
    GearTestKind,
    gear_test_of,
    gear_tests,
    lets_own_microphones_in,
)

__all__ = [
    "FigureFound",
    "GearAnswer",
    "GearFinding",
    "GearRecording",
    "GearTest",
    "GearTestKind",
    "GearTestOutcome",
    "KnobFound",
    "LegsFound",
    "LowestFound",
    "MeterFound",
    "PadFound",
    "RecordedChannel",
    "answered",
    "gear_test_of",
    "gear_tests",
    "known",
    "lets_own_microphones_in",
]
