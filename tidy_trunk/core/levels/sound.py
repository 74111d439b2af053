"""Sound at one point: how loud, how noisy, how sure, and whether it has been clipped."""

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final, NamedTuple

from tidy_trunk.core.catalogue import Figure, Provenance
from tidy_trunk.core.levels.spectra import Cuts, Spectrum, a_change_db, cut_change_db
from tidy_trunk.core.units import SILENCE_DB, db_from_ratio, ratio_from_db, sum_powers_db

MOST_CONTRIBUTORS: Final = 10
"""ASSUMED_ noises told apart on one track: the smallest of a large mix are summed into one, as nobody hears them singly."""

OTHERS: Final = "all other gear"
"""ASSUMED_ name of that sum."""

ROUNDING: Final = 1e-9
"""ASSUMED_ part of a voltage that is no voltage any more but what rounding leaves of two equal ones."""

_STRENGTH = {Provenance.TYPICAL: 0, Provenance.MANUAL: 1, Provenance.MEASURED: 2}


class Noise(NamedTuple):
    """One contributor to the noise, at the level that it has here, unweighted from 20 Hz to 20 kHz.

    born: what it was where it came in, in `unit`; cuts: the low cuts that it has been through since.
    """

    name: str
    level: float
    is_room: bool = False
    spectrum: Spectrum = Spectrum.FLAT
    cuts: Cuts = ()
    born: float = SILENCE_DB
    unit: str = ""

    @property
    def a_level(self) -> float:
        """A-weighted: as loud as it is to the ear."""
        return self.level + a_change_db(self.spectrum, self.cuts)

    def behind(self, cut_hz: int) -> "Noise":
        """What a low cut leaves of it."""
        cuts = (*self.cuts, cut_hz)
        change = cut_change_db(self.spectrum, cuts) - cut_change_db(self.spectrum, self.cuts)
        return self._replace(level=self.level + change, cuts=cuts)


def noise_in(name: str, level: float, unit: str, *, spectrum: Spectrum = Spectrum.FLAT, is_room: bool = False) -> Noise:
    """A noise where it comes in, at its unweighted level."""
    return Noise(name, level, is_room, spectrum, (), level, unit)


