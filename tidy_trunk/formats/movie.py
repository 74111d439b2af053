"""What a camera movie says of itself: how long it is, how fast its pictures run, and its timecode."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, BinaryIO

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.container import opened


@dataclass(frozen=True, slots=True, kw_only=True)
class MovieFacts:
    """frame_rate: pictures a second, None where there are none; timecode: the label of the first one, "" where it has none."""

    seconds: float
    frame_rate: Fraction | None
    timecode: str
    has_sound: bool

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
            return MovieFacts(
                seconds=float(length / av.time_base) if length else 0.0,
                frame_rate=_rate(pictures),
                timecode=next(_labels(container), ""),
                has_sound=bool(container.streams.audio),
            )
    except (av.error.FFmpegError, ValueError, OverflowError) as error:
        raise FormatError("this is no recording that can be read: give a WAV or a camera movie") from error
    finally:
        stream.seek(0)


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
