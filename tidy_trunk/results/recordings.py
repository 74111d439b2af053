"""A recording measured as it was asked for."""

from collections.abc import Callable, Sequence
from typing import BinaryIO

from tidy_trunk.core.base.signal import measure_steps
from tidy_trunk.errors import InputError
from tidy_trunk.media.measuring import loudest_tone, measure_stream
from tidy_trunk.results.measurement import MeasurementOut


def measured_recording(
    opened: Callable[[], BinaryIO],
    settings: Sequence[float] = (),
    target_dbfs: float | None = None,
    progress: Callable[[float], None] = lambda share: None,
) -> MeasurementOut:
    """What is kept of a recording: its measures, and with settings of a knob the steps that it was made with.

    Args:
        opened: Opens the recording from its beginning, as often as it is looked at.
        settings: Where the knob stood, in order, in dB.
        target_dbfs: Where the tone ought to stand.

    Raises:
        FormatError, InputError: It cannot be measured, or holds no steps where some are asked for.
    """
    with opened() as stream:
        measured = measure_stream(stream, progress)
    if not settings:
        return MeasurementOut.from_core(measured)
    if target_dbfs is None:
        raise InputError("steps want a target: say at how many dBFS the tone ought to stand")
    with opened() as stream:
        samples, rate_hz = loudest_tone(stream)
    return MeasurementOut.from_core(measured, measure_steps(samples, rate_hz, settings, target_dbfs))
