"""A matching option of a run, with what it would give at the first track that the run reaches."""

import math
from dataclasses import dataclass

from tidy_trunk.core.advice.options.trial import ALLOWED_MISS_DB, AUDIBLE_DB, Trial
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.plan import Edit, Message, PlanIndex, School, message
from tidy_trunk.core.sound.levels import SignalLevels


@dataclass(frozen=True, slots=True, kw_only=True)
class MatchingOption:
    """An option with its result at the first track (or mix) that the run reaches, in dBFS.

    does: what it is; needs, loses: what must be had for it, and what it takes away; None for nothing.
    risks: what may go wrong; verdict: how its result fits.
    headroom_db: by how much the expected peaks may rise before anything on the whole way cuts them; negative where it does.
    noise_dbfs: of the gear, unweighted, as a meter shows it; below_room_db: how far it lies below the room to the ear.
    full_scale_margin_db: from the sender's full scale to what the input takes; negative where a burst would clip.
    sure: that margin is larger than the ± of the figures behind it.
    fits: neither clips nor misses the target.
    best_for: the schools that would take this one first.
    """

    id: str
    does: Message
    edits: tuple[Edit, ...]
    needs: Message | None
    loses: Message | None
    risks: tuple[Message, ...]
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
    verdict: Message
    best_for: tuple[School, ...] = ()


def option_of(
    trial: Trial,
    *,
    id: str,
    does: Message,
    edits: tuple[Edit, ...],
    needs: Message | None = None,
    loses: Message | None = None,
    risks: tuple[Message, ...] = (),
) -> MatchingOption | None:
    """The result of a plan tried out, as an option; None where nothing arrives of what is planned.

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
    return MatchingOption(
        id=id,
        does=does,
        edits=edits,
        needs=needs,
        loses=loses,
        risks=(*risks, *_near_full_scale(trial.index, margin, doubt)),
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
        verdict=_verdict_unheard(trial.index, margin) if silent else _verdict(trial.index, sound, miss, below, margin),
    )


def _near_full_scale(index: PlanIndex, margin_db: float, doubt_db: float) -> tuple[Message, ...]:
    """A sender that comes too near to what the input takes."""
    if margin_db < -ALLOWED_MISS_DB:
        return (message("sender-too-hot", index, by_db=-margin_db),)
    if margin_db <= doubt_db:
        return (message("sender-just-fits", index, margin_db=margin_db, doubt_db=doubt_db),)
    return ()


def _verdict_unheard(index: PlanIndex, margin_db: float) -> Message:
    """Where no voice is planned yet."""
    if math.isinf(margin_db):
        return message("no-voice-no-full-scale", index)
    if margin_db < 0:
        return message("full-scale-clips", index, by_db=-margin_db)
    return message("full-scale-fits", index, margin_db=margin_db)


def _verdict(index: PlanIndex, sound: SignalLevels, miss_db: float, below_db: float, margin_db: float) -> Message:
    if sound.clip is not None:
        return message("still-clips", index, by_db=sound.clip.over_db)
    if abs(miss_db) > ALLOWED_MISS_DB:
        return message("misses-target", index, miss_db=miss_db)
    if margin_db < -ALLOWED_MISS_DB:
        return message("fits-but-bursts-clip", index, by_db=-margin_db)
    return message("fits", index, below_room_db=below_db, is_inaudible=below_db >= AUDIBLE_DB)
