"""Resistive pads: exact values for a loss, and what a pad of given resistors really does."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.units import (
    AUDIO_BANDWIDTH_HZ,
    BRIDGING_RATIO,
    ROOM_TEMPERATURE_K,
    bridging_loss_db,
    db_from_ratio,
    parallel_ohm,
    ratio_from_db,
    thermal_noise_dbu,
)
from tidy_trunk.errors import InputError, RangeError

BRIDGING_LAYOUTS: Final = ("l", "u")
"""Layouts between a source and a bridging load. [HANDBOOK] §15.4"""

MATCHED_LAYOUTS: Final = ("t", "h", "pi", "o")
"""Constant-impedance layouts. [HANDBOOK] §15.4"""

WANTED_BRIDGING_RATIO: Final = 2 * BRIDGING_RATIO
"""ASSUMED_ what a bridging pad aims at, so that rounded resistors still keep the source's load above five times."""


@dataclass(frozen=True, slots=True)
class PadLadder:
    """The electrical pad behind every layout, as a ladder from source to load: shunt in, series, shunt, series out (Ω).

    A part that a layout has not got is an infinite shunt or a series of zero.
    """

    shunt_in_ohm: float = math.inf
    series_ohm: float = 0.0
    shunt_ohm: float = math.inf
    series_out_ohm: float = 0.0

    def input_impedance_ohm(self, load_ohm: float) -> float:
        """Seen by the source, with the load connected."""
        after = parallel_ohm(self.shunt_ohm, self.series_out_ohm + load_ohm)
        return parallel_ohm(self.shunt_in_ohm, self.series_ohm + after)

    def output_impedance_ohm(self, source_ohm: float) -> float:
        """Seen by the load, with the source connected."""
        before = parallel_ohm(self.shunt_in_ohm, source_ohm)
        return parallel_ohm(self.shunt_ohm, before + self.series_ohm) + self.series_out_ohm

    def insertion_loss_db(self, source_ohm: float, load_ohm: float) -> float:
        """Voltage that the load loses by having the pad put in; positive."""
        return transfer_loss_db(source_ohm, (self,), load_ohm) - bridging_loss_db(source_ohm, load_ohm)


def transfer_loss_db(source_ohm: float, pads: Sequence[PadLadder], load_ohm: float) -> float:
    """From the open-circuit voltage of a source, through pads in a row, to a load: loss in dB, positive.

    Each pad loads the one before it, so their losses do not simply add.

    Source: [HANDBOOK] §15.4; the divider rule, from the load backwards.
    """
    ratio, seen = 1.0, load_ohm
    for pad in reversed(pads):
        ratio *= seen / (seen + pad.series_out_ohm)
        onward = parallel_ohm(pad.shunt_ohm, pad.series_out_ohm + seen)
        ratio *= onward / (onward + pad.series_ohm)
        seen = parallel_ohm(pad.shunt_in_ohm, pad.series_ohm + onward)
    return bridging_loss_db(source_ohm, seen) - db_from_ratio(ratio)


@dataclass(frozen=True, slots=True)
class Resistor:
    """One physical part of a pad."""

    name: str
    role: str  # "series" or "shunt"
    ohms: float


def check_loss(loss_db: float) -> None:
    """Raises RangeError unless 0.1 ≤ loss ≤ 120 dB: below is a wire, above a cut."""
    if not (math.isfinite(loss_db) and 0.1 <= loss_db <= 120):
        raise RangeError(f"a loss of {loss_db:g} dB is no pad: give 0.1 to 120 dB")


def check_ohms(name: str, ohms: float) -> None:
    """Raises RangeError unless 0.1 Ω ≤ value ≤ 10 MΩ."""
    if not (math.isfinite(ohms) and 0.1 <= ohms <= 1e7):
        raise RangeError(f"{name} must be between 0.1 and 10,000,000 Ω, not {ohms:g}")


def bridging_arms(loss_db: float, source_ohm: float, load_ohm: float) -> PadLadder:
    """Series and shunt of an L pad (and, halved, of a U pad) between a source and the load it bridges.

    Loss and impedances leave one freedom; it goes to the load that the source sees: ten times the source where that
    can be, else as near as the loss allows.

    Args:
        loss_db: Insertion loss, 0.1 to 120 dB.
        source_ohm, load_ohm: 0.1 Ω to 10 MΩ.

    Raises:
        RangeError: A value outside those limits.

    Source: [HANDBOOK] §15.4; derived by the divider rule.
    """
    check_loss(loss_db)
    check_ohms("source", source_ohm)
    check_ohms("load", load_ohm)
    wanted_ratio = ratio_from_db(-loss_db) * load_ohm / (load_ohm + source_ohm)
    lowest = wanted_ratio * source_ohm / (1 - wanted_ratio)  # below it the series arm would be negative
    highest = load_ohm / wanted_ratio - source_ohm  # above it the shunt arm would be negative
    seen = WANTED_BRIDGING_RATIO * source_ohm
    if not lowest * 1.001 < seen < highest * 0.999:
        seen = math.sqrt(lowest * highest)
    onward = wanted_ratio * (source_ohm + seen)
    return PadLadder(series_ohm=seen - onward, shunt_ohm=1.0 / (1.0 / onward - 1.0 / load_ohm))


