"""What a sound with linear timecode says: its rate, where it begins, what is missing."""

from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise
from typing import Final

import numpy as np

from tidy_trunk.core.base.timecode.label import Timecode
from tidy_trunk.core.base.timecode.ltc_bits import DROP_BIT, user_bits_of
from tidy_trunk.core.base.timecode.ltc_decode import LtcFrames
from tidy_trunk.core.base.timecode.rates import RATES, FrameRate
from tidy_trunk.errors import TimecodeError

FEWEST_FRAMES: Final = 3
"""ASSUMED_ frames that follow each other which are no accident."""

NEAR_SPEED: Final = 0.0004
"""ASSUMED_ share by which a clock may be off and still tell 29.97 from 30, which lie 0.001 apart."""

SAME_FRAME: Final = 1 / 320
"""ASSUMED_ share of a frame, a quarter of a bit, within which it begins where the sound does."""

MOST_GAPS: Final = 1_000
"""ASSUMED_ gaps that are listed."""


@dataclass(frozen=True, slots=True)
class PlacedLabel:
    """A label, and the sample at which its frame begins as the sound runs."""

    timecode: Timecode
    sample: float


@dataclass(frozen=True, slots=True)
class Gap:
    """A place at which labels do not follow each other. frames_lost: negative where they jump back."""

    after: Timecode
    sample: float
    frames_lost: int


@dataclass(frozen=True, slots=True, kw_only=True)
class LtcReading:
    """A sound with timecode.

    rate: as numbering, drop flag and duration say; speed: against that rate, 1 as it was sent.
    start: label at the first sample of the sound, start_offset_s: from the beginning of that frame to it.
    user_bits: binary groups 1 to 8 of the first frame. drop_flag: as it is sent, whatever the numbers do.
    notes: what is odd about it, in sentences.
    """

    rate: FrameRate
    rate_name: str
    drop_flag: bool
    frame_count: int
    first: PlacedLabel
    last: PlacedLabel
    start: Timecode
    start_offset_s: float
    user_bits: tuple[int, ...]
    is_reversed: bool
    speed: float
    gaps: tuple[Gap, ...]
    notes: tuple[str, ...]


def ltc_reading(frames: LtcFrames, rate_hz: int, wanted: FrameRate | None = None) -> LtcReading | None:
    """What frames say together; None where there are too few of them.

    Args:
        wanted: The job's rate: taken for what the frames cannot tell, and named where they say otherwise.
    """
    is_reversed = bool(2 * frames.backwards.sum() > len(frames))
    frames = frames.chosen(frames.backwards == is_reversed)
    if len(frames) < FEWEST_FRAMES:
        return None
    frame_samples = float(np.median(frames.ends - frames.starts))
    nominal = _nominal(frames, rate_hz / frame_samples, wanted, is_reversed)
    drop = bool(2 * frames.bits[:, DROP_BIT].sum() > len(frames))
    # Of the frames that follow each other, over as long a stretch as there is.
    measured = Fraction(rate_hz) / Fraction(_frame_samples(frames, is_reversed) or frame_samples)
    rate_name, notes = _rate(nominal, float(measured), drop, wanted)
    rate = RATES[rate_name]
    frames, labels = _labelled(frames, rate)
    if len(frames) < FEWEST_FRAMES:
        return None
    speed = float(measured / rate.ratio)
    step = -1 if is_reversed else 1
    first, last = (PlacedLabel(labels[at], max(float(frames.starts[at]), 0.0)) for at in (0, -1))
    before = max(int(np.ceil(first.sample / frame_samples - SAME_FRAME)), 0)
    if abs(speed - 1) > NEAR_SPEED:
        notes.append(f"it runs at {speed:.4f} of its speed")
    return LtcReading(
        rate=rate,
        rate_name=rate_name,
        drop_flag=drop,
        frame_count=len(frames),
        first=first,
        last=last,
        start=first.timecode.plus(-step * before),
        start_offset_s=round(max(before * frame_samples - first.sample, 0.0) / rate_hz, 6),
        user_bits=user_bits_of(tuple(int(bit) for bit in frames.bits[0])),
        is_reversed=is_reversed,
        speed=speed,
        gaps=_gaps(frames, labels, step),
        notes=tuple(notes),
    )


