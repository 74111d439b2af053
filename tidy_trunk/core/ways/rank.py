"""The ways to match a run, each computed and ranked."""

from dataclasses import replace
from typing import Final

from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import Edit, Plan, Rig, School, edited
from tidy_trunk.core.ways.candidates import Candidate, candidates
from tidy_trunk.core.ways.trial import ALLOWED_MISS_DB, Trial, Upstream, by_hand
from tidy_trunk.core.ways.way import AUDIBLE_DB, Way, way_of
from tidy_trunk.errors import PlanError, UnknownItemError

QUIETEST_DBFS: Final = -200.0
"""ASSUMED_ noise below which ways are not told apart; what cancels altogether has none."""

TOLD_APART_DB: Final = 3.0
"""ASSUMED_ step in which hiss is compared: less is no reason to carry a stronger pad."""


def ways(report: Report, run_id: str) -> list[Way]:
    """Every way for a run, best first: what fits, then what keeps the sender's full scale, then the least
    noise against the signal.

    Raises:
        UnknownItemError: No such run.

    Source: [HANDBOOK] §6; the order among ways that fit is that of the job's school.
    """
    plan = report.rig.plan
    run = plan.runs.get(run_id)
    if run is None:
        raise UnknownItemError(f"there is no run '{run_id}'; the job has {', '.join(plan.runs) or 'none'}")
    upstream = Upstream(report, run.receiving.device)
    found = [
        (way, candidate)
        for candidate in candidates(report.rig, run)
        if (way := _compute(plan, run_id, candidate, upstream)) is not None
    ]
    # Pads come weakest first and differ by where the knob behind them happens to stop: the quietest speaks for all.
    pads = min((_hiss(way) for way, candidate in found if candidate.is_pad), default=0.0)

    def rank(item: tuple[Way, Candidate], school: School) -> tuple[float, ...]:
        way, candidate = item
        return _rank(way, candidate, pads if candidate.is_pad else _hiss(way), school)

    fitting = [item for item in found if item[0].fits]
    best = {school: min(fitting, key=lambda item: rank(item, school))[0].id for school in School if fitting}
    found.sort(key=lambda item: rank(item, plan.defaults.school))
    return [
        replace(way, best_for=tuple(school for school, first in best.items() if first == way.id)) for way, _ in found
    ]


def gain_way(upstream: Upstream, run_id: str) -> Edit | None:
    """Only the receiving knob, moved to where it fits; None where it stands right, cannot help or there is none.

    upstream: of the device that the run ends at.
    """
    turned, edits = Trial(upstream.rig.plan, run_id, upstream).turned()
    sound = turned.sound if edits else None
    if sound is None or sound.clip is not None:
        return None
    miss = turned.target.miss_db(sound.average, sound.peak)
    return edits[0] if abs(miss) <= ALLOWED_MISS_DB else None


def _hiss(way: Way) -> float:
    """Noise against the signal, in dB."""
    return max(way.noise_dbfs, QUIETEST_DBFS) - max(way.average_dbfs, QUIETEST_DBFS)


def _rank(way: Way, candidate: Candidate, hiss: float, school: School) -> tuple[float, ...]:
    """What comes first: the quietest; for who makes a guide what costs least, among ways whose hiss the room hides."""
    grave = (float(way.clips), float(not way.fits))
    takes_away = float(candidate.cost > 1)
    if school is School.GUIDE and way.below_room_db >= AUDIBLE_DB:
        return (*grave, 0.0, takes_away, candidate.cost, float(not way.sure), len(way.edits))
    third = float(not way.sure) if school is School.CLEAN else 1.0
    edits = 0.0 if candidate.is_pad else len(way.edits)
    return (*grave, third, takes_away, round(hiss / TOLD_APART_DB), candidate.cost, edits)


def _compute(plan: Plan, run_id: str, candidate: Candidate, upstream: Upstream) -> Way | None:
    try:
        plan = edited(plan, candidate.edits)
        receiving = plan.runs[run_id].receiving
        unit = Rig(plan, upstream.rig).unit(receiving.device)
        manual = by_hand(unit, unit.input(receiving.port))
        trial, turn = Trial(edited(plan, manual), run_id, upstream).turned()
        if not (candidate.edits or turn):
            return None
        return way_of(
            trial,
            id=candidate.id,
            label=candidate.label,
            edits=(*manual, *candidate.edits, *turn),
            needs=candidate.needs,
            loses=candidate.loses,
            risk=candidate.risk,
        )
    except PlanError:
        return None  # a way that this plan cannot take is no way
