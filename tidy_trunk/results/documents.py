"""What was measured as plain JSON values: for the command line, the worker, the store and the API alike."""

from collections.abc import Callable, Sequence
from typing import Any, BinaryIO, Final

from tidy_trunk.core.base.signal import ChannelMeasure, PairMeasure, StepMeasure, StepsMeasure, meanings, measure_steps
from tidy_trunk.core.base.units import SILENCE_DB, finite
from tidy_trunk.errors import InputError
from tidy_trunk.media.measuring import Measured, loudest_tone, measure_stream
from tidy_trunk.words import heard

MOST_LISTED: Final = 200
"""ASSUMED_ flat tops and clicks of a channel that are kept: nobody looks at more, and all are counted."""


def measured_document(measured: Measured) -> dict[str, Any]:
    """A measured recording, in the shape that `./tidy measure --json` promises."""
    found = measured.measurement
    return {
        "sample_rate": found.rate_hz,
        "bits": measured.bits,
        "encoding": measured.encoding,
        "duration_s": found.seconds,
        "truncated": measured.truncated,
        "channels": [_channel(channel, found.rate_hz) for channel in found.channels],
        "pairs": [_pair(pair) for pair in found.pairs],
        "findings": [
            {"what": item.what, "severity": item.weight, "text": heard(item, found), "channels": list(item.channels)}
            for item in meanings(found)
        ],
    }


def _channel(channel: ChannelMeasure, rate_hz: int) -> dict[str, Any]:
    tone, hum = channel.tone, channel.hum
    return {
        "index": channel.index,
        "peak_dbfs": finite(channel.peak_dbfs),
        "true_peak_dbtp": finite(channel.true_peak_dbtp),
        "rms_dbfs": finite(channel.rms_dbfs),
        "dc_dbfs": finite(channel.dc_dbfs),
        "noise_floor_dbfs": finite(channel.noise.flat_dbfs),
        "noise_floor_dbfs_a": finite(channel.noise.a_dbfs),
        "noise_floor_from": channel.noise.found,
        "noise_shape": channel.noise.shape,
        "clipped": [{"start_s": run.start / rate_hz, "samples": run.samples} for run in channel.clipped],
        "clipped_count": channel.clipped_count,
        "flat_tops": channel.has_flat_tops,
        "tone": None
        if tone is None
        else {
            "frequency_hz": tone.frequency_hz,
            "level_dbfs": tone.level_dbfs,
            "thd_n_db": finite(tone.thd_n_db),
            "duration_s": tone.seconds,
        },
        "hum": None if hum is None else {"mains_hz": hum.mains_hz, "level_dbfs": hum.level_dbfs},
        "ticks": None
        if channel.ticks is None
        else {"every_ms": channel.ticks.every_ms, "level_dbfs": channel.ticks.level_dbfs},
        "clicks_s": list(channel.clicks),
        "automatic_level_db": channel.creeps_db or None,
        "ident_gaps": channel.ident_gaps,
        "ltc": channel.is_ltc,
    }


def _pair(pair: PairMeasure) -> dict[str, Any]:
    return {
        "channels": list(pair.channels),
        "polarity": pair.polarity,
        "correlation": pair.correlation,
        "bleed_db": pair.bleed_db,
        "bleeds_into": pair.bleeds_into,
        "delay_ms": pair.delay_ms,
    }


def steps_document(found: StepsMeasure) -> dict[str, Any]:
    """A step recording, in the shape that `./tidy steps --json` promises."""
    return {
        "frequency_hz": found.frequency_hz,
        "steps": [
            {
                "setting": step.setting,
                "level_dbfs": finite(step.level_dbfs),
                "noise_dbfs": finite(step.noise_dbfs),
                "clipped": step.clipped,
                "start_s": step.start_s,
                "duration_s": step.seconds,
            }
            for step in found.steps
        ],
        "best_setting": found.best_setting,
        "interpolated_setting": found.interpolated_setting,
        "db_per_setting": found.db_per_setting,
        "noisy_from": found.noisy_from,
    }


def steps_of(document: dict[str, Any]) -> tuple[StepMeasure, ...]:
    """The steps of a stored recording as they were measured; the other way about."""
    return tuple(
        StepMeasure(
            setting=step["setting"],
            level_dbfs=SILENCE_DB if step["level_dbfs"] is None else step["level_dbfs"],
            noise_dbfs=SILENCE_DB if step["noise_dbfs"] is None else step["noise_dbfs"],
            clipped=step["clipped"],
            start_s=step["start_s"],
            seconds=step["duration_s"],
        )
        for step in document["steps"]
    )


def tone_levels(result: dict[str, Any]) -> list[float]:
    """Levels of a recording beside which a meter was read: of its steps, else of the tone of its channels."""
    if result.get("steps"):
        return [step["level_dbfs"] for step in result["steps"]["steps"] if step["level_dbfs"] is not None]
    return [channel["tone"]["level_dbfs"] for channel in result.get("channels", []) if channel["tone"] is not None]


def recording_document(
    opened: Callable[[], BinaryIO],
    settings: Sequence[float] = (),
    target_dbfs: float | None = None,
    progress: Callable[[float], None] = lambda share: None,
) -> dict[str, Any]:
    """What is kept of a recording: its measures, and with settings of a knob the steps that it was made with.

    Args:
        opened: Opens the recording from its beginning, as often as it is looked at.
        settings: Where the knob stood, in order, in dB.
        target_dbfs: Where the tone ought to stand.

    Raises:
        FormatError, InputError: It cannot be measured, or holds no steps where some are asked for.
    """
    with opened() as stream:
        result = stored_document(measure_stream(stream, progress))
    if settings:
        if target_dbfs is None:
            raise InputError("steps want a target: say at how many dBFS the tone ought to stand")
        with opened() as stream:
            samples, rate_hz = loudest_tone(stream)
        result["steps"] = steps_document(measure_steps(samples, rate_hz, settings, target_dbfs))
    return result


def stored_document(measured: Measured) -> dict[str, Any]:
    """What is kept of a recording: what was measured, with a waveform to draw, and of long lists the beginning."""
    overview = measured.measurement.overview
    found = measured_document(measured)
    for channel in found["channels"]:
        # Drawn, and compared with others: a hundredth is more than anybody sees.
        bands = measured.measurement.channels[channel["index"] - 1].noise.bands
        channel["noise_bands_dbfs"] = [None if finite(band) is None else round(band, 2) for band in bands]
        channel["clipped"], channel["clicks_s"] = channel["clipped"][:MOST_LISTED], channel["clicks_s"][:MOST_LISTED]
    found["overview"] = {
        "stretch_s": overview.stretch_s,
        "highest": [list(row) for row in overview.highest],
        "lowest": [list(row) for row in overview.lowest],
    }
    return found
