"""What is known of a recording once it has been measured. Levels are in dBFS [AES17]; silence is -inf."""

from dataclasses import dataclass
from enum import StrEnum

from tidy_trunk.core.base.signal.clipping import ClippedRun


@dataclass(frozen=True, slots=True, kw_only=True)
class Tone:
    """A steady tone: where it stands, and how far below it lies all else from 20 Hz to 20 kHz (negative dB).

    seconds: for how long it stands in all.
    """

    frequency_hz: float
    level_dbfs: float
    thd_n_db: float
    seconds: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Hum:
    """What the mains leave in a recording: the power sum of the fundamental and its harmonics."""

    mains_hz: int
    level_dbfs: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Ticks:
    """What a computer's power leaves in a recording: a burst every so many milliseconds, and the power of all."""

    every_ms: int
    level_dbfs: float


class NoiseShape(StrEnum):
    """Where most of a noise seems to come from."""

    ELECTRONICS = "electronics"
    ROOM = "room"
    BOTH = "both"


class NoiseFrom(StrEnum):
    """Where a noise floor was found."""

    PAUSES = "pauses"
    TONE = "tone"
    NOWHERE = "nowhere"


@dataclass(frozen=True, slots=True, kw_only=True)
class NoiseFloor:
    """Noise from 20 Hz to 20 kHz, flat and A-weighted; -inf where the pauses hold nothing at all.

    bands: third octaves around `BANDS_HZ`, dBFS; none where there is no noise.
    shape: what they look like; None where they do not tell.
    """

    flat_dbfs: float
    a_dbfs: float
    found: NoiseFrom
    bands: tuple[float, ...] = ()
    shape: NoiseShape | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ChannelMeasure:
    """One channel; `index` counts from 1.

    rms_dbfs: without DC. dc_dbfs: level of the mean's size, full scale 1.0 reading 0.
    clipped: the flat tops that are listed, clipped_count: all of them.
    has_flat_tops: cut off before something was added to it, so that no two tops are the same.
    clicks: at which seconds something short stands out of a pause or of a steady tone.
    creeps_db: by how much the noise rises in the pauses, as it does with automatic level; 0 where it does not.
    ident_gaps: how often a steady tone is interrupted for a moment, as a left ident is.
    """

    index: int
    peak_dbfs: float
    true_peak_dbtp: float
    rms_dbfs: float
    dc_dbfs: float
    noise: NoiseFloor
    clipped: tuple[ClippedRun, ...]
    clipped_count: int
    has_flat_tops: bool
    tone: Tone | None
    hum: Hum | None
    ticks: Ticks | None
    clicks: tuple[float, ...]
    creeps_db: float
    ident_gaps: int
    is_ltc: bool

    @property
    def is_silent(self) -> bool:
        """Whether nothing is on it, not even noise."""
        return self.rms_dbfs == float("-inf")


class Polarity(StrEnum):
    """How two channels move against each other."""

    SAME = "same"
    OPPOSITE = "opposite"
    UNRELATED = "unrelated"


@dataclass(frozen=True, slots=True, kw_only=True)
class PairMeasure:
    """Two channels, counted from 1.

    correlation: of the two as they are, -1 to 1. delay_ms: by how much the second comes later, where both hold the
    same sound. bleed_db: how far below its source one is heard in the other, negative; None where neither is.
    bleeds_into: the channel in which it is heard.
    """

    channels: tuple[int, int]
    polarity: Polarity
    correlation: float
    delay_ms: float | None
    bleed_db: float | None
    bleeds_into: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Overview:
    """A waveform small enough to draw: the extremes of each channel in each stretch, full scale 1.0."""

    stretch_s: float
    highest: tuple[tuple[float, ...], ...]
    lowest: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Measurement:
    """A whole recording."""

    rate_hz: int
    seconds: float
    channels: tuple[ChannelMeasure, ...]
    pairs: tuple[PairMeasure, ...]
    overview: Overview
