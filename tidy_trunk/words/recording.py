"""What was heard in a recording, and what to do about it."""

from collections.abc import Callable, Mapping
from typing import Final

from tidy_trunk.core.base.signal import (
    ChannelMeasure,
    Hum,
    Measurement,
    NoiseShape,
    PairMeasure,
    SignalFinding,
    Ticks,
    Tone,
)
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.words.numbers import unsigned


def heard(item: SignalFinding, found: Measurement) -> str:
    """One thing that was heard, in sentences. `found`: the measurement that it was heard in."""
    first = found.channels[item.channels[0] - 1]
    if item.what == "dead-side":
        return _dead_side(first, found.channels[item.beside - 1])
    if len(item.channels) == 2:
        pair = next(pair for pair in found.pairs if pair.channels == item.channels)
        return (
            _bleed(pair)
            if item.what == "bleed"
            else f"Channels {item.channels[0]} and {item.channels[1]} {_ALIKE[item.what](pair)}"
        )
    who = "The recording" if len(found.channels) == 1 else f"Channel {first.index}"
    return f"{who} {_ALONE[item.what](first, found.rate_hz)}"


def _clipping(channel: ChannelMeasure, rate_hz: int) -> str:
    if not channel.clipped:
        return "has flat tops: it was cut off before its last gain or noise came. Look for the stage that clips, and record again."
    times = "in one place" if channel.clipped_count == 1 else f"in {channel.clipped_count} places"
    where = (
        "at full scale"
        if channel.peak_dbfs > -0.1
        else f"at {unsigned(channel.peak_dbfs)} dBFS, before something turned it down"
    )
    first_s = channel.clipped[0].start / rate_hz
    return f"is cut off {times}, first at {first_s:.1f} s, {where}. Nothing repairs that: turn down and record again."


def _hum(hum: Hum) -> str:
    return (
        f"hums at {hum.mains_hz} Hz, {unsigned(hum.level_dbfs)} dBFS: look for two devices on mains that a cable joins, or an "
        "unbalanced cable beside a dimmer."
    )


def _ticks(ticks: Ticks) -> str:
    return (
        f"ticks {1_000 // ticks.every_ms} times a second, {unsigned(ticks.level_dbfs)} dBFS: a computer's USB power comes in over an "
        "unbalanced cable. Take the device, or the camera, off its mains, or feed it from a charger that is no computer. Nothing "
        "takes the ticks out afterwards."
    )


def _clicks(channel: ChannelMeasure) -> str:
    many = "one click" if len(channel.clicks) == 1 else f"{len(channel.clicks)} clicks"
    return (
        f"has {many}, first at {channel.clicks[0]:.1f} s: a loose plug, a mains loop, or a clock that nobody follows."
    )


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


def _noise(channel: ChannelMeasure) -> str:
    noise = channel.noise
    return f"has noise of {unsigned(noise.flat_dbfs)} dBFS in its pauses, {unsigned(noise.a_dbfs)} A-weighted{_SHAPES[noise.shape]}"


def _tone(tone: Tone) -> str:
    rest = "" if tone.thd_n_db == SILENCE_DB else f", all else {unsigned(tone.thd_n_db)} dB"
    return f"holds a tone of {tone.frequency_hz:.1f} Hz at {unsigned(tone.level_dbfs)} dBFS{rest}."


_ALONE: Final[Mapping[str, Callable[[ChannelMeasure, int], str]]] = {
    "silence": lambda channel, _: "is silent: nothing arrives, not even noise. Look at its input, routing and arming.",
    "timecode": lambda channel, _: "carries timecode as sound: do not listen to it, and expect it in its neighbour.",
    "clipping": _clipping,
    "hum": lambda channel, _: _hum(channel.hum) if channel.hum else "",
    "ticks": lambda channel, _: _ticks(channel.ticks) if channel.ticks else "",
    "clicks": lambda channel, _: _clicks(channel),
    "automatic-level": lambda channel, _: (
        f"has noise that rises by {channel.creeps_db:.0f} dB in the pauses: automatic level is on somewhere. Switch it off, in both "
        "places. What it did to the level stays."
    ),
    "noise": lambda channel, _: _noise(channel),
    "no-voice": lambda channel, _: (
        f"holds nothing but noise, at {unsigned(channel.rms_dbfs)} dBFS: no voice came through. Look at the microphone, its power and "
        "its cable."
    ),
    "level": lambda channel, _: (
        f"peaks at {unsigned(channel.peak_dbfs)} dBFS only, which is too low for any target. It can be turned up afterwards as far as "
        "its noise allows; for the next take turn it up where it is first amplified."
    ),
    "dc": lambda channel, _: (
        f"has DC of {unsigned(channel.dc_dbfs)} dBFS: it clicks at every cut. A low cut afterwards takes it away."
    ),
    "true-peak": lambda channel, _: (
        f"rises to {unsigned(channel.true_peak_dbtp)} dBTP between its samples: too high for lossy coding."
    ),
    "tone": lambda channel, _: _tone(channel.tone) if channel.tone else "",
}
"""What is said of one channel; the number is the sample rate in Hz. [HANDBOOK] §7"""


def _delay(pair: PairMeasure) -> str:
    late_ms = pair.delay_ms or 0.0
    late = pair.channels[1] if late_ms > 0 else pair.channels[0]
    return f"are the same sound, channel {late} {abs(late_ms):.1f} ms later: use one of them, not their sum."


_ALIKE: Final[Mapping[str, Callable[[PairMeasure], str]]] = {
    "polarity": lambda pair: (
        "are the same sound in opposite polarity: in mono they cancel. A one-to-one cable sits where hot belongs on both sides, or a "
        "leg is crossed. Nothing is lost: keep one of them, or invert one before they are summed."
    ),
    "delay": _delay,
    "swapped": lambda pair: (
        "are swapped: the left ident arrives on the right one. Turn the plugs round, or the routing."
    ),
}
"""What is said of two channels together. [HANDBOOK] §4"""


def _bleed(pair: PairMeasure) -> str:
    into = pair.bleeds_into or 0
    source = sum(pair.channels) - into
    return f"Channel {source} is heard in channel {into}, {unsigned(-(pair.bleed_db or 0.0))} dB below itself."


def _dead_side(dead: ChannelMeasure, other: ChannelMeasure) -> str:
    return (
        f"Channel {dead.index} peaks at {unsigned(dead.peak_dbfs)} dBFS beside {unsigned(other.peak_dbfs)} on channel {other.index}: "
        "next to nothing arrives there. Look at that side of the plug and the cable, and at its routing. What was recorded so is "
        f"saved by using channel {other.index} on both sides."
    )
