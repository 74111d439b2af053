"""Leads of the user's own: what makes one well formed, and what it is to the rest of the program."""

import math
from collections.abc import Callable, Mapping
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
from tidy_trunk.errors import InputError, PlanError, RangeError

MOST_CORES: Final = 24
"""ASSUMED_ most cores and parts in one way of a lead."""

PADDED_FROM_LOSS_DB: Final = 3.0
"""ASSUMED_ loss from which a lead counts as one with a pad: loads alone take less."""


def drawn_lead(
    *, id: str, label: str, sending: Plug, receiving: Plug, ways: Mapping[str, Wiring], short_m: float | None = None
) -> LeadClass:
    """A lead that is drawn contact by contact: whether it keeps a signal balanced, and what it takes off, follow from that.

    Args:
        ways: By branch, "" for a lead with one, "L" and "R" where two share one plug.
        short_m: Its length in m where it has one for good.

    Raises:
        PlanError: A plug that no analogue signal goes through, or contacts that are not there.
        RangeError: Parts that cannot be.
    """
    for end in (sending, receiving):
        if end.connector not in CONNECTORS or not circuits_of(end):
            known = ", ".join(sorted({connector for connector, circuit in PINOUTS if circuit.is_analogue}))
            raise PlanError(f"cable '{label}': '{end.connector}' is no plug for a cable of one's own: use {known}")
    _check_ways(label, sending, lambda branch: receiving, ways)
    losses = [loss for way in ways.values() if (loss := _loss_db(sending, way, receiving)) >= PADDED_FROM_LOSS_DB]
    lead = LeadClass(
        id=id,
        label=label,
        sending=sending,
        receiving=receiving,
        ways=ways,
        balanced=all(_keeps_balance(sending, way, receiving) for way in ways.values()),
        loss_db=Figure(round(max(losses), 1), PAD_TOLERANCE_DB) if losses else None,
        short_m=short_m,
    )
    check_lead(lead)
    return lead


def circuits_of(plug: Plug) -> list[Circuit]:
    """What the contacts of a plug may be used for, analogue ones only."""
    return [circuit for connector, circuit in PINOUTS if connector == plug.connector and circuit.is_analogue]


def check_lead(lead: LeadClass) -> None:
    """Raises PlanError or RangeError where a lead has parts that cannot be, or a length."""
    if lead.short_m is not None and not 0 < lead.short_m <= 100:
        raise RangeError(
            f"cable '{lead.label}': fixed length must be more than 0 and at most 100 m, not {lead.short_m:g}; "
            "leave it out where it is made to length"
        )
    _check_ways(lead.label, lead.sending, lead.end_of, lead.ways)


def _check_ways(label: str, sending: Plug, end_of: Callable[[str], Plug], ways: Mapping[str, Wiring]) -> None:
    at = f"cable '{label}'"
    if set(ways) not in ({""}, {"L", "R"}):
        raise PlanError(f"{at}: a cable has one way, or the two ways L and R")
    for branch, way in ways.items():
        _check_way(at, sending, end_of(branch), way)


def _check_way(at: str, sending: Plug, receiving: Plug, way: Wiring) -> None:
    if not way.wires and not way.windings:
        raise PlanError(f"{at}: nothing is joined in it: draw at least one core")
    if len(way.wires) + len(way.bridges) + len(way.windings) > MOST_CORES:
        raise PlanError(f"{at}: more than {MOST_CORES} cores and parts: is this one cable?")
    try:
        check_contacts(sending, receiving, way)
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


def _loss_db(sending: Plug, way: Wiring, receiving: Plug) -> float:
    """What it takes off beyond the load alone, in the first use of its plugs in which anything arrives."""
    ratios = (
        bare_ratio(sending, sends, way, receiving, takes, PAD_SOURCE_OHM, PAD_LOAD_OHM)
        for sends in circuits_of(sending)
        for takes in circuits_of(receiving)
    )
    ratio = next(filter(None, ratios), 0.0)
    return -db_from_ratio(ratio) - bridging_loss_db(PAD_SOURCE_OHM, PAD_LOAD_OHM) if ratio else 0.0
