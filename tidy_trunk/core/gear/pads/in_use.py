"""An attenuator in use: how sure its loss is, what else it meets, and what the lead behind it does to the treble."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

from tidy_trunk.core.base.units import CABLE_PF_PER_M, lead_corner_hz, parallel_ohm
from tidy_trunk.core.gear.pads.choose import EXACT, Pad
from tidy_trunk.core.gear.pads.topologies import PadLadder, Resistor, arms_of
from tidy_trunk.errors import RangeError

SERIES_TOLERANCE_PERCENT: Final[Mapping[str, float]] = {EXACT: 1.0, "E12": 10.0, "E24": 5.0, "E96": 1.0}
"""± of the resistors that a series is made for. [IEC60063]"""

LOADS_OHM: Final = (600.0, 1_000.0, 2_500.0, 5_000.0, 10_000.0, 47_000.0)
"""Inputs that a pad may meet: a matched one, microphone sockets, line inputs. [HANDBOOK] §12, [MEMORY]"""

SOURCES_OHM: Final = (30.0, 100.0, 150.0, 300.0, 600.0)
"""Outputs that a pad may be fed from: headphones, line outputs, microphones, a matched one. [HANDBOOK] §12, [MEMORY]"""

_STEP = 1e-3


@dataclass(frozen=True, slots=True)
class LossRange:
    """Between which losses a pad lies, in dB: with every resistor at its worst, and by three standard deviations."""

    worst_low_db: float
    worst_high_db: float
    sigma3_low_db: float
    sigma3_high_db: float


@dataclass(frozen=True, slots=True)
class Corner:
    """Where the treble begins to fall, in Hz (−3 dB), with the pad at either end of a lead."""

    at_receiver_hz: float
    at_sender_hz: float


def loss_range(pad: Pad, source_ohm: float, load_ohm: float, tolerance_percent: float) -> LossRange:
    """What resistors of a tolerance make of a pad's loss.

    Worst case: every combination of each resistor at its lowest or highest. By deviation: the tolerance is taken as
    three standard deviations of each, independent of the others; to first order their effects add as squares.

    Args:
        pad: As designed.
        source_ohm, load_ohm: What it stands between.
        tolerance_percent: ± of each resistor, above 0 up to 20 %.

    Raises:
        RangeError: A tolerance outside those limits.

    Source: [GUM]
    """
    if not (math.isfinite(tolerance_percent) and 0 < tolerance_percent <= 20):
        raise RangeError(f"tolerance must be more than 0 and at most 20 %, not {tolerance_percent:g}")
    share = tolerance_percent / 100
    losses = [
        _loss(pad, factors, source_ohm, load_ohm)
        for factors in product((1 - share, 1 + share), repeat=len(pad.resistors))
    ]
    spread = math.sqrt(sum((slope * share) ** 2 for slope in _slopes(pad, source_ohm, load_ohm)))
    middle = pad.loss_db_actual
    return LossRange(min(losses), max(losses), middle - spread, middle + spread)


def _loss(pad: Pad, factors: Sequence[float], source_ohm: float, load_ohm: float) -> float:
    changed = [
        Resistor(part.name, part.role, part.ohms * factor) for part, factor in zip(pad.resistors, factors, strict=True)
    ]
    return arms_of(pad.layout, changed).insertion_loss_db(source_ohm, load_ohm)


def _slopes(pad: Pad, source_ohm: float, load_ohm: float) -> Iterator[float]:
    """dB of loss per unit of relative change, for each resistor."""
    for index in range(len(pad.resistors)):
        up, down = ([1.0 + sign * _STEP * (at == index) for at in range(len(pad.resistors))] for sign in (1, -1))
        yield (_loss(pad, up, source_ohm, load_ohm) - _loss(pad, down, source_ohm, load_ohm)) / (2 * _STEP)


def losses_over_loads(pad: Pad, source_ohm: float) -> list[tuple[float, float]]:
    """(load in Ω, loss in dB) for inputs that it may meet."""
    arms = arms_of(pad.layout, pad.resistors)
    return [(load, arms.insertion_loss_db(source_ohm, load)) for load in LOADS_OHM]


def losses_over_sources(pad: Pad, load_ohm: float) -> list[tuple[float, float]]:
    """(source in Ω, loss in dB) for outputs that may feed it."""
    arms = arms_of(pad.layout, pad.resistors)
    return [(source, arms.insertion_loss_db(source, load_ohm)) for source in SOURCES_OHM]


def corner(
    arms: PadLadder, source_ohm: float, load_ohm: float, length_m: float, pf_per_m: float = CABLE_PF_PER_M
) -> Corner:
    """Where the lead takes the treble away: it is driven by the source where the pad sits at the receiving end, by the
    pad's own output where it sits at the sending end. Arguments and errors as `lead_corner_hz`. Source: [HANDBOOK] §4
    """
    at_receiver = parallel_ohm(source_ohm, arms.input_impedance_ohm(load_ohm))
    at_sender = parallel_ohm(arms.output_impedance_ohm(source_ohm), load_ohm)
    return Corner(*(lead_corner_hz(ohm, length_m, pf_per_m) for ohm in (at_receiver, at_sender)))
