"""The judge: what is wrong with a plan, as one ordered number. Nothing else decides what is better."""

import math
from collections.abc import Callable, Iterable, Sequence
from typing import Final, NamedTuple

from tidy_trunk.core.advice.checks import Finding, Severity
from tidy_trunk.core.advice.options import ALLOWED_MISS_DB, AUDIBLE_DB, JUST_DB, Trial
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.gear.catalogue import Signal
from tidy_trunk.core.plan import Plan, PlanIndex, PortRef, Role, Run
from tidy_trunk.core.sound.levels import Report, SignalLevels, TrackLevel
from tidy_trunk.core.time.clock import jams_too_often

STEP_DB: Final = 3.0
"""ASSUMED_ step in which hiss, bursts and cautions are compared: less is no reason to carry an attenuator or to move a knob."""

HARMING: Final = frozenset({"harmful-power"})
"""Rules whose stops harm gear or people, and not only the recording. [IEC61938]"""

NEAR_BEST_DB: Final = 9.0
"""ASSUMED_ how far a camera may stand above the step over its lowest and still be where it belongs."""


class Judgement(NamedTuple):
    """What is wrong with a plan, gravest first; compared part by part, and less is better.

    harmed: stops that harm gear or people.
    ruined, ruined_db: the other stops, and by how many decibels together.
    at_risk, at_risk_steps: cautions, and by how much together, in steps of 3 dB.
    bursts: what a laugh or a shout that nobody planned for would lose, over all tracks, in steps of 3 dB.
    noise: gear noise that the place does not hide, in steps of 3 dB over all tracks.
    off_target_db: distance of the tracks from their targets.
    notes: what is worth knowing, and could be put right.
    cost: things to buy or to carry, and outputs and monitors that are taken away.
    knobs_db: how far cameras that other gear feeds stand from where they are best left, beyond 9 dB.

    Source of the order: [HANDBOOK] §6, first what cannot be mended afterwards, then what a voice loses, then what the
    ear finds, and only then what it costs.
    """

    harmed: float = 0.0
    ruined: float = 0.0
    ruined_db: float = 0.0
    at_risk: float = 0.0
    at_risk_steps: float = 0.0
    bursts: float = 0.0
    noise: float = 0.0
    off_target_db: float = 0.0
    notes: float = 0.0
    cost: float = 0.0
    knobs_db: float = 0.0


def wrong(judged: Judgement) -> tuple[float, ...]:
    """All that is wrong with a plan, without what it costs and what is worth knowing."""
    return judged._replace(notes=0.0, cost=0.0)


def judge(report: Report, findings: Sequence[Finding]) -> Judgement:
    """What is wrong with a plan, from the levels and findings that the screens show.

    Args:
        report: Traces and levels of the plan.
        findings: All that `check` has to say of it.
    """
    stops = [finding for finding in findings if finding.severity is Severity.STOP]
    cautions = [finding for finding in findings if finding.severity is Severity.CAUTION]
    harming = [finding for finding in stops if finding.rule in HARMING]
    ruining = [finding for finding in stops if finding.rule not in HARMING]
    heard = [track for track in report.tracks if track.role is not Role.TIMECODE and not track.is_silent]
    return Judgement(
        harmed=float(len(harming)),
        ruined=float(len(ruining)),
        ruined_db=_decibels(ruining),
        at_risk=float(len(cautions)),
        at_risk_steps=_steps(_decibels(cautions)),
        bursts=_steps(_worst(heard, lambda track: 0.0 if track.role is Role.GUIDE else burst_db(track.sound))),
        noise=_worst(heard, lambda track: float(noise_steps(track))),
        off_target_db=_whole(_worst(heard, lambda track: 0.0 if _is_float(report.index, track) else _miss_db(track))),
        notes=float(sum(finding.severity is Severity.NOTE for finding in findings)),
        cost=_cost(report.index),
        knobs_db=_whole(sum(far_db(report.index, run) for run in report.index.plan.runs.values())),
    )


def _worst(tracks: Iterable[TrackLevel], mark: Callable[[TrackLevel], float]) -> float:
    """The sum over all tracks, of those that the same sockets feed the worst alone: two sides of one are one recording."""
    found: dict[tuple[object, ...], float] = {}
    for track in tracks:
        feeds = track.trace.stage.feeds
        sockets = feeds[0][0].name if len(feeds) == 1 else frozenset(feed.name for feed, _ in feeds)
        key = (track.trace.device, sockets)
        found[key] = max(found.get(key, 0.0), mark(track))
    return sum(found.values())


def _miss_db(track: TrackLevel) -> float:
    return abs(track.miss_db or 0.0)


