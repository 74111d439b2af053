"""Recordings and what was found in them."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import Field

from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.base.signal import NoiseFrom, NoiseShape, Polarity, Weight
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.tasks.requests import request_of


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


class ChannelOut(Out):
    """One channel; null is silence."""

    index: int
    peak_dbfs: Level
    true_peak_dbtp: Level
    rms_dbfs: Level
    dc_dbfs: Level
    noise_floor_dbfs: Level
    noise_floor_dbfs_a: Level
    noise_floor_from: NoiseFrom
    noise_shape: NoiseShape | None = None
    noise_bands_dbfs: list[Level] = Field(default_factory=list)
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


class PairOut(Out):
    channels: list[int]
    polarity: Polarity
    correlation: float
    bleed_db: Level
    bleeds_into: int | None
    delay_ms: float | None


class MeaningOut(Out):
    """What was heard, and what it means for the job."""

    what: str
    severity: Weight
    text: str
    channels: list[int]


class OverviewOut(Out):
    """A waveform: extremes of each channel in each stretch, full scale 1."""

    stretch_s: float
    highest: list[list[float]]
    lowest: list[list[float]]


class StepOut(Out):
    setting: float
    level_dbfs: Level
    noise_dbfs: Level
    clipped: bool
    start_s: float
    duration_s: float


class StepsOut(Out):
    """A step recording: what each setting gave, and which is right."""

    frequency_hz: float
    steps: list[StepOut]
    best_setting: float | None
    interpolated_setting: float | None
    db_per_setting: float | None
    noisy_from: float | None


class MeasurementOut(Out):
    sample_rate: int
    bits: int | None
    encoding: str
    duration_s: float
    truncated: bool
    channels: list[ChannelOut]
    pairs: list[PairOut]
    findings: list[MeaningOut]
    overview: OverviewOut
    steps: StepsOut | None = None


class AskedOut(Out):
    """What a recording was dropped for. shown: what the meter of a device on the bench showed beside it."""

    track: str = ""
    bench: bool = False
    settings: list[float] = Field(default_factory=list)
    target_dbfs: float | None = None
    device: str = ""
    control: str = ""
    run: str = ""
    way: str = ""
    keep: bool = False
    shown: list[float] = Field(default_factory=list)


class ReceivedOut(Out):
    """A recording of which a part is here: received is how many bytes, from its beginning on."""

    received: int


class RecordingOut(Out):
    """A recording. progress: 0 to 1; result: once it is done, and not in lists."""

    id: UUID
    name: str
    size: int
    asked: AskedOut
    state: RecordingState
    progress: float
    message: str
    created: datetime
    result: MeasurementOut | None

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "RecordingOut":
        result = None if record.result is None else MeasurementOut(**record.result)
        return cls(
            id=record.id,
            name=record.name,
            size=record.size,
            asked=AskedOut.model_validate(request_of(record.asked)),
            state=record.state,
            progress=record.progress,
            message=record.message,
            created=record.created,
            result=result,
        )


Dbfs = Annotated[float, Field(allow_inf_nan=False, ge=-120, le=24)]
