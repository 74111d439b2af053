"""Where one sound lies in another, how fast its clock runs, and how sure that is."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.time.sync.chance import top_by_chance
from tidy_trunk.core.time.sync.coarse import LagCandidate
from tidy_trunk.core.time.sync.features import HOP_S, Profile
from tidy_trunk.core.time.sync.fine import CorrelationPeak, match

STRETCH_S: Final = 6.0
"""ASSUMED_ length of a stretch that is looked at closely: a sentence or two."""

MOST_STRETCHES: Final = 16
"""ASSUMED_ stretches over which a sound is looked at: enough to lay a line through."""

FURTHEST_PPM: Final = 250.0
"""ASSUMED_ furthest that two clocks run apart: worse ones are broken."""

LOOK_S: Final = 0.15
"""ASSUMED_ how far to look beside a coarse place, and the drift beside it."""

TOGETHER_S: Final = 0.002
"""ASSUMED_ how far stretches that belong together lie from one line."""

SHORTEST_DRIFT_S: Final = 60.0
"""ASSUMED_ shortest span over which a drift is told: a tenth of a millisecond over it is two millionths."""

FEWEST_FOR_DRIFT: Final = 4
"""ASSUMED_ fewest stretches through which a line means something."""

MOST_EVIDENCE: Final = 40.0
"""ASSUMED_ from which on a confidence is 1 to seventeen digits, and its exponential still a number."""

SURE: Final = 0.98
"""ASSUMED_ confidence from which no other place is looked at."""

ReadChannel = Callable[[int, int], NDArray[np.float32]]
"""One channel of a sound: samples from the first one on, so many."""


@dataclass(frozen=True, slots=True)
class Sound:
    """A sound to be aligned: its profile, its samples, their rate and number."""

    profile: Profile
    read: ReadChannel
    rate_hz: int
    sample_count: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Alignment:
    """offset_s: from the reference's first sample to the other's, positive where that begins later.

    drift_ppm: positive where the other's clock runs fast; None where it cannot be told. polarity: 1, or -1 for opposite.
    confidence: 0 to 1; stretches: those that agree, of those that were looked at.
    """

    offset_s: float
    drift_ppm: float | None
    polarity: int
    confidence: float
    agreeing: int
    looked_at: int


@dataclass(frozen=True, slots=True)
class _StretchLag:
    """A stretch: its middle in the other, in seconds, the lag that was found there, and how."""

    at_s: float
    lag_s: float
    match: CorrelationPeak


def best_of(reference: Sound, other: Sound, likely: Sequence[LagCandidate]) -> Alignment | None:
    """Of several places that one at which most stretches agree."""
    best: Alignment | None = None
    for place in likely:
        item = _at(reference, other, place)
        if item is not None and (best is None or item.confidence > best.confidence):
            best = item
            if best.confidence >= SURE:
                break
    return best


def _at(reference: Sound, other: Sound, place: LagCandidate) -> Alignment | None:
    stretches = [
        item for at_s in _stretches(reference, other, place.lag_s) if (item := _look(reference, other, place, at_s))
    ]
    if not stretches:
        return None
    chosen, slope, lag_s = _line(stretches)
    agreeing = [stretches[index] for index in chosen]
    polarity = 1 if sum(item.match.sign * item.match.height for item in agreeing) >= 0 else -1
    same = [item for item in agreeing if item.match.sign == polarity]
    span = max(item.at_s for item in same) - min(item.at_s for item in same)
    tells = span >= SHORTEST_DRIFT_S and len(same) >= FEWEST_FOR_DRIFT
    return Alignment(
        offset_s=lag_s,
        drift_ppm=-slope * 1e6 if tells else None,
        polarity=polarity,
        confidence=_confidence([item.match for item in same], len(stretches), place),
        agreeing=len(same),
        looked_at=len(stretches),
    )


def _stretches(reference: Sound, other: Sound, lag_s: float) -> list[float]:
    """Where to look in the other, in seconds: spread over what both hold, each where most goes on around there."""
    begin = max(0.0, -lag_s)
    end = min(other.profile.seconds, reference.profile.seconds - lag_s)
    length = min(STRETCH_S, end - begin)
    if length < 0.5:
        return []
    count = max(min(MOST_STRETCHES, int((end - begin) / length)), 1)
    part = (end - begin) / count
    activity = np.cumsum(np.concatenate(([0.0], other.profile.activity.astype(np.float64))))
    looks = round(length / HOP_S)
    chosen = []
    for number in range(count):
        first, last = begin + number * part, begin + (number + 1) * part - length
        starts = np.arange(max(math.ceil(first / HOP_S), 0), max(int(last / HOP_S), math.ceil(first / HOP_S)) + 1)
        starts = starts[starts + looks <= len(activity) - 1]
        if len(starts):
            busy = activity[starts + looks] - activity[starts]
            chosen.append(float(starts[int(np.argmax(busy))]) * HOP_S)
    return chosen


def _look(reference: Sound, other: Sound, place: LagCandidate, at_s: float) -> _StretchLag | None:
    length = min(STRETCH_S, other.sample_count / other.rate_hz - at_s)
    reach = LOOK_S + FURTHEST_PPM * 1e-6 * max(at_s, other.profile.seconds / 2)
    # From sample to sample: what is lost by rounding is known.
    first_here, first_there = round(at_s * other.rate_hz), round((at_s + place.lag_s) * reference.rate_hz)
    here = _stretch(other, first_here, length)
    there = _stretch(reference, first_there, length)
    found = match(there, here, (reference.rate_hz, other.rate_hz), reach)
    if found is None:
        return None
    lag_s = first_there / reference.rate_hz - first_here / other.rate_hz + found.apart_s
    # Where clocks part within it, what is found is so in its middle.
    return _StretchLag(at_s + length / 2, lag_s, found)


def _stretch(sound: Sound, first: int, length_s: float) -> NDArray[np.float32]:
    """Samples of a stretch; nothing where it reaches beyond the sound."""
    count = round(length_s * sound.rate_hz)
    begin, end = max(first, 0), min(first + count, sound.sample_count)
    samples = np.zeros(count, dtype=np.float32)
    if end > begin:
        samples[begin - first : end - first] = sound.read(begin, end - begin)
    return samples


def _line(stretches: Sequence[_StretchLag]) -> tuple[list[int], float, float]:
    """The line on which most of the height lies: which stretches, its slope, and the lag where the other begins."""
    times = np.array([item.at_s for item in stretches])
    lags = np.array([item.lag_s for item in stretches])
    weights = np.array([item.match.height for item in stretches])
    best: tuple[float, NDArray[np.bool_]] | None = None
    pairs = [(first, first) for first in range(len(times))]
    pairs += [(first, second) for first in range(len(times)) for second in range(first + 1, len(times))]
    for first, second in pairs:
        slope = 0.0 if first == second else (lags[second] - lags[first]) / (times[second] - times[first])
        if abs(slope) > FURTHEST_PPM * 1e-6:
            continue
        near = np.abs(lags - lags[first] - slope * (times - times[first])) <= TOGETHER_S
        total = float(weights[near].sum())
        if best is None or total > best[0] * (1 + 1e-9):
            best = (total, near)
    assert best is not None  # one stretch lies on its own line
    near = best[1]
    chosen = [int(index) for index in np.flatnonzero(near)]
    if len(chosen) < FEWEST_FOR_DRIFT or np.ptp(times[near]) < SHORTEST_DRIFT_S:
        # Too short to tell: what clocks do in that time is less than what is told.
        return chosen, 0.0, float(np.average(lags[near], weights=weights[near]))
    slope, lag_s = np.polyfit(times[near], lags[near], 1, w=weights[near])
    return chosen, float(slope), float(lag_s)


MOST_BY_SCORE: Final = 1.5
"""ASSUMED_ most that the bands count: they say where to a fiftieth of a second, and never vouch for a sample."""

LEANING, BY_HEIGHT, BY_SCORE, BY_AGREEMENT = -4.0, 5.0, 2.2, 0.5
"""ASSUMED_ weights of the evidence, laid through 1421 constructed pairs by logistic regression: real ones are thought to be like
them. `scripts/calibrate_sync.py` makes others, and shows what it comes to."""


def _confidence(agreeing: Sequence[CorrelationPeak], looked_at: int, place: LagCandidate) -> float:
    """How likely it is right: from how far above chance the tops of agreeing stretches stand, and the bands agree, and how
    unlikely it is that so many of so many stretches agree by chance.

    At a half, half of what is found is right: `docs/craft/sync.md` has the tables.
    """
    count = len(agreeing)
    if not count:
        return 0.0
    # The highest of several stretches stands higher by chance than one alone.
    above = sum(max(match.height - top_by_chance(match.tried * looked_at), 0.0) for match in agreeing)
    # One stretch lies on its own line; each other one does so by chance as often as the line is wide in what is looked at.
    unlikely = (count - 1) * math.log(LOOK_S / TOGETHER_S) - math.log(math.comb(looked_at, count))
    score = min(place.above_chance, MOST_BY_SCORE)
    evidence = LEANING + BY_HEIGHT * above + BY_SCORE * score + BY_AGREEMENT * unlikely
    return 1.0 / (1.0 + math.exp(-min(max(evidence, -MOST_EVIDENCE), MOST_EVIDENCE)))
