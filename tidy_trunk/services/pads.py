"""A pad designed: its parts, how sure it is, what it meets, and the lead that it makes."""

from dataclasses import dataclass

from tidy_trunk.core.gear.catalogue import FITTINGS, LeadClass, padded
from tidy_trunk.core.gear.pads import (
    EXACT,
    MATCHED_LAYOUTS,
    SERIES_TOLERANCE_PERCENT,
    Corner,
    LossRange,
    Pad,
    arms_of,
    corner,
    design_bridging,
    design_matched,
    loss_range,
    losses_over_loads,
    losses_over_sources,
)
from tidy_trunk.core.plan import drawn_lead
from tidy_trunk.errors import InputError
from tidy_trunk.words import pad_advice


@dataclass(frozen=True, slots=True, kw_only=True)
class PadWish:
    """What is asked of a pad: loss in dB, impedances in Ω, ± of the resistors in % (None for that of the series).

    A matched layout stands between `source_ohm` on both sides, whatever the load. `fitting` is empty for a pad that goes into no lead.
    """

    loss_db: float
    source_ohm: float
    load_ohm: float
    layout: str
    series: str = EXACT
    tolerance_percent: float | None = None
    fitting: str = ""
    length_m: float = 3.0


@dataclass(frozen=True, slots=True, kw_only=True)
class PadDesign:
    """A pad with exact and with chosen resistors, and the result. `lead` is None where no lead holds it."""

    exact: Pad
    chosen: Pad
    tolerance_percent: float
    range: LossRange
    over_loads: list[tuple[float, float]]
    over_sources: list[tuple[float, float]]
    corner: Corner
    advice: tuple[str, ...]
    lead: LeadClass | None


def design_pad(wish: PadWish) -> PadDesign:
    """Raises RangeError and InputError as the functions of `core.pads` and `padded`."""
    matched = wish.layout in MATCHED_LAYOUTS
    load_ohm = wish.source_ohm if matched else wish.load_ohm

    def designed(series: str) -> Pad:
        if matched:
            return design_matched(wish.loss_db, wish.source_ohm, layout=wish.layout, series=series)
        return design_bridging(wish.loss_db, wish.source_ohm, load_ohm, layout=wish.layout, series=series)

    chosen = designed(wish.series)
    usual = SERIES_TOLERANCE_PERCENT[wish.series]
    tolerance = usual if wish.tolerance_percent is None else wish.tolerance_percent
    arms = arms_of(chosen.layout, chosen.resistors)
    corners = corner(arms, wish.source_ohm, load_ohm, wish.length_m)
    return PadDesign(
        exact=designed(EXACT),
        chosen=chosen,
        tolerance_percent=tolerance,
        range=loss_range(chosen, wish.source_ohm, load_ohm, tolerance),
        over_loads=losses_over_loads(chosen, wish.source_ohm),
        over_sources=losses_over_sources(chosen, load_ohm),
        corner=corners,
        advice=pad_advice(chosen, wish.source_ohm, wish.length_m, corners),
        lead=_lead(wish, chosen) if wish.fitting else None,
    )


def _lead(wish: PadWish, chosen: Pad) -> LeadClass | None:
    fitting = FITTINGS.get(wish.fitting)
    if fitting is None:
        raise InputError(f"there is no cable '{wish.fitting}' for a pad: use {', '.join(FITTINGS)}")
    if wish.layout not in fitting.layouts:
        return None
    return drawn_lead(
        id="own",
        label=f"{fitting.label}, {chosen.loss_db_actual:.0f} dB",
        sending=fitting.sending,
        receiving=fitting.receiving,
        ways={"": padded(fitting, wish.layout, arms_of(chosen.layout, chosen.resistors))},
        short_m=fitting.short_m,
    )
