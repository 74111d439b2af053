"""Linear timecode as it is read: frames with their labels, and where they stand in the sound."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.samples import Samples
from tidy_trunk.core.base.timecode.ltc_bits import DIGITS, FRAME_BITS, SYNC_WORD
from tidy_trunk.core.base.timecode.ltc_edges import BROKEN, FASTEST_BITS_PER_S, Bits, bits_of, find_edges

PIECE_S: Final = 8.0
"""ASSUMED_ stretch of sound that is looked at at once."""

OVERLAP_S: Final = 0.1
"""ASSUMED_ stretch that two pieces share: two of the longest frames, so that each frame lies whole in one of them."""

FEWEST_FOLLOWING: Final = 2
"""ASSUMED_ times that one frame begins where another ends which are no accident: three frames in a row."""

_FORWARDS: Final = sum(bit << place for place, bit in enumerate(SYNC_WORD))
_BACKWARDS: Final = sum(bit << place for place, bit in enumerate(SYNC_WORD[::-1]))
_HIGHEST: Final = np.array([23, 59, 59, 29])


@dataclass(frozen=True, slots=True)
class LtcFrames:
    """Frames in the order of the sound.

    fields: hours, minutes, seconds, frames, shape (frames, 4); bits: in the order of the standard, whichever way the
    sound runs, shape (frames, 80). starts, ends: in samples as the sound runs, shape (frames,); backwards: which of them
    were read against the standard's order.
    """

    fields: NDArray[np.int64]
    bits: NDArray[np.int8]
    starts: NDArray[np.float64]
    ends: NDArray[np.float64]
    backwards: NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.starts)

    def chosen(self, which: NDArray[np.bool_]) -> "LtcFrames":
        """Some of them."""
        return LtcFrames(
            self.fields[which], self.bits[which], self.starts[which], self.ends[which], self.backwards[which]
        )


def read_frames(read: Callable[[int, int], Samples], sample_count: int, rate_hz: int) -> LtcFrames:
    """Every whole frame in a sound, of any polarity, forwards or backwards.

    Args:
        read: Samples from the first one on, so many; shape (count,).

    Source: [ST12-1]
    """
    size, overlap = round(PIECE_S * rate_hz), round(OVERLAP_S * rate_hz)
    parts: list[LtcFrames] = []
    for first in range(0, max(sample_count, 1), size):
        # A little before and behind: what an edge is, is told by what lies around it.
        begin, end = max(first - overlap, 0), min(first + size + overlap, sample_count)
        edges = find_edges(read(begin, end - begin), rate_hz, begin)
        # A frame that begins or ends where the sound does has no edge there: the cut is one.
        ends = (
            [0.0] if begin == 0 and len(edges) and edges[0] > 0.5 else [],
            [float(end)] if end == sample_count else [],
        )
        frames = ltc_frames(bits_of(np.concatenate((ends[0], edges, ends[1])), rate_hz))
        if parts and len(parts[-1]):
            # What both pieces hold begins at the same place, but for a fraction of a sample.
            half_s = FRAME_BITS / FASTEST_BITS_PER_S / 2
            frames = frames.chosen(frames.starts > parts[-1].starts[-1] + half_s * rate_hz)
        if len(frames) or not parts:
            parts.append(frames)
    return LtcFrames(
        *(
            np.concatenate([getattr(part, name) for part in parts])
            for name in ("fields", "bits", "starts", "ends", "backwards")
        )
    )


def carries_timecode(samples: Samples, rate_hz: int) -> bool:
    """Whether frames of linear timecode follow each other in a stretch, forwards or backwards."""
    frames = ltc_frames(bits_of(find_edges(samples, rate_hz), rate_hz))
    follow = np.abs(frames.ends[:-1] - frames.starts[1:]) < 1.0
    return int(follow.sum()) >= FEWEST_FOLLOWING


def ltc_frames(row: Bits) -> LtcFrames:
    """The whole frames in a row of bits: by their sync words, with labels that can be."""
    values = row.values
    forwards, backwards = _sync_at(values)
    # Forwards the word ends a frame; backwards it begins one.
    begins = np.concatenate((forwards - (FRAME_BITS - len(SYNC_WORD)), backwards))
    turned = np.concatenate((np.zeros(len(forwards), dtype=bool), np.ones(len(backwards), dtype=bool)))
    broken = np.concatenate(([0], np.cumsum(values == BROKEN)))
    inside = (begins >= 0) & (begins + FRAME_BITS <= len(values))
    begins, turned = begins[inside], turned[inside]
    whole = broken[begins + FRAME_BITS] == broken[begins]
    begins, turned = begins[whole], turned[whole]
    order = np.argsort(begins, kind="stable")
    begins, turned = begins[order], turned[order]
    bits = values[begins[:, np.newaxis] + np.arange(FRAME_BITS)]
    bits[turned] = bits[turned, ::-1]
    fields, can_be = _fields(bits)
    found = LtcFrames(fields, bits, row.starts[begins], row.starts[begins + FRAME_BITS], turned)
    return found.chosen(can_be)


def _sync_at(values: NDArray[np.int8]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Where the sync word begins, in the standard's order and against it."""
    size = len(SYNC_WORD)
    if len(values) < size:
        return np.zeros(0, dtype=np.int64), np.zeros(0, dtype=np.int64)
    # What is broken makes a word that no sync word is.
    plain = np.where(values == BROKEN, 0, values).astype(np.int32)
    words = np.zeros(len(values) - size + 1, dtype=np.int32)
    for place in range(size):
        words += plain[place : len(plain) - size + 1 + place] << place
    return np.flatnonzero(words == _FORWARDS), np.flatnonzero(words == _BACKWARDS)


def _fields(bits: NDArray[np.int8]) -> tuple[NDArray[np.int64], NDArray[np.bool_]]:
    """Hours, minutes, seconds and frames, and which of them are a label."""
    digits = [bits[:, at : at + size].astype(np.int64) @ (1 << np.arange(size)) for at, size in DIGITS]
    frames, seconds, minutes, hours = (digits[index] + 10 * digits[index + 1] for index in (0, 2, 4, 6))
    fields = np.stack((hours, minutes, seconds, frames), axis=1)
    units = np.stack(digits[::2], axis=1)
    can_be: NDArray[np.bool_] = np.all(units <= 9, axis=1) & np.all(fields <= _HIGHEST, axis=1)
    return fields, can_be
