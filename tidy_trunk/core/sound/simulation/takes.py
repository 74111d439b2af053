"""Recordings made in the simulation: of the job's tone as a track records it, with knobs turned or in different ways.

Plans are taken as their devices really are. Each function raises NotFoundError where there is no such track, and
InputError where no device before it can send a tone.
"""

from collections.abc import Mapping, Sequence
from typing import Final

import numpy as np

from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.plan import Plan, SetControl
from tidy_trunk.core.sound.levels import Report, known_sender, sender_of
from tidy_trunk.core.sound.simulation.faults import Faults
from tidy_trunk.core.sound.simulation.materials import NoiseLoop
from tidy_trunk.core.sound.simulation.simulate import RATE_HZ, Play, Simulator
from tidy_trunk.core.sound.trace import trace_plan

AS_PLANNED: Final = Faults(strays=True, clocks=True)
"""ASSUMED_ faults of a take: whatever the plan itself brings about."""

TONE_S: Final = 4.0
"""ASSUMED_ length of a tone, and of the silence behind it."""

STEP_S: Final = 2.0
"""ASSUMED_ stay at each position of a knob."""

TAKE_SAMPLES: Final = 2**18
"""ASSUMED_ length of the loop that a take is cut from: 5.5 s."""


def tone_take(plan: Plan, track_id: str) -> NoiseLoop:
    """The tone, and nothing else."""
    return _recorded(plan, track_id, TONE_S, sends=True)


def tone_and_silence(plan: Plan, track_id: str) -> NoiseLoop:
    """The tone, and then the same chain with nothing sent."""
    parts = [_recorded(plan, track_id, TONE_S, sends=sends) for sends in (True, False)]
    return np.concatenate(parts)


def silence_take(plan: Plan, track_id: str) -> NoiseLoop:
    """Nothing sent: what the track makes of noise by itself, and what hangs on it."""
    return _recorded(plan, track_id, TONE_S, sends=False)


def both_sides(plan: Plan, track_id: str, other_id: str) -> NoiseLoop:
    """The tone that a track gets, and what another one hears of it meanwhile, one row each."""
    report = Report(trace_plan(plan))
    sender = known_sender(report.index, report.known_track(track_id).trace.stage).device
    tone = {sender: report.index.tone_dbfs(sender)}
    return np.stack([_heard(report, track, TONE_S, tone) for track in (track_id, other_id)])


def tone_steps(
    plan: Plan, track_id: str, device: str, control: str, positions: Sequence[float], pause_s: float
) -> NoiseLoop:
    """The tone while a knob is turned from one position to the next; off between them for `pause_s`, 0 or more."""
    pieces: list[NoiseLoop] = []
    for position_db in positions:
        turned = SetControl(device=device, control=control, value=position_db).apply(plan)
        if pieces and pause_s:
            pieces.append(_recorded(turned, track_id, pause_s, sends=False))
        pieces.append(_recorded(turned, track_id, STEP_S, sends=True))
    return np.concatenate(pieces)


def _recorded(plan: Plan, track_id: str, seconds: float, *, sends: bool) -> NoiseLoop:
    report = Report(trace_plan(plan))
    stage = report.known_track(track_id).trace.stage
    sender = known_sender(report.index, stage) if sends else sender_of(report.index, stage)
    if sender is None:
        return _heard(report, track_id, seconds, {})
    level_dbfs = report.index.tone_dbfs(sender.device) if sends else SILENCE_DB
    return _heard(report, track_id, seconds, {sender.device: level_dbfs})


def _heard(report: Report, track_id: str, seconds: float, oscillators: Mapping[str, float]) -> NoiseLoop:
    simulator = Simulator(
        report.index, Play.NOBODY, oscillators=oscillators, faults=AS_PLANNED, sample_count=TAKE_SAMPLES
    )
    track = simulator.track_sound(report.known_track(track_id).trace.stage)
    return np.clip(track[: round(seconds * RATE_HZ)], -1.0, 1.0)
