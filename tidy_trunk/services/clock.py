"""Time on a set, as a job has it."""

from dataclasses import dataclass
from uuid import UUID

from tidy_trunk.core.clock import Keeper, LateSwitcher, Pair, keepers, late_pictures, pairs
from tidy_trunk.core.levels import Report
from tidy_trunk.services.jobs import JobService


@dataclass(frozen=True, slots=True)
class ClockView:
    """Who keeps time, by what picture and sound meet, and how late pictures are."""

    report: Report
    hours: float
    keepers: tuple[Keeper, ...]
    pairs: tuple[Pair, ...]
    switchers: tuple[LateSwitcher, ...]


class ClockService:
    """What a user asks of the clocks of a job."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def view(self, job_id: UUID, hours: float) -> ClockView:
        """All of it, over a day of so many hours. Raises NotFoundError, RangeError."""
        report = self._jobs.report(job_id)
        found = keepers(report, hours)
        return ClockView(report, hours, found, pairs(report, found), late_pictures(report.rig))
