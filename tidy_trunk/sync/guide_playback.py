"""Guide and recorder's sound played together, as the edit will lay them: an echo says that they are not in sync. [HANDBOOK] §8"""

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.errors import InputError
from tidy_trunk.formats import Recording
from tidy_trunk.media.mono_mix import WEIGHED_S, mix, opened, weights_of
from tidy_trunk.sync.side_by_side import AlignedSound, summed

HEARD_S: Final = 12.0
"""ASSUMED_ length of what is played: two sentences."""

LOOKED_AT_S: Final = 600
"""ASSUMED_ stretch in which the place with most sound is looked for: in ten minutes somebody speaks."""


@dataclass(frozen=True, slots=True)
class _Mix:
    """What a file holds without its timecode, which nobody should hear, as one channel that is read where it is wanted."""

    recording: Recording
    weights: NDArray[np.float32]

    @property
    def rate_hz(self) -> int:
        return self.recording.rate_hz

    @property
    def sample_count(self) -> int:
        return self.recording.sample_count

    def read(self, start: int, count: int) -> NDArray[np.float32]:
        return mix(self.recording.read(start, count), self.weights)


@contextmanager
def _laid(path: Path, begins_s: float) -> Iterator[AlignedSound]:
    with path.open("rb") as stream, opened(stream) as recording:
        recording.prepare()
        begin = recording.read(0, min(WEIGHED_S * recording.rate_hz, recording.sample_count))
        yield AlignedSound(_Mix(recording, weights_of(begin, recording.rate_hz)), begins_s, 0.0, 1)


def played_together(sound: Path, picture: Path, behind_s: float) -> bytes:
    """The stretch of both in which most is heard, as a WAV with one channel, each as loud as the other.

    behind_s: by how much the picture's file begins later than the sound's.

    Raises FormatError, InputError: one cannot be read, or they have nothing in common.
    """
    with ExitStack() as stack:
        first = stack.enter_context(_laid(sound, 0.0))
        second = stack.enter_context(_laid(picture, behind_s))
        begin, end = max(0.0, behind_s), min(first.ends_s, second.ends_s)
        if end <= begin:
            raise InputError("these two files did not run at one time: there is nothing to hear together")
        span_s = min(HEARD_S, end - begin)
        return summed(first, second, _fullest(first, begin, min(end, begin + LOOKED_AT_S), span_s), span_s)


def _fullest(laid: AlignedSound, begin: float, end: float, span_s: float) -> float:
    """Where a stretch of that length holds most, by steps of a second."""
    count = int(end - begin)
    if count <= span_s:
        return begin
    powers = [laid.power(begin + second, 1.0) for second in range(count)]
    sums = np.convolve(powers, np.ones(int(span_s)), mode="valid")
    return begin + float(np.argmax(sums))
