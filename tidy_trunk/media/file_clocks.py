"""When a recording began, by its own clock."""

from fractions import Fraction
from typing import BinaryIO, Final

from tidy_trunk.core.base.timecode import RATES, FrameRate, Timecode, real_seconds
from tidy_trunk.errors import FormatError, TimecodeError
from tidy_trunk.formats import MovieFacts, Recording, is_wave, movie_facts, read_broadcast
from tidy_trunk.media.timecode import timecode_in

LOOKED_AT_S: Final = 20.0
"""ASSUMED_ beginning of a file in which timecode on a track is looked for."""

DAY_S: Final = 86_400
"""Seconds of a day: then every clock begins again. [ST12-1]"""


def began(stream: BinaryIO, recording: Recording) -> Fraction | None:
    """Seconds since midnight at the first sample: by timecode on a track, else as the file says of itself.

    That is the time reference of a Broadcast WAV, or the label in a movie's timecode track; None where there is neither.
    """
    looked_at = min(recording.sample_count, round(LOOKED_AT_S * recording.rate_hz))
    found = timecode_in(recording, looked_at)
    if found is not None:
        return real_seconds(found.reading.start) + Fraction(found.reading.start_offset_s).limit_denominator(10**6)
    said = read_broadcast(stream)
    if said is not None:
        return Fraction(said.time_reference, recording.rate_hz) if said.time_reference else None
    return None if is_wave(stream) else movie_began(facts_of(stream))


def facts_of(stream: BinaryIO) -> MovieFacts | None:
    """What a movie says of itself; None of what only libsndfile reads, or nothing does."""
    try:
        return movie_facts(stream)
    except FormatError:
        return None


def movie_began(facts: MovieFacts | None) -> Fraction | None:
    """Seconds since midnight at a movie's first picture; None where it says nothing that can be."""
    if facts is None or not facts.timecode or facts.frame_rate is None:
        return None
    rate = FrameRate(facts.frame_rate, drop=";" in facts.timecode)
    if rate not in RATES.values():
        return None
    try:
        return real_seconds(Timecode.parse(facts.timecode, rate))
    except TimecodeError:
        return None


def apart(first: Fraction, second: Fraction) -> Fraction:
    """By how much the second moment of a day is later; the nearer way round midnight."""
    return (second - first + Fraction(DAY_S, 2)) % DAY_S - Fraction(DAY_S, 2)
