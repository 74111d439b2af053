"""The trunk: what is owned, what a job needs of it, which piece serves which run, what is short, what is packed."""

from tidy_trunk.core.trunk.assignment import Assignment, ServedNeed, assign, cost_of, lengthens, stands_in_for
from tidy_trunk.core.trunk.covered import pieces_for
from tidy_trunk.core.trunk.needs import CableNeed, OtherNeed, cable_needs, cell_needs, day_needs, device_needs
from tidy_trunk.core.trunk.packing import PackingLine, kit_of, packing_list, serves, weight_kg
from tidy_trunk.core.trunk.short import OtherWay, ShoppingLine, left_for, other_ways, wanted
from tidy_trunk.core.trunk.stock import (
    CONSUMED,
    LONGEST_LEAD_M,
    MOST_OF_A_KIND,
    MOST_PIECES,
    Piece,
    PieceKind,
    PieceLine,
    class_of,
    described,
    one_described,
    pieces_of,
)
from tidy_trunk.core.trunk.tester import CableFault, TestedFault, cable_faults, pairs_of, reaches, stand_in_test

__all__ = [
    "CONSUMED",
    "LONGEST_LEAD_M",
    "MOST_OF_A_KIND",
    "MOST_PIECES",
    "Assignment",
    "CableFault",
    "CableNeed",
    "OtherNeed",
    "OtherWay",
    "PackingLine",
    "Piece",
    "PieceKind",
    "PieceLine",
    "ServedNeed",
    "ShoppingLine",
    "TestedFault",
    "assign",
    "cable_faults",
    "cable_needs",
    "cell_needs",
    "class_of",
    "cost_of",
    "day_needs",
    "described",
    "device_needs",
    "kit_of",
    "left_for",
    "lengthens",
    "one_described",
    "other_ways",
    "packing_list",
    "pairs_of",
    "pieces_for",
    "pieces_of",
    "reaches",
    "serves",
    "stand_in_test",
    "stands_in_for",
    "wanted",
    "weight_kg",
]
