"""A pad built into a lead: which resistor lies in which core, and which across which contacts."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue.connectors import Gender, Plug
from tidy_trunk.core.gear.catalogue.cores import Bridge, Side, Wire, Wiring
from tidy_trunk.core.gear.pads import PadLadder
from tidy_trunk.errors import InputError

XLR_M, XLR_F = Plug("xlr3", Gender.MALE), Plug("xlr3", Gender.FEMALE)
TRS_M, TRS_F = Plug("trs35", Gender.MALE), Plug("trs35", Gender.FEMALE)


@dataclass(frozen=True, slots=True, kw_only=True)
class PadFitting:
    """Two plugs with the cores between them that a pad goes into, as (near, far) contacts.

    short_m: its usual length; None where it is made to length.
    also: a second contact of the receiving end that hears what the first hot core brings.
    layouts: those that can be built in it; a T or H needs a joint inside that no plug has a contact for.
    """

    id: str
    label: str
    sending: Plug
    receiving: Plug
    hots: tuple[tuple[str, str], ...]
    screen: tuple[str, str]
    cold: tuple[str, str] | None = None
    short_m: float | None
    also: str = ""

    @property
    def layouts(self) -> tuple[str, ...]:
        return ("u", "o") if self.cold else ("l", "pi")


FITTINGS: Final[Mapping[str, PadFitting]] = {
    fitting.id: fitting
    for fitting in (
        PadFitting(
            id="xlr", label="XLR to XLR", sending=XLR_F, receiving=XLR_M, hots=(("2", "2"),), cold=("3", "3"), screen=("1", "1"), short_m=0.1,
        ),
        PadFitting(
            id="xlr-trs", label="XLR to 3.5 mm, mono to both sides", sending=XLR_F, receiving=TRS_M, hots=(("2", "T"),),
            cold=("3", "S"), screen=("1", "S"), short_m=0.3, also="R",
        ),
        PadFitting(
            id="trs", label="3.5 mm to 3.5 mm, both sides", sending=TRS_M, receiving=TRS_M, hots=(("T", "T"), ("R", "R")), screen=("S", "S"),
            short_m=None,
        ),
    )
}  # fmt: skip
"""Leads into which a pad is built. [HANDBOOK] §§4, 6"""


def padded(fitting: PadFitting, layout: str, arms: PadLadder) -> Wiring:
    """The wiring of a lead with a pad in it.

    Balanced layouts have half the series arm in each leg and their shunts across the legs; where the cold leg ends on
    the screen, neither leg of the source is shorted, as half the series arm lies before it. Unbalanced ones have all of
    it in each hot core and the shunts from there to the screen.

    Raises:
        InputError: A layout that cannot be built into that lead.
    """
    if layout not in fitting.layouts:
        known = " or ".join(fitting.layouts)
        raise InputError(f"a pad of layout {layout} cannot be built into {fitting.label}: use {known}")
    legs = 2 if fitting.cold else 1
    near_back, far_back = fitting.cold or fitting.screen
    wires = [Wire(*fitting.screen)]
    bridges = []
    for near, far in fitting.hots:
        wires.append(Wire(near, far, arms.series_ohm / legs))
        if layout in ("pi", "o"):
            bridges.append(Bridge(Side.SENDING, near, near_back, arms.shunt_in_ohm))
        bridges.append(Bridge(Side.RECEIVING, far, far_back, arms.shunt_ohm))
    if fitting.cold:
        wires.append(Wire(*fitting.cold, arms.series_ohm / legs))
    if fitting.also:
        bridges.append(Bridge(Side.RECEIVING, fitting.hots[0][1], fitting.also))
    return Wiring(tuple(wires), tuple(bridges))
