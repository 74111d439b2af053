"""A way to match a run, with what it would give at the first track that the run reaches."""

import math
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.ways.trial import ALLOWED_MISS_DB, AUDIBLE_DB, Trial
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.plan import Edit, School
from tidy_trunk.core.sound.levels import Sound

NOTHING: Final = "nothing"
"""ASSUMED_ word for a way that takes no lead and no box."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A way with its result at the first track (or mix) that the run reaches, in dBFS.

    needs, loses, risk: what must be had for it, what it takes away, and what may go wrong, in words.
    headroom_db: by how much the expected peaks may rise before anything on the whole way cuts them; negative where it does.
    noise_dbfs: of the gear, unweighted, as a meter shows it; below_room_db: how far it lies below the room to the ear.
    full_scale_margin_db: from the sender's full scale to what the input takes; negative where a burst would clip.
    sure: that margin is larger than the ± of the figures behind it.
    fits: neither clips nor misses the target.
    best_for: the schools that would take this one first.
    """

    id: str
    label: str
    edits: tuple[Edit, ...]
    needs: str
    loses: str
    risk: str
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
    best_for: tuple[School, ...] = ()


def way_of(
    trial: Trial, *, id: str, label: str, edits: tuple[Edit, ...], needs: str, loses: str, risk: str
) -> Way | None:
    """The result of a plan tried out, as a way; None where nothing arrives of what is planned.

    Without a source both ends are held against each other at full scale: what fits is what cannot clip there.
    """
    sound = trial.sound
    silent = sound is None or sound.average == SILENCE_DB
    if sound is None or (silent and trial.has_source):
        return None
    ruling = sound.ruling_noise
    margin, doubt = trial.margin_db()
    miss = 0.0 if silent else trial.target.miss_db(sound.average, sound.peak)
    clips = sound.clip is not None or (silent and margin < 0)
    below = sound.room_noise_a - sound.gear_noise_a
    return Way(
        id=id,
        label=label,
        edits=edits,
        needs=needs,
        loses=loses,
        risk=_risk(risk, margin, doubt),
        average_dbfs=sound.average,
        peak_dbfs=sound.peak,
        headroom_db=sound.headroom_over_all_db,
        noise_dbfs=sound.gear_noise,
        below_room_db=below,
        ruled_by=ruling.name if ruling else "",
        tolerance_db=sound.tolerance_db,
        full_scale_margin_db=margin,
        sure=margin > doubt,
        clips=clips,
        fits=not clips and abs(miss) <= ALLOWED_MISS_DB,
        verdict=_verdict_unheard(margin) if silent else _verdict(sound, miss, below, margin),
    )


def _risk(risk: str, margin: float, doubt: float) -> str:
    """What may go wrong: what the way brings with it, and a sender that comes too near to what the input takes."""
    if margin < -ALLOWED_MISS_DB:
        near = f"the sender's full scale lies {-margin:.0f} dB above what the input takes"
    elif margin <= doubt:
        near = f"the sender's full scale lies only {max(margin, 0.0):.0f} dB below what the input takes, ±{doubt:.0f}"
    else:
        near = ""
    return "; ".join(part for part in (risk, near) if part)


def _verdict_unheard(margin: float) -> str:
    """Where no voice is planned yet."""
    if math.isinf(margin):
        return "no voice is planned yet, and one end states no full scale"
    if margin < 0:
        return f"at full scale it clips by {-margin:.0f} dB"
    return f"full scale fits with {margin:.0f} dB to spare; no voice is planned yet"


def _verdict(sound: Sound, miss: float, below: float, margin: float) -> str:
    if sound.clip is not None:
        return f"still clips by {sound.clip.over_db:.1f} dB"
    if miss < -ALLOWED_MISS_DB:
        return f"{-miss:.0f} dB below the target"
    if miss > ALLOWED_MISS_DB:
        return f"{miss:.0f} dB above the target"
    if margin < -ALLOWED_MISS_DB:
        return f"fits, but a full-scale burst would clip by {-margin:.0f} dB"
    if below >= AUDIBLE_DB:
        return f"fits; its hiss lies {below:.0f} dB below the room: inaudible"
    return "fits; its hiss is audible over the room noise"