def matched_arms(loss_db: float, impedance_ohm: float, layout: str) -> PadLadder:
    """Arms of a T (and H) or π (and O) pad between equal impedances.

    With K = voltage ratio: T series Z(K-1)/(K+1), shunt 2ZK/(K²-1); π series Z(K²-1)/2K, shunt Z(K+1)/(K-1).

    Raises:
        RangeError: Loss or impedance outside the limits of `bridging_arms`.
        InputError: A layout that is not matched.

    Source: [HANDBOOK] §15.4
    """
    check_loss(loss_db)
    check_ohms("impedance", impedance_ohm)
    k = ratio_from_db(loss_db)
    if layout in ("t", "h"):
        series = impedance_ohm * (k - 1) / (k + 1)
        return PadLadder(series_ohm=series, shunt_ohm=2 * impedance_ohm * k / (k * k - 1), series_out_ohm=series)
    if layout in ("pi", "o"):
        shunt = impedance_ohm * (k + 1) / (k - 1)
        return PadLadder(shunt_in_ohm=shunt, series_ohm=impedance_ohm * (k * k - 1) / (2 * k), shunt_ohm=shunt)
    raise InputError(
        f"layout '{layout}' is not matched: use t, h, pi or o with --matched, l or u with --source and --load"
    )


_PARTS: Final[Mapping[str, Sequence[tuple[str, str, str, int]]]] = {
    # layout → (name, role, arm, in how many equal parts the arm is split)
    "l": (("R1", "series", "series_ohm", 1), ("R2", "shunt", "shunt_ohm", 1)),
    "u": (
        ("R1", "series", "series_ohm", 2),
        ("R2", "series", "series_ohm", 2),
        ("R3", "shunt", "shunt_ohm", 1),
    ),
    "t": (
        ("R1", "series", "series_ohm", 1),
        ("R2", "series", "series_out_ohm", 1),
        ("R3", "shunt", "shunt_ohm", 1),
    ),
    "h": (
        ("R1", "series", "series_ohm", 2),
        ("R2", "series", "series_ohm", 2),
        ("R3", "series", "series_out_ohm", 2),
        ("R4", "series", "series_out_ohm", 2),
        ("R5", "shunt", "shunt_ohm", 1),
    ),
    "pi": (
        ("R1", "series", "series_ohm", 1),
        ("R2", "shunt", "shunt_in_ohm", 1),
        ("R3", "shunt", "shunt_ohm", 1),
    ),
    "o": (
        ("R1", "series", "series_ohm", 2),
        ("R2", "series", "series_ohm", 2),
        ("R3", "shunt", "shunt_in_ohm", 1),
        ("R4", "shunt", "shunt_ohm", 1),
    ),
}


def parts_of(layout: str) -> Sequence[tuple[str, str, str, int]]:
    """(name, role, arm, split) of each physical part, series before shunt."""
    return _PARTS[layout]


def arms_of(layout: str, resistors: Sequence[Resistor]) -> PadLadder:
    """The electrical pad that physical parts make, in the order of `parts_of`: legs of one arm lie in series."""
    found: dict[str, float] = {}
    for (_, _, arm, _), resistor in zip(parts_of(layout), resistors, strict=True):
        found[arm] = found.get(arm, 0.0) + resistor.ohms
    return PadLadder(**found)


def pad_noise_dbu(arms: PadLadder, source_ohm: float, load_ohm: float) -> float:
    """Thermal noise at the load's terminals from source and pad; the load itself counts as noiseless.

    All resistances at one temperature: the noise is that of the resistance seen looking back, divided down by the
    load. 20 kHz, 20 °C. Source: [NYQUIST28]
    """
    back = arms.output_impedance_ohm(source_ohm)
    open_circuit = thermal_noise_dbu(back, bandwidth_hz=AUDIO_BANDWIDTH_HZ, temperature_k=ROOM_TEMPERATURE_K)
    return open_circuit + db_from_ratio(load_ohm / (load_ohm + back))
