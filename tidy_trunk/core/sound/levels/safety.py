"""Safety tracks: where else a source is kept, what that guards against, and what would take both."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.sound.levels.report import Report, TrackLevel
from tidy_trunk.core.sound.trace import KnownParts, PlanPart, StageKind, parts_on_all_ways

SAFETY_FROM_DB: Final = 6.0
"""Least that a safety track lies lower; up to 20 dB are usual. [PRACTICE]"""

SAFETY_TO_DB: Final = 20.0
"""How much lower a safety track is kept at most. [PRACTICE]"""


def is_safety(track: TrackLevel, first: TrackLevel) -> bool:
    """Whether a track has the very sound that another has, lower, for a burst.

    Another microphone at the same voice is none: it has a target of its own.
    """
    lower_db = first.sound.average - track.sound.average
    same = track.trace.stage.origin == first.trace.stage.origin
    return bool(track.sources) and same and SAFETY_FROM_DB <= lower_db <= SAFETY_TO_DB


@dataclass(frozen=True, slots=True, kw_only=True)
class Safety:
    """Another track that keeps a source of this one.

    lower_db: by how much its average lies lower; negative where it lies higher.
    rise_db: by how much the expected peaks may rise before anything on its way cuts them; inf for float all the way.
    more_db: how much more that is than this track takes; 0 where it takes no more.
    parts, shared: what every way of the source hangs on there, and what of it takes this track too.
    """

    track: TrackLevel
    lower_db: float
    rise_db: float
    more_db: float
    parts: frozenset[PlanPart]
    shared: frozenset[PlanPart]


def safeties(report: Report, track: TrackLevel) -> tuple[Safety, ...]:
    """Other tracks that keep this one's loudest source, those that guard most first.

    Source: [HANDBOOK] §6: a second track protects only where it parts before what can clip or fail.
    """
    source = _loudest(report, track)
    if not source:
        return ()
    known: KnownParts = {}
    here = parts_on_all_ways(track.trace.stage, source, known)
    found = []
    for other in report.tracks:
        if other.trace.id == track.trace.id or source not in other.sources or other.is_silent:
            continue
        parts = parts_on_all_ways(other.trace.stage, source, known)
        mine, rise = track.headroom_db, other.headroom_db
        found.append(
            Safety(
                track=other,
                lower_db=track.sound.average - other.sound.average,
                rise_db=rise,
                more_db=max(rise - mine, 0.0) if rise != mine else 0.0,
                parts=parts,
                shared=parts & here,
            )
        )
    return tuple(sorted(found, key=lambda item: (-item.more_db, len(item.shared))))


def _loudest(report: Report, track: TrackLevel) -> str:
    """The source that the track's loudest way begins with; "" where it has none."""
    first = report.main_path(track.trace.stage)[0]
    return first.name if first.kind is StageKind.SOUND else ""