@dataclass(frozen=True, slots=True)
class Clip:
    """Where sound was first cut off: the stage, and by how much it went over.

    spare_db: of a burst that is cut, how far the expected peaks stay below that ceiling.
    """

    device: str
    where: str
    over_db: float
    spare_db: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Sound:
    """Quiet, average, peak and burst level in one unit (dB SPL, dBu or dBFS), with what else is known about them.

    burst: what comes unannounced, above the expected peaks.
    noises_before, noise_by_db: the noises as they were when they came in, and by how much they have risen since; most
        stages only move them all together. `noises` has them as they are here.
    variance_db2: sum of the squares of the independent ± behind the level; its root is the tolerance.
    weakest: the least certain provenance among the figures behind it.
    limited_db: by how much a limiter presses a burst down.
    lifted_db: by how much automatic level may turn the noise up in a pause.
    clip, burst_clip: where the expected peaks, and where a burst, were first cut off.
    """

    quiet: float = SILENCE_DB
    average: float = SILENCE_DB
    peak: float = SILENCE_DB
    burst: float = SILENCE_DB
    noises_before: tuple[Noise, ...] = ()
    noise_by_db: float = 0.0
    variance_db2: float = 0.0
    weakest: Provenance = Provenance.MEASURED
    clip: Clip | None = None
    burst_clip: Clip | None = None
    limited_db: float = 0.0
    lifted_db: float = 0.0

    @property
    def noises(self) -> tuple[Noise, ...]:
        """Every contributor at the level that it has here."""
        by_db = self.noise_by_db
        if by_db == 0.0:
            return self.noises_before
        return tuple(
            Noise(name, level + by_db, is_room, spectrum, cuts, born, unit)
            for name, level, is_room, spectrum, cuts, born, unit in self.noises_before
        )

    @property
    def tolerance_db(self) -> float:
        return math.sqrt(self.variance_db2)

    @property
    def noise(self) -> float:
        """Level of all noise together, unweighted: what a meter shows in a pause."""
        return sum_powers_db(noise.level for noise in self.noises)

    @property
    def noise_a(self) -> float:
        """Level of all noise together, A-weighted: what the ear makes of it."""
        return sum_powers_db(noise.a_level for noise in self.noises)

    @property
    def room_noise_a(self) -> float:
        """Level of the place's part of it, A-weighted."""
        return sum_powers_db(noise.a_level for noise in self.noises if noise.is_room)

    @property
    def gear_noise(self) -> float:
        """Level of all noise that is not the place's, unweighted."""
        return sum_powers_db(noise.level for noise in self.noises if not noise.is_room)

    @property
    def gear_noise_a(self) -> float:
        """The same, A-weighted: what is to be compared with the place."""
        return sum_powers_db(noise.a_level for noise in self.noises if not noise.is_room)

    @property
    def pause_noise(self) -> float:
        """What automatic level makes of the noise between words: as far as it reaches, at most as loud as speech."""
        return max(self.noise, min(self.noise + self.lifted_db, self.average))

    @property
    def ruling_noise(self) -> Noise | None:
        """The contributor that the listener hears."""
        return max(self.noises, key=lambda noise: noise.a_level, default=None)

    def shifted(self, by_db: float, *figures: Figure) -> "Sound":
        """Louder by so many dB, signal and noise alike, as sure as the figures that say so."""
        # Built by hand, not by `replace`: this is the innermost loop of every evaluation.
        return Sound(
            quiet=self.quiet + by_db,
            average=self.average + by_db,
            peak=self.peak + by_db,
            burst=self.burst + by_db,
            noises_before=self.noises_before,
            noise_by_db=self.noise_by_db + by_db,
            variance_db2=self.variance_db2 + sum(figure.tolerance**2 for figure in figures),
            weakest=weaker([self.weakest, *(figure.provenance for figure in figures)]) if figures else self.weakest,
            clip=self.clip,
            burst_clip=self.burst_clip,
            limited_db=self.limited_db,
            lifted_db=self.lifted_db,
        )

    def with_noise(self, *noises: Noise) -> "Sound":
        # Built by hand as well: the second most frequent step.
        return Sound(
            quiet=self.quiet,
            average=self.average,
            peak=self.peak,
            burst=self.burst,
            noises_before=(*self.noises, *noises),
            variance_db2=self.variance_db2,
            weakest=self.weakest,
            clip=self.clip,
            burst_clip=self.burst_clip,
            limited_db=self.limited_db,
            lifted_db=self.lifted_db,
        )

    def behind_low_cut(self, cut_hz: int) -> "Sound":
        """What a low cut leaves: of each noise by its spectrum, of the sound as of a voice."""
        by_db = cut_change_db(Spectrum.VOICE, (cut_hz,))
        return replace(
            self,
            quiet=self.quiet + by_db,
            average=self.average + by_db,
            peak=self.peak + by_db,
            burst=self.burst + by_db,
            noises_before=tuple(noise.behind(cut_hz) for noise in self.noises),
            noise_by_db=0.0,
        )

    def limited(self, threshold: float) -> "Sound":
        """What a limiter leaves: nothing above its threshold, and nothing cut off."""
        pressed = self.burst - threshold
        if pressed <= 0:
            return self
        return replace(
            self,
            quiet=min(self.quiet, threshold),
            average=min(self.average, threshold),
            peak=min(self.peak, threshold),
            burst=threshold,
            limited_db=max(self.limited_db, pressed),
        )

    def capped(self, ceiling: float, device: str, where: str) -> "Sound":
        """What is left after a stage that cannot go above its ceiling: clipped once is clipped for good."""
        if self.burst <= ceiling:
            return self
        burst_clip = self.burst_clip or Clip(device, where, self.burst - ceiling, max(ceiling - self.peak, 0.0))
        if self.peak <= ceiling:
            return replace(self, burst=ceiling, burst_clip=burst_clip)
        return replace(
            self,
            quiet=min(self.quiet, ceiling),
            average=min(self.average, ceiling),
            peak=ceiling,
            burst=ceiling,
            clip=self.clip or Clip(device, where, self.peak - ceiling),
            burst_clip=burst_clip,
        )