def _nominal(frames: LtcFrames, per_second: float, wanted: FrameRate | None, is_reversed: bool) -> int:
    """Frames that a second of labels holds: where one ends, by the last number before it; else by their length."""
    fields = frames.fields[::-1] if is_reversed else frames.fields
    turns = np.flatnonzero((fields[1:, 2] != fields[:-1, 2]) & (fields[1:, 3] <= 2))
    ends = fields[turns, 3] + 1
    likely = [int(end) for end in ends if end in (24, 25, 30)]
    if likely:
        return int(np.bincount(likely).argmax())
    highest = int(fields[:, 3].max())
    fits = [nominal for nominal in (24, 25, 30) if nominal > highest]
    if wanted is not None and wanted.nominal in fits:
        return wanted.nominal
    return min(fits, key=lambda nominal: abs(nominal - per_second))


def _frame_samples(frames: LtcFrames, is_reversed: bool) -> float | None:
    """Length of a frame in samples, over the longest stretch of frames that follow each other without a gap."""
    starts = frames.starts
    lengths = np.diff(starts)
    usual = np.median(lengths)
    breaks = np.flatnonzero(np.abs(lengths - usual) > usual / 4)
    edges = np.concatenate(([-1], breaks, [len(starts) - 1]))
    sizes = np.diff(edges)
    longest = int(np.argmax(sizes))
    begin, end = edges[longest] + 1, edges[longest + 1]
    return float((starts[end] - starts[begin]) / (end - begin)) if end > begin else None


def _rate(nominal: int, measured: float, drop: bool, wanted: FrameRate | None) -> tuple[str, list[str]]:
    """The name of the rate: whole, or slower by a thousandth, as the duration has it."""
    notes: list[str] = []
    if drop and nominal != 30:
        notes.append(f"the drop-frame flag is set, and {nominal} frames a second drop nothing: the flag is wrong")
        drop = False
    names = {24: ("24", "23.976"), 25: ("25", "25"), 30: ("30df", "29.97df") if drop else ("30", "29.97")}[nominal]
    whole, slow = names
    near = {name: abs(measured / float(RATES[name].ratio) - 1) for name in names}
    best = whole if near[whole] <= near[slow] else slow
    if min(near.values()) > NEAR_SPEED:
        # Off its speed: the duration says nothing; what is asked for, or what is usual, stands.
        asked = next((name for name in names if wanted is not None and RATES[name].ratio == wanted.ratio), None)
        best = asked or (slow if drop else whole)
    if wanted is not None and wanted.ratio == 2 * RATES[best].ratio:
        # Linear timecode numbers up to 30 frames; faster pictures are counted in pairs. [ST12-1]
        notes.append(f"each label stands for two frames of the job's {name_of(wanted)}")
    elif wanted is not None and RATES[best].ratio != wanted.ratio:
        notes.append(f"it runs at {best}, and the job at {name_of(wanted)}")
    elif wanted is not None and nominal == 30 and drop != wanted.drop:
        says, wants = ("drop-frame", "not") if drop else ("no drop-frame", "drop-frame")
        notes.append(f"its flag says {says}, and the job is {wants}")
    return best, notes


def name_of(rate: FrameRate) -> str:
    """The name under which a rate is known."""
    return next(name for name, known in RATES.items() if known == rate)


def _labelled(frames: LtcFrames, rate: FrameRate) -> tuple[LtcFrames, list[Timecode]]:
    """Frames with a label that this rate has."""
    labels: list[Timecode | None] = []
    for hours, minutes, seconds, number in frames.fields.tolist():
        try:
            labels.append(Timecode.of(hours, minutes, seconds, number, rate))
        except TimecodeError:
            labels.append(None)
    keep = np.array([label is not None for label in labels])
    return frames.chosen(keep), [label for label in labels if label is not None]


def _gaps(frames: LtcFrames, labels: list[Timecode], step: int) -> tuple[Gap, ...]:
    found = []
    for (before, here), start in zip(pairwise(labels), frames.starts[1:].tolist(), strict=True):
        day = here.rate.day
        moved = step * (here.frame_count - before.frame_count)
        # The nearer way round the clock.
        moved = (moved + day // 2) % day - day // 2
        if moved != 1:
            found.append(Gap(before, float(start), moved - 1))
            if len(found) == MOST_GAPS:
                break
    return tuple(found)
