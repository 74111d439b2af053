"""The matching options of a run, each computed and ranked."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Final, NamedTuple

from tidy_trunk.core.advice.adviser.judge import STEP_DB, JointMarks, joint_marks
from tidy_trunk.core.advice.options import (
    ALLOWED_MISS_DB,
    Candidate,
    MatchingOption,
    Trial,
    Upstream,
    by_hand,
    candidates,
    option_of,
)
from tidy_trunk.core.plan import Edit, Plan, PlanIndex, School, edited
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.errors import PlanError, UnknownItemError

QUIETEST_DBFS: Final = -200.0
"""ASSUMED_ noise below which options are not told apart; what cancels altogether has none."""


class _Marked(NamedTuple):
    option: MatchingOption
    candidate: Candidate
    marks: JointMarks


def matching_options(report: Report, run_id: str, upstream: Upstream | None = None) -> list[MatchingOption]:
    """Every option for a run, best first, the one by which it is matched now among them.

    Args:
        upstream: What is known of the device that the run ends at, where somebody has it already.

    Raises:
        UnknownItemError: No such run.

    Source: [HANDBOOK] §6; the order is the judge's. Among options that he finds alike the school of the job decides: who
    records clean takes the quietest, who makes a guide what costs least.
    """
    plan = report.index.plan
    run = plan.runs.get(run_id)
    if run is None:
        raise UnknownItemError(f"there is no cable '{run_id}'; the job has {', '.join(plan.runs) or 'none'}")
    upstream = upstream or Upstream(report, run.receiving.device)
    found = [
        item
        for candidate in candidates(report.index, run)
        if (item := _compute(plan, run_id, candidate, upstream)) is not None
    ]
    if any(item.candidate.is_now and item.option.fits for item in found):
        found = [item for item in found if item.option.fits]  # it is right as it is: what is not as good is no choice
    # Attenuators come weakest first and differ by where the knob behind them happens to stop: the quietest speaks for all.
    pads = min((_hiss(item.option) for item in found if item.candidate.is_pad), default=0.0)

    def rank(item: _Marked, school: School) -> tuple[float, ...]:
        return _rank(item, pads if item.candidate.is_pad else _hiss(item.option), school)

    fitting = [item for item in found if item.option.fits]
    best = {school: min(fitting, key=lambda item: rank(item, school)).option.id for school in School if fitting}
    found.sort(key=lambda item: rank(item, plan.defaults.school))
    return [
        replace(item.option, best_for=tuple(school for school, first in best.items() if first == item.option.id))
        for item in found
    ]


def _hiss(option: MatchingOption) -> float:
    """Noise against the signal, in dB."""
    return max(option.noise_dbfs, QUIETEST_DBFS) - max(option.average_dbfs, QUIETEST_DBFS)


def _rank(item: _Marked, hiss: float, school: School) -> tuple[float, ...]:
    """What is wrong by the judge, as far as it can be heard or lost; then hiss or cost, as the school has it."""
    marks, option, candidate = item.marks, item.option, item.candidate
    missed = max(marks.off_target_db - ALLOWED_MISS_DB, 0.0)
    grave = (float(option.clips), marks.clipped_db, marks.silent, missed)
    takes_away = float(candidate.cost > 1)
    quiet = (marks.noise, marks.knobs_db, takes_away, round(hiss / STEP_DB), candidate.cost)
    cheap = (marks.noise, marks.knobs_db, takes_away, candidate.cost, marks.unsure_db)
    edits = 0.0 if candidate.is_pad else len(option.edits)
    return (*grave, *(cheap if school is School.GUIDE else (marks.unsure_db, *quiet)), marks.camera_db, edits)


def _compute(plan: Plan, run_id: str, candidate: Candidate, upstream: Upstream) -> _Marked | None:
    try:
        plan = edited(plan, candidate.edits)
        receiving = plan.runs[run_id].receiving
        placed = PlanIndex(plan, upstream.index).placed(receiving.device)
        manual = by_hand(placed, placed.input(receiving.port))
        trial = Trial(edited(plan, manual), run_id, upstream)
        turn: Sequence[Edit] = ()
        if not candidate.is_now:
            trial, turn = trial.turned()
        if not (candidate.edits or turn or candidate.is_now):
            return None
        option = option_of(
            trial,
            id=candidate.id,
            does=candidate.does,
            edits=(*manual, *candidate.edits, *turn),
            needs=candidate.needs,
            loses=candidate.loses,
            risks=candidate.risks,
        )
    except PlanError:
        return None  # an option that this plan cannot take is no option
    return None if option is None else _Marked(option, candidate, joint_marks(trial))
