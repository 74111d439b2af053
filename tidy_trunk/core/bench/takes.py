"""Recordings made on the bench: of a tone at several positions of a knob."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from tidy_trunk.core.bench.materials import Loop
from tidy_trunk.core.bench.simulate import RATE_HZ, Bench, Play
from tidy_trunk.core.levels import Report, sender_of
from tidy_trunk.core.plan import Plan, SetControl
from tidy_trunk.core.trace import Stage, accept
from tidy_trunk.core.units import SILENCE_DB
from tidy_trunk.errors import InputError, NotFoundError

STEP_S: Final = 2.0
"""ASSUMED_ stay at each position."""

TAKE_SAMPLES: Final = 2**17
"""ASSUMED_ length of the loop that a stay is cut from: 2.7 s."""


def tone_steps(
    plan: Plan, track_id: str, device: str, control: str, positions: Sequence[float], pause_s: float
) -> Loop:
    """The job's tone from the sender before a track, as the track records it while a knob is turned from one position
    to the next.

    Args:
        plan: As its devices really are.
        pause_s: For how long the tone is off between two positions, 0 or more.

    Raises:
        NotFoundError, InputError: No such track or knob, or no device before it that sends a tone.
    """
    pieces: list[Loop] = []
    for position_db in positions:
        turned = SetControl(device=device, control=control, value=position_db).apply(plan)
        report = Report(accept(turned))
        if pieces and pause_s:
            pieces.append(_recorded(report, track_id, sends=False)[: round(pause_s * RATE_HZ)])
        pieces.append(_recorded(report, track_id, sends=True)[: round(STEP_S * RATE_HZ)])
    return np.clip(np.concatenate(pieces), -1.0, 1.0)


def _recorded(report: Report, track_id: str, *, sends: bool) -> Loop:
    stage, sender = sending_to(report, track_id)
    level_dbfs = report.rig.plan.defaults.alignment_dbfs if sends else SILENCE_DB
    bench = Bench(report.rig, Play.NOBODY, oscillators={sender: level_dbfs}, sample_count=TAKE_SAMPLES)
    return bench.track_sound(stage)


def sending_to(report: Report, track_id: str) -> tuple[Stage, str]:
    """A track's stage, and the device before it that sends the tone. Raises NotFoundError, InputError."""
    track = report.track(track_id)
    if track is None:
        raise NotFoundError(f"the job has no track '{track_id}'")
    sender = sender_of(report.rig, track.trace.stage)
    if sender is None:
        raise InputError("no device before this track can send a tone")
    return track.trace.stage, sender.device
