"""What the simulation is made of: noises of each spectrum and a voice, as loops without a seam."""

import zlib
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal import BANDS_HZ, HIGHEST_HZ, LOWEST_HZ
from tidy_trunk.core.sound.levels import SPEECH_DB, Noise, SpectrumShape
from tidy_trunk.core.sound.trace import StageKey

NoiseLoop = NDArray[np.float32]
"""Samples of a loop, shape (sample_count,). A sine that peaks at 1.0 has a level of 0 in the loop's unit. [AES17]"""

ROOM_PER_HZ_DB: Final = -10.0
"""Slope of a room's noise per decade: alike in all third octaves. [MEMORY]"""

RUMBLE_PER_HZ_DB: Final = -30.0
"""Slope of rumble per decade: a third octave falls by 6 dB in an octave. [MEMORY]"""


@lru_cache(maxsize=16)
def noise_loop(spectrum: SpectrumShape, sample_count: int, rate_hz: int) -> NoiseLoop:
    """Noise of one spectrum from 20 Hz to 20 kHz, at a level of exactly 0; always the same. Do not write into it."""
    hertz = np.asarray(np.fft.rfftfreq(sample_count, 1 / rate_hz), dtype=np.float64)
    inside = (hertz >= LOWEST_HZ) & (hertz <= min(HIGHEST_HZ, rate_hz * 0.49))
    shape = np.zeros_like(hertz)
    shape[inside] = _amplitudes(spectrum, hertz[inside])
    random = np.random.default_rng(zlib.crc32(spectrum.encode()))
    # Every line with its very share of the power, and a phase by chance: no two loops of it differ in level.
    lines = shape * np.exp(2j * np.pi * random.random(len(hertz)))
    return _at_level(np.fft.irfft(lines, sample_count))


def _amplitudes(spectrum: SpectrumShape, hertz: NDArray[np.float64]) -> NDArray[np.float64]:
    match spectrum:
        case SpectrumShape.FLAT:
            return np.ones_like(hertz)
        case SpectrumShape.ROOM:
            return (hertz / LOWEST_HZ) ** (ROOM_PER_HZ_DB / 20)
        case SpectrumShape.RUMBLE:
            return (hertz / LOWEST_HZ) ** (RUMBLE_PER_HZ_DB / 20)
        case SpectrumShape.VOICE:
            # Third octaves hold more hertz the higher they lie.
            levels = np.interp(np.log(hertz), np.log(BANDS_HZ), list(SPEECH_DB.values()))
            return np.asarray(10 ** (levels / 20) / np.sqrt(hertz))


def _at_level(samples: NDArray[np.float64]) -> NoiseLoop:
    samples = samples - samples.mean()
    return np.asarray(samples / (np.sqrt(2) * np.sqrt(np.mean(samples**2))), dtype=np.float32)


def noise_of(noise: Noise, at: StageKey, sample_count: int, rate_hz: int) -> NoiseLoop:
    """A noise as it is at its level, its own by its name and place: by whatever ways it comes together again, it is one."""
    loop = noise_loop(noise.spectrum, sample_count, rate_hz)
    start = zlib.crc32(" ".join(map(str, (*at, noise.name))).encode()) % sample_count
    amplitude = np.float32(10 ** (noise.level / 20))
    return np.asarray(np.roll(loop, start) * amplitude)


WORD_S: Final = (0.12, 0.35)
"""ASSUMED_ shortest and longest word."""

GAP_S: Final = (0.03, 0.12)
"""ASSUMED_ shortest and longest gap between two words of a sentence."""

PAUSE_S: Final = (0.5, 1.1)
"""ASSUMED_ shortest and longest pause between two sentences."""

SENTENCE: Final = (4, 9)
"""ASSUMED_ fewest and most words of a sentence."""

WORD_SPREAD_DB: Final = 3.5
"""ASSUMED_ standard deviation of the level of words."""


