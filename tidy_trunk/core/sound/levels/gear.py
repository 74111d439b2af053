"""What microphones, inputs and outputs do to a sound that passes through them, and where an input begins to clip."""

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Any, Final

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio, microphone_dbu, ratio_from_db, thermal_noise_dbu
from tidy_trunk.core.gear.catalogue import (
    CAPSULE_PAD_KEY,
    Capsule,
    InputMode,
    InputPort,
    OutputMode,
    OutputPort,
    PadPlace,
    TrimKind,
)
from tidy_trunk.core.plan import PlacedDevice
from tidy_trunk.core.sound.levels.passage import Passage
from tidy_trunk.core.sound.levels.sound import Noise, noise_in
from tidy_trunk.core.sound.levels.spectra import SpectrumShape, a_change_db, cut_change_db

AUTOMATIC_TARGET_DBFS: Final = -20.0
"""Average to which automatic level brings speech. [MEMORY]"""

AUTOMATIC_RANGE_DB: Final = 30.0
"""How far automatic level turns anything up or down. [MEMORY]; a quiet voice was raised by more than 16 dB, the pauses by
more still [PRACTICE]"""

CONVERTER_CEILING_DBFS: Final = 0.0
"""Nothing goes through a converter above full scale. [AES17]"""

EIN_SOURCE_OHM: Final = 150.0
"""Source resistance with which equivalent input noise is stated, and whose own noise it holds. [HANDBOOK] §2"""


def a_weighted(name: str, level_db_a: float, spectrum: SpectrumShape, *, is_room: bool = False) -> Noise:
    """A noise of which the A-weighted level in dB SPL is known."""
    return noise_in(name, level_db_a - a_change_db(spectrum), "dB SPL", spectrum=spectrum, is_room=is_room)


def hear_voltage(passage: Passage[Any], placed: PlacedDevice, capsule: Capsule, mode: OutputMode) -> None:
    """Sound pressure becomes voltage."""
    passage.shift(
        "sensitivity", microphone_dbu(capsule.sensitivity_mv_per_pa.value, 0.0), capsule.sensitivity_mv_per_pa
    )
    passage.shift("pad of the microphone", -_capsule_pad_db(placed))
    if capsule.self_noise_db_a is None:
        passage.add_noise(noise_in(f"{placed.label} coil", thermal_noise_dbu(mode.source_ohm.value), "dBu"))


def dbu_at_no_spl(placed: PlacedDevice, capsule: Capsule) -> float:
    """What a microphone would give at 0 dB SPL, in dBu: added to dB SPL it gives its output."""
    return microphone_dbu(capsule.sensitivity_mv_per_pa.value, 0.0) - _capsule_pad_db(placed)


def _capsule_pad_db(placed: PlacedDevice) -> float:
    return float(placed.device.settings.get(CAPSULE_PAD_KEY, "0"))


def drive(passage: Passage[Any], placed: PlacedDevice, port: OutputPort, mode: OutputMode) -> None:
    """Numbers, or the voltage of a mix, leave by a line or headphone output.

    An analogue trim takes down what comes before it; what the amplifier behind it makes stays. Source: [HANDBOOK] §6
    """
    assert mode.full_scale_dbu is not None  # asked before
    trim_db = placed.trim_db(port, mode)
    own = None if mode.noise_dbu is None else noise_in(f"{placed.label} {port.label} hiss", mode.noise_dbu.value, "dBu")
    passage.shift("full scale", mode.full_scale_dbu.value, mode.full_scale_dbu)
    if own is not None and mode.trim_kind is TrimKind.ANALOGUE:
        passage.add_noise(own)
    passage.shift(f"output level, {mode.trim_kind}", trim_db)
    if own is not None and mode.trim_kind is TrimKind.DIGITAL:
        passage.add_noise(own)
    if mode.noise_after_dbu is not None:
        passage.add_noise(noise_in(f"{placed.label} {port.label} amplifier", mode.noise_after_dbu.value, "dBu"))


def preamp_noise_dbu(mode: InputMode, *, from_microphone: bool) -> float:
    """Noise of an input's first stage at its terminals; -inf where the class states none.

    EIN holds the thermal noise of the 150 Ω with which it is stated. A microphone brings the noise of its own resistance
    with it, in its self-noise or as that of its coil, so that this part must not count twice. Whatever else is plugged
    in is taken to be as noisy as those 150 Ω. Source: [HANDBOOK] §2; [NYQUIST28]
    """
    if mode.ein_dbu is None:
        return SILENCE_DB
    return _without_source_dbu(mode.ein_dbu.value) if from_microphone else mode.ein_dbu.value


