"""A measured recording and a step recording: what `./tidy measure` and `steps` print, the store keeps, and the API gives."""

from typing import Annotated, Any, Final

from pydantic import BeforeValidator, Field, computed_field

from tidy_trunk.core.base.signal import (
    ChannelMeasure,
    NoiseFrom,
    NoiseShape,
    PairMeasure,
    Polarity,
    SignalSeverity,
    StepMeasure,
    StepsMeasure,
    meanings,
)
from tidy_trunk.core.base.units import SILENCE_DB, finite
from tidy_trunk.media.measuring import MeasuredFile
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words import heard
from tidy_trunk.words.terms import term

MOST_LISTED: Final = 200
"""ASSUMED_ flat tops and clicks of a channel that are kept: nobody looks at more, and all are counted."""


class RunOut(Out):
    """A flat top: where it begins, and how many samples it holds."""

    start_s: float
    samples: int


class ToneOut(Out):
    frequency_hz: float
    level_dbfs: float
    thd_n_db: Level
    duration_s: float


class HumOut(Out):
    mains_hz: int
    level_dbfs: float


class TicksOut(Out):
    every_ms: int
    level_dbfs: float


def _of_today(noise_from: Any) -> Any:
    """What earlier versions wrote beside a recording."""
    return {"in the pauses": NoiseFrom.PAUSES, "under the tone": NoiseFrom.TONE}.get(noise_from, noise_from)


class ChannelOut(Out):
    """One channel; null is silence."""

    index: int
    peak_dbfs: Level
    true_peak_dbtp: Level
    rms_dbfs: Level
    dc_dbfs: Level
    noise_floor_dbfs: Level
    noise_floor_dbfs_a: Level
    noise_floor_from: Annotated[NoiseFrom, BeforeValidator(_of_today)]
    noise_shape: NoiseShape | None = None
    clipped: list[RunOut]
    clipped_count: int
    flat_tops: bool
    tone: ToneOut | None
    hum: HumOut | None
    ticks: TicksOut | None = None
    clicks_s: list[float]
    automatic_level_db: Level
    ident_gaps: int
    ltc: bool

    @computed_field  # type: ignore[prop-decorator]
    @property
    def noise_words(self) -> str:
        """Where the noise floor was found, as it is said."""
        return term(self.noise_floor_from)

    @classmethod
    def from_core(cls, channel: ChannelMeasure, rate_hz: int) -> "ChannelOut":
        tone, hum, ticks = channel.tone, channel.hum, channel.ticks
        return cls(
            index=channel.index,
            peak_dbfs=channel.peak_dbfs,
            true_peak_dbtp=channel.true_peak_dbtp,
            rms_dbfs=channel.rms_dbfs,
            dc_dbfs=channel.dc_dbfs,
            noise_floor_dbfs=channel.noise.flat_dbfs,
            noise_floor_dbfs_a=channel.noise.a_dbfs,
            noise_floor_from=channel.noise.found,
            noise_shape=channel.noise.shape,
            clipped=[RunOut(start_s=run.start / rate_hz, samples=run.samples) for run in channel.clipped],
            clipped_count=channel.clipped_count,
            flat_tops=channel.has_flat_tops,
            tone=None
            if tone is None
            else ToneOut(
                frequency_hz=tone.frequency_hz,
                level_dbfs=tone.level_dbfs,
                thd_n_db=tone.thd_n_db,
                duration_s=tone.seconds,
            ),
            hum=None if hum is None else HumOut(mains_hz=hum.mains_hz, level_dbfs=hum.level_dbfs),
            ticks=None if ticks is None else TicksOut(every_ms=ticks.every_ms, level_dbfs=ticks.level_dbfs),
            clicks_s=list(channel.clicks),
            automatic_level_db=channel.creeps_db or None,
            ident_gaps=channel.ident_gaps,
            ltc=channel.is_ltc,
        )


class ChannelPairOut(Out):
    channels: list[int]
    polarity: Polarity
    correlation: float
    bleed_db: Level
    bleeds_into: int | None
    delay_ms: float | None

    @classmethod
    def from_core(cls, pair: PairMeasure) -> "ChannelPairOut":
        return cls(
            channels=list(pair.channels),
            polarity=pair.polarity,
            correlation=pair.correlation,
            bleed_db=pair.bleed_db,
            bleeds_into=pair.bleeds_into,
            delay_ms=pair.delay_ms,
        )


class MeaningOut(Out):
    """What was heard, and what it means for the job."""

    what: str
    severity: SignalSeverity
    text: str
    channels: list[int]


