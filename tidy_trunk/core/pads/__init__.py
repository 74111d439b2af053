"""Attenuators: L and U bridging pads, matched T, H, π and O."""

from tidy_trunk.core.pads.choose import EXACT, Pad, design_bridging, design_matched
from tidy_trunk.core.pads.topologies import (
    BRIDGING_LAYOUTS,
    MATCHED_LAYOUTS,
    Arms,
    Resistor,
    bridging_arms,
    transfer_loss_db,
)

__all__ = [
    "BRIDGING_LAYOUTS",
    "EXACT",
    "MATCHED_LAYOUTS",
    "Arms",
    "Pad",
    "Resistor",
    "bridging_arms",
    "design_bridging",
    "design_matched",
    "transfer_loss_db",
]
