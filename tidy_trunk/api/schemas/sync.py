"""Files laid over each other."""

from typing import Annotated
from uuid import UUID

from pydantic import Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.sync_files import SyncView, Waves, sides_of
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.sync.layout import ClapGuess, Clip, FileTimeline, Layout
from tidy_trunk.sync.methods import Method

OffsetSeconds = Annotated[float, Field(allow_inf_nan=False, ge=-86_400, le=86_400)]


class MoveIn(In):
    """A clip moved by hand. request: sent again under one id it is done once."""

    request: UUID | None = None


class NudgeIn(MoveIn):
    """By how many samples of the recorder file a camera file is moved from where it was found."""

    samples: Annotated[int, Field(ge=-(10**9), le=10**9, examples=[1920])]


class SideIn(In):
    """Of which side a file is: recorder or camera."""

    side: Annotated[str, Field(max_length=20, examples=["camera"])]


class PlaceIn(MoveIn):
    """A moment of a recorder file that is the same as one of a camera file, in seconds, or as one of its pictures from 0."""

    reference: UUID
    reference_s: Annotated[OffsetSeconds, Field(examples=[12.25])]
    other_s: Annotated[OffsetSeconds | None, Field(examples=[3.04])] = None
    frame: Annotated[float | None, Field(allow_inf_nan=False, ge=0, le=10**7)] = None


class SyncFileOut(Out):
    """A file that was dropped in. rate_hz: 0 without sound; began_s: since midnight by its own clock."""

    id: UUID
    name: str
    size: int
    side: str
    state: RecordingState
    progress: float
    message: str
    duration_s: float | None
    rate_hz: int | None
    began_s: float | None
    frame_rate: str | None
    claps_s: list[float]

    @classmethod
    def from_record(cls, record: RecordingRecord, side: str) -> "SyncFileOut":
        facts = record.result or {}
        return cls(
            id=record.id,
            name=record.name,
            size=record.size,
            side=side,
            state=record.state,
            progress=record.progress,
            message=record.message,
            duration_s=facts.get("duration_s"),
            rate_hz=facts.get("rate_hz"),
            began_s=facts.get("began_s"),
            frame_rate=facts.get("frame_rate"),
            claps_s=facts.get("claps_s", []),
        )


class SyncClipOut(Out):
    """Where a camera file lies on a recorder file; offset_s: with what it was nudged by since.

    timecode_s: where its timecode puts it, if that is another place.
    """

    other: UUID
    reference: UUID
    offset_s: float
    offset_frames: float
    nudge_samples: int
    samples_per_frame: float
    drift_ppm: float | None
    polarity: int
    method: Method
    by_hand: bool
    confidence: float
    timecode_s: float | None

    @classmethod
    def from_core(cls, view: SyncView, clip: Clip) -> "SyncClipOut":
        rate_hz = next(file.rate_hz for file in view.files if file.id == clip.reference)
        moved_s, fps = clip.moved_s(rate_hz), float(view.rate.ratio)
        return cls(
            other=UUID(clip.other),
            reference=UUID(clip.reference),
            offset_s=moved_s,
            offset_frames=moved_s * fps,
            nudge_samples=clip.nudge_samples,
            samples_per_frame=rate_hz / fps,
            drift_ppm=clip.drift_ppm,
            polarity=clip.polarity,
            method=clip.method,
            by_hand=clip.by_hand,
            confidence=clip.confidence,
            timecode_s=None if view.layout is None else view.layout.disputed.get(clip.other),
        )


class SyncGuessOut(Out):
    """Where a file that was found nowhere may lie, by a single clap. frame: the picture in which hands close then."""

    other: UUID
    reference: UUID
    offset_s: float
    reference_s: float
    other_s: float
    frame: int | None
    confidence: float

    @classmethod
    def from_core(cls, view: SyncView, guess: ClapGuess) -> "SyncGuessOut":
        rate = next(file.frame_rate for file in view.files if file.id == guess.other)
        return cls(
            other=UUID(guess.other),
            reference=UUID(guess.reference),
            offset_s=guess.reference_s - guess.other_s,
            reference_s=guess.reference_s,
            other_s=guess.other_s,
            frame=None if rate is None else int(guess.other_s * rate),
            confidence=guess.confidence,
        )


class TimelineFileOut(Out):
    id: UUID
    name: str
    side: str
    begins_s: float
    duration_s: float


class TimelineOut(Out):
    """Files that hang together. starts: of the timeline in timecode; starts_s: since midnight."""

    starts: str
    starts_s: float
    has_clock: bool
    seconds: float
    files: list[TimelineFileOut]

    @classmethod
    def from_core(cls, view: SyncView, line: FileTimeline) -> "TimelineOut":
        files = [file for file in view.files if file.id in line.begins_s]
        return cls(
            starts=view.label(line.starts_s),
            starts_s=line.starts_s,
            has_clock=line.has_clock,
            seconds=max(line.begins_s[file.id] + file.seconds for file in files),
            files=[
                TimelineFileOut(
                    id=UUID(file.id),
                    name=file.name,
                    side=file.side,
                    begins_s=line.begins_s[file.id],
                    duration_s=file.seconds,
                )
                for file in files
            ],
        )


class SyncMatchOut(Out):
    """How far the newest look is at where files lie."""

    id: UUID
    state: RecordingState
    progress: float
    message: str

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "SyncMatchOut":
        return cls(id=record.id, state=record.state, progress=record.progress, message=record.message)


class SyncOut(Out):
    """All that was dropped in, and where it lies.

    match: the newest look at that; is_laid: whether one was ever done, which stands until another is; is_stale: files came or
    went since then.
    """

    rate: str
    files: list[SyncFileOut]
    match: SyncMatchOut | None
    is_laid: bool
    is_stale: bool
    clips: list[SyncClipOut]
    guesses: list[SyncGuessOut]
    timelines: list[TimelineOut]

    @classmethod
    def from_core(cls, view: SyncView) -> "SyncOut":
        layout = view.layout or Layout(clips={}, disputed={}, timelines=())
        sides = sides_of(view.records)
        return cls(
            rate=view.defaults.frame_rate,
            files=[SyncFileOut.from_record(record, sides[record.id]) for record in view.records],
            match=None if view.match is None else SyncMatchOut.from_record(view.match),
            is_laid=view.laid is not None,
            is_stale=view.is_stale,
            clips=[SyncClipOut.from_core(view, clip) for clip in layout.clips.values()],
            guesses=[SyncGuessOut.from_core(view, guess) for guess in view.guesses],
            timelines=[TimelineOut.from_core(view, line) for line in layout.timelines],
        )


class EdgesOut(Out):
    """Lowest and highest sample in each column, at the loudest as 1."""

    low: list[float]
    high: list[float]


class WavesOut(Out):
    """Both over a stretch of the recorder file's time."""

    at_s: float
    span_s: float
    reference: EdgesOut
    other: EdgesOut

    @classmethod
    def from_core(cls, waves: Waves) -> "WavesOut":
        (low, high), (other_low, other_high) = waves.reference, waves.other
        return cls(
            at_s=waves.at_s,
            span_s=waves.span_s,
            reference=EdgesOut(low=low, high=high),
            other=EdgesOut(low=other_low, high=other_high),
        )
