"""All papers of a day in one archive with their checksums; the same state of everything gives the same bytes."""

from uuid import UUID

from tidy_trunk.core.log import TakeStatus
from tidy_trunk.errors import NotFoundError
from tidy_trunk.reports import package
from tidy_trunk.results.log import LogOut
from tidy_trunk.services.day_files import DayFileService
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.log import LogService, log_paper, log_stamp
from tidy_trunk.services.papers import PaperService
from tidy_trunk.services.shooting_day import DayService


class DayPackageService:
    """What editorial and the archive get."""

    def __init__(
        self, jobs: JobService, log: LogService, day: DayService, files: DayFileService, papers: PaperService
    ) -> None:
        self._jobs = jobs
        self._log = log
        self._day = day
        self._files = files
        self._papers = papers

    def zipped(self, job_id: UUID, paper: str) -> tuple[str, bytes]:
        """Reports, circled takes, photographs, the day, what the files say, the plan with its settings and patch; and its name.

        Raises NotFoundError: no such job.
        """
        log = self._log.view(job_id)
        made = log_stamp(log)
        found = {f"{name}.{kind}": log_paper(log, kind, paper) for name, kind in _of_log(log)}
        found |= {f"photographs/{photo.id}.jpg": self._log.photo(job_id, UUID(photo.id)) for photo in log.photos}
        found |= {f"day.{kind}": self._day.file(job_id, kind, paper, made)[1] for kind in ("pdf", "csv", "ics")}
        found |= self._papers.package(job_id, paper) | self._of_files(job_id, paper)
        return f"sound-{log.day}.zip", package({**found, "plan.json": self._jobs.export(job_id)}, made)

    def _of_files(self, job_id: UUID, paper: str) -> dict[str, bytes]:
        """What the recordings say of themselves and the sheet for the edit, where they have been read."""
        try:
            said = self._files.beside_log(job_id).model_dump_json(indent=1).encode()
            sheets = {f"for-the-edit.{kind}": self._files.hand_over(job_id, kind, paper)[1] for kind in ("pdf", "csv")}
        except NotFoundError:
            return {}
        return {"files.json": said, **sheets}


def _of_log(log: LogOut) -> list[tuple[str, str]]:
    """Papers of the log: what there is; without a circled take no edit list."""
    kinds = [("sound-report", kind) for kind in ("pdf", "csv", "txt", "json")]
    if any(take.status is TakeStatus.CIRCLED and not take.struck and take.seconds for take in log.takes):
        kinds += [("circled-takes", "edl"), ("circled-takes", "otio")]
    return kinds
