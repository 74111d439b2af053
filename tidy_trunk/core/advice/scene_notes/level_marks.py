"""Level marks: what a meter showed in rehearsal says how loud a part of a scene is, and so where its knob wants to stand.

Source: [HANDBOOK] §6: in rehearsal level marks are written down for each part of a scene, and ridden in the take.
"""

from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.ways import Trial, Upstream, built_in_run
from tidy_trunk.core.gear.catalogue import find_control
from tidy_trunk.core.plan import Role, SetControl, SetSource, edited
from tidy_trunk.core.sound.levels import Clip, Report, TrackLevel

CEILING_WITHIN_DB: Final = 0.5
"""ASSUMED_ below full scale, and below what cuts sound off: half the step of most meters. What reads there may be any louder."""

LINEAR_WITHIN_DB: Final = 1.0
"""ASSUMED_ by how much a reading may differ from what the chain would record of so loud a voice: more, and something held it."""

REACHED_WITHIN_DB: Final = 0.5
"""ASSUMED_ how far outside of its target a part may stay: half the step of most knobs."""


QUIETEST_DB_SPL: Final = 20.0
"""ASSUMED_ average of the quietest voice at 1 m: a whisper has 30 to 40. [MEMORY]"""

LOUDEST_DB_SPL: Final = 125.0
"""ASSUMED_ average of the loudest thing at 1 m that is marked by ear: a shout has 90 to 100, a hammer on iron more. [MEMORY]"""


class MarkTrouble(StrEnum):
    """Why a reading gives no mark, or the mark is not enough."""

    AT_FULL_SCALE = "at-full-scale"  # the meter can show no more: the voice is at least so loud
    HELD = "held"  # a limiter, automatic level or a clipped stage held it: the voice is at least so loud
    NOTHING_PLANNED = "nothing-planned"  # by the plan nobody is heard there
    BEYOND_REASON = "beyond-reason"  # nobody is so loud, or so quiet: the settings are not those of the plan
    NO_KNOB = "no-knob"  # it would have to be turned, and there is nothing to turn
    CLIPS = "clips"  # before the knob, where turning it helps nothing
    OUT_OF_REACH = "out-of-reach"  # the knob ends before


@dataclass(frozen=True, slots=True, kw_only=True)
class LevelMark:
    """Where the knob of a track wants to stand for one part of a scene.

    louder_db: than the plan has its source; None where the reading does not tell.
    device, control, label: of the knob, "" where there is none. stands_db, mark_db: as it stands, and for this part.
    average_dbfs, peak_dbfs: what is then recorded; miss_db: outside of its target, positive above.
    clip: where the part is cut off all the same.
    """

    track: str
    louder_db: float | None = None
    device: str = ""
    control: str = ""
    label: str = ""
    stands_db: float | None = None
    mark_db: float | None = None
    average_dbfs: float | None = None
    peak_dbfs: float | None = None
    miss_db: float = 0.0
    clip: Clip | None = None
    trouble: MarkTrouble | None = None


def can_be_marked(track: TrackLevel) -> bool:
    """Whether what a track's meter shows is one voice: of a mix nobody can say whose it is."""
    return len(track.sources) == 1 and track.role is not Role.TIMECODE


def level_mark(now: Report, then: Report, track_id: str, read_peak_dbfs: float) -> LevelMark:
    """The mark of one part. `then`: the job as it was set when the peaks were read on the track; `now`: as it is set now.

    Raises NotFoundError: the job has no such track.
    """
    now.known_track(track_id)
    louder = _louder_db(then, track_id, read_peak_dbfs)
    if isinstance(louder, MarkTrouble):
        return LevelMark(track=track_id, trouble=louder)
    return _mark(now, track_id, louder)


def _louder_db(then: Report, track_id: str, read_peak_dbfs: float) -> float | MarkTrouble:
    """By how much a source is louder than planned, taken back through the track's way, which is linear or tells nothing."""
    track = then.track(track_id)
    if track is None or not can_be_marked(track) or track.is_silent:
        return MarkTrouble.NOTHING_PLANNED
    if read_peak_dbfs >= -CEILING_WITHIN_DB:
        return MarkTrouble.AT_FULL_SCALE
    meter = then.index.meter_of(track.trace.device)
    peak_dbfs = read_peak_dbfs - (meter.reads_high_db if meter is not None else 0.0)
    louder_db = peak_dbfs - track.sound.uncut
    heard = _with_louder_source(then, track, louder_db)
    if heard is None:
        return MarkTrouble.BEYOND_REASON
    records = heard.known_track(track_id)
    is_linear = abs(records.sound.peak - peak_dbfs) <= LINEAR_WITHIN_DB and records.headroom_db > CEILING_WITHIN_DB
    return louder_db if is_linear else MarkTrouble.HELD


def _with_louder_source(report: Report, track: TrackLevel, by_db: float) -> Report | None:
    """The job with the source of a track so much louder; None where nobody is."""
    source = report.index.plan.sources[track.sources[0]]
    louder = SetSource(
        source=source.id,
        quiet_db_spl=source.quiet_db_spl + by_db,
        average_db_spl=source.average_db_spl + by_db,
        peak_db_spl=source.peak_db_spl + by_db,
    )
    if source.average_db_spl + by_db > LOUDEST_DB_SPL or source.average_db_spl + by_db < QUIETEST_DB_SPL:
        return None
    return report.edited(edited(report.index.plan, [louder]))


def _mark(now: Report, track_id: str, louder_db: float) -> LevelMark:
    heard = _with_louder_source(now, now.known_track(track_id), louder_db)
    if heard is None:
        return LevelMark(track=track_id, trouble=MarkTrouble.BEYOND_REASON)
    trial = _trial(heard, track_id)
    knob = trial.knob if trial is not None else None
    turn = _turn(heard, trial, track_id) if trial is not None else None
    after = heard.edited(edited(heard.index.plan, [turn])) if turn is not None else heard
    track = after.known_track(track_id)
    trouble = None
    if track.sound.clip is not None:
        trouble = MarkTrouble.CLIPS
    elif abs(track.miss_db or 0.0) > REACHED_WITHIN_DB:
        trouble = MarkTrouble.OUT_OF_REACH if knob is not None else MarkTrouble.NO_KNOB
    made = LevelMark(
        track=track_id,
        louder_db=louder_db,
        average_dbfs=track.sound.average,
        peak_dbfs=track.sound.peak,
        miss_db=track.miss_db or 0.0,
        clip=track.sound.clip,
        trouble=trouble,
    )
    if knob is None:
        return made
    return replace(
        made,
        device=knob.device,
        control=knob.control,
        label=find_control(now.index.unit(knob.device).device_class, knob.control).label,
        stands_db=float(knob.value),
        mark_db=float((turn or knob).value),
    )


def _trial(report: Report, track_id: str) -> Trial | None:
    """The way into a track's own device, whose knob is under the recordist's hand."""
    stage = report.known_track(track_id).trace.stage
    run = report.run_into(stage) or built_in_run(report.index, stage.device)
    return Trial(report.index.plan, run, Upstream(report, stage.device), stage.name) if run is not None else None


def _turn(heard: Report, trial: Trial, track_id: str) -> SetControl | None:
    """The knob where the part fits; lower still where it would be cut off there."""
    turn = trial.fitting_gain()
    turned = trial.with_knob(turn) if turn is not None else trial
    clip = heard.edited(turned.plan).known_track(track_id).sound.clip
    lower = turned.turned_down(clip.over_db) if clip is not None else None
    return lower or turn
