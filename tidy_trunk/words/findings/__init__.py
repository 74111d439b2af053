"""What is said of each finding: one function for a rule, in the module that has the name of the rule's module."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.words.findings import (
    backup,
    clock,
    coverage,
    digital,
    frequency,
    hum,
    lengths,
    levels,
    listening,
    measured,
    patch,
    power,
    radio,
    routing,
    rumble,
)
from tidy_trunk.words.findings.said import SAYERS, FindingWords, headline, said

SOURCE_WORDS: Final[Mapping[str, str]] = {
    "AES3": "AES3",
    "AES17": "AES17",
    "BT1359": "ITU-R BT.1359-1",
    "EBU-R37": "EBU R 37",
    "HANDBOOK": "textbook",
    "IEC60268-12": "IEC 60268-12",
    "IEC61938": "IEC 61938",
    "PRACTICE": "common practice",
    "ST12-1": "SMPTE ST 12-1",
}
"""Sources of the rules as a user reads them; the tags are those of docs/sources.md"""

__all__ = [
    "SAYERS",
    "SOURCE_WORDS",
    "FindingWords",
    "backup",
    "clock",
    "coverage",
    "digital",
    "frequency",
    "headline",
    "hum",
    "lengths",
    "levels",
    "listening",
    "measured",
    "patch",
    "power",
    "radio",
    "routing",
    "rumble",
    "said",
]
