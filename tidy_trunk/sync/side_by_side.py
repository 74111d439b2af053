"""Two files that lie over each other, looked at and listened to: one on the left, the other on the right."""

import io
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Protocol

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.time.sync import ReadChannel
from tidy_trunk.errors import RangeError
from tidy_trunk.formats import write_sound

HEARD_HZ: Final = 48_000
"""ASSUMED_ sample rate of what is played: every browser takes it."""

LONGEST_S: Final = 60.0
"""ASSUMED_ longest piece that is played at once."""

HEARD_DBFS: Final = -26.0
"""ASSUMED_ level at which each is played, so that one can be compared with the other."""

LOUDEST_DBFS: Final = -3.0
"""ASSUMED_ peak that neither may exceed: a louder one is played lower."""

MOST_LOOKED_AT: Final = 4_000
"""ASSUMED_ samples of a column that are looked at: over an hour the beginning of each column is enough."""

COLUMNS: Final = 600
"""ASSUMED_ columns of a waveform: as many as a screen shows."""


class SoundReader(Protocol):
    """What is needed of a sound to look at it and to play it."""

    @property
    def read(self) -> ReadChannel: ...
    @property
    def rate_hz(self) -> int: ...
    @property
    def sample_count(self) -> int: ...


@dataclass(frozen=True, slots=True)
class AlignedSound:
    """A sound, where it begins on the reference's time in seconds, and how much faster its clock runs."""

    sound: SoundReader
    begins_s: float
    drift_ppm: float
    polarity: int

    @property
    def ends_s(self) -> float:
        return self.begins_s + self.sound.sample_count / self.sound.rate_hz

    def power(self, at_s: float, span_s: float) -> float:
        """Mean square of a stretch, at its own rate."""
        first = max(round((at_s - self.begins_s) * self.sound.rate_hz), 0)
        held = self.sound.read(first, min(round(span_s * self.sound.rate_hz), self.sound.sample_count - first))
        return float(np.mean(np.square(held))) if held.size else 0.0

    def samples(self, at_s: float, span_s: float, count: int) -> NDArray[np.float32]:
        """So many samples of a stretch of the reference's time, evenly spaced; nothing where there is no sound."""
        speed = self.sound.rate_hz * (1 + self.drift_ppm * 1e-6)
        at = (at_s - self.begins_s + np.arange(count) * (span_s / count)) * speed
        first, last = int(np.floor(at[0])), int(np.ceil(at[-1])) + 2
        begin, end = max(first, 0), min(last, self.sound.sample_count)
        if end <= begin:
            return np.zeros(count, dtype=np.float32)
        held = self.sound.read(begin, end - begin)
        values = np.interp(at, np.arange(begin, end), held, left=0.0, right=0.0)
        return np.asarray(self.polarity * values, dtype=np.float32)

    def edges(self, at_s: float, span_s: float) -> tuple[list[float], list[float]]:
        """The lowest and the highest sample in each column of a stretch, at its own loudest as 1."""
        speed = self.sound.rate_hz * (1 + self.drift_ppm * 1e-6)
        at = (at_s - self.begins_s + np.arange(COLUMNS + 1) * (span_s / COLUMNS)) * speed
        low, high = np.zeros(COLUMNS, dtype=np.float32), np.zeros(COLUMNS, dtype=np.float32)
        for column, (first, last) in enumerate(pairwise(np.floor(at).astype(int).tolist())):
            begin, end = max(first, 0), min(max(last, first + 1), self.sound.sample_count)
            if begin < end:
                values = self.polarity * self.sound.read(begin, min(end - begin, MOST_LOOKED_AT))
                low[column], high[column] = values.min(), values.max()
        top = max(float(high.max()), -float(low.min())) or 1.0
        return (low / top).round(3).tolist(), (high / top).round(3).tolist()


def check_stretch(at_s: float, span_s: float, longest_s: float) -> None:
    """Raises RangeError: a stretch that cannot be."""
    if not (np.isfinite(at_s) and np.isfinite(span_s) and 0.001 <= span_s <= longest_s):
        raise RangeError(f"length must be between 0.001 and {longest_s:g} s, not {span_s:g}")


def left_and_right(first: AlignedSound, second: AlignedSound, at_s: float, span_s: float) -> bytes:
    """A stretch of both as a stereo WAV, equally loud; on headphones two that fit are heard in the middle."""
    return _wav(np.stack(_sides(first, second, at_s, span_s)))


def summed(first: AlignedSound, second: AlignedSound, at_s: float, span_s: float) -> bytes:
    """The same in one channel: what does not fit is heard as an echo."""
    one, other = _sides(first, second, at_s, span_s)
    return _wav((one + other)[np.newaxis] * np.float32(0.5))


def _sides(first: AlignedSound, second: AlignedSound, at_s: float, span_s: float) -> list[NDArray[np.float32]]:
    check_stretch(at_s, span_s, LONGEST_S)
    count = round(span_s * HEARD_HZ)
    return [_levelled(laid.samples(at_s, span_s, count)) for laid in (first, second)]


def _wav(samples: NDArray[np.float32]) -> bytes:
    channels, count = samples.shape
    box = io.BytesIO()
    write_sound(box, [samples], rate_hz=HEARD_HZ, channels=channels, sample_count=count, bits="16")
    return box.getvalue()


def _levelled(samples: NDArray[np.float32]) -> NDArray[np.float32]:
    # A sine that peaks at 1 has a mean square of a half. [AES17]
    level, peak = float(np.sqrt(2 * np.mean(np.square(samples)))), float(np.abs(samples).max())
    if not peak:
        return samples
    return samples * np.float32(min(ratio_from_db(HEARD_DBFS) / level, ratio_from_db(LOUDEST_DBFS) / peak))
