"""What to make of an attenuator: its load on the source, and the end of the cable that it belongs to."""

from typing import Final

from tidy_trunk.core.base.units import BRIDGING_RATIO
from tidy_trunk.core.gear.pads import MATCHED_LAYOUTS, Corner, Pad

BEYOND_HEARING_HZ: Final = 100_000.0
"""ASSUMED_ corner above which a cable takes nothing from the treble: five times what is heard."""


def pad_advice(pad: Pad, source_ohm: float, length_m: float, corners: Corner) -> tuple[str, str]:
    """Its load on the source, and where to build it in. [HANDBOOK] §6"""
    times = pad.input_impedance_ohm / source_ohm
    if pad.layout in MATCHED_LAYOUTS:
        load = f"Input and output impedance {pad.input_impedance_ohm:.0f} Ω: for use between equal impedances only."
    elif times >= BRIDGING_RATIO:
        load = f"The source sees {pad.input_impedance_ohm:.0f} Ω, {times:.1f} times its own impedance: no loading."
    else:
        load = f"The source sees only {times:.1f} times its own impedance: below {BRIDGING_RATIO:g} times it is loaded."
    end = (
        f"Put it at the receiving end: the signal in the {length_m:g} m of cable is then {pad.loss_db_actual:.0f} dB further "
        "above any interference."
    )
    if corners.at_receiver_hz < BEYOND_HEARING_HZ:
        end += (
            f" Treble is down 3 dB at {corners.at_receiver_hz / 1000:.0f} kHz "
            f"({corners.at_sender_hz / 1000:.0f} kHz with the pad at the sending end)."
        )
    return load, end
