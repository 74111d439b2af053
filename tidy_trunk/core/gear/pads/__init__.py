"""Attenuators: L and U bridging pads, matched T, H, π and O."""

from tidy_trunk.core.gear.pads.choose import EXACT, Pad, design_bridging, design_matched
from tidy_trunk.core.gear.pads.in_use import (
    SERIES_TOLERANCE_PERCENT,
    Corner,
    LossRange,
    corner,
    loss_range,
    losses_over_loads,
    losses_over_sources,
)
from tidy_trunk.core.gear.pads.topologies import (
    BRIDGING_LAYOUTS,
    MATCHED_LAYOUTS,
    PadLadder,
    Resistor,
    arms_of,
    bridging_arms,
    transfer_loss_db,
)

__all__ = [
    "BRIDGING_LAYOUTS",
    "EXACT",
    "MATCHED_LAYOUTS",
    "SERIES_TOLERANCE_PERCENT",
    "Corner",
    "LossRange",
    "Pad",
    "PadLadder",
    "Resistor",
    "arms_of",
    "bridging_arms",
    "corner",
    "design_bridging",
    "design_matched",
    "loss_range",
    "losses_over_loads",
    "losses_over_sources",
    "transfer_loss_db",
]
