"""Leads of the user's own: what makes one well formed, and what it is to the rest of the program."""

import math
from typing import Final

from tidy_trunk.core.base.units import bridging_loss_db, db_from_ratio
from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    PAD_LOAD_OHM,
    PAD_SOURCE_OHM,
    PAD_TOLERANCE_DB,
    PINOUTS,
    Circuit,
    Figure,
    LeadClass,
    Plug,
    Wiring,
    check_contacts,
)
from tidy_trunk.core.gear.wiring import bare_ratio
from tidy_trunk.core.plan.model import OwnLead
from tidy_trunk.errors import InputError, PlanError, RangeError

MOST_CORES: Final = 24
"""ASSUMED_ most cores and parts in one way of a lead."""

PADDED_FROM_LOSS_DB: Final = 3.0
"""ASSUMED_ loss from which a lead counts as one with a pad: loads alone take less."""


def lead_class(own: OwnLead) -> LeadClass:
    """The lead as all others are seen: whether it keeps a signal balanced, and what it takes off, from its contacts."""
    balanced = all(_keeps_balance(own.sending, way, own.receiving) for way in own.ways.values())
    losses = [loss for way in own.ways.values() if (loss := _loss_db(own, way)) >= PADDED_FROM_LOSS_DB]
    return LeadClass(
        id=own.id,
        label=own.label,
        sending=own.sending,
        receiving=own.receiving,
        ways=own.ways,
        balanced=balanced,
        loss_db=Figure(round(max(losses), 1), PAD_TOLERANCE_DB) if losses else None,
        short_m=own.short_m,
    )


def circuits_of(plug: Plug) -> list[Circuit]:
    """What the contacts of a plug may be used for, analogue ones only."""
    return [circuit for connector, circuit in PINOUTS if connector == plug.connector and circuit.is_analogue]


def check_lead(own: OwnLead) -> None:
    """Raises PlanError or RangeError where a lead names contacts that are not there, or parts that cannot be."""
    at = f"cable '{own.label}'"
    for end in (own.sending, own.receiving):
        if end.connector not in CONNECTORS or not circuits_of(end):
            known = ", ".join(sorted({connector for connector, circuit in PINOUTS if circuit.is_analogue}))
            raise PlanError(f"{at}: '{end.connector}' is no plug for a cable of one's own: use {known}")
    if set(own.ways) not in ({""}, {"L", "R"}):
        raise PlanError(f"{at}: a cable has one way, or the two ways L and R")
    if own.short_m is not None and not 0 < own.short_m <= 100:
        raise RangeError(
            f"{at}: fixed length must be more than 0 and at most 100 m, not {own.short_m:g}; leave it out where it is made to length"
        )
    for way in own.ways.values():
        _check_way(at, own, way)


def _check_way(at: str, own: OwnLead, way: Wiring) -> None:
    if not way.wires and not way.windings:
        raise PlanError(f"{at}: nothing is joined in it: draw at least one core")
    if len(way.wires) + len(way.bridges) + len(way.windings) > MOST_CORES:
        raise PlanError(f"{at}: more than {MOST_CORES} cores and parts: is this one cable?")
    try:
        check_contacts(own.sending, own.receiving, way)
    except InputError as error:
        raise PlanError(f"{at}: {error.message}") from error
    for ohm in (*(wire.ohm for wire in way.wires), *(bridge.ohm for bridge in way.bridges)):
        if not (math.isfinite(ohm) and (ohm == 0 or 0.1 <= ohm <= 1e7)):
            raise RangeError(f"{at}: resistance must be 0 for plain wire, or between 0.1 and 10,000,000 Ω, not {ohm:g}")


def _keeps_balance(sending: Plug, way: Wiring, receiving: Plug) -> bool:
    """Whether hot and cold of a balanced signal go through as a pair, neither on the screen."""
    found = [
        next((circuit for circuit in circuits_of(end) if circuit.is_balanced), None) for end in (sending, receiving)
    ]
    if None in found:
        return False
    near, far = (
        PINOUTS[end.connector, circuit]
        for end, circuit in zip((sending, receiving), found, strict=True)
        if circuit is not None
    )
    pairs = {(near[wire.near].role, far[wire.far].role) for wire in way.wires}
    pairs |= {
        (near[here].role, far[there].role)
        for item in way.windings
        for here, there in zip(item.near, item.far, strict=True)
    }
    signal = {pair for pair in pairs if pair != ("screen", "screen")}
    return signal in ({("hot", "hot"), ("cold", "cold")}, {("hot", "cold"), ("cold", "hot")})


def _loss_db(own: OwnLead, way: Wiring) -> float:
    """What it takes off beyond the load alone, in the first use of its plugs in which anything arrives."""
    ratios = (
        bare_ratio(own.sending, sends, way, own.receiving, takes, PAD_SOURCE_OHM, PAD_LOAD_OHM)
        for sends in circuits_of(own.sending)
        for takes in circuits_of(own.receiving)
    )
    ratio = next(filter(None, ratios), 0.0)
    return -db_from_ratio(ratio) - bridging_loss_db(PAD_SOURCE_OHM, PAD_LOAD_OHM) if ratio else 0.0
