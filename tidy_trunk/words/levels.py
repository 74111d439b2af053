"""What is said of the levels of a track: its noise, the other recordings of its source, what to measure first."""

import math
from collections.abc import Sequence
from typing import Final

from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.levels import (
    SAFETY_FROM_DB,
    SAFETY_TO_DB,
    NoiseShare,
    Safety,
    SpectrumShape,
    TrackLevel,
    Uncertainty,
)
from tidy_trunk.words.messages import worded
from tidy_trunk.words.numbers import beside_target

NOTICED_FROM_DB: Final = 1.0
"""ASSUMED_ change of a noise that somebody notices when it comes suddenly: less is not worth a cable."""

NOTHING_DB: Final = 0.1
"""ASSUMED_ change that is printed as none."""


def target_words(track: TrackLevel) -> str:
    """Where a track lies beside its target."""
    if track.miss_db is None:
        return "nothing arrives"
    if track.clips_by_db:
        return "clipped on the way"
    return beside_target(track.miss_db) if round(track.miss_db) else "on target"


def noise_words(share: NoiseShare) -> str:
    """What removing a noise would bring."""
    if share.noise.spectrum is SpectrumShape.RUMBLE:
        return "behind a low cut" if share.noise.cuts else "a low cut takes most of it"
    if share.noise.is_room:
        return "the room itself: move the microphone closer"
    if share.drops_db < NOTHING_DB:
        return "inaudible"
    if share.drops_db < NOTICED_FROM_DB:
        return f"{share.drops_db:.1f} dB less without it: inaudible"
    return f"{share.drops_db:.0f} dB less without it"


def safety_words(index: PlanIndex, safety: Safety) -> str:
    """What another recording of the source is good for."""
    if safety.more_db < 1:
        guards = "clips as early"
    elif math.isinf(safety.rise_db):
        guards = "takes any burst"
    else:
        guards = f"takes {safety.rise_db:.0f} dB above the expected peaks"
    order = list(index.plan.devices)
    shared = sorted((name for kind, name in safety.shared if kind == "device"), key=order.index)
    names = " or ".join(index.placed(device).label for device in shared)
    return f"{guards}; lost too if {names} fails" if names else f"{guards}; no single device takes out both"


def safety_advice(found: Sequence[Safety]) -> str:
    """What would make the other recordings of a source worth more; "" where one guards already."""
    if any(safety.more_db >= SAFETY_FROM_DB for safety in found):
        return ""
    lower = f"{SAFETY_FROM_DB:.0f} to {SAFETY_TO_DB:.0f} dB lower"
    if not found:
        return f"No other track records it: add a safety track {lower}, or a second recorder."
    return f"None of them takes much more level: set one with a gain of its own {lower}, as a safety track."


def first_measurement(found: Sequence[Uncertainty]) -> str:
    """The one measurement that would settle most; "" where nothing is uncertain."""
    if not found:
        return ""
    now, settle = math.hypot(found[0].left_db, found[0].tolerance_db), worded(found[0].settle)
    return f"{settle[0].upper()}{settle[1:]}: ±{now:.1f} dB becomes ±{found[0].left_db:.1f} dB."
