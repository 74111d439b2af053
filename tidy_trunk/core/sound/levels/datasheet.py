"""What the figures of a manual say about an input: manuals print other ones than a chain is worked out with."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.units import convert
from tidy_trunk.core.gear.catalogue import Figure, InputMode, Provenance, Signal, Span
from tidy_trunk.core.sound.levels.spectra import SpectrumShape, a_change_db
from tidy_trunk.errors import InputError, RangeError

MANUAL_TOLERANCE_DB: Final = 1.0
"""± of a level that a manual prints. [MEMORY]"""

APART_DB: Final = 1.0
"""ASSUMED_ difference of two printed figures from which they contradict each other: less is rounding."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Datasheet:
    """What a manual prints of one position of an input.

    lowest_db, highest_db, step_db: the gain knob as it is marked.
    most_dbu: maximum input level, at the lowest gain.
    sensitivity_dbu: input that reads `nominal_dbfs` at the highest gain.
    ein_dbu: equivalent input noise at 150 Ω; is_a_weighted: whether in dBu(A).
    """

    lowest_db: float
    highest_db: float
    step_db: float
    most_dbu: float | None = None
    sensitivity_dbu: float | None = None
    nominal_dbfs: float = 0.0
    ein_dbu: float | None = None
    is_a_weighted: bool = False


def mode_of_datasheet(sheet: Datasheet, mode: InputMode) -> InputMode:
    """A position of an input with what a manual says about it.

    Full scale at 0 dB gain is the sensitivity, taken to 0 dBFS, and the highest gain above it; without one, the maximum input
    level and the lowest gain. A maximum below what reads full scale at the lowest gain is the ceiling of the first stage.

    Raises:
        InputError: Neither a maximum nor a sensitivity.
        RangeError: A gain range upside down, or a maximum that lies above full scale at the lowest gain.

    Source: [PRACTICE]
    """
    if sheet.most_dbu is None and sheet.sensitivity_dbu is None:
        raise InputError("give the maximum input level or the sensitivity: one of them sets full scale")
    if not (sheet.lowest_db < sheet.highest_db and sheet.step_db > 0):
        raise RangeError(
            f"gain must rise from its lowest to its highest, not from {sheet.lowest_db:g} to {sheet.highest_db:g} dB"
        )
    if sheet.sensitivity_dbu is not None:
        full_scale_dbu = sheet.sensitivity_dbu - sheet.nominal_dbfs + sheet.highest_db
    else:
        assert sheet.most_dbu is not None  # one of them is there
        full_scale_dbu = sheet.most_dbu + sheet.lowest_db
    at_lowest_dbu = full_scale_dbu - sheet.lowest_db
    most = sheet.most_dbu
    if most is not None and most > at_lowest_dbu + APART_DB:
        raise RangeError(
            f"full scale would be {at_lowest_dbu:+.1f} dBu at the lowest gain, and the maximum input {most:+.1f} dBu: one of them "
            "is meant with an attenuator, or at another gain"
        )
    step = Span(sheet.lowest_db, sheet.highest_db, sheet.step_db, sheet.lowest_db).snapped_db(
        (sheet.lowest_db + sheet.highest_db) / 2
    )
    off = mode.gain.lowest_is_off if mode.gain is not None else False
    weighting_db = a_change_db(SpectrumShape.FLAT) if sheet.is_a_weighted else 0.0
    return InputMode(
        id=mode.id,
        label=mode.label,
        signal=mode.signal if mode.signal is not Signal.DIGITAL else Signal.MIC,
        impedance_ohm=mode.impedance_ohm,
        full_scale_dbu=_printed(full_scale_dbu),
        clip_dbu=_printed(most) if most is not None and most < at_lowest_dbu - APART_DB else None,
        ein_dbu=_printed(sheet.ein_dbu - weighting_db) if sheet.ein_dbu is not None else mode.ein_dbu,
        gain=Span(sheet.lowest_db, sheet.highest_db, sheet.step_db, step, lowest_is_off=off),
        supplies=mode.supplies,
        since=mode.since,
    )


def level_dbu(value: float, unit: str) -> float:
    """A level as a manual prints it, in dBu, dBV, V or mV. Raises UnitError, RangeError."""
    return convert(value, unit, "dBu")


def _printed(value: float) -> Figure:
    return Figure(round(value, 1), MANUAL_TOLERANCE_DB, Provenance.MANUAL, "USER")
