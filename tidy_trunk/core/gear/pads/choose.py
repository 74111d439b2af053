"""A pad as it is built: resistors from a series, and what it does with them."""

import itertools
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.base.units import SERIES, neighbours_ohm
from tidy_trunk.core.gear.pads.topologies import (
    BRIDGING_LAYOUTS,
    MATCHED_LAYOUTS,
    PadLadder,
    Resistor,
    bridging_arms,
    check_ohms,
    matched_arms,
    pad_noise_dbu,
    parts_of,
)
from tidy_trunk.errors import InputError

EXACT: Final = "exact"
"""Name of the series that rounds nothing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Pad:
    """A designed pad. Losses in dB (positive), impedances in Ω, noise in dBu at the load (20 kHz, 20 °C)."""

    layout: str
    loss_db_target: float
    loss_db_actual: float
    resistors: tuple[Resistor, ...]
    input_impedance_ohm: float
    output_impedance_ohm: float
    thermal_noise_dbu: float


def design_bridging(
    loss_db: float, source_ohm: float, load_ohm: float, *, layout: str = "l", series: str = EXACT
) -> Pad:
    """An L or U pad between a source and a bridging load.

    Raises:
        RangeError: Loss or impedance outside the limits of `bridging_arms`.
        InputError: Another layout, or an unknown series.

    Source: [HANDBOOK] §15.4, [IEC60063]
    """
    if layout not in BRIDGING_LAYOUTS:
        raise InputError(f"layout '{layout}' goes with --matched OHM; with --source and --load use l or u")
    return _build(layout, loss_db, bridging_arms(loss_db, source_ohm, load_ohm), source_ohm, load_ohm, series)


def design_matched(loss_db: float, impedance_ohm: float, *, layout: str, series: str = EXACT) -> Pad:
    """A T, H, π or O pad between equal impedances. Raises and source as `design_bridging`."""
    if layout not in MATCHED_LAYOUTS:
        raise InputError(f"layout '{layout}' goes with --source and --load; with --matched use t, h, pi or o")
    check_ohms("impedance", impedance_ohm)
    return _build(layout, loss_db, matched_arms(loss_db, impedance_ohm, layout), impedance_ohm, impedance_ohm, series)


def _build(layout: str, loss_db: float, exact: PadLadder, source_ohm: float, load_ohm: float, series: str) -> Pad:
    arms = exact if series == EXACT else _in_series(layout, loss_db, exact, source_ohm, load_ohm, series)
    return Pad(
        layout=layout,
        loss_db_target=loss_db,
        loss_db_actual=arms.insertion_loss_db(source_ohm, load_ohm),
        resistors=tuple(
            Resistor(name, role, getattr(arms, arm) / split) for name, role, arm, split in parts_of(layout)
        ),
        input_impedance_ohm=arms.input_impedance_ohm(load_ohm),
        output_impedance_ohm=arms.output_impedance_ohm(source_ohm),
        thermal_noise_dbu=pad_noise_dbu(arms, source_ohm, load_ohm),
    )


def _in_series(
    layout: str, loss_db: float, exact: PadLadder, source_ohm: float, load_ohm: float, series: str
) -> PadLadder:
    """Of the preferred values around each exact one, the set whose loss is nearest to the wanted one.

    Equal arms stay equal (both ends of a T, both legs of a balanced pad), so that the pad stays symmetrical. Among sets
    within a tenth of a decibel the one nearest to the exact resistors wins: it keeps the impedances.
    """
    if series not in SERIES:
        raise InputError(f"'{series}' is no series known here: use exact, {', '.join(SERIES)}")
    splits = {arm: split for _, _, arm, split in parts_of(layout)}
    by_value: dict[float, list[str]] = {}
    for arm in splits:
        by_value.setdefault(round(getattr(exact, arm), 9), []).append(arm)
    groups = list(by_value.values())
    choices = []
    for group in groups:
        split = splits[group[0]]
        choices.append([split * ohms for ohms in neighbours_ohm(getattr(exact, group[0]) / split, series)])

    def candidate(values: tuple[float, ...]) -> tuple[float, float, PadLadder]:
        changes = {arm: value for group, value in zip(groups, values, strict=True) for arm in group}
        arms = replace(exact, **changes)
        error = abs(arms.insertion_loss_db(source_ohm, load_ohm) - loss_db)
        shift = sum(abs(value / getattr(exact, group[0]) - 1) for group, value in zip(groups, values, strict=True))
        return round(max(0.0, error - 0.1), 6), shift, arms

    return min((candidate(values) for values in itertools.product(*choices)), key=lambda found: found[:2])[2]
