"""Where every knob of a job should stand: at once for most jobs, by a worker where it takes longer than anybody waits."""

from typing import Final
from uuid import UUID

from tidy_trunk.core.advice.adviser import GainPlan, Pins
from tidy_trunk.services.jobs import JobService, plan_document
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord
from tidy_trunk.tasks.requests import PlanGain

MOST_AT_ONCE: Final = 60
"""ASSUMED_ devices and cables of a job whose gain plan is made while one waits: half a second; it grows with their square."""


class GainPlanService:
    """One method for one thing that a user does with a gain plan. Nothing of a job changes."""

    def __init__(self, jobs: JobService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._recordings = recordings

    def make(self, job_id: UUID, pins: Pins) -> GainPlan | RecordingRecord:
        """A gain plan, or what is looked after until there is one; an earlier one that is under way is left.

        pins: controls that stay as they are.

        Raises NotFoundError: no such job.
        """
        plan = self._jobs.plan(job_id)
        if len(plan.devices) + len(plan.runs) <= MOST_AT_ONCE:
            return self._jobs.gain_plan(job_id, pins)
        for record in self._recordings.of_kind(job_id, PlanGain):
            self._recordings.delete(job_id, record.id)
        return self._recordings.work_out(
            job_id, "gain plan", PlanGain(plan=plan_document(plan), pins=tuple(sorted(pins)))
        )

    def get(self, job_id: UUID, task_id: UUID) -> RecordingRecord:
        """How far one is, and the plan once it is done. Raises NotFoundError: no such one, or a newer one has taken its place."""
        return self._recordings.get(job_id, task_id)

    def cancel(self, job_id: UUID, task_id: UUID) -> None:
        """Nobody waits for it any more. Raises NotFoundError."""
        self._recordings.delete(job_id, task_id)
