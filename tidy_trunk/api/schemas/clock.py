"""Time on a set."""

from tidy_trunk.core.base.timecode import name_of
from tidy_trunk.core.plan import JamOver, PlanIndex
from tidy_trunk.core.time.clock import (
    ClockDay,
    ClockPair,
    Clocks,
    LateScreen,
    StraightSound,
    SyncMeans,
    SyncWindow,
    TimecodeDevice,
    TimecodeFrom,
    jams_for,
)
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.services.clock import ClockView, MeasuredDelay
from tidy_trunk.words import SOURCE_WORDS
from tidy_trunk.words.names import window_words


class TimecodeDeviceOut(Out):
    """A device that records or keeps time, and by how far it may part from its giver over the day, once on its own.

    giver, track, beside, genlocked_to: by their names; giver_id: the giver's id.
    """

    device: str
    label: str
    gets: TimecodeFrom
    giver: str
    giver_id: str
    over: JamOver | None
    jams_min: list[int]
    track: str
    loss_db: float
    beside: list[str]
    has_socket: bool
    rate: str
    records_run: bool
    ppm: float | None
    forgets: bool | None
    genlocked_to: str
    relative_drift_ppm: float | None
    is_measured: bool
    parts_ms: float | None
    parts_frames: float | None
    rejam_every_h: Level

    @classmethod
    def from_core(cls, index: PlanIndex, timecode_device: TimecodeDevice) -> "TimecodeDeviceOut":
        alone, relative_drift, jam = timecode_device.alone, timecode_device.relative_drift, timecode_device.jam
        return cls(
            device=timecode_device.device,
            label=index.placed(timecode_device.device).label,
            gets=timecode_device.gets,
            giver=_label(index, timecode_device.giver),
            giver_id=timecode_device.giver,
            over=None if jam is None else jam.over,
            jams_min=[] if jam is None else list(jam.at_min),
            track=_track(index, timecode_device.track),
            loss_db=timecode_device.loss_db,
            beside=[_track(index, track) for track in timecode_device.beside],
            has_socket=timecode_device.has_socket,
            rate=name_of(timecode_device.rate),
            records_run=timecode_device.records_run,
            ppm=timecode_device.ppm,
            forgets=timecode_device.forgets,
            genlocked_to=_label(index, timecode_device.genlocked_to),
            relative_drift_ppm=None if relative_drift is None else relative_drift.ppm,
            is_measured=relative_drift is not None and relative_drift.is_measured,
            parts_ms=None if alone is None else alone.drift_ms,
            parts_frames=None if alone is None else alone.drift_frames,
            rejam_every_h=None if alone is None else alone.rejam_every_h,
        )


class FreeRunOut(Out):
    """A time in which a clock runs alone, in minutes since midnight; apart_frames: at the worst in it, from `against`.

    begins_frames: what it is off when it begins, because whoever jams it is.
    """

    begins_min: int
    ends_min: int
    begins_frames: float
    apart_frames: float
    against: str
    beyond_min: int | None


class ClockDayOut(Out):
    """A jammed device over the day, with the jams that keep it within the limit; null where only a lead does."""

    device: str
    label: str
    free_runs: list[FreeRunOut]
    unset_until_min: int | None
    every_min: float | None
    beyond_min: int | None
    advised_min: list[int] | None

    @classmethod
    def from_core(cls, clocks: Clocks, day: ClockDay) -> "ClockDayOut":
        advised, index = jams_for(clocks, day.device), clocks.index
        return cls(
            device=day.device,
            label=index.placed(day.device).label,
            free_runs=[
                FreeRunOut(
                    begins_min=free_run.begins_min,
                    ends_min=free_run.ends_min,
                    begins_frames=free_run.begins_frames,
                    against=_label(index, free_run.against),
                    apart_frames=free_run.apart_frames,
                    beyond_min=free_run.beyond_min,
                )
                for free_run in day.free_runs
            ],
            unset_until_min=day.unset_until_min,
            every_min=day.every_min,
            beyond_min=day.beyond_min,
            advised_min=None if advised is None else list(advised),
        )


class CommonSourceOut(Out):
    """A source that both hear; later_ms: by how much later through air the camera does."""

    source: str
    later_ms: float


class ReachOut(Out):
    """How far the camera's own microphone hears a source, and how late at that distance."""

    source: str
    metres: float
    later_ms: float


class ClockPairOut(Out):
    """By what a camera and a recorder will meet, and whom both hear."""

    camera: str
    recorder: str
    by: list[SyncMeans]
    sources: list[CommonSourceOut]
    reach: ReachOut | None
    long_take_min: float | None

    @classmethod
    def from_core(cls, index: PlanIndex, pair: ClockPair) -> "ClockPairOut":
        reach, sources = pair.reach, index.plan.sources
        return cls(
            camera=_label(index, pair.camera),
            recorder=_label(index, pair.recorder),
            by=list(pair.by),
            sources=[
                CommonSourceOut(source=sources[item.source].label, later_ms=item.later_ms) for item in pair.sources
            ],
            reach=None
            if reach is None
            else ReachOut(source=sources[reach.source].label, metres=reach.metres, later_ms=reach.later_ms),
            long_take_min=pair.long_take_min,
        )


class WindowOut(Out):
    """Whether sound lies within what a standard asks for."""

    id: str
    said: str
    source: str
    early_ms: float
    late_ms: float
    holds: bool