def tracks_marks(report: Report, tracks: Iterable[str]) -> tuple[float, float, float]:
    """Bursts, audible noise and distance from target, as in `Judgement`, of some tracks alone."""
    found = [track for track_id in tracks if (track := report.track(track_id)) is not None and not track.is_silent]
    return (
        _steps(_worst(found, lambda track: burst_db(track.sound))),
        _worst(found, lambda track: float(noise_steps(track))),
        _whole(_worst(found, _miss_db)),
    )


class JointMarks(NamedTuple):
    """What is wrong where a run arrives: the parts of the judgement that its own joint decides, in the same order.

    clipped_db: expected peaks cut at the receiver; silent: 1 where nothing arrives that ought to.
    off_target_db: distance of the average from the target.
    bursts_db, noise, knobs_db: as in `Judgement`.
    unsure_db: by how much the sender's full scale may stand above what a microphone input takes.
    camera_db: as knobs_db, from the very step where a camera is best left.
    """

    clipped_db: float = 0.0
    silent: float = 0.0
    off_target_db: float = 0.0
    bursts_db: float = 0.0
    noise: float = 0.0
    knobs_db: float = 0.0
    unsure_db: float = 0.0
    camera_db: float = 0.0


def joint_marks(trial: Trial) -> JointMarks:
    """What is wrong at the track that a run reaches, as it is tried."""
    sound = trial.sound
    if sound is None:
        return JointMarks()
    silent = sound.average == SILENCE_DB
    margin, doubt = trial.margin_db()
    here = trial.run.receiving.device
    clip, burst = sound.clip, sound.burst_clip
    return JointMarks(
        clipped_db=_up(clip.over_db) if clip is not None and clip.device == here else 0.0,
        silent=float(silent and bool(trial.has_source)),
        off_target_db=0.0 if silent else _up(abs(trial.target.miss_db(sound.average, sound.peak))),
        unsure_db=_up(max(doubt - margin, 0.0)) if math.isfinite(margin) and trial.mode.signal is Signal.MIC else 0.0,
        bursts_db=_up(burst.over_db) if burst is not None and burst.device == here else 0.0,
        noise=float(noise_steps(sound)),
        knobs_db=far_db(trial.index, trial.run),
        camera_db=above_best_db(trial.index, trial.run),
    )


def burst_db(sound: SignalLevels) -> float:
    """What is cut off a burst while the expected peaks fit, where it is worth telling."""
    over = sound.burst_clip.over_db if sound.burst_clip is not None and sound.clip is None else 0.0
    return over if over > ALLOWED_MISS_DB else 0.0


def noise_steps(sound: SignalLevels | TrackLevel) -> int:
    """Gear noise by ear, as far as the place does not hide it, in steps of 3 dB."""
    above = sound.gear_noise_a - (sound.room_noise_a - AUDIBLE_DB)
    return round(above / STEP_DB) if math.isfinite(above) and above > 0 else 0


def above_best_db(index: PlanIndex, run: Run) -> float:
    """How far the camera input that a run ends at stands from where it is best left, where other gear feeds it; else 0."""
    placed = index.placed(run.receiving.device)
    if index.placed(run.sending.device).device_class.feeding is not None:
        return 0.0
    return placed.above_best_db(placed.input(run.receiving.port))


def far_db(index: PlanIndex, run: Run) -> float:
    """The same beyond 9 dB."""
    return max(above_best_db(index, run) - NEAR_BEST_DB, 0.0)


def _decibels(findings: Iterable[Finding]) -> float:
    """By how much the findings that measure something are over or under, in whole decibels."""
    return _whole(sum(abs(finding.measured_db or 0.0) for finding in findings))


def _up(value: float) -> float:
    """The next whole decibel; what is printed as none is none."""
    return float(math.ceil(value - JUST_DB))


def _steps(value: float) -> float:
    """In steps of 3 dB."""
    return float(round(value / STEP_DB)) if math.isfinite(value) else 0.0


def _whole(value: float) -> float:
    return float(round(value)) if math.isfinite(value) else 0.0


def _is_float(index: PlanIndex, track: TrackLevel) -> bool:
    return index.placed(track.trace.device).device_class.traits.is_float


def _cost(index: PlanIndex) -> float:
    """Boxes and leads to carry, attenuators and isolators twice since they must be had, headphone sockets used up, and jams
    so often that no crew keeps to them."""
    plan: Plan = index.plan
    leads = [index.lead_of(part) for run in plan.runs.values() for part in run.parts]
    special = sum(lead.loss_db is not None or lead.isolates for lead in leads)
    taken = sum(
        port.is_headphone and bool(index.leaving.get(PortRef(placed.device.id, port.id)))
        for placed in index.placed_devices()
        for port in placed.device_class.outputs
    )
    jams = sum(jams_too_often(device.jam.at_min) for device in plan.devices.values() if device.jam is not None)
    return float(len(plan.devices) + len(leads) + special + 2 * taken + jams)