@lru_cache(maxsize=16)
def voice_loop(name: str, peak_db: float, sample_count: int, rate_hz: int) -> NoiseLoop:
    """Somebody who speaks in sentences, with pauses in which nothing is said; always the same for one name.

    The words stand at a level of 0 together, with the spectrum of speech, and the highest peak at `peak_db`.
    """
    random = np.random.default_rng(zlib.crc32(name.encode()))
    envelope = _sentences(random, sample_count, rate_hz)
    carrier = np.roll(noise_loop(SpectrumShape.VOICE, sample_count, rate_hz), random.integers(sample_count))
    said = envelope > 0
    samples, top = carrier * envelope, 10 ** (peak_db / 20)
    for _ in range(4):
        # What is rounded off takes a little of the level with it, and what is made louder is rounded off a little more.
        samples = _rounded_off(samples / np.sqrt(2 * np.mean(samples[said] ** 2)), top)
    highest = int(np.argmax(np.abs(samples)))
    # One consonant is as loud as peaks are expected to be: a millisecond, which moves the level by nothing.
    width = max(rate_hz // 1000, 2)
    around = (np.arange(highest - width // 2, highest + width // 2 + 1)) % sample_count
    missing = np.sign(samples[highest]) * top - samples[highest]
    samples[around] += missing * np.hanning(len(around) + 2)[1:-1]
    return np.asarray(samples, dtype=np.float32)


def _sentences(random: np.random.Generator, sample_count: int, rate_hz: int) -> NDArray[np.float64]:
    """The level of words over time, 0 where nothing is said."""
    envelope = np.zeros(sample_count)
    at, words = round(0.2 * rate_hz), int(random.integers(*SENTENCE))
    while True:
        length = round(random.uniform(*WORD_S) * rate_hz)
        if at + length >= sample_count - rate_hz // 5:
            return envelope
        level = 10 ** (random.normal(0, WORD_SPREAD_DB) / 20)
        envelope[at : at + length] = level * np.sin(np.pi * np.arange(length) / length) ** 0.5
        words -= 1
        at += length + round(random.uniform(*(GAP_S if words else PAUSE_S)) * rate_hz)
        words = words or int(random.integers(*SENTENCE))


def _rounded_off(samples: NDArray[np.float64], top: float) -> NDArray[np.float64]:
    """Nothing above nine tenths of the top, and what lies below seven as it was."""
    knee, room = 0.7 * top, 0.2 * top
    over = np.maximum(np.abs(samples) - knee, 0.0)
    return np.asarray(np.where(over > 0, np.sign(samples) * (knee + room * np.tanh(over / room)), samples))


BURST_S: Final = 0.6
"""ASSUMED_ length of a laugh or a shout."""


@lru_cache(maxsize=16)
def burst_loop(name: str, sample_count: int, rate_hz: int) -> NoiseLoop:
    """One laugh in all of the loop, with the spectrum of a voice; it peaks at 1.0."""
    random = np.random.default_rng(zlib.crc32(f"{name} burst".encode()))
    length = min(round(BURST_S * rate_hz), sample_count // 2)
    at = int(random.integers(sample_count // 4, sample_count - length))
    times = np.arange(length) / rate_hz
    # Ha, ha, ha: five a second.
    envelope = np.zeros(sample_count)
    envelope[at : at + length] = np.abs(np.sin(np.pi * 5 * times)) * np.sin(np.pi * times / BURST_S) ** 0.3
    samples = noise_loop(SpectrumShape.VOICE, sample_count, rate_hz) * envelope
    return np.asarray(samples / np.abs(samples).max(), dtype=np.float32)


@lru_cache(maxsize=4)
def gusts(sample_count: int, rate_hz: int) -> NoiseLoop:
    """How wind comes and goes: the level of noise over time, its mean square 1; a loop without a seam."""
    random = np.random.default_rng(zlib.crc32(b"gusts"))
    turns = np.arange(sample_count) / sample_count * 2 * np.pi
    seconds = sample_count / rate_hz
    slow = sum(
        np.sin(turns * max(round(seconds * hertz), 1) + random.uniform(0, 2 * np.pi)) for hertz in (0.1, 0.25, 0.6, 1.3)
    )
    envelope = 10 ** (slow * 4.0 / 20)
    return np.asarray(envelope / np.sqrt(np.mean(envelope**2)), dtype=np.float32)


BELL_PARTIALS: Final = (
    (0.5, 0.5, 6.0),
    (1.0, 1.0, 4.0),
    (1.2, 0.7, 3.0),
    (1.5, 0.5, 2.0),
    (2.0, 0.8, 2.5),
    (2.67, 0.3, 1.0),
    (4.0, 0.25, 0.6),
)
"""Of a bell: ratio to its prime, share, seconds until it has died by 60 dB. Hum, prime, tierce, quint, nominal. [MEMORY]"""

BELL_HZ: Final = 220.0
"""ASSUMED_ prime of the bell that is struck."""

STRUCK_S: Final = 0.5
"""ASSUMED_ moment of the loop at which it is struck."""


@lru_cache(maxsize=4)
def bell_loop(sample_count: int, rate_hz: int) -> NoiseLoop:
    """A bell that is struck once a loop; it peaks at 1.0."""
    times = np.arange(sample_count) / rate_hz
    struck = sum(
        share * np.sin(2 * np.pi * BELL_HZ * ratio * times) * 10 ** (-3 * times / dies_s)
        for ratio, share, dies_s in BELL_PARTIALS
    )
    # The clapper itself, for a few milliseconds.
    click = np.random.default_rng(zlib.crc32(b"clapper")).standard_normal(sample_count) * np.exp(-times / 0.004)
    sound = struck + 0.4 * click
    # What still rings when the loop begins again is let die before it does.
    sound *= np.minimum(1.0, (times[-1] - times) / 0.2)
    return np.roll(np.asarray(sound / np.abs(sound).max(), dtype=np.float32), round(STRUCK_S * rate_hz) % sample_count)


CLAP_S: Final = 2.0
"""ASSUMED_ moment of the loop at which the hands meet."""


@lru_cache(maxsize=4)
def clap_loop(sample_count: int, rate_hz: int) -> NoiseLoop:
    """Two hands that meet once a loop, at `CLAP_S`; it peaks at 1.0."""
    times = np.arange(sample_count) / rate_hz
    burst = np.random.default_rng(zlib.crc32(b"clap")).standard_normal(sample_count) * np.exp(-times / 0.012)
    burst[times > 0.2] = 0.0
    return np.roll(np.asarray(burst / np.abs(burst).max(), dtype=np.float32), round(CLAP_S * rate_hz) % sample_count)


@lru_cache(maxsize=32)
def low_cut_response(cut_hz: int, sample_count: int, rate_hz: int) -> NDArray[np.complex64]:
    """What a low cut does to each line of a loop's spectrum."""
    turn = 1j * np.fft.rfftfreq(sample_count, 1 / rate_hz) / cut_hz
    # Butterworth of the second order: the one of which `levels` knows what it leaves.
    return np.asarray(turn**2 / (1 + np.sqrt(2) * turn + turn**2), dtype=np.complex64)