@lru_cache(maxsize=256)
def _without_source_dbu(ein_dbu: float) -> float:
    power = ratio_from_db(ein_dbu) ** 2 - ratio_from_db(thermal_noise_dbu(EIN_SOURCE_OHM)) ** 2
    return db_from_ratio(math.sqrt(max(power, 0.0)))


def digitise(
    passage: Passage[Any],
    placed: PlacedDevice,
    port: InputPort,
    where: Callable[[], str],
    *,
    clipping: bool = True,
    from_microphone: bool = False,
) -> None:
    """From the terminals of an input to numbers: attenuator, first stage, gain, low cut, limiter, converter, and what
    follows it.

    where: names the input; clipping: whether its ceilings and its limiter act; from_microphone: what is plugged in.
    """
    mode = placed.input_mode(port)
    if mode.full_scale_dbu is None:
        return
    passage.shift("attenuator", -_pad_at(PadPlace.FIRST, placed, port))
    if clipping and mode.clip_dbu is not None:
        passage.cap(mode.clip_dbu.value, placed.device.id, where)
    if mode.ein_dbu is not None:
        passage.add_noise(
            noise_in(f"{placed.label} preamp", preamp_noise_dbu(mode, from_microphone=from_microphone), "dBu")
        )
    passage.shift("gain", placed.gain_db(port, mode))
    passage.shift("attenuator", -_pad_at(PadPlace.BETWEEN, placed, port))
    cut_hz = placed.low_cut_hz(port)
    if cut_hz is not None:
        passage.low_cut(cut_hz)
    passage.shift("full scale", -mode.full_scale_dbu.value, mode.full_scale_dbu)
    limit = placed.limiter_dbfs(port) if clipping else None
    if limit is not None and port.limiter_place is not PadPlace.LAST:
        passage.limit(limit)  # saves the converter
    elif clipping:
        passage.cap(CONVERTER_CEILING_DBFS, placed.device.id, where)
    if limit is not None and port.limiter_place is PadPlace.LAST:
        passage.limit(limit)  # presses down what has been cut already
    if port.idle_noise_dbfs is not None:
        passage.add_noise(noise_in(f"{placed.label} converter", port.idle_noise_dbfs.value, "dBFS"))
    passage.shift("attenuator behind the converter", -_pad_at(PadPlace.LAST, placed, port))  # acts on all of it
    passage.shift("digital gain", placed.digital_gain_db(port))
    if placed.automatic_level_on(port):
        passage.ride(AUTOMATIC_TARGET_DBFS, AUTOMATIC_RANGE_DB)


def input_ceiling_dbu(placed: PlacedDevice, port: InputPort, mode: InputMode) -> float:
    """dBu at the terminals at which a voice begins to clip an input, in its first stage or at its converter.

    A low cut stands before the converter, which therefore takes more of a voice by what the cut leaves out.
    """
    if mode.full_scale_dbu is None:
        return math.inf
    stage = mode.clip_dbu.value if mode.clip_dbu is not None else math.inf
    converter = mode.full_scale_dbu.value - placed.gain_db(port, mode) + _pad_at(PadPlace.BETWEEN, placed, port)
    cut_hz = placed.low_cut_hz(port)
    if cut_hz is not None:
        converter -= cut_change_db(SpectrumShape.VOICE, (cut_hz,))
    if port.limiter_place is not PadPlace.LAST and placed.limiter_dbfs(port) is not None:
        converter = math.inf
    return min(converter, stage) + _pad_at(PadPlace.FIRST, placed, port)


def _pad_at(place: PadPlace, placed: PlacedDevice, port: InputPort) -> float:
    """Loss of the input's attenuator in dB, if it sits there and is on."""
    return placed.pad_db(port) if port.pad_place is place else 0.0


def input_stage_dbu(placed: PlacedDevice, port: InputPort, mode: InputMode) -> float:
    """dBu at the terminals that the input takes with its gain turned down: what no knob can mend."""
    if mode.full_scale_dbu is None:
        return math.inf
    lowest = mode.gain.lowest_db if mode.gain is not None else 0.0
    converter = mode.full_scale_dbu.value - lowest + _pad_at(PadPlace.BETWEEN, placed, port)
    stage = mode.clip_dbu.value if mode.clip_dbu is not None else converter
    return stage + _pad_at(PadPlace.FIRST, placed, port)
