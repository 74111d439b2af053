"""The day of a job: planned from its beginning, or from now on by what was logged."""

from collections.abc import Callable
from datetime import UTC, datetime
from uuid import UUID

from tidy_trunk.core.command import sheet_edits
from tidy_trunk.core.day import NOTHING_DONE, plan_day
from tidy_trunk.core.plan import Edit, apply_edits
from tidy_trunk.exports import read_day_sheet
from tidy_trunk.reports import day_calendar, day_csv, day_sheet
from tidy_trunk.results.day import DayOut
from tidy_trunk.services.log import LogService


class DayService:
    """One method for one thing that a user asks of a day."""

    def __init__(self, log: LogService, now: Callable[[], datetime] = lambda: datetime.now(UTC)) -> None:
        self._log = log
        self._now = now

    def plan(self, job_id: UUID, *, from_now: bool, is_first: bool = False) -> tuple[str, DayOut]:
        """The name of a job and its day; from now on only where the day is on. `is_first`: quick, and nearly as good.

        Raises NotFoundError.
        """
        found, now = self._log.read(job_id), self._now()
        evaluation = found.state.evaluation
        defaults = evaluation.plan.defaults
        minutes = found.clock.minutes(now)
        is_on = from_now and defaults.day_begins_min <= minutes < defaults.day_ends_min
        progress = self._log.progress(found, now) if is_on else NOTHING_DONE
        day = plan_day(evaluation.report, progress, is_first=is_first)
        return evaluation.plan.name, DayOut.from_core(evaluation.index, day)

    def sheet(self, job_id: UUID, data: bytes) -> tuple[Edit, ...]:
        """The edits that bring a calendar or a table of the day into a job; nothing is kept yet.

        Raises:
            NotFoundError: No such job.
            FormatError, InputError: It is no day sheet, or there is nothing in it.
        """
        found = self._log.read(job_id)
        plan = found.state.evaluation.plan
        edits = sheet_edits(plan, read_day_sheet(data, found.clock.day, plan.defaults.zone))
        apply_edits(plan, edits)
        return edits

    def file(self, job_id: UUID, kind: str, paper: str = "a4", made: datetime | None = None) -> tuple[str, bytes]:
        """The whole day as a file, with its name. kind: pdf, csv or ics; made: the moment that it says, else now.

        Raises NotFoundError.
        """
        name, day = self.plan(job_id, from_now=False)
        now = made or self._now()
        if kind == "pdf":
            return "day.pdf", day_sheet(name, day, paper=paper, made=now)
        return f"day.{kind}", day_csv(day) if kind == "csv" else day_calendar(name, day, now.date(), now)
