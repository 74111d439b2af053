"""What is wrong: a symptom on a track of a job, and the answers so far."""

from collections.abc import Sequence
from uuid import UUID

from tidy_trunk.core.advice.adviser import Adviser
from tidy_trunk.core.advice.fault_search import Search, SearchAnswer, Symptom, search, symptom_in
from tidy_trunk.errors import InputError
from tidy_trunk.services.jobs import JobService


class FaultSearchService:
    """One method for one thing that a user does when something is wrong."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def search(
        self, job_id: UUID, symptom: Symptom | None, text: str, track_id: str, answers: Sequence[SearchAnswer]
    ) -> tuple[Search, Adviser]:
        """How far the search is, and who knows what mends a finding.

        Args:
            symptom: None where it is to be read from `text`.
            track_id: "" for the last track of the chain that something reaches.

        Raises:
            InputError: The text names no symptom, or the job records nothing yet.
            NotFoundError: No such job or track.
        """
        meant = symptom or symptom_in(text)
        if meant is None:
            raise InputError(
                f"'{text.strip()[:80]}' names nothing that is known here: say hum, hiss, distorted, too quiet, one side missing, "
                "meters differ, out of sync or dropouts"
            )
        report = self._jobs.report(job_id)
        reached = [track for track in report.tracks if track.is_reached] or list(report.tracks)
        if not reached:
            raise InputError("nothing is recorded in this job yet: connect a microphone to a recorder or camera first")
        track = report.known_track(track_id) if track_id else reached[-1]
        adviser = Adviser(report)
        return search(report, adviser.findings, meant, track, answers), adviser
