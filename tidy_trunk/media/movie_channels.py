"""One channel of a movie's sound as a file of its own, with the movie's timecode and the labels of its take."""

from dataclasses import replace
from fractions import Fraction
from typing import BinaryIO

from tidy_trunk.errors import FormatError
from tidy_trunk.formats import Broadcast, TakeLabels, TimecodeSpeed, movie_facts, write_broadcast
from tidy_trunk.media.file_clocks import movie_began
from tidy_trunk.media.mono_mix import opened, sample_bits


def write_movie_channel(
    movie: BinaryIO, out: BinaryIO, labels: TakeLabels, *, channel: int, name: str, date: str = ""
) -> None:
    """A Broadcast WAV with one channel, that begins where the movie does. Its samples stay as they are; lossy sound becomes float.

    channel: from 1; name: of the movie, for the description.

    Raises FormatError: it cannot be decoded, or has no such channel.
    """
    facts = movie_facts(movie)
    began_s = movie_began(facts)
    with opened(movie) as recording:
        recording.prepare()
        if channel > recording.channels:
            raise FormatError(f"it has {recording.channels} channels: there is no number {channel}")
        samples = round((began_s or Fraction(0)) * recording.rate_hz)
        seconds = int(began_s or 0)
        rate = facts.frame_rate
        write_broadcast(
            out,
            (piece[channel - 1 : channel] for piece in recording.again(recording.rate_hz)),
            rate_hz=recording.rate_hz,
            channels=1,
            sample_count=recording.sample_count,
            bits=sample_bits(recording),
            broadcast=Broadcast(
                description=f"channel {channel} of {name}",
                originator="Tidy Trunk",
                date=date,
                time=f"{seconds // 3600:02}:{seconds // 60 % 60:02}:{seconds % 60:02}",
                time_reference=samples,
            ),
            speed=None
            if rate is None or began_s is None
            else TimecodeSpeed(
                rate=f"{rate.numerator}/{rate.denominator}",
                drop=";" in facts.timecode,
                rate_hz=recording.rate_hz,
                time_reference=samples,
            ),
            labels=replace(labels, tape=labels.tape or name),
        )
