"""The built-in classes, in the order in which they are offered."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

from tidy_trunk.core.gear.catalogue.devices import DeviceClass
from tidy_trunk.core.gear.catalogue.leads import LeadClass
from tidy_trunk.core.supply import read_catalogue


@dataclass(frozen=True, slots=True)
class Catalogue:
    """Classes of devices and of cables by id."""

    devices: Mapping[str, DeviceClass]
    leads: Mapping[str, LeadClass]


@cache
def built_in() -> Catalogue:
    """What there is without anything of one's own."""
    catalogue: Catalogue = read_catalogue()
    return catalogue
