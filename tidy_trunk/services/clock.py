"""Time on a set, as a job has it."""

from dataclasses import dataclass
from uuid import UUID

from tidy_trunk.core.clock import ClockDay, Keeper, LateScreen, Pair, clock_day, keepers, late_screens, pairs
from tidy_trunk.core.levels import Report
from tidy_trunk.services.jobs import JobService


@dataclass(frozen=True, slots=True)
class ClockView:
    """Who keeps time, the day of those that run alone, by what picture and sound meet, and how late both are."""

    report: Report
    keepers: tuple[Keeper, ...]
    days: tuple[ClockDay, ...]
    pairs: tuple[Pair, ...]
    screens: tuple[LateScreen, ...]


class ClockService:
    """What a user asks of the clocks of a job."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def view(self, job_id: UUID) -> ClockView:
        """All of it. Raises NotFoundError."""
        report = self._jobs.report(job_id)
        found = keepers(report)
        days = (clock_day(report.rig, keeper) for keeper in found)
        return ClockView(
            report, found, tuple(day for day in days if day is not None), pairs(report, found), late_screens(report)
        )
