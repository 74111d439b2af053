"""Sounds whose parts are known, made with numpy alone. Levels in dBFS [AES17]: a sine that peaks at -20 reads -20."""

import io
import struct
import wave

import numpy as np

from tidy_trunk.core.base.signal import Measurement, Meter, measure

RATE = 48_000


def ratio(db: float) -> float:
    return 10 ** (db / 20)


def sine(hertz: float, dbfs: float, seconds: float, rate: int = RATE, phase: float = 0.0) -> np.ndarray:
    return ratio(dbfs) * np.sin(2 * np.pi * hertz * np.arange(round(seconds * rate)) / rate + phase)


def noise(dbfs: float, seconds: float, seed: int = 0, rate: int = RATE) -> np.ndarray:
    """White, over the whole band up to half the rate."""
    return ratio(dbfs) / np.sqrt(2) * np.random.default_rng(seed).standard_normal(round(seconds * rate))


def voice(dbfs: float, seconds: float, seed: int = 0) -> np.ndarray:
    """Words of noise below a few kHz, a tenth to a third of a second long, with pauses between them; silent in those."""
    random = np.random.default_rng(seed)
    count = round(seconds * RATE)
    envelope, at = np.zeros(count), round(0.3 * RATE)
    while at < count:
        word = round(random.uniform(0.1, 0.35) * RATE)
        envelope[at : at + word] = np.hanning(word)[: max(0, count - at)] * ratio(random.normal(0, 4))
        at += word + round((random.uniform(0.03, 0.1) if random.random() < 0.7 else random.uniform(0.6, 1.0)) * RATE)
    spectrum = np.fft.rfft(random.standard_normal(count))
    hertz = np.fft.rfftfreq(count, 1 / RATE)
    sound = np.fft.irfft(spectrum / (1 + (hertz / 500) ** 2) * (hertz > 80), count) * envelope
    return sound / np.sqrt(np.mean(sound[envelope > 0.1] ** 2)) * ratio(dbfs) / np.sqrt(2)


def measured(*channels: np.ndarray, rate: int = RATE, bits: int = 24, pieces: int = RATE) -> Measurement:
    """What is measured of these channels, rounded to so many bits as a file holds them; 0 bits: float."""
    whole = np.stack(channels).astype(np.float64)
    if bits:
        whole = np.clip(np.round(whole * 2 ** (bits - 1)), -(2 ** (bits - 1)), 2 ** (bits - 1) - 1) / 2 ** (bits - 1)
    samples = whole.astype(np.float32)
    meter = Meter(rate, len(channels), step=2.0 ** (1 - bits) if bits else 0.0)
    pieces -= pieces % meter.block_size
    for start in range(0, samples.shape[1], pieces):
        meter.add(np.ascontiguousarray(samples[:, start : start + pieces]))
    return measure(meter.metered(), lambda start, count: samples[:, start : start + count])


def wav(*channels: np.ndarray, rate: int = RATE, bits: int = 16) -> bytes:
    """A plain WAV by the standard library."""
    box = io.BytesIO()
    whole = np.clip(np.round(np.stack(channels, axis=1) * 2 ** (bits - 1)), -(2 ** (bits - 1)), 2 ** (bits - 1) - 1)
    with wave.open(box, "wb") as file:
        file.setnchannels(len(channels))
        file.setsampwidth(bits // 8)
        file.setframerate(rate)
        file.writeframes(whole.astype("<i4").view(np.uint8).reshape(-1, 4)[:, : bits // 8].tobytes())
    return box.getvalue()


def timecode_sound(frames: int, rate: int = RATE, fps: int = 25, dbfs: float = -18.0) -> np.ndarray:
    """Linear timecode of that many frames, biphase mark, by the word of SMPTE ST 12-1; the labels are all alike."""
    word = "0" * 64 + "0011111111111101"
    sign, edges = 1.0, []
    for bit in word * frames:
        edges += [sign, -sign] if bit == "1" else [sign, sign]
        sign = edges[-1] * -1
    at = np.arange(round(frames / fps * rate)) * (fps * 160) / rate
    return ratio(dbfs) * np.array(edges)[np.minimum(at.astype(int), len(edges) - 1)]


def with_time_reference(data, samples):
    """A bext chunk before the sound, built from EBU Tech 3285 by hand."""
    body = struct.pack(
        "<256s32s32s10s8sIIH254s",
        b"",
        b"",
        b"",
        b"2026-11-25",
        b"10:00:00",
        samples & 0xFFFFFFFF,
        samples >> 32,
        1,
        b"",
    )
    chunk = b"bext" + struct.pack("<I", len(body)) + body
    inside = data[8:12] + chunk + data[12:]
    return b"RIFF" + struct.pack("<I", len(inside)) + inside
