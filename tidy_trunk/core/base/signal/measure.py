"""Second look at a recording: at its loudest second, its steadiest tone and its pauses; and all of it put together."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.signal.bands import band_levels
from tidy_trunk.core.base.signal.clipping import has_flat_tops
from tidy_trunk.core.base.signal.decibels import db_of_ratios, dbfs_of_power, dbfs_of_powers, powers_of_dbfs
from tidy_trunk.core.base.signal.hum import find_hum
from tidy_trunk.core.base.signal.measurement import (
    ChannelMeasure,
    Measurement,
    NoiseFloor,
    NoiseFrom,
    Overview,
    PairMeasure,
    Tone,
)
from tidy_trunk.core.base.signal.meter import BLOCK_S, MeterResult
from tidy_trunk.core.base.signal.pairs import measure_pair
from tidy_trunk.core.base.signal.pauses import Pauses, clicks, creep_db, find_pauses, noise_frames
from tidy_trunk.core.base.signal.shape import shape_of
from tidy_trunk.core.base.signal.spectrum import HIGHEST_HZ, Spectrum, noise_spectrum, smooth_size
from tidy_trunk.core.base.signal.stretches import runs
from tidy_trunk.core.base.signal.ticks import find_ticks
from tidy_trunk.core.base.signal.tone import LONGEST_LOOK_S, MeasuredTone, SteadyRun, steady_runs, tone_inside
from tidy_trunk.core.base.timecode import carries_timecode
from tidy_trunk.core.base.units import SILENCE_DB

LOUDEST_S: Final = 1.0
"""ASSUMED_ of the loudest place of a channel, what is looked at closely."""

MOST_FRAMES: Final = 48
"""ASSUMED_ stretches of pause that are looked at, of all channels together: their mean is known to half a dB."""

FEWEST_FRAMES: Final = 4
"""ASSUMED_ of each channel at least."""

SAME_TONE_DB: Final = 1.0
"""ASSUMED_ how far a tone may move and still be the same one."""

IDENT_GAP_S: Final = (0.1, 0.6)
"""Shortest and longest interruption that marks a channel: a left ident has a quarter of a second. [MEMORY]"""

FAR_BELOW_DB: Final = 20.0
"""ASSUMED_ how far below a tone lies what is no part of it: a gap in it, a pause, a fainter one."""

OVERVIEW_POINTS: Final = 1_000
"""ASSUMED_ stretches of a waveform as it is drawn: about the points of a screen's width."""

HUM_IS_TONE_DB: Final = -40.0
"""ASSUMED_ how clean a tone at a mains frequency must be to be one that somebody sent: hum has harmonics."""

ReadChannels = Callable[[int, int], NDArray[np.float32]]
"""From first sample and count to samples of all channels, shape (channels, count), full scale 1.0. [AES17]"""


def measure(metered: MeterResult, read: ReadChannels) -> Measurement:
    """All there is to know, from the first look and a second one at a few places.

    `read` gives any stretch of the recording again; it is asked for a few seconds of each channel, one stretch at a time.
    """
    channels = tuple(_Channel(metered, index, read).measure() for index in range(metered.channels))
    starts = [_loudest(metered, index) for index in range(metered.channels)]
    size = min(round(LOUDEST_S * metered.rate_hz), metered.sample_count)
    return Measurement(
        rate_hz=metered.rate_hz,
        seconds=metered.sample_count / metered.rate_hz,
        channels=channels,
        pairs=tuple(_pair(metered, index, starts, size, read) for index in range(len(metered.pairs))),
        overview=_overview(metered),
    )


def _pair(metered: MeterResult, index: int, starts: Sequence[int], size: int, read: ReadChannels) -> PairMeasure:
    first, second = metered.pairs[index]
    if not (metered.power(first) and metered.power(second)):
        return measure_pair(metered, index, [])
    stretches = [read(starts[channel], size) for channel in (first, second)]
    return measure_pair(metered, index, [(stretch[first], stretch[second]) for stretch in stretches])


def holds_timecode(metered: MeterResult, channel: int, read: ReadChannels) -> bool:
    """Whether the loudest second of a channel is linear timecode. `channel`: from 0; `read`: as for `measure`."""
    start = _loudest(metered, channel)
    size = min(round(LOUDEST_S * metered.rate_hz), metered.sample_count)
    return bool(metered.power(channel)) and carries_timecode(read(start, size)[channel], metered.rate_hz)


