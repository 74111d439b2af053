"""True peak: how high the wave rises between the samples."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

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

    def add(self, samples: NDArray[np.float32], peak: float) -> None:
        """`samples`: shape (sample_count,); `peak`: the largest of their sizes."""
        whole = np.concatenate((self._before, self._rest, samples))
        most = max(peak, float(np.abs(whole[: 2 * GROUP]).max()))
        count = len(whole) - len(whole) % GROUP
        self._rest = whole[count:].copy()
        self._before = whole[count - GROUP : count].copy()
        # The filter looks back only, and its taps reach from one group into the one before.
        if most * _MOST_RISE > self._highest:
            self._search(whole[:count])

    def highest(self) -> float:
        """The largest of all until now, full scale 1.0."""
        if len(self._rest):
            pair = np.concatenate((self._before, self._rest, np.zeros(GROUP - len(self._rest), dtype=np.float32)))
            # What would come behind the last sample is no part of the recording.
            self._take(pair @ _MATRIX[:, : OVERSAMPLING * len(self._rest)])
        return self._highest

    def _search(self, whole: NDArray[np.float32]) -> None:
        groups = whole.reshape(-1, GROUP)
        # The loudest place first: what it reaches leaves most of the others out.
        self._look(groups, np.array([max(int(np.argmax(np.abs(whole))) // GROUP - 1, 0)]))
        least = np.float32(self._highest / _MOST_RISE)
        reached = np.flatnonzero((whole > least) | (whole < -least)) // GROUP
        chosen = np.zeros(len(groups) + 1, dtype=bool)
        chosen[reached] = True  # as the earlier group of a pair
        chosen[np.maximum(reached - 1, 0)] = True  # and as the later one
        self._look(groups, np.flatnonzero(chosen[: len(groups) - 1]))

    def _look(self, groups: NDArray[np.float32], chosen: NDArray[np.intp]) -> None:
        chosen = chosen[chosen < len(groups) - 1]
        if len(chosen):
            self._take(np.concatenate((groups[chosen], groups[chosen + 1]), axis=1) @ _MATRIX)

    def _take(self, between: NDArray[np.float32]) -> None:
        self._highest = max(self._highest, float(between.max()), -float(between.min()))
