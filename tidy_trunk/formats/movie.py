"""What a camera movie says of itself: how long it is, how fast its pictures run, and its timecode; and its single pictures."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import islice
from typing import Any, BinaryIO, Final

from tidy_trunk.errors import FormatError, RangeError
from tidy_trunk.formats.container import opened
from tidy_trunk.formats.photograph import jpeg

STILL_HEIGHT: Final = 360
"""ASSUMED_ height of a still in px: hands that close can be told, and a step to the next one takes no time."""

MOST_DECODED: Final = 1500
"""ASSUMED_ pictures that are decoded for one still: a movie has a whole picture at least once a minute."""

REORDERED: Final = 16
"""Pictures by which one may stand in a file before the place that it is seen at. Source: [H264], the largest picture buffer"""

LARGEST_PICTURE: Final = 8192 * 4320
"""ASSUMED_ pixels of a picture that is decoded: 8K, as the largest cinema cameras record."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MovieFacts:
    """frame_rate: pictures a second, None where there are none; timecode: the label of the first one, "" where it has none.
    channels, rate_hz: of its first sound; 0 without one."""

    seconds: float
    frame_rate: Fraction | None
    timecode: str
    has_sound: bool
    channels: int = 0
    rate_hz: int = 0

    @property
    def is_silent_movie(self) -> bool:
        """Pictures and no sound: its timecode, or the picture of a clap, is all there is to place it by."""
        return self.frame_rate is not None and not self.has_sound


def movie_facts(stream: BinaryIO) -> MovieFacts:
    """Of a movie, or of any other file that has a length. The stream is put back to its start.

    The label stands in the timecode track that cameras write, or beside the movie as a whole. Source: [PRACTICE]

    Raises:
        FormatError: It cannot be read.
    """
    import av  # a tenth of a second: only for movies

    stream.seek(0)
    try:
        with opened(stream) as container:
            pictures = container.streams.video[0] if container.streams.video else None
            length = container.duration
            sound = container.streams.audio[0] if container.streams.audio else None
            return MovieFacts(
                seconds=float(length / av.time_base) if length else 0.0,
                frame_rate=_rate(pictures),
                timecode=next(_labels(container), ""),
                has_sound=sound is not None,
                channels=0 if sound is None else sound.channels,
                rate_hz=0 if sound is None else sound.rate or 0,
            )
    except (av.error.FFmpegError, ValueError, OverflowError) as error:
        raise FormatError("this is no recording that can be read: give a WAV or a camera movie") from error
    finally:
        stream.seek(0)


def still(stream: BinaryIO, frame: int, rate: Fraction) -> bytes:
    """One picture of a movie as JPEG, small enough to step through.

    Args:
        frame: Its number, from 0 on.
        rate: Pictures a second.

    Raises:
        FormatError: It has no pictures that can be read.
        RangeError: It ends before.
    """
    import av

    stream.seek(0)
    try:
        with opened(stream) as container:
            if not container.streams.video:
                raise FormatError("this file has no pictures")
            pictures = container.streams.video[0]
            if pictures.width * pictures.height > LARGEST_PICTURE:
                raise FormatError("the pictures of this movie are too large to be shown: make a proxy of it")
            one = 1 / rate / pictures.time_base
            wanted = (pictures.start_time or 0) + frame * one
            # A seek goes by the order in the file, which is not that in which pictures are seen.
            container.seek(round(max(wanted - REORDERED * one, 0)), stream=pictures, backward=True)
            decoded = (item for item in islice(container.decode(pictures), MOST_DECODED) if item.pts is not None)
            found = next((item for item in decoded if item.pts >= wanted - one / 2), None)
            if found is None:
                raise RangeError(f"picture {frame} cannot be shown: the movie ends before. Give a lower number")
            return jpeg(found, min(1.0, STILL_HEIGHT / found.height))
    except (av.error.FFmpegError, ValueError, OverflowError) as error:
        if isinstance(error, RangeError):
            raise
        raise FormatError("the pictures of this movie cannot be read") from error


def _rate(pictures: Any) -> Fraction | None:
    if pictures is None:
        return None
    rate = pictures.average_rate or pictures.guessed_rate
    return Fraction(rate) if rate else None


def _labels(container: Any) -> Iterator[str]:
    said: list[Mapping[str, str]] = [stream.metadata for stream in container.streams]
    for metadata in (*said, container.metadata):
        label = metadata.get("timecode", "")
        if label:
            yield str(label).strip()[:11]
