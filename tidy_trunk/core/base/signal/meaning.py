"""What a measurement means for the job, in sentences, the worst first."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.base.signal.measurement import (
    ChannelMeasure,
    Measurement,
    NoiseFrom,
    NoiseShape,
    PairMeasure,
    Polarity,
)
from tidy_trunk.core.base.units import SILENCE_DB

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


class Weight(StrEnum):
    """How bad it is: the words of the checks."""

    STOP = "stop"
    CAUTION = "caution"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Meaning:
    """One thing that was heard: a stable name, how bad it is, and what it means. `channels` count from 1."""

    what: str
    weight: Weight
    text: str
    channels: tuple[int, ...]


_SHAPES: Final = {
    NoiseShape.ELECTRONICS: (
        ". It is as strong up to 16 kHz as below: electronics, and no room. Look at the gain of the first preamp, at a "
        "digital trim and at headphone outputs. Where it is steady, a denoiser takes most of it away afterwards."
    ),
    NoiseShape.ROOM: (
        ". It falls above 2 kHz: the room or the microphone. Go nearer, or find what makes it and switch that off; other "
        "cables or gains change nothing."
    ),
    NoiseShape.BOTH: ": room and electronics both, by its shape. Compare it with the room's own.",
    None: ": compare it with the room's own.",
}
"""What the shape of a noise says of where it comes from. [HANDBOOK] §7"""

_ORDER = (Weight.STOP, Weight.CAUTION, Weight.NOTE)


def meanings(found: Measurement) -> tuple[Meaning, ...]:
    """What there is to say of a recording, the worst first."""
    told = [item for channel in found.channels for item in _of_channel(found, channel)]
    told += [item for pair in found.pairs for item in _of_pair(found, pair)]
    dead = {index for item in told if item.what == "dead-side" for index in item.channels}
    told = [item for item in told if item.what not in ("no-voice", "level") or not dead & set(item.channels)]
    return tuple(sorted(told, key=lambda item: _ORDER.index(item.weight)))


def _of_channel(found: Measurement, channel: ChannelMeasure) -> list[Meaning]:
    who = "The recording" if len(found.channels) == 1 else f"Channel {channel.index}"
    told: list[Meaning] = []

    def say(what: str, weight: Weight, text: str) -> None:
        told.append(Meaning(what, weight, f"{who} {text}", (channel.index,)))

    if channel.is_silent:
        say(
            "silence", Weight.STOP, "is silent: nothing arrives, not even noise. Look at its input, routing and arming."
        )
        return told
    if channel.is_ltc:
        say("timecode", Weight.NOTE, "carries timecode as sound: do not listen to it, and expect it in its neighbour.")
        return told
    if channel.clipped:
        first = channel.clipped[0].start / found.rate_hz
        times = "in one place" if channel.clipped_count == 1 else f"in {channel.clipped_count} places"
        where = (
            "at full scale"
            if channel.peak_dbfs > -0.1
            else f"at {_db(channel.peak_dbfs)} dBFS, before something turned it down"
        )
        say(
            "clipping",
            Weight.STOP,
            f"is cut off {times}, first at {first:.1f} s, {where}. Nothing repairs that: turn down and record again.",
        )
    elif channel.has_flat_tops:
        say(
            "clipping",
            Weight.STOP,
            "has flat tops: it was cut off before its last gain or noise came. Look for the stage that clips, and record again.",
        )
    if channel.hum is not None:
        weight = Weight.CAUTION if channel.hum.level_dbfs > AUDIBLE_HUM_DBFS else Weight.NOTE
        say(
            "hum",
            weight,
            f"hums at {channel.hum.mains_hz} Hz, {_db(channel.hum.level_dbfs)} dBFS: look for two devices on mains that a cable joins, or an unbalanced cable beside a dimmer.",
        )
    if channel.ticks is not None:
        say(
            "ticks",
            Weight.STOP if channel.ticks.level_dbfs > AUDIBLE_HUM_DBFS else Weight.NOTE,
            f"ticks {1_000 // channel.ticks.every_ms} times a second, {_db(channel.ticks.level_dbfs)} dBFS: a computer's USB power comes in over an unbalanced cable. Take the device, or the camera, off its mains, or feed it from a charger that is no computer. Nothing takes the ticks out afterwards.",
        )
    if channel.clicks:
        many = "one click" if len(channel.clicks) == 1 else f"{len(channel.clicks)} clicks"
        say(
            "clicks",
            Weight.CAUTION,
            f"has {many}, first at {channel.clicks[0]:.1f} s: a loose plug, a mains loop, or a clock that nobody follows.",
        )
    if channel.creeps_db:
        say(
            "automatic-level",
            Weight.CAUTION,
            f"has noise that rises by {channel.creeps_db:.0f} dB in the pauses: automatic level is on somewhere. Switch it off, in both places. What it did to the level stays.",
        )
    if channel.noise.found is not NoiseFrom.NOWHERE and channel.noise.flat_dbfs > HISS_DBFS and channel.tone is None:
        say(
            "noise",
            Weight.NOTE,
            f"has noise of {_db(channel.noise.flat_dbfs)} dBFS in its pauses, {_db(channel.noise.a_dbfs)} A-weighted{_SHAPES[channel.noise.shape]}",
        )
    if _is_all_noise(channel):
        say(
            "no-voice",
            Weight.CAUTION,
            f"holds nothing but noise, at {_db(channel.rms_dbfs)} dBFS: no voice came through. Look at the microphone, its power and its cable.",
        )
    elif channel.tone is None and channel.peak_dbfs < LOW_PEAK_DBFS:
        say(
            "level",
            Weight.CAUTION,
            f"peaks at {_db(channel.peak_dbfs)} dBFS only, which is too low for any target. It can be turned up afterwards as far as its noise allows; for the next take turn it up where it is first amplified.",
        )
    if channel.dc_dbfs > NOTICED_DC_DBFS:
        say(
            "dc",
            Weight.NOTE,
            f"has DC of {_db(channel.dc_dbfs)} dBFS: it clicks at every cut. A low cut afterwards takes it away.",
        )
    if channel.true_peak_dbtp > TRUE_PEAK_DBTP and not channel.clipped:
        say(
            "true-peak",
            Weight.NOTE,
            f"rises to {_db(channel.true_peak_dbtp)} dBTP between its samples: too high for lossy coding.",
        )
    if channel.tone is not None:
        tone = channel.tone
        thd = "" if tone.thd_n_db == SILENCE_DB else f", all else {_db(tone.thd_n_db)} dB"
        say("tone", Weight.NOTE, f"holds a tone of {tone.frequency_hz:.1f} Hz at {_db(tone.level_dbfs)} dBFS{thd}.")
    return told


def _is_all_noise(channel: ChannelMeasure) -> bool:
    """Whether all of it is as loud as its pauses."""
    if channel.noise.found is not NoiseFrom.PAUSES or channel.tone is not None or channel.hum is not None:
        return False
    return channel.rms_dbfs - channel.noise.flat_dbfs < ALL_NOISE_DB


def _of_pair(found: Measurement, pair: PairMeasure) -> list[Meaning]:
    first, second = (found.channels[index - 1] for index in pair.channels)
    who = f"Channels {first.index} and {second.index}"
    told = []

    def say(what: str, weight: Weight, text: str) -> None:
        told.append(Meaning(what, weight, f"{who} {text}", pair.channels))

    if pair.polarity is Polarity.OPPOSITE:
        say(
            "polarity",
            Weight.STOP,
            "are the same sound in opposite polarity: in mono they cancel. A one-to-one cable sits where hot belongs on both sides, or a leg is crossed. Nothing is lost: keep one of them, or invert one before they are summed.",
        )
    dead = second if first.peak_dbfs - second.peak_dbfs > DEAD_SIDE_DB else first
    other = first if dead is second else second
    if other.peak_dbfs - dead.peak_dbfs > DEAD_SIDE_DB and not dead.is_silent and other.peak_dbfs > LOW_PEAK_DBFS:
        told.append(
            Meaning(
                "dead-side",
                Weight.CAUTION,
                f"Channel {dead.index} peaks at {_db(dead.peak_dbfs)} dBFS beside {_db(other.peak_dbfs)} on channel {other.index}: next to nothing arrives there. Look at that side of the plug and the cable, and at its routing. What was recorded so is saved by using channel {other.index} on both sides.",
                (dead.index,),
            )
        )
    if pair.bleed_db is not None:
        weight = Weight.CAUTION if pair.bleed_db > BAD_BLEED_DB else Weight.NOTE
        source = sum(pair.channels) - (pair.bleeds_into or 0)
        told.append(
            Meaning(
                "bleed",
                weight,
                f"Channel {source} is heard in channel {pair.bleeds_into}, {_db(-pair.bleed_db)} dB below itself.",
                pair.channels,
            )
        )
    elif pair.delay_ms and abs(pair.delay_ms) >= LATE_MS:
        late = second if pair.delay_ms > 0 else first
        say(
            "delay",
            Weight.NOTE,
            f"are the same sound, channel {late.index} {abs(pair.delay_ms):.1f} ms later: use one of them, not their sum.",
        )
    marked = [channel.index for channel in (first, second) if channel.ident_gaps]
    if first.tone and second.tone and marked == [second.index] and second.index == first.index + 1:
        say(
            "swapped",
            Weight.STOP,
            "are swapped: the left ident arrives on the right one. Turn the plugs round, or the routing.",
        )
    return told


def _db(value: float) -> str:
    return f"{value:.1f}".replace("-", "−")
