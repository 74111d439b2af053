"""What joins two ports."""

from tidy_trunk.core.sound.cable_chains.search import (
    JOINT_M,
    SHORT_M,
    UNBALANCED_LIMIT_M,
    CableChain,
    find_cable_chains,
    is_timecode_as_sound,
    keeping_loss,
    unbalanced_length_m,
    usual_length_m,
    with_length,
)

__all__ = [
    "JOINT_M",
    "SHORT_M",
    "UNBALANCED_LIMIT_M",
    "CableChain",
    "find_cable_chains",
    "is_timecode_as_sound",
    "keeping_loss",
    "unbalanced_length_m",
    "usual_length_m",
    "with_length",
]
