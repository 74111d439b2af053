"""Where nobody speaks, and what happens there: noise, noise that creeps up, clicks."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.stretches import runs
from tidy_trunk.core.base.units import LOWEST_SIGNAL_DB

QUIETEST_PERCENT: Final = 5.0
"""ASSUMED_ share of a recording that is pause at least, where it has pauses at all."""

PAUSE_BAND_DB: Final = 3.0
"""ASSUMED_ how far the noise of a pause moves by itself."""

SMOOTHED_BLOCKS: Final = 5
"""ASSUMED_ blocks over which a pause must be as quiet as that: a quarter of a second is between words, not in one."""

DROP_DB: Final = 6.0
"""ASSUMED_ how far a level falls where a word ends."""

CREEP_SHORTEST_S: Final = 0.5
"""ASSUMED_ shortest pause in which a rise can be told from the noise's own movement."""

CREEP_LEAST_DB: Final = 4.0
"""ASSUMED_ rise in a pause that the noise does not make by itself."""

CREEP_STRAIGHT: Final = 0.7
"""ASSUMED_ square of the correlation with a straight line: automatic level turns up steadily, people do not."""

CLICK_ABOVE_DB: Final = 12.0
"""ASSUMED_ how far a click stands above the peaks of the noise around it."""

CLICK_CREST_DB: Final = 15.0
"""ASSUMED_ crest factor from which it is a click: a word has less, a millisecond in a block has 17 dB."""

MOST_CLICKS: Final = 1_000
"""ASSUMED_ clicks that are listed."""

Levels = NDArray[np.float64]
"""dBFS [AES17] of each block, shape (blocks,); -inf where nothing is at all."""


@dataclass(frozen=True, slots=True)
class Pauses:
    """`blocks`: which are pause, shape (blocks,). `level_dbfs`: of the quietest; -inf where they hold nothing."""

    blocks: NDArray[np.bool_]
    level_dbfs: float


def find_pauses(levels: Levels, powers: NDArray[np.float64]) -> Pauses:
    """The quiet blocks of a recording, by its own quietest twentieth; all of them where it is all alike.

    Blocks without anything at all are pauses of their own kind: where they fill a twentieth, they are the pauses.
    """
    empty = np.isneginf(levels)
    if empty.mean() >= QUIETEST_PERCENT / 100:
        return Pauses(empty, -np.inf)
    size = min(SMOOTHED_BLOCKS, len(powers))
    smooth = np.convolve(powers, np.full(size, 1 / size), "valid")
    whole = np.convolve(~empty, np.ones(size), "valid") > size - 0.5
    chosen = smooth[whole] if whole.any() else powers[~empty]
    level = float(np.percentile(chosen, QUIETEST_PERCENT))
    quiet = ~empty & (powers <= level * 10 ** (PAUSE_BAND_DB / 10))
    found = np.zeros_like(quiet)
    for start, end in runs(quiet):
        # A word fades out into its pause and begins within a block of it.
        inner = (start + (start > 0), end - (end < len(quiet)))
        if end - start >= SMOOTHED_BLOCKS:
            found[inner[0] : inner[1]] = True
    quiet = found if found.any() else quiet
    return Pauses(quiet, float(np.median(levels[quiet])) if quiet.any() else -np.inf)


def noise_frames(blocks: NDArray[np.bool_], block_size: int, rate_hz: int, most: int) -> tuple[list[int], int]:
    """Where to look at the noise of chosen blocks: first samples of frames of one length, and that length.

    As long as the pauses allow, since long ones tell hum from noise; spread over all of the recording.
    """
    found = list(runs(blocks))
    samples = sum(end - start for start, end in found) * block_size
    starts: list[int] = []
    size = block_size
    for seconds in (1.0, 0.5, 0.2, 0.1, 0.05):
        size = round(rate_hz * seconds)
        starts = [
            begin for start, end in found for begin in range(start * block_size, end * block_size - size + 1, size)
        ]
        if len(starts) >= 4 or len(starts) * size * 2 >= samples > 0:
            break
    if len(starts) > most:
        starts = [starts[round(index)] for index in np.linspace(0, len(starts) - 1, most)]
    return starts, size


LOWEST_NOISE_DBFS: Final = -150.0
"""ASSUMED_ what 24 bits can hold of noise, and some more: a pause below is digital silence, which nothing turns up."""


def creep_db(levels: Levels, block_s: float) -> float:
    """By how much the noise rises in the pauses: the median over them, 0 where it does not in most.

    What comes down from a word stays down in a plain recording; automatic level turns up until the next word.
    """
    rises = []
    # Quieter than anything, but a number: differences stay numbers.
    levels = np.maximum(levels, LOWEST_SIGNAL_DB)
    shortest = round(CREEP_SHORTEST_S / block_s)
    index = 1
    while index < len(levels) - shortest:
        if levels[index - 1] - levels[index] < DROP_DB / 2 or levels[max(index - 2, 0)] - levels[index] < DROP_DB:
            index += 1
            continue
        end = index + 1
        while end < len(levels) and levels[end] - levels[end - 1] < DROP_DB / 2:
            end += 1
        # The word's last echoes fall: the rise is counted from the lowest point on.
        low = index + int(np.argmin(levels[index : min(index + 2 * shortest, end)]))
        if end - low >= shortest and levels[low] > LOWEST_NOISE_DBFS:
            rises.append(_straight_rise(levels[low:end]))
        index = end
    if len(rises) < 2:
        return 0.0
    rising = [rise for rise in rises if rise >= CREEP_LEAST_DB]
    return float(np.median(rising)) if 2 * len(rising) > len(rises) else 0.0


def _straight_rise(levels: Levels) -> float:
    """Rise along a straight line in dB, 0 where the levels follow none."""
    time = np.arange(len(levels)) - (len(levels) - 1) / 2
    centred = levels - levels.mean()
    spread = float(centred @ centred)
    slope = float(time @ centred) / float(time @ time)
    if spread <= 0 or slope <= 0 or slope * float(time @ centred) / spread < CREEP_STRAIGHT:
        return 0.0
    return slope * (len(levels) - 1)


def clicks(levels: Levels, peaks: Levels, quiet: NDArray[np.bool_], block_s: float) -> tuple[float, ...]:
    """At which seconds something short stands out of what is even around it.

    Args:
        levels, peaks: RMS and peak of each block in dBFS.
        quiet: Which blocks are pause, or hold a steady tone.
    """
    if not quiet.any():
        return ()
    usual = float(np.median(peaks[quiet]))
    around = _near(quiet, 3)
    with np.errstate(invalid="ignore"):
        crest = peaks - levels
        found = (peaks > usual + CLICK_ABOVE_DB) & (crest >= CLICK_CREST_DB) & around
    return tuple(round(start * block_s, 3) for start, _ in list(runs(found))[:MOST_CLICKS])


def _near(chosen: NDArray[np.bool_], reach: int) -> Any:
    """Blocks with a chosen one within reach on either side."""
    before, after = np.zeros_like(chosen), np.zeros_like(chosen)
    for step in range(1, reach + 1):
        before[step:] |= chosen[:-step]
        after[:-step] |= chosen[step:]
    return before & after