def _loudest(metered: MeterResult, channel: int) -> int:
    """First sample of a channel's loudest second, or of the whole where it is shorter."""
    powers = metered.block_powers(channel)
    size = min(round(LOUDEST_S / BLOCK_S), len(powers))
    sums = np.convolve(powers, np.ones(size), "valid")
    start = int(np.argmax(sums)) * metered.block_size
    return max(min(start, metered.sample_count - round(LOUDEST_S * metered.rate_hz)), 0)


@dataclass(frozen=True, slots=True)
class _SteadyTone:
    """A tone with the stretches over which it stands: blocks of it, and how many of what sounds they are."""

    inside: MeasuredTone
    runs: tuple[SteadyRun, ...]
    blocks: NDArray[np.bool_]
    share: float


class _Channel:
    """One channel on its second look."""

    def __init__(self, metered: MeterResult, index: int, read: ReadChannels) -> None:
        self._metered = metered
        self._index = index
        self._read = read
        self._block_s = metered.block_size / metered.rate_hz
        self._powers = metered.block_powers(index)
        self._levels = dbfs_of_powers(self._powers)
        highest, lowest = metered.highest[index], metered.lowest[index]
        self._peaks = db_of_ratios(np.maximum(highest, -lowest) - abs(metered.mean(index)))

    def measure(self) -> ChannelMeasure:
        metered, index = self._metered, self._index
        power, mean = metered.power(index), metered.mean(index)
        size = min(round(LOUDEST_S * metered.rate_hz), metered.sample_count)
        loudest = self._stretch(_loudest(metered, index), size)
        tone = self._tone() if power else None
        pauses = find_pauses(self._levels, self._powers)
        noise, spectrum = self._noise(pauses, tone)
        lines = _multiples(tone.inside.frequency_hz) if tone else ()
        hum = find_hum(spectrum, lines) if spectrum else None
        ticks = find_ticks(spectrum, lines) if spectrum else None
        is_ltc = bool(power) and carries_timecode(loudest, metered.rate_hz)
        peak = max(float(metered.highest[index].max()), -float(metered.lowest[index].min()))
        rms = float(np.sqrt(powers_of_dbfs(min(noise.flat_dbfs, 0.0))))
        return ChannelMeasure(
            index=index + 1,
            peak_dbfs=float(db_of_ratios(peak)),
            # The filter that looks between the samples takes a little off the samples themselves.
            true_peak_dbtp=float(db_of_ratios(max(metered.true_peaks[index], peak))),
            rms_dbfs=dbfs_of_power(power),
            dc_dbfs=float(db_of_ratios(mean)),
            noise=noise,
            # Timecode is square: its tops are flat by nature.
            clipped=() if is_ltc else metered.clipped[index],
            clipped_count=0 if is_ltc else metered.clip_counts[index],
            has_flat_tops=not is_ltc and bool(power) and has_flat_tops(loudest, rms),
            tone=None if tone is None else self._tone_value(tone),
            hum=hum,
            ticks=ticks,
            clicks=() if is_ltc else self._clicks(pauses, tone),
            creeps_db=0.0 if tone is not None or is_ltc else creep_db(self._levels, self._block_s),
            ident_gaps=self._ident_gaps(tone),
            is_ltc=is_ltc,
        )

    def _stretch(self, start: int, count: int) -> NDArray[np.float32]:
        samples: NDArray[np.float32] = self._read(start, count)[self._index]
        return samples

    def _tone(self) -> _SteadyTone | None:
        """The tone of the longest steady stretch, of those the loudest, that turns out to be one."""
        steady = steady_runs(self._levels, self._peaks, self._block_s)
        if not steady:
            return None
        loudest = max(run.level_dbfs for run in steady)
        likely = [run for run in steady if run.level_dbfs >= loudest - FAR_BELOW_DB]
        best = max(likely, key=lambda run: (run.end - run.start, run.level_dbfs))
        block, rate_hz = self._metered.block_size, self._metered.rate_hz
        # Its first and last block may hold the edge of it.
        start, end = (best.start + 1) * block, min((best.end - 1) * block, self._metered.sample_count)
        size = smooth_size(min(end - start, round(LONGEST_LOOK_S * rate_hz)))
        if size < block:
            return None
        inside = tone_inside(self._stretch(start + (end - start - size) // 2, size), rate_hz)
        if inside is None or _is_hum(inside):
            return None
        same = [run for run in steady if abs(run.level_dbfs - best.level_dbfs) <= SAME_TONE_DB]
        blocks = np.zeros(len(self._levels), dtype=bool)
        for run in same:
            blocks[run.start : run.end] = True
        sounding = int(np.count_nonzero(np.isfinite(self._levels)))
        return _SteadyTone(inside, tuple(same), blocks, float(blocks.sum()) / max(sounding, 1))

    def _tone_value(self, tone: _SteadyTone) -> Tone:
        return Tone(
            frequency_hz=tone.inside.frequency_hz,
            level_dbfs=dbfs_of_power(tone.inside.power),
            thd_n_db=tone.inside.thd_n_db,
            seconds=float(tone.blocks.sum()) * self._block_s,
        )

    def _noise(self, pauses: Pauses, tone: _SteadyTone | None) -> tuple[NoiseFloor, Spectrum | None]:
        """The noise floor, and the spectrum in which to look for hum."""
        nowhere = NoiseFloor(flat_dbfs=SILENCE_DB, a_dbfs=SILENCE_DB, found=NoiseFrom.NOWHERE)
        if tone is not None and tone.share >= 0.5:
            level = dbfs_of_power(tone.inside.power)
            # A tone with nothing but itself, or with gaps in which a machine sent nothing: the noise lies under it.
            if not pauses.level_dbfs < level - FAR_BELOW_DB or pauses.level_dbfs == SILENCE_DB:
                inside = tone.inside
                return _floor(inside.residue, inside.noise, inside.noise_a, NoiseFrom.TONE), inside.residue
        if not pauses.blocks.any():
            return nowhere, None
        if pauses.level_dbfs == SILENCE_DB:
            return NoiseFloor(flat_dbfs=SILENCE_DB, a_dbfs=SILENCE_DB, found=NoiseFrom.PAUSES), None
        most = max(MOST_FRAMES // self._metered.channels, FEWEST_FRAMES)
        starts, size = noise_frames(pauses.blocks, self._metered.block_size, self._metered.rate_hz, most)
        starts = [start for start in starts if start + size <= self._metered.sample_count]
        if not starts:
            return nowhere, None
        spectrum = noise_spectrum([self._stretch(start, size) for start in starts], self._metered.rate_hz)
        return _floor(spectrum, *spectrum.noise(), NoiseFrom.PAUSES), spectrum

    def _clicks(self, pauses: Pauses, tone: _SteadyTone | None) -> tuple[float, ...]:
        quiet = tone.blocks if tone is not None and tone.share >= 0.5 else pauses.blocks
        return clicks(self._levels, self._peaks, quiet, self._block_s)

    def _ident_gaps(self, tone: _SteadyTone | None) -> int:
        if tone is None:
            return 0
        level = dbfs_of_power(tone.inside.power)
        shortest, longest = (round(seconds / BLOCK_S) for seconds in IDENT_GAP_S)
        gaps = [
            (start, end)
            for start, end in runs(~tone.blocks)
            if start > 0 and end < len(tone.blocks) and shortest <= end - start <= longest
        ]
        return sum(bool(self._levels[start:end].min() < level - FAR_BELOW_DB) for start, end in gaps)


def _floor(spectrum: Spectrum, flat: float, weighted: float, found: NoiseFrom) -> NoiseFloor:
    bands = tuple(band_levels(spectrum.powers, spectrum.width_hz).tolist())
    return NoiseFloor(
        flat_dbfs=dbfs_of_power(flat),
        a_dbfs=dbfs_of_power(weighted),
        found=found,
        bands=bands,
        shape=shape_of(bands),
    )


def _multiples(frequency_hz: float) -> tuple[float, ...]:
    """A tone and its harmonics, as far up as hum and ticks have lines."""
    return tuple(frequency_hz * number for number in range(1, max(int(HIGHEST_HZ / max(frequency_hz, 1.0)), 1) + 1))


def _is_hum(inside: MeasuredTone) -> bool:
    """Whether the only tone there is is the mains themselves: at a low multiple of theirs, faint, and not clean."""
    near = any(abs(inside.frequency_hz - mains_hz * number) < 1.0 for mains_hz in (50, 60) for number in (1, 2, 3, 4))
    faint = dbfs_of_power(inside.power) < HUM_IS_TONE_DB
    return near and (faint or inside.thd_n_db > HUM_IS_TONE_DB)


def _overview(metered: MeterResult) -> Overview:
    blocks = metered.highest.shape[1]
    size = -(-blocks // OVERVIEW_POINTS)
    edges = np.arange(0, blocks, size)
    highest = np.maximum.reduceat(metered.highest, edges, axis=1)
    lowest = np.minimum.reduceat(metered.lowest, edges, axis=1)

    def rounded(values: NDArray[np.float32]) -> tuple[tuple[float, ...], ...]:
        return tuple(tuple(round(float(value), 5) for value in row) for row in values)

    return Overview(
        stretch_s=size * metered.block_size / metered.rate_hz, highest=rounded(highest), lowest=rounded(lowest)
    )
