"""Contacts and what runs over them: sound one way, power the other."""

from tidy_trunk.core.gear.wiring.circuit import Branch, end_of, is_plug_of_its_own
from tidy_trunk.core.gear.wiring.faults import Fault, faults
from tidy_trunk.core.gear.wiring.judged_uses import JudgedUse, judged_uses
from tidy_trunk.core.gear.wiring.power import FEED_OHM, SUPPLY_V, DeliveredSupply, Feed, delivery
from tidy_trunk.core.gear.wiring.sound import Arrival, Link, Mismatch, bare_ratio, branch_of, link, unmated

__all__ = [
    "FEED_OHM",
    "SUPPLY_V",
    "Arrival",
    "Branch",
    "DeliveredSupply",
    "Fault",
    "Feed",
    "JudgedUse",
    "Link",
    "Mismatch",
    "bare_ratio",
    "branch_of",
    "delivery",
    "end_of",
    "faults",
    "is_plug_of_its_own",
    "judged_uses",
    "link",
    "unmated",
]
