"""`measure`, `tone` and `steps`: sound files, measured and made."""

import sys
from pathlib import Path
from typing import Final

from tidy_trunk.cli.output import level, show
from tidy_trunk.core.base.signal import (
    NoiseShape,
    SignalSeverity,
    StepsMeasure,
    line_up_tone,
    meanings,
    measure_steps,
)
from tidy_trunk.errors import InputError
from tidy_trunk.media.files import at_file, new_file, reading
from tidy_trunk.media.measuring import MeasuredFile, loudest_tone, measure_stream
from tidy_trunk.results.measurement import MeasuredOut, StepsOut
from tidy_trunk.words import heard
from tidy_trunk.words.terms import term


def show_measure(path: Path, as_json: bool) -> None:
    """Print what a recording holds; a warning on standard error where it is cut short."""
    with reading(path) as stream, at_file(path):
        measured = measure_stream(stream)
    if measured.truncated:
        print(f"tidy: {path}: the file is cut short: measured as far as it goes", file=sys.stderr)
    show(MeasuredOut.from_core(measured), "\n".join(_words(measured)), as_json)


def _words(measured: MeasuredFile) -> list[str]:
    found = measured.measurement
    bits = f"{measured.bits} bit {measured.encoding}" if measured.bits else measured.encoding
    lines = [f"{found.seconds:.3f} s, {found.rate_hz} Hz, {bits}, {_channels(len(found.channels))}"]
    for channel in found.channels:
        shape = f", {_SHAPES[channel.noise.shape]}" if channel.noise.shape is not None else ""
        lines.append(
            f"channel {channel.index}: peak {level(channel.peak_dbfs)}, true peak {level(channel.true_peak_dbtp)}, "
            f"RMS {level(channel.rms_dbfs)} dBFS, noise {level(channel.noise.flat_dbfs)} dBFS "
            f"({level(channel.noise.a_dbfs)} A-weighted, {term(channel.noise.found)}{shape}), DC {level(channel.dc_dbfs)}"
        )
    for item in meanings(found):
        lines.append(
            heard(item, found) if item.weight is SignalSeverity.NOTE else f"{item.weight}: {heard(item, found)}"
        )
    return lines


_SHAPES: Final = {
    NoiseShape.ELECTRONICS: "electronics by its shape",
    NoiseShape.ROOM: "a room or a microphone by its shape",
    NoiseShape.BOTH: "room and electronics by its shape",
}
"""What the shape of a noise says of where it comes from. [HANDBOOK] §7"""


def _channels(count: int) -> str:
    return "1 channel" if count == 1 else f"{count} channels"


def make_tone(
    path: Path,
    level_dbfs: float,
    frequency_hz: float,
    seconds: float,
    rate_hz: int,
    bits: str,
    channels: int | None,
    ident: bool,
) -> None:
    """Write a line-up tone; what stood there before stays until the new one is whole."""
    from tidy_trunk.formats import write_sound

    count = channels if channels is not None else 2 if ident else 1
    pieces = line_up_tone(level_dbfs, frequency_hz, seconds, rate_hz=rate_hz, channels=count, ident=ident)
    sample_count = round(seconds * rate_hz)
    with new_file(path) as stream:
        write_sound(stream, pieces, rate_hz=rate_hz, channels=count, sample_count=sample_count, bits=bits)
    marked = ", left interrupted" if ident else ""
    print(f"{path}: {frequency_hz:g} Hz at {level(level_dbfs)} dBFS, {seconds:g} s, {_channels(count)}{marked}")
    print("Play it with the headphones off the ears and the speakers down; then bring them up.")


def show_steps(path: Path, settings: str, target_dbfs: float, as_json: bool) -> None:
    """Print what each setting of a step recording gave, and which one is right."""
    try:
        numbers = [float(word.replace("−", "-")) for word in settings.split(",")]
    except ValueError as error:
        raise InputError(f"--settings '{settings}': give numbers with commas between them, such as 40,50,60") from error
    with reading(path) as stream, at_file(path):
        samples, rate_hz = loudest_tone(stream)
        found = measure_steps(samples, rate_hz, numbers, target_dbfs)
    show(StepsOut.from_core(found), "\n".join(_step_words(found)), as_json)


def _step_words(found: StepsMeasure) -> list[str]:
    lines = [
        f"{step.setting:g}: {level(step.level_dbfs)} dBFS, noise {level(step.noise_dbfs)}{', clipped' if step.clipped else ''}"
        for step in found.steps
    ]
    if found.best_setting is None:
        lines.append("every setting is clipped: turn the sender down and record again")
    else:
        lines.append(f"nearest to {level(found.target_dbfs)} dBFS: {found.best_setting:g}")
    if found.interpolated_setting is not None:
        lines.append(f"between the marks: {found.interpolated_setting:.2f}".rstrip("0").rstrip("."))
    if found.db_per_setting is not None:
        lines.append(f"{found.db_per_setting:.3f} dB for one mark".replace("-", "−"))
    if found.noisy_from is not None:
        lines.append(f"from {found.noisy_from:g} on more noise comes than tone: bring the level up before this control")
    return lines