class MeasuredOut(Out):
    """A recording, as it was measured."""

    sample_rate: int
    bits: int | None
    encoding: str
    duration_s: float
    truncated: bool
    channels: list[ChannelOut]
    pairs: list[ChannelPairOut]
    findings: list[MeaningOut]

    @classmethod
    def from_core(cls, measured: MeasuredFile) -> "MeasuredOut":
        found = measured.measurement
        return cls(
            sample_rate=found.rate_hz,
            bits=measured.bits,
            encoding=measured.encoding,
            duration_s=found.seconds,
            truncated=measured.truncated,
            channels=[ChannelOut.from_core(channel, found.rate_hz) for channel in found.channels],
            pairs=[ChannelPairOut.from_core(pair) for pair in found.pairs],
            findings=[
                MeaningOut(what=item.what, severity=item.weight, text=heard(item, found), channels=list(item.channels))
                for item in meanings(found)
            ],
        )


class SettingOut(Out):
    setting: float
    level_dbfs: Level
    noise_dbfs: Level
    clipped: bool
    start_s: float
    duration_s: float

    @classmethod
    def from_core(cls, step: StepMeasure) -> "SettingOut":
        return cls(
            setting=step.setting,
            level_dbfs=step.level_dbfs,
            noise_dbfs=step.noise_dbfs,
            clipped=step.clipped,
            start_s=step.start_s,
            duration_s=step.seconds,
        )

    def to_core(self) -> StepMeasure:
        return StepMeasure(
            setting=self.setting,
            level_dbfs=SILENCE_DB if self.level_dbfs is None else self.level_dbfs,
            noise_dbfs=SILENCE_DB if self.noise_dbfs is None else self.noise_dbfs,
            clipped=self.clipped,
            start_s=self.start_s,
            seconds=self.duration_s,
        )


class StepsOut(Out):
    """A step recording: what each setting gave, and which is right."""

    frequency_hz: float
    steps: list[SettingOut]
    best_setting: float | None
    interpolated_setting: float | None
    db_per_setting: float | None
    noisy_from: float | None

    @classmethod
    def from_core(cls, found: StepsMeasure) -> "StepsOut":
        return cls(
            frequency_hz=found.frequency_hz,
            steps=[SettingOut.from_core(step) for step in found.steps],
            best_setting=found.best_setting,
            interpolated_setting=found.interpolated_setting,
            db_per_setting=found.db_per_setting,
            noisy_from=found.noisy_from,
        )


class KeptChannelOut(ChannelOut):
    """The same with its noise in third octaves, to be drawn and compared with others; of long lists the beginning."""

    noise_bands_dbfs: list[Level] = Field(default_factory=list)


class OverviewOut(Out):
    """A waveform: extremes of each channel in each stretch, full scale 1."""

    stretch_s: float
    highest: list[list[float]]
    lowest: list[list[float]]


class MeasurementOut(Out):
    """What is kept of a recording: what was measured, a waveform, and the steps of a knob where it was made with some."""

    sample_rate: int
    bits: int | None
    encoding: str
    duration_s: float
    truncated: bool
    channels: list[KeptChannelOut]
    pairs: list[ChannelPairOut]
    findings: list[MeaningOut]
    overview: OverviewOut
    steps: StepsOut | None = None

    @classmethod
    def from_core(cls, measured: MeasuredFile, steps: StepsMeasure | None = None) -> "MeasurementOut":
        found, whole = measured.measurement, MeasuredOut.from_core(measured)
        channels = []
        for channel, measure in zip(whole.channels, found.channels, strict=True):
            values = dict(channel)
            values["clipped"], values["clicks_s"] = channel.clipped[:MOST_LISTED], channel.clicks_s[:MOST_LISTED]
            # Drawn: a hundredth is more than anybody sees.
            bands = [None if finite(band) is None else round(band, 2) for band in measure.noise.bands]
            channels.append(KeptChannelOut(**values, noise_bands_dbfs=bands))
        overview = OverviewOut(
            stretch_s=found.overview.stretch_s,
            highest=[list(row) for row in found.overview.highest],
            lowest=[list(row) for row in found.overview.lowest],
        )
        kept = None if steps is None else StepsOut.from_core(steps)
        return cls(**{**dict(whole), "channels": channels}, overview=overview, steps=kept)

    @property
    def tone_levels_dbfs(self) -> list[float]:
        """Levels beside which a meter was read: of its steps, else of the tone of its channels."""
        if self.steps is not None:
            return [step.level_dbfs for step in self.steps.steps if step.level_dbfs is not None]
        return [channel.tone.level_dbfs for channel in self.channels if channel.tone is not None]
