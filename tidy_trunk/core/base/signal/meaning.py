"""What a measurement means for the job, the worst first."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.signal.measurement import (
    ChannelMeasure,
    Measurement,
    NoiseFrom,
    PairMeasure,
    Polarity,
)

AUDIBLE_HUM_DBFS: Final = -75.0
"""ASSUMED_ hum that is heard in the pauses of a track that stands at its usual level."""

BAD_BLEED_DB: Final = -30.0
"""ASSUMED_ bleed from which a neighbour of timecode or of another voice cannot be used alone."""

NOTICED_DC_DBFS: Final = -50.0
"""ASSUMED_ DC that clicks at every cut."""

TRUE_PEAK_DBTP: Final = -1.0
"""Highest true peak that a converter or a lossy coder takes without distortion. [EBU128]"""

HISS_DBFS: Final = -50.0
"""The room of a location leaves 40 to 50 dB below full scale: noise above it is no quiet room. [PRACTICE]"""

LOW_PEAK_DBFS: Final = -30.0
"""ASSUMED_ peaks that lie more than 10 dB below what any target asks for: [PRACTICE] has −20 as the lowest."""

DEAD_SIDE_DB: Final = 30.0
"""ASSUMED_ how far one channel lies below its neighbour when nothing but noise and bleed is left on it."""

ALL_NOISE_DB: Final = 3.0
"""ASSUMED_ how little a recording lies above the noise of its pauses when there is nothing else in it."""

LATE_MS: Final = 1.0
"""ASSUMED_ delay between two channels from which their sum sounds hollow."""


class SignalSeverity(StrEnum):
    """How bad it is: the words of the checks."""

    STOP = "stop"
    CAUTION = "caution"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class SignalFinding:
    """One thing that was heard: a stable name, how bad it is, and where: `channels` count from 1.

    beside: the channel that it is compared with; 0 where it is none.
    """

    what: str
    weight: SignalSeverity
    channels: tuple[int, ...]
    beside: int = 0


_ORDER = (SignalSeverity.STOP, SignalSeverity.CAUTION, SignalSeverity.NOTE)


def meanings(found: Measurement) -> tuple[SignalFinding, ...]:
    """What there is to say of a recording, the worst first."""
    told = [item for channel in found.channels for item in _of_channel(channel)]
    told += [item for pair in found.pairs for item in _of_pair(found, pair)]
    dead = {index for item in told if item.what == "dead-side" for index in item.channels}
    told = [item for item in told if item.what not in ("no-voice", "level") or not dead & set(item.channels)]
    return tuple(sorted(told, key=lambda item: _ORDER.index(item.weight)))


def _of_channel(channel: ChannelMeasure) -> Iterator[SignalFinding]:
    def told(what: str, weight: SignalSeverity) -> SignalFinding:
        return SignalFinding(what, weight, (channel.index,))

    if channel.is_silent:
        yield told("silence", SignalSeverity.STOP)
        return
    if channel.is_ltc:
        yield told("timecode", SignalSeverity.NOTE)
        return
    if channel.clipped or channel.has_flat_tops:
        yield told("clipping", SignalSeverity.STOP)
    if channel.hum is not None:
        yield told("hum", SignalSeverity.CAUTION if channel.hum.level_dbfs > AUDIBLE_HUM_DBFS else SignalSeverity.NOTE)
    if channel.ticks is not None:
        yield told("ticks", SignalSeverity.STOP if channel.ticks.level_dbfs > AUDIBLE_HUM_DBFS else SignalSeverity.NOTE)
    if channel.clicks:
        yield told("clicks", SignalSeverity.CAUTION)
    if channel.creeps_db:
        yield told("automatic-level", SignalSeverity.CAUTION)
    if channel.noise.found is not NoiseFrom.NOWHERE and channel.noise.flat_dbfs > HISS_DBFS and channel.tone is None:
        yield told("noise", SignalSeverity.NOTE)
    if _is_all_noise(channel):
        yield told("no-voice", SignalSeverity.CAUTION)
    elif channel.tone is None and channel.peak_dbfs < LOW_PEAK_DBFS:
        yield told("level", SignalSeverity.CAUTION)
    if channel.dc_dbfs > NOTICED_DC_DBFS:
        yield told("dc", SignalSeverity.NOTE)
    if channel.true_peak_dbtp > TRUE_PEAK_DBTP and not channel.clipped:
        yield told("true-peak", SignalSeverity.NOTE)
    if channel.tone is not None:
        yield told("tone", SignalSeverity.NOTE)


def _is_all_noise(channel: ChannelMeasure) -> bool:
    """Whether all of it is as loud as its pauses."""
    if channel.noise.found is not NoiseFrom.PAUSES or channel.tone is not None or channel.hum is not None:
        return False
    return channel.rms_dbfs - channel.noise.flat_dbfs < ALL_NOISE_DB


def _of_pair(found: Measurement, pair: PairMeasure) -> Iterator[SignalFinding]:
    first, second = (found.channels[index - 1] for index in pair.channels)
    if pair.polarity is Polarity.OPPOSITE:
        yield SignalFinding("polarity", SignalSeverity.STOP, pair.channels)
    dead = second if first.peak_dbfs - second.peak_dbfs > DEAD_SIDE_DB else first
    other = first if dead is second else second
    if other.peak_dbfs - dead.peak_dbfs > DEAD_SIDE_DB and not dead.is_silent and other.peak_dbfs > LOW_PEAK_DBFS:
        yield SignalFinding("dead-side", SignalSeverity.CAUTION, (dead.index,), beside=other.index)
    if pair.bleed_db is not None:
        yield SignalFinding(
            "bleed", SignalSeverity.CAUTION if pair.bleed_db > BAD_BLEED_DB else SignalSeverity.NOTE, pair.channels
        )
    elif pair.delay_ms and abs(pair.delay_ms) >= LATE_MS:
        yield SignalFinding("delay", SignalSeverity.NOTE, pair.channels)
    marked = [channel.index for channel in (first, second) if channel.ident_gaps]
    if first.tone and second.tone and marked == [second.index] and second.index == first.index + 1:
        yield SignalFinding("swapped", SignalSeverity.STOP, pair.channels)
