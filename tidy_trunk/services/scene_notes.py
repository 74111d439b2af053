"""What is to be known of a scene while it is shot: level marks from rehearsal, playback, and the stream."""

from uuid import UUID

from tidy_trunk.core.advice.scene_notes import level_mark, marked_tracks, playbacks, stream_feeds
from tidy_trunk.core.log import RehearsalMark, scene_of
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.results.scene_notes import LevelMarkOut, MarkedTrackOut, SceneNotesOut, ScenePartOut
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.log import LogService, revisions_at
from tidy_trunk.words.numbers import marked
from tidy_trunk.words.scene_notes import (
    PLAYBACK_CAUTION,
    mark_knob_words,
    outcome_words,
    playback_words,
    stream_words,
)


class SceneNoteService:
    """Reads what the log has of a scene by the plan as it is now, and as it was in rehearsal."""

    def __init__(self, jobs: JobService, log: LogService) -> None:
        self._jobs = jobs
        self._log = log

    def view(self, job_id: UUID, slate: str) -> SceneNotesOut:
        """The notes of the scene that a slate is of. Raises NotFoundError: no such job."""
        logged = self._log.read(job_id)
        report = logged.state.evaluation.report
        index = report.index
        scene = scene_of(slate, index.plan.defaults.slating)
        marks = [mark for mark in logged.log.marks if mark.scene.casefold() == scene.casefold()]
        heard = playbacks(report)
        return SceneNotesOut(
            scene=scene,
            parts=self._parts(job_id, report, marks),
            tracks=[
                MarkedTrackOut(
                    id=track.trace.id, label=f"{_where(report, track.trace.id)}: {_who(report, track.trace.id)}"
                )
                for track in marked_tracks(report)
            ],
            playback=playback_words(index, heard),
            playback_ready=any(way.listener for way in heard),
            playback_caution=PLAYBACK_CAUTION,
            stream=stream_words(index, stream_feeds(report)),
        )

    def _parts(self, job_id: UUID, now: Report, marks: list[RehearsalMark]) -> list[ScenePartOut]:
        if not marks:
            return []
        numbers = revisions_at(self._jobs.history(job_id), [mark.at for mark in marks])
        then = {number: self._jobs.at(job_id, number).evaluation.report for number in set(numbers)}
        parts: dict[str, ScenePartOut] = {}
        for mark, number in zip(marks, numbers, strict=True):
            if now.track(mark.track) is None:
                continue  # its device has been taken out since
            part = parts.setdefault(mark.part.casefold(), ScenePartOut(part=mark.part, marks=[]))
            part.marks.append(_mark(now, then[number], mark))
        return list(parts.values())


def _mark(now: Report, then: Report, mark: RehearsalMark) -> LevelMarkOut:
    found = level_mark(now, then, mark.track, mark.peak_dbfs)
    return LevelMarkOut(
        track=mark.track,
        where=_where(now, mark.track),
        who=_who(now, mark.track),
        read_peak_dbfs=mark.peak_dbfs,
        mark=f"{marked(found.mark_db)} dB" if found.mark_db is not None else "",
        knob=mark_knob_words(found),
        outcome=outcome_words(found),
        trouble=found.trouble,
    )


def _where(report: Report, track_id: str) -> str:
    track = report.known_track(track_id).trace
    placed = report.index.placed(track.device)
    return f"{placed.label} {placed.bus(track.bus).label}"


def _who(report: Report, track_id: str) -> str:
    return ", ".join(report.index.plan.sources[source].label for source in report.known_track(track_id).sources)
