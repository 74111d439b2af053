"""Signal walks: begun from the plan, marked by whoever walks, kept with their date."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Final
from uuid import UUID

from tidy_trunk.core.advice.walk import WalkItem, short_walk_items, walk_items
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.services.jobs import JobService
from tidy_trunk.store import MarkRecord, WalkRecord, WalkStore
from tidy_trunk.words import walk_words

EARLY: Final = timedelta(minutes=5)
"""ASSUMED_ how far a telephone's clock may be ahead: a mark from later than that counts as of now."""


class WalkService:
    """One method for one thing that a user does on a walk."""

    def __init__(
        self, jobs: JobService, store: WalkStore, now: Callable[[], datetime] = lambda: datetime.now(UTC)
    ) -> None:
        self._jobs = jobs
        self._store = store
        self._now = now

    def begin(self, job_id: UUID, walk_id: UUID, *, short: bool = False) -> WalkRecord:
        """A new walk along the chain as it is planned now; begun again under one id it is one.

        short: only the lines that ruin takes. Raises InputError where nothing is recorded yet.
        """
        state = self._jobs.newest(job_id)
        report = Report(trace_plan(state.evaluation.plan))
        items = short_walk_items(report) if short else walk_items(report)
        if not items:
            raise InputError("nothing is recorded yet, so that there is nothing to walk along: plan a cable first")
        # Kept as it is read to whoever walks: the plan may change meanwhile.
        return self._store.begin(
            walk_id, job_id, state.revision.number, [_kept(item, report.index) for item in items], self._now()
        )

    def all(self, job_id: UUID) -> list[WalkRecord]:
        """The walks of a job, the newest first."""
        return self._store.all(job_id)

    def get(self, job_id: UUID, walk_id: UUID) -> WalkRecord:
        return self._store.get(job_id, walk_id)

    def mark(self, job_id: UUID, walk_id: UUID, marks: Sequence[MarkRecord]) -> WalkRecord:
        """Marks as they arrive, late ones too; of two on one item the one that was made later counts."""
        latest = self._now() + EARLY
        return self._store.mark(
            job_id, walk_id, [mark if mark.made <= latest else replace(mark, made=self._now()) for mark in marks]
        )

    def delete(self, job_id: UUID, walk_id: UUID) -> None:
        self._store.delete(job_id, walk_id)


def _kept(item: WalkItem, index: PlanIndex) -> dict[str, str]:
    words = walk_words(item, index)
    return {"id": item.id, "group": words.heading, "text": words.text, "why": words.why}
