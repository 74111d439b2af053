"""From a recording of a track back to the source: how loud it really was, and the place around it."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.base.signal import SpeechLevels
from tidy_trunk.core.base.units import db_from_ratio, ratio_from_db, sum_powers_db
from tidy_trunk.core.plan import Edit, SetJob, SetSource
from tidy_trunk.core.sound.levels.report import Report, TrackLevel
from tidy_trunk.core.sound.levels.spectra import SpectrumShape
from tidy_trunk.core.sound.trace import StageKind, upstream_of
from tidy_trunk.errors import InputError

ROOM_DB_A: Final = (0.0, 130.0)
"""ASSUMED_ what a place may be in dB(A), as a job takes it."""

HEARD_WITHIN_DB: Final = 2.0
"""ASSUMED_ ± of a source that was recorded: nobody speaks twice alike."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HeardSource:
    """What a recording says of a track's source, at 1 m, and of the place: None where its pauses tell nothing."""

    source: str
    average_db_spl: float
    quiet_db_spl: float
    peak_db_spl: float
    room_noise_db_a: float | None
    edits: tuple[Edit, ...]
    room_edits: tuple[Edit, ...]


def heard_at(report: Report, track: TrackLevel, heard: SpeechLevels) -> HeardSource:
    """A source as it was recorded, taken back through the track's way as the plan has it set.

    The chain is linear, so that what the recording is louder than the prediction the source is louder at 1 m. The gear's
    noise and the rumble are taken off the pauses by power. What is not known of the chain goes into the source, so that
    the track itself is known to what a source is louder from one time to the next.

    Raises:
        InputError: No source or several on the track, or none that arrives, a clipped recording, or a way that is not linear.
    """
    index, sound = report.index, track.sound
    if len(track.sources) != 1 or track.is_silent:
        raise InputError("a level can be read back only from a track that has one source")
    if heard.is_clipped:
        raise InputError("the recording is clipped: turn it down and record it again")
    if sound.clip is not None or sound.limited_db or sound.lifted_db or _limiters(report, track):
        raise InputError("on this track a limiter or automatic level is on, or it clips: set it right, then record")
    source = index.plan.sources[track.sources[0]]
    by_db = source.average_db_spl - sound.average
    levels = [
        round(level + by_db, 1)
        for level in (heard.quiet_dbfs, heard.average_dbfs, max(heard.peak_dbfs, heard.average_dbfs))
    ]
    room = _room_db_a(report, track, heard)
    spoken = SetSource(
        source=source.id,
        quiet_db_spl=levels[0],
        average_db_spl=levels[1],
        peak_db_spl=levels[2],
        tolerance_db=min(HEARD_WITHIN_DB, source.tolerance_db),
    )
    return HeardSource(
        source=source.label,
        quiet_db_spl=levels[0],
        average_db_spl=levels[1],
        peak_db_spl=levels[2],
        room_noise_db_a=room,
        edits=(spoken,),
        room_edits=() if room is None else (SetJob(room_noise_db_spl=room),),
    )


def _limiters(report: Report, track: TrackLevel) -> bool:
    return any(
        report.index.placed(stage.device).limiter_dbfs(report.index.placed(stage.device).input(stage.name)) is not None
        for stage in upstream_of(track.trace.stage)
        if stage.kind is StageKind.INPUT
    )


def _room_db_a(report: Report, track: TrackLevel, heard: SpeechLevels) -> float | None:
    """The place's own noise at the microphone; None where there is no pause, or gear and rumble make all of it."""
    if heard.noise_a_dbfs is None:
        return None
    noises = track.sound.noises
    room = sum_powers_db(noise.a_level for noise in noises if noise.spectrum is SpectrumShape.ROOM)
    others = sum_powers_db(noise.a_level for noise in noises if noise.spectrum is not SpectrumShape.ROOM)
    power = ratio_from_db(heard.noise_a_dbfs) ** 2 - ratio_from_db(others) ** 2
    if power <= 0:
        return None
    level = db_from_ratio(power**0.5) - room
    return round(min(max(report.index.plan.defaults.room_noise_db_spl + level, ROOM_DB_A[0]), ROOM_DB_A[1]), 1)
