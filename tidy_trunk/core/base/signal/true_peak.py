"""True peak: how high the wave rises between the samples."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.stretches import runs

OVERSAMPLING: Final = 4
"""How often each sample interval is looked at. [BS1770] annex 2"""

PHASES: Final = (
    (0.0017089843750, 0.0109863281250, -0.0196533203125, 0.0332031250000, -0.0594482421875, 0.1373291015625,
     0.9721679687500, -0.1022949218750, 0.0476074218750, -0.0266113281250, 0.0148925781250, -0.0083007812500),
    (-0.0291748046875, 0.0292968750000, -0.0517578125000, 0.0891113281250, -0.1665039062500, 0.4650878906250,
     0.7797851562500, -0.2003173828125, 0.1015625000000, -0.0582275390625, 0.0330810546875, -0.0189208984375),
    (-0.0189208984375, 0.0330810546875, -0.0582275390625, 0.1015625000000, -0.2003173828125, 0.7797851562500,
     0.4650878906250, -0.1665039062500, 0.0891113281250, -0.0517578125000, 0.0292968750000, -0.0291748046875),
    (-0.0083007812500, 0.0148925781250, -0.0266113281250, 0.0476074218750, -0.1022949218750, 0.9721679687500,
     0.1373291015625, -0.0594482421875, 0.0332031250000, -0.0196533203125, 0.0109863281250, 0.0017089843750),
)  # fmt: skip
"""The interpolating filter of 48 taps by its four phases. [BS1770] annex 2, from memory"""

GROUP: Final = 16
"""ASSUMED_ samples that are interpolated together: long enough for the filter, short enough to leave most of them out."""

_TAPS = len(PHASES[0])
_MOST_RISE = float(np.abs(np.array(PHASES)).sum(axis=1).max())
"""No wave rises further above its samples than this, whatever it is: most groups need no look."""


def _toeplitz() -> NDArray[np.float32]:
    """From two groups of samples, this one and the one before, to the values between those of this one."""
    matrix = np.zeros((2 * GROUP, OVERSAMPLING * GROUP), dtype=np.float32)
    for sample in range(GROUP):
        for phase, taps in enumerate(PHASES):
            for lag, tap in enumerate(taps):
                matrix[GROUP + sample - lag, OVERSAMPLING * sample + phase] = tap
    return matrix


_MATRIX = _toeplitz()


class TruePeak:
    """The true peak of one channel that comes in pieces."""

    __slots__ = ("_before", "_highest", "_rest")

    def __init__(self) -> None:
        self._highest = 0.0
        self._before = np.zeros(GROUP, dtype=np.float32)  # the last group that was looked at
        self._rest = np.zeros(0, dtype=np.float32)  # what has come since, less than a group

    def add(self, samples: NDArray[np.float32], peaks: NDArray[np.float32], size: int) -> None:
        """Args:
        samples: Shape (sample_count,).
        peaks: The largest of the sizes of each `size` samples, the last of which may be fewer.
        """
        reach = _MOST_RISE * peaks
        loudest = int(np.argmax(peaks))
        whole = np.concatenate((self._before, self._rest, samples))
        kept = GROUP + len(self._rest)
        count = len(whole) - len(whole) % GROUP
        self._rest = whole[count:].copy()
        self._before = whole[count - GROUP : count].copy()
        edge = float(np.abs(whole[: kept + GROUP]).max())  # of what came before, and reaches into this
        if max(float(reach[loudest]), _MOST_RISE * edge) <= self._highest:
            return
        groups = whole[:count].reshape(-1, GROUP)
        # The loudest place first: what it reaches leaves most of the others out.
        at = kept + loudest * size
        self._look(groups, at + int(np.argmax(np.abs(whole[at : at + size]))) + np.zeros(1, dtype=np.intp))
        least = np.float32(self._highest / _MOST_RISE)
        places = [_above(whole[: kept + GROUP], least, 0)]
        for start, end in runs(reach > self._highest):
            first = kept + start * size
            places.append(_above(whole[first : kept + end * size], least, first))
        self._look(groups, np.concatenate(places))

    def highest(self) -> float:
        """The largest of all until now, full scale 1.0."""
        if len(self._rest):
            pair = np.concatenate((self._before, self._rest, np.zeros(GROUP - len(self._rest), dtype=np.float32)))
            # What would come behind the last sample is no part of the recording.
            self._take(pair @ _MATRIX[:, : OVERSAMPLING * len(self._rest)])
        return self._highest

    def _look(self, groups: NDArray[np.float32], places: NDArray[np.intp]) -> None:
        """Between the samples around some places: in the group of each, and in the next one, into which it reaches."""
        chosen = np.zeros(len(groups) + 2, dtype=bool)
        chosen[np.minimum(places // GROUP, len(groups))] = True
        chosen[1:] |= chosen[:-1].copy()
        later = np.flatnonzero(chosen[1 : len(groups)]) + 1
        if len(later):
            self._take(np.concatenate((groups[later - 1], groups[later]), axis=1) @ _MATRIX)

    def _take(self, between: NDArray[np.float32]) -> None:
        self._highest = max(self._highest, float(between.max()), -float(between.min()))


def _above(samples: NDArray[np.float32], least: np.float32, first: int) -> NDArray[np.intp]:
    """Where samples are larger than that, counted from the first sample of all."""
    return np.asarray(np.flatnonzero(np.abs(samples) > least) + first, dtype=np.intp)
