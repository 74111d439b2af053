"""What samples hold."""

from tidy_trunk.core.base.signal.bands import BANDS_HZ, band_levels
from tidy_trunk.core.base.signal.clipping import CLIPPED_RUN, ClippedRun
from tidy_trunk.core.base.signal.decibels import dbfs_of_powers
from tidy_trunk.core.base.signal.meaning import SignalFinding, SignalSeverity, meanings
from tidy_trunk.core.base.signal.measure import holds_timecode, measure
from tidy_trunk.core.base.signal.measurement import (
    ChannelMeasure,
    Hum,
    Measurement,
    NoiseFloor,
    NoiseFrom,
    NoiseShape,
    Overview,
    PairMeasure,
    Polarity,
    Ticks,
    Tone,
)
from tidy_trunk.core.base.signal.meter import BLOCK_S, Meter, MeterResult, check_finite, check_kind
from tidy_trunk.core.base.signal.spectrum import HIGHEST_HZ, LOWEST_HZ
from tidy_trunk.core.base.signal.speech import SpeechLevels, active_level_dbfs, speech_levels
from tidy_trunk.core.base.signal.steps import LARGEST_SETTING, StepMeasure, StepsMeasure, measure_steps
from tidy_trunk.core.base.signal.tones import line_up_tone

__all__ = [
    "BANDS_HZ",
    "BLOCK_S",
    "CLIPPED_RUN",
    "HIGHEST_HZ",
    "LARGEST_SETTING",
    "LOWEST_HZ",
    "ChannelMeasure",
    "ClippedRun",
    "Hum",
    "Measurement",
    "Meter",
    "MeterResult",
    "NoiseFloor",
    "NoiseFrom",
    "NoiseShape",
    "Overview",
    "PairMeasure",
    "Polarity",
    "SignalFinding",
    "SignalSeverity",
    "SpeechLevels",
    "StepMeasure",
    "StepsMeasure",
    "Ticks",
    "Tone",
    "active_level_dbfs",
    "band_levels",
    "check_finite",
    "check_kind",
    "dbfs_of_powers",
    "holds_timecode",
    "line_up_tone",
    "meanings",
    "measure",
    "measure_steps",
    "speech_levels",
]
