"""A recording measured from beginning to end, read on one processor while it is measured on another."""

from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal import Measurement, Meter, measure
from tidy_trunk.errors import InputError
from tidy_trunk.formats import Recording, open_recording

PIECE_BLOCKS: Final = 20
"""ASSUMED_ blocks that are read at a time, a second: few calls, and a piece that the processor's cache holds."""

LONGEST_STEPS_S: Final = 1_800.0
"""ASSUMED_ longest recording of a tone at several settings."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredFile:
    """A measurement with what the file itself says. bits: None where the sound is lossy."""

    measurement: Measurement
    bits: int | None
    encoding: str
    truncated: bool


def measure_stream(stream: BinaryIO, progress: Callable[[float], None] = lambda share: None) -> MeasuredFile:
    """Measure a recording. `progress` is told how much of it has been read, 0 to 1.

    Raises:
        FormatError: No recording, or one that cannot be decoded.
        InputError: One that cannot be measured: empty, of a rate or with channels that no recording has, not finite.
    """
    recording = open_recording(stream)
    try:
        meter = Meter(recording.rate_hz, recording.channels, step=step_of(recording))
        for piece in ahead(recording, PIECE_BLOCKS * meter.block_size):
            meter.add(piece)
            progress(min(meter.sample_count / max(recording.sample_count, meter.sample_count), 1.0))
        found = measure(meter.metered(), recording.read)
        return MeasuredFile(
            measurement=found, bits=recording.bits, encoding=recording.encoding, truncated=recording.truncated
        )
    finally:
        recording.close()


def step_of(recording: Recording) -> float:
    """Between two neighbouring values that a file can hold, full scale 1.0; 0 for float and lossy sound."""
    return 2.0 ** (1 - recording.bits) if recording.bits and recording.encoding == "pcm" else 0.0


def ahead(recording: Recording, size: int) -> Iterator[NDArray[np.float32]]:
    """The pieces of a recording, each read while the one before is measured."""
    pieces = recording.pieces(size)
    with ThreadPoolExecutor(1) as reader:
        waiting = reader.submit(next, pieces, None)
        while (piece := waiting.result()) is not None:
            waiting = reader.submit(next, pieces, None)
            yield piece


def loudest_tone(stream: BinaryIO) -> tuple[NDArray[np.float32], int]:
    """The channel of a step recording that holds most, shape (sample_count,), full scale 1.0, and its rate in Hz.

    Raises:
        FormatError, InputError: As `measure_stream`; longer than `LONGEST_STEPS_S`.
    """
    recording = open_recording(stream)
    try:
        if recording.sample_count > LONGEST_STEPS_S * recording.rate_hz:
            raise InputError(
                f"the recording is longer than {LONGEST_STEPS_S / 60:.0f} min: give the part with the steps"
            )
        pieces = list(recording.pieces(recording.rate_hz))
        if not pieces:
            raise InputError("the recording is empty: there is nothing to measure")
        samples = np.concatenate(pieces, axis=1)
        if not np.isfinite(samples).all():
            raise InputError("the recording holds numbers that are not finite: export it again")
        return samples[int(np.argmax(np.mean(samples**2, axis=1)))], recording.rate_hz
    finally:
        recording.close()
