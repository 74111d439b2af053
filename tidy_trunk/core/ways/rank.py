"""The ways to match a run, each computed and ranked."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.levels import Report, Sound
from tidy_trunk.core.plan import Edit, Plan, School
from tidy_trunk.core.units import SILENCE_DB
from tidy_trunk.core.ways.candidates import Candidate, candidates
from tidy_trunk.core.ways.trial import ALLOWED_MISS_DB, Trial, Upstream
from tidy_trunk.errors import PlanError, UnknownItemError

QUIETEST_DBFS: Final = -200.0
"""ASSUMED_ noise below which ways are not told apart; what cancels altogether has none."""

TOLD_APART_DB: Final = 3.0
"""ASSUMED_ step in which hiss is compared: less is no reason to carry a stronger pad."""

AUDIBLE_DB: Final = 10.0
"""Gear noise this far below the room's adds less than half a decibel to it. [HANDBOOK]: powers add"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A way with its result at the first track (or mix) that the run reaches, in dBFS.

    headroom_db: to full scale above the expected peaks, negative where they are cut off.
    noise_dbfs: of the gear, unweighted, as a meter shows it; below_room_db: how far it lies below the room to the ear.
    full_scale_margin_db: from the sender's full scale to what the input takes; negative where a burst would clip.
    sure: that margin is larger than the ± of the figures behind it.
    fits: neither clips nor misses the target.
    """

    id: str
    label: str
    edits: tuple[Edit, ...]
    needs: str
    loses: str
    average_dbfs: float
    peak_dbfs: float
    headroom_db: float
    noise_dbfs: float
    below_room_db: float
    ruled_by: str
    tolerance_db: float
    full_scale_margin_db: float
    sure: bool
    clips: bool
    fits: bool
    verdict: str


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
    upstream = Upstream(report, run)
    found = [
        (way, candidate)
        for candidate in candidates(report.rig, run)
        if (way := _compute(plan, run_id, candidate, upstream)) is not None
    ]
    # Pads come weakest first and differ by where the knob behind them happens to stop: the quietest speaks for all.
    pads = min((_hiss(way) for way, candidate in found if candidate.is_pad), default=0.0)
    found.sort(
        key=lambda item: _rank(item[0], item[1], pads if item[1].is_pad else _hiss(item[0]), plan.defaults.school)
    )
    return [way for way, _ in found]


def gain_way(report: Report, run_id: str) -> Edit | None:
    """Only the receiving knob, moved to where it fits; None where it stands right, cannot help or there is none."""
    turned, edits = Trial(report.rig.plan, run_id, Upstream(report, report.rig.plan.runs[run_id])).turned()
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
        for edit in candidate.edits:
            plan = edit.apply(plan)
        trial, turn = Trial(plan, run_id, upstream).turned()
        sound = trial.sound
    except PlanError:
        return None  # a way that this plan cannot take is no way
    edits = (*candidate.edits, *turn)
    if sound is None or not edits:
        return None
    ruling = sound.ruling_noise
    margin, doubt = trial.margin_db()
    miss = trial.target.miss_db(sound.average, sound.peak)
    clips = sound.clip is not None
    silent = sound.average == SILENCE_DB
    fits = not clips and not silent and abs(miss) <= ALLOWED_MISS_DB
    below = sound.room_noise_a - sound.gear_noise_a
    return Way(
        id=candidate.id,
        label=candidate.label,
        edits=edits,
        needs=candidate.needs,
        loses=candidate.loses,
        average_dbfs=sound.average,
        peak_dbfs=sound.peak,
        headroom_db=-sound.clip.over_db if sound.clip else -sound.peak,
        noise_dbfs=sound.gear_noise,
        below_room_db=below,
        ruled_by=ruling.name if ruling else "",
        tolerance_db=sound.tolerance_db,
        full_scale_margin_db=margin,
        sure=margin > doubt,
        clips=clips,
        fits=fits,
        verdict=_verdict(sound, miss, below, margin),
    )


def _verdict(sound: Sound, miss: float, below: float, margin: float) -> str:
    if sound.average == SILENCE_DB:
        return "nothing arrives"
    if sound.clip is not None:
        return f"still clips by {sound.clip.over_db:.1f} dB"
    if miss < -ALLOWED_MISS_DB:
        return f"{-miss:.0f} dB below the target"
    if miss > ALLOWED_MISS_DB:
        return f"{miss:.0f} dB above the target"
    if margin < -ALLOWED_MISS_DB:
        return f"fits, but a full-scale burst would clip by {-margin:.0f} dB"
    if below >= AUDIBLE_DB:
        return f"fits; its hiss lies {below:.0f} dB below the room: nobody will hear it"
    return "fits; its hiss can be heard beside the room"
