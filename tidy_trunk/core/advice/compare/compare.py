"""Recordings of tone and of silence, made by different matching options of one run, beside what the plan says of each."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import Enum, StrEnum, auto
from typing import Final

from tidy_trunk.core.advice.adviser import matching_options
from tidy_trunk.core.advice.options import AS_IT_IS, by_hand, reached
from tidy_trunk.core.base.signal import BANDS_HZ
from tidy_trunk.core.base.units import sum_powers_db
from tidy_trunk.core.plan import Message, Plan, edited, message
from tidy_trunk.core.sound.levels import LevelSolver, Report, known_sender
from tidy_trunk.core.sound.trace import Stage, trace_plan
from tidy_trunk.errors import InputError, NotFoundError

MOST_OPTIONS: Final = 6
"""ASSUMED_ options that can be told apart beside each other."""

WORTH_TELLING_DB: Final = 3.0
"""ASSUMED_ difference from what was predicted that is more than devices stray by."""

HALF_DB: Final = 3.01
"""How far half of a noise lies below all of it. [HANDBOOK] §15.1: powers add"""

RUMBLE_TO_HZ: Final = 160.0
"""ASSUMED_ where rumble ends."""


class NoiseKind(StrEnum):
    """What makes half of a noise, or more."""

    HUM = "hum"
    RUMBLE = "rumble"
    HISS = "hiss"


class Discrepancy(Enum):
    """How a recording differs from what was predicted of it; cut off as predicted is none, and is told all the same."""

    NONE = auto()
    QUIETER = auto()
    NOISIER = auto()
    CUT_OFF = auto()
    CUT_OFF_UNFORESEEN = auto()
    IS_WHOLE = auto()


@dataclass(frozen=True, slots=True, kw_only=True)
class OptionPlan:
    """A matching option of a run, with the plan in which it is taken."""

    id: str
    does: Message
    plan: Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class RecordedLevels:
    """What one recording holds: a tone, and the noise of its pause. Levels in dBFS [AES17]; bands: third octaves of the noise."""

    tone_dbfs: float
    noise_dbfs: float
    noise_dbfs_a: float
    hum_dbfs: float | None
    bands: tuple[float, ...]
    is_cut_off: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """An option as it was recorded beside the option as it was predicted.

    hiss_db, predicted_hiss_db: noise against the tone, negative: how quiet the option is, wherever its knob stands.
    place, predicted_place: from 1, the quietest first; what is cut off comes last.
    rules: what makes most of the noise that was recorded, in words.
    kind: what makes half of it or more; off_db: measured less predicted; surprise: whether that is more than devices stray by.
    """

    option: str
    does: Message
    recorded: RecordedLevels
    hiss_db: float
    predicted_tone_dbfs: float
    predicted_hiss_db: float
    predicted_rules: str
    place: int
    predicted_place: int
    rules: str
    kind: NoiseKind
    off_db: float
    surprise: Discrepancy


@dataclass(frozen=True, slots=True)
class _Predicted:
    tone_dbfs: float
    hiss_db: float
    rules: str
    is_cut_off: bool


def option_plans(report: Report, run_id: str) -> dict[str, OptionPlan]:
    """Every option to match a run, the one it is matched by now first, then the best; all with automatic level off.

    Raises:
        UnknownItemError: No such run.
    """
    plan = report.index.plan
    found = matching_options(report, run_id)
    end = plan.runs[run_id].receiving
    placed = report.index.placed(end.device)
    # What rides the level brings the noise of a pause up to where the tone was: it would hide how quiet an option is.
    manual = by_hand(placed, placed.input(end.port))
    now = message("as-it-is-set", report.index, automatic_level_off=bool(manual))
    return {
        AS_IT_IS: OptionPlan(id=AS_IT_IS, does=now, plan=edited(plan, manual)),
        **{
            option.id: OptionPlan(id=option.id, does=option.does, plan=edited(plan, option.edits))
            for option in found
            if option.id != AS_IT_IS
        },
    }


def track_reached(report: Report, run_id: str) -> Stage:
    """The first track that a run reaches. Raises NotFoundError: no such run, or one that reaches none."""
    run = report.index.plan.runs.get(run_id)
    stage = reached(report, run) if run is not None else None
    if stage is None:
        raise NotFoundError(f"there is no cable '{run_id}' that reaches a track")
    return stage


def compare(report: Report, run_id: str, recorded: Mapping[str, RecordedLevels]) -> tuple[Comparison, ...]:
    """Ways to match a run as they were recorded, the quietest first, and what is cut off last.

    Args:
        recorded: By id of the way; 2 to `MOST_OPTIONS` of them.

    Raises:
        UnknownItemError, NotFoundError: No such run, or an option that it has not.
        InputError: Fewer or more options than can be compared, or one without a tone at the track.
    """
    if not 2 <= len(recorded) <= MOST_OPTIONS:
        raise InputError(f"{len(recorded)} options cannot be compared: give recordings of 2 to {MOST_OPTIONS} options")
    plans = option_plans(report, run_id)
    unknown = [option for option in recorded if option not in plans]
    if unknown:
        raise NotFoundError(f"cable '{run_id}' has no option '{unknown[0]}'; it has {', '.join(plans)}")
    thought = {option: _predict(plans[option].plan, run_id) for option in recorded}
    places = _places({option: (item.is_cut_off, item.noise_dbfs - item.tone_dbfs) for option, item in recorded.items()})
    predicted_places = _places({option: (item.is_cut_off, item.hiss_db) for option, item in thought.items()})
    return tuple(
        _compared(plans[option], recorded[option], thought[option], places[option], predicted_places[option])
        for option in sorted(recorded, key=lambda option: places[option])
    )


def _places(values: Mapping[str, tuple[bool, float]]) -> dict[str, int]:
    """From 1: what is cut off comes last, and then the noisiest."""
    return {option: place for place, option in enumerate(sorted(values, key=lambda option: values[option]), 1)}


def _predict(plan: Plan, run_id: str) -> _Predicted:
    """Tone and noise at the track, with nobody speaking: only what comes in behind the sender."""
    report = Report(trace_plan(plan))
    stage = track_reached(report, run_id)
    sender = known_sender(report.index, stage)
    tone = LevelSolver(report.index, oscillators={sender.device: report.index.tone_dbfs(sender.device)}, line_ups={})
    sound = tone.track_sound(stage)
    ruling = max(sound.noises, key=lambda noise: noise.level, default=None)
    return _Predicted(sound.average, sound.noise - sound.average, ruling.name if ruling else "", sound.clip is not None)


def _compared(
    option: OptionPlan, found: RecordedLevels, thought: _Predicted, place: int, predicted_place: int
) -> Comparison:
    hiss_db = found.noise_dbfs - found.tone_dbfs
    off_db = hiss_db - thought.hiss_db
    kind = _kind(found)
    near = abs(off_db) <= WORTH_TELLING_DB and kind is NoiseKind.HISS
    return Comparison(
        option=option.id,
        does=option.does,
        recorded=found,
        hiss_db=hiss_db,
        predicted_tone_dbfs=thought.tone_dbfs,
        predicted_hiss_db=thought.hiss_db,
        predicted_rules=thought.rules,
        place=place,
        predicted_place=predicted_place,
        rules=thought.rules if near else kind,
        kind=kind,
        off_db=off_db,
        surprise=_surprise(off_db, found.is_cut_off, thought.is_cut_off),
    )


def _kind(found: RecordedLevels) -> NoiseKind:
    if found.hum_dbfs is not None and found.hum_dbfs >= found.noise_dbfs - HALF_DB:
        return NoiseKind.HUM
    low = sum_powers_db(band for hertz, band in zip(BANDS_HZ, found.bands, strict=True) if hertz <= RUMBLE_TO_HZ)
    return NoiseKind.RUMBLE if low >= found.noise_dbfs - HALF_DB else NoiseKind.HISS


def _surprise(off_db: float, is_cut_off: bool, was_foreseen: bool) -> Discrepancy:
    if is_cut_off:
        return Discrepancy.CUT_OFF if was_foreseen else Discrepancy.CUT_OFF_UNFORESEEN
    if was_foreseen:
        return Discrepancy.IS_WHOLE
    if not math.isfinite(off_db) or abs(off_db) <= WORTH_TELLING_DB:
        return Discrepancy.NONE
    return Discrepancy.QUIETER if off_db < 0 else Discrepancy.NOISIER