class PictureOut(Out):
    """A picture where it comes in: own_frames, what the device adds that sends it; late_frames, with all before that."""

    device: str
    camera: str
    over_sdi: bool
    own_frames: float
    late_frames: float
    late_ms: float
    hold_frames: float


class LatencyPartOut(Out):
    """What one thing on the way takes."""

    what: str
    ms: float


class StraightSoundOut(Out):
    """Sound that comes in by a way of its own, and by how much to delay it; null where it is late already."""

    run: str
    number: int
    sender: str
    least_ms: float
    most_ms: float
    parts: list[LatencyPartOut]
    early_ms: float
    delay_ms: float | None
    delay_frames: float | None
    delay_samples: int | None
    delay_metres: float | None
    windows: list[WindowOut]

    @classmethod
    def from_core(cls, index: PlanIndex, sound: StraightSound) -> "StraightSoundOut":
        delay = sound.delay
        return cls(
            run=sound.run,
            number=index.plan.runs[sound.run].number,
            sender=_label(index, sound.sender),
            least_ms=sound.late.least_ms,
            most_ms=sound.late.most_ms,
            parts=[LatencyPartOut(what=part.what, ms=part.ms) for part in sound.late.parts],
            early_ms=sound.early_ms,
            delay_ms=None if delay is None else float(delay.seconds * 1000),
            delay_frames=None if delay is None or delay.frame_count is None else float(delay.frame_count),
            delay_samples=None if delay is None else delay.sample_count,
            delay_metres=sound.delay_metres,
            windows=_windows(sound.windows),
        )


class ScreenOut(Out):
    """A switcher or a monitor with its pictures, and the delay that sound asks for that takes no time itself."""

    device: str
    label: str
    is_switcher: bool
    own_frames: float
    pictures: list[PictureOut]
    late_frames: float
    delay_ms: float
    delay_samples: int
    delay_metres: float
    windows: list[WindowOut]
    sounds: list[StraightSoundOut]

    @classmethod
    def from_core(cls, index: PlanIndex, item: LateScreen) -> "ScreenOut":
        return cls(
            device=item.device,
            label=_label(index, item.device),
            is_switcher=item.is_switcher,
            own_frames=item.own_frames,
            pictures=[
                PictureOut(
                    device=picture.camera,
                    camera=_label(index, picture.camera),
                    over_sdi=picture.over_sdi,
                    own_frames=picture.own_frames,
                    late_frames=picture.late_frames,
                    late_ms=picture.late_ms,
                    hold_frames=picture.hold_frames,
                )
                for picture in item.pictures
            ],
            late_frames=item.late_frames,
            delay_ms=float(item.delay.seconds * 1000),
            delay_samples=item.delay.sample_count,
            delay_metres=item.delay_metres,
            windows=_windows(item.windows),
            sounds=[StraightSoundOut.from_core(index, sound) for sound in item.sounds],
        )


class MeasuredDelayOut(Out):
    """What a clap said: heard and seen in seconds of the recording, and the edits that take it over."""

    heard_s: float
    seen_s: float
    early_ms: float
    within_ms: float
    windows: list[WindowOut]
    camera_frames: float | None
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, found: MeasuredDelay) -> "MeasuredDelayOut":
        reading = found.reading
        return cls(
            heard_s=reading.heard_s,
            seen_s=reading.seen_s,
            early_ms=reading.early_ms,
            within_ms=reading.within_ms,
            windows=_windows(reading.windows),
            camera_frames=reading.camera_frames,
            edits=[edit_document(edit) for edit in found.edits],
        )


class BreakOut(Out):
    id: str
    label: str
    at_min: int
    length_min: int


class ClockOut(Out):
    """Time on a set over the job's day. Devices and sources by their names; times in minutes since midnight."""

    rate: str
    day_begins_min: int
    day_ends_min: int
    limit_frames: float
    breaks: list[BreakOut]
    timecode_devices: list[TimecodeDeviceOut]
    days: list[ClockDayOut]
    pairs: list[ClockPairOut]
    screens: list[ScreenOut]

    @classmethod
    def from_core(cls, view: ClockView) -> "ClockOut":
        index = view.report.index
        defaults = index.plan.defaults
        return cls(
            rate=defaults.frame_rate,
            day_begins_min=defaults.day_begins_min,
            day_ends_min=defaults.day_ends_min,
            limit_frames=defaults.drift_limit_frames,
            breaks=[
                BreakOut(id=item.id, label=item.label, at_min=item.at_min, length_min=item.length_min)
                for item in index.plan.breaks.values()
            ],
            timecode_devices=[
                TimecodeDeviceOut.from_core(index, timecode_device) for timecode_device in view.timecode_devices
            ],
            days=[ClockDayOut.from_core(view.clocks, day) for day in view.days],
            pairs=[ClockPairOut.from_core(index, pair) for pair in view.pairs],
            screens=[ScreenOut.from_core(index, item) for item in view.screens],
        )


def _windows(windows: tuple[tuple[SyncWindow, bool], ...]) -> list[WindowOut]:
    return [
        WindowOut(
            id=window.id,
            said=window_words(window, holds=holds),
            source=SOURCE_WORDS[window.source],
            early_ms=window.early_ms,
            late_ms=window.late_ms,
            holds=holds,
        )
        for window, holds in windows
    ]


def _label(index: PlanIndex, device: str) -> str:
    return index.placed(device).label if device else ""


def _track(index: PlanIndex, track: str) -> str:
    device, _, bus = track.partition(".")
    return index.placed(device).place_label(bus) if track else ""
