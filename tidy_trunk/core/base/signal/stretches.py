"""Stretches of what is chosen, in blocks or in samples."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray


def runs(chosen: NDArray[np.bool_]) -> Iterator[tuple[int, int]]:
    """Stretches in which all are chosen: the first, and the one behind the last."""
    edges = np.flatnonzero(np.diff(np.concatenate(([False], chosen, [False])).astype(np.int8)))
    yield from zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True)
