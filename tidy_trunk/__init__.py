"""Tidy Trunk: cable runs, levels and sync for location sound."""

from typing import TYPE_CHECKING

from tidy_trunk.core.supply import supply_catalogue

if TYPE_CHECKING:
    from tidy_trunk.core.gear.catalogue import Catalogue

__version__ = "0.1.0"


def _built_in() -> "Catalogue":
    from tidy_trunk.equipment import read_built_in  # only when a plan is worked on: `convert` and its like need no gear

    return read_built_in()


supply_catalogue(_built_in)