def weaker(provenances: Iterable[Provenance]) -> Provenance:
    """The least certain of several."""
    return min(provenances, key=_STRENGTH.__getitem__, default=Provenance.MEASURED)


def mixed(sounds: Sequence[Sound]) -> Sound:
    """Several sounds on one wire: powers add, for peaks too, as unrelated voices seldom peak together.

    Of bursts the largest comes alone, over the averages of the others; all peaks together may be more.
    The ± is that of the loudest one, which rules the sum. A noise that arrives by two ways is counted by its power in
    each and told once.
    """
    if len(sounds) == 1:
        return sounds[0]
    if not sounds:
        return Sound()
    loudest = max(sounds, key=lambda sound: sound.average)
    peak = sum_powers_db(sound.peak for sound in sounds)
    return Sound(
        quiet=sum_powers_db(sound.quiet for sound in sounds),
        average=sum_powers_db(sound.average for sound in sounds),
        peak=peak,
        burst=max(_one_burst(sounds), peak),
        noises_before=_merged(noise for sound in sounds for noise in sound.noises),
        variance_db2=loudest.variance_db2,
        weakest=weaker(sound.weakest for sound in sounds),
        clip=next((sound.clip for sound in sounds if sound.clip), None),
        burst_clip=next((sound.burst_clip for sound in sounds if sound.burst_clip), None),
        limited_db=max(sound.limited_db for sound in sounds),
        lifted_db=max(sound.lifted_db for sound in sounds),
    )


def in_step(sounds: Sequence[tuple[Sound, float]], shared: frozenset[str]) -> Sound:
    """One sound that arrives by several ways, each with its polarity (1 or -1): voltages add, powers do not.

    shared: names of the noises that come along by all of them; all others are each way's own.
    """
    first, _ = max(sounds, key=lambda item: item[0].average)

    def together(level: Callable[[Sound], float]) -> float:
        return _voltages_db((level(sound), sign) for sound, sign in sounds)

    own, common = [], []
    for sound, sign in sounds:
        for noise in sound.noises:
            if noise.name in shared:
                common.append((noise, sign))
            else:
                own.append(noise)
    for name in dict.fromkeys(noise.name for noise, _ in common):
        same = [(noise, sign) for noise, sign in common if noise.name == name]
        own.append(same[0][0]._replace(level=_voltages_db((noise.level, sign) for noise, sign in same)))
    return replace(
        first,
        quiet=together(lambda sound: sound.quiet),
        average=together(lambda sound: sound.average),
        peak=together(lambda sound: sound.peak),
        burst=together(lambda sound: sound.burst),
        noises_before=_merged(own),
        noise_by_db=0.0,
    )


def _voltages_db(levels: Iterable[tuple[float, float]]) -> float:
    """Level of voltages that add with their signs; what is left by rounding is nothing."""
    ratios = [sign * ratio_from_db(level) for level, sign in levels]
    total = abs(sum(ratios))
    return db_from_ratio(total) if total > ROUNDING * max(map(abs, ratios)) else SILENCE_DB


def _one_burst(sounds: Sequence[Sound]) -> float:
    """The loudest burst over the averages of all others."""
    first = max(sounds, key=lambda sound: sound.burst)
    return sum_powers_db(sound.burst if sound is first else sound.average for sound in sounds)


def _merged(noises: Iterable[Noise]) -> tuple[Noise, ...]:
    by_name: dict[tuple[str, Cuts], list[Noise]] = {}
    for noise in noises:
        by_name.setdefault((noise.name, noise.cuts), []).append(noise)
    found = [
        same[0] if len(same) == 1 else same[0]._replace(level=sum_powers_db(noise.level for noise in same))
        for same in by_name.values()
    ]
    if len(found) <= MOST_CONTRIBUTORS:
        return tuple(found)
    found.sort(key=lambda noise: (not noise.is_room, -noise.level))
    kept, small = found[: MOST_CONTRIBUTORS - 1], found[MOST_CONTRIBUTORS - 1 :]
    rest = sum_powers_db(noise.level for noise in small)
    return (*kept, noise_in(OTHERS, rest, small[0].unit))
