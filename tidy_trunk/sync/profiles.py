"""Files that are to be laid over others, looked at once: what is kept of each is enough for all that follows."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any, BinaryIO, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal import check_finite, check_kind
from tidy_trunk.core.base.timecode import RATES, FrameRate, name_of
from tidy_trunk.core.time.sync import Profile, Sound, profile_of
from tidy_trunk.errors import InputError
from tidy_trunk.media.file_clocks import began, facts_of, movie_began
from tidy_trunk.media.mono_mix import PIECE_S, WEIGHED_S, mix, opened, weights_of

KEPT: Final = np.int16
"""ASSUMED_ enough of each sample: what is lost lies 98 dB below full scale, and a room lies above it."""

FULL_SCALE: Final = 32_767
"""The largest number that is kept. [AES17]"""


@dataclass(frozen=True, slots=True)
class Sidecars:
    """What lies beside a file that was looked at: one channel of all it holds, and its profile."""

    path: Path

    @property
    def mix(self) -> Path:
        return self.path.with_name(f"{self.path.name}.mix.npy")

    @property
    def profile(self) -> Path:
        return self.path.with_name(f"{self.path.name}.profile.npz")

    def sound(self, rate_hz: int) -> Sound:
        """To be laid over others; its samples are read as they are wanted."""
        kept = np.load(self.mix, mmap_mode="r")
        with np.load(self.profile) as found:
            profile = Profile(
                found["features"], found["activity"], float(found["seconds"]), tuple(found["claps"].tolist())
            )

        def read(start: int, count: int) -> NDArray[np.float32]:
            return np.asarray(kept[start : start + count], dtype=np.float32) / np.float32(FULL_SCALE)

        return Sound(profile, read, rate_hz, len(kept))


def profile_file(path: Path, progress: Callable[[float], None], side: Sidecars | None = None) -> dict[str, Any]:
    """Look at a file and leave its sidecars beside it, or where `side` says; what is known of it, as plain JSON values.

    A movie without sound has none: it can still be placed by its timecode, or by the picture of a clap.

    Raises:
        FormatError: No recording.
        InputError: It is empty, or of a kind that no recorder writes.
    """
    with path.open("rb") as stream:
        facts = facts_of(stream)
        if facts is not None and facts.is_silent_movie:
            moment = movie_began(facts)
            return _document(facts.seconds, 0, 0, moment, facts.frame_rate, [])
        with opened(stream) as recording:
            recording.prepare()
            if not recording.sample_count:
                raise InputError("the recording is empty: there is nothing to lay over another")
            check_kind(recording.rate_hz, recording.channels)
            begin = recording.read(0, min(WEIGHED_S * recording.rate_hz, recording.sample_count))
            weights = weights_of(begin, recording.rate_hz)
            side = side or Sidecars(path)

            def pieces(out: BinaryIO) -> Iterator[NDArray[np.float32]]:
                at = 0
                for piece in recording.again(PIECE_S * recording.rate_hz):
                    mixed = mix(piece, weights)
                    check_finite(np.square(mixed).sum(dtype=np.float32))
                    out.write((np.clip(mixed, -1.0, 1.0) * FULL_SCALE).astype(KEPT).tobytes())
                    at += len(mixed)
                    progress(at / recording.sample_count)
                    yield mixed

            # Written, not mapped: a mapped file counts as memory of this process, and a full disk would end it without a word.
            with side.mix.open("wb") as out:
                kept = {"descr": np.dtype(KEPT).str, "fortran_order": False, "shape": (recording.sample_count,)}
                np.lib.format.write_array_header_1_0(out, kept)
                begins = out.tell()
                profile = profile_of(pieces(out), recording.rate_hz)
                out.truncate(begins + recording.sample_count * np.dtype(KEPT).itemsize)
            np.savez(
                side.profile,
                features=profile.features,
                activity=profile.activity,
                seconds=np.float64(profile.seconds),
                claps=np.array(profile.claps, dtype=np.float64),
            )
            moment = began(stream, recording)
            pictures = None if facts is None else facts.frame_rate
            return _document(
                profile.seconds, recording.rate_hz, recording.sample_count, moment, pictures, list(profile.claps)
            )


def _document(
    seconds: float, rate_hz: int, count: int, moment: Fraction | None, pictures: Fraction | None, claps: list[float]
) -> dict[str, Any]:
    rate = None if pictures is None else FrameRate(pictures)
    return {
        "duration_s": seconds,
        "rate_hz": rate_hz,
        "sample_count": count,
        "began_s": None if moment is None else float(moment),
        "frame_rate": name_of(rate) if rate in RATES.values() and rate is not None else None,
        "claps_s": claps,
    }
