"""Level marks: what a meter showed in rehearsal says how loud a part of a scene is, and so where its knob wants to stand.

Source: [HANDBOOK] §6: in rehearsal level marks are written down for each part of a scene, and ridden in the take.
"""

from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.line_up import Knob, knobs_along
from tidy_trunk.core.advice.options import PEAK_MARGIN_DB
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import Role, SetControl, SetSource, edited
from tidy_trunk.core.sound.levels import Clipping, Report, TrackLevel
from tidy_trunk.core.sound.trace import StageKind

CEILING_WITHIN_DB: Final = 0.5
"""ASSUMED_ below full scale, and below what cuts sound off: half the step of most meters. What reads there may be any louder."""

LINEAR_WITHIN_DB: Final = 1.0
"""ASSUMED_ by how much a reading may differ from what the chain would record of so loud a voice: more, and something held it."""

MOST_TURNS: Final = 4
"""ASSUMED_ times that a knob is set anew until nothing is cut off: what clips first is found at once."""

OUT_OF_HAND: Final = frozenset({DeviceKind.TRANSMITTER, DeviceKind.RECEIVER})
"""Devices whose gain nobody rides in a take: it is on a body, or on a camera. [PRACTICE]"""

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
    clip: Clipping | None = None
    trouble: MarkTrouble | None = None


def can_be_marked(track: TrackLevel) -> bool:
    """Whether what a track's meter shows is one voice: of a mix nobody can say whose it is."""
    return len(track.sources) == 1 and track.role is not Role.TIMECODE


def marked_tracks(report: Report) -> tuple[TrackLevel, ...]:
    """Those that are read in rehearsal: one for each knob, as a mix of one voice shows what its track shows."""
    found: dict[tuple[str, str], TrackLevel] = {}
    for track in report.tracks:
        if can_be_marked(track) and not track.is_silent:
            knob = _knob(report, track.trace.id)
            key = (knob.device, knob.control) if knob is not None else (track.trace.id, "")
            found.setdefault(key, track)
    return tuple(found.values())


def level_mark(now: Report, then: Report, track_id: str, read_peak_dbfs: float) -> LevelMark:
    """The mark of one part. `then`: the job as it was set when the peaks were read on the track; `now`: as it is set now.

    Raises NotFoundError: the job has no such track.
    """
    now.known_track(track_id)
    found = _read(then, track_id, read_peak_dbfs)
    return found if found.louder_db is None else _mark(now, track_id, found.louder_db)


def _read(then: Report, track_id: str, read_peak_dbfs: float) -> LevelMark:
    """By how much a source is louder than planned, taken back through the track's way, which is linear or tells nothing: then
    with what cuts it off."""
    track = then.track(track_id)
    if track is None or not can_be_marked(track) or track.is_silent:
        return LevelMark(track=track_id, trouble=MarkTrouble.NOTHING_PLANNED)
    if read_peak_dbfs >= -CEILING_WITHIN_DB:
        return LevelMark(track=track_id, trouble=MarkTrouble.AT_FULL_SCALE)
    meter = then.index.meter_of(track.trace.device)
    peak_dbfs = read_peak_dbfs - (meter.reads_high_db if meter is not None else 0.0)
    louder_db = peak_dbfs - track.sound.uncut
    heard = _with_louder_source(then, track, louder_db)
    if heard is None:
        return LevelMark(track=track_id, trouble=MarkTrouble.BEYOND_REASON)
    records = heard.known_track(track_id)
    is_linear = abs(records.sound.peak - peak_dbfs) <= LINEAR_WITHIN_DB and records.headroom_db > CEILING_WITHIN_DB
    if is_linear:
        return LevelMark(track=track_id, louder_db=louder_db)
    return LevelMark(track=track_id, trouble=MarkTrouble.HELD, clip=records.sound.clip)


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
    knob = _knob(heard, track_id)
    after, mark_db = (heard, 0.0) if knob is None else _turned(heard, track_id, knob)
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
        label="gain" if knob.device == track.trace.device else knob.label,
        stands_db=knob.stands_db,
        mark_db=mark_db,
    )


def _knob(report: Report, track_id: str) -> Knob | None:
    """The gain that is ridden: that of the track's own device, else the last one before it."""
    track = report.known_track(track_id)
    gains = [
        knob
        for knob in knobs_along(report, report.main_path(track.trace.stage))
        if knob.kind is StageKind.INPUT and report.index.placed(knob.device).device_class.kind not in OUT_OF_HAND
    ]
    return gains[-1] if gains else None


def _turned(heard: Report, track_id: str, knob: Knob) -> tuple[Report, float]:
    """The knob where the part fits, and what is then recorded; lower still where it would be cut off there."""
    track = heard.known_track(track_id)
    crest_db = _crest_db(heard, track)
    peak = track.sound.uncut
    level = peak if track.target.of_peaks else peak - crest_db
    by_db = 0.0
    if track.target.miss_db(peak - crest_db, peak) or peak > -PEAK_MARGIN_DB:
        middle = (track.target.low_dbfs + track.target.high_dbfs) / 2
        # To the middle, with room above the peaks as far as the target allows.
        by_db = max(min(middle - level, -PEAK_MARGIN_DB - peak), track.target.low_dbfs - level)
        if not heard.index.placed(track.trace.device).device_class.traits.is_float:
            # Room for a burst too, as in a gain plan.
            by_db = max(min(by_db, -peak - _burst_db(heard, track)), min(track.target.low_dbfs - level, by_db))
    gives_db = knob.span.gain_db(knob.stands_db)
    lowest_db = knob.span.lowest_db
    for _ in range(MOST_TURNS):
        mark_db = knob.stands_db if not by_db else knob.span.nearest_db(max(gives_db + by_db, lowest_db))
        turn = SetControl(device=knob.device, control=knob.control, value=mark_db)
        after = heard if mark_db == knob.stands_db else heard.edited(edited(heard.index.plan, [turn]))
        found = after.known_track(track_id)
        clip = found.sound.clip
        short_db = -(found.miss_db or 0.0) if (found.miss_db or 0.0) < 0 else 0.0
        if clip is not None and knob.span.gain_db(mark_db) > lowest_db and clip.over_db > 0:
            by_db = knob.span.gain_db(mark_db) - gives_db - clip.over_db - knob.span.step_db / 2
        elif clip is None and REACHED_WITHIN_DB < short_db <= knob.span.step_db and mark_db < knob.span.maximum_db:
            by_db = knob.span.gain_db(mark_db) - gives_db + knob.span.step_db
        else:
            break
    return after, mark_db


def _burst_db(report: Report, track: TrackLevel) -> float:
    """By how much what comes unannounced lies above its peaks."""
    source = report.index.plan.sources[track.sources[0]]
    return source.burst_db_spl - source.peak_db_spl


def _crest_db(report: Report, track: TrackLevel) -> float:
    """By how much the peaks of a track's voice lie above its average."""
    source = report.index.plan.sources[track.sources[0]]
    return source.peak_db_spl - source.average_db_spl
