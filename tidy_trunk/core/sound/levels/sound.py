"""Sound at one point: how loud, how noisy, how sure, and whether it has been clipped."""

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio, ratio_from_db, sum_powers_db
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.sound.levels.spectra import Cuts, SpectrumShape, a_change_db, cut_change_db, likeness

MOST_CONTRIBUTORS: Final = 10
"""ASSUMED_ noises told apart on one track: the smallest of a large mix are summed into one, as nobody hears them singly."""

OTHERS: Final = "all other gear"
"""ASSUMED_ name of that sum."""

ROUNDING: Final = 1e-9
"""ASSUMED_ part of a voltage that is no voltage any more but what rounding leaves of two equal ones."""

NOISE_PEAK_DB: Final = 9.0
"""Peaks of Gaussian noise above its level: four standard deviations, 12 dB, against a sine's crest of 3 dB, which levels in
dBFS and ceilings are counted by. [AES17]; four standard deviations are common for a crest factor [PRACTICE]"""

JUST_OVER_DB: Final = 0.05
"""ASSUMED_ excess over a ceiling that is printed as none, and told of as no clipping."""

_DROWNED_DB: Final = 26.0
"""ASSUMED_ distance below which the peaks of noise add nothing to those of the signal: 0.01 dB."""

_STRENGTH = {Provenance.TYPICAL: 0, Provenance.MANUAL: 1, Provenance.MEASURED: 2}


class Noise(NamedTuple):
    """One contributor to the noise, at the level that it has here, unweighted from 20 Hz to 20 kHz.

    born: what it was where it came in, in `unit`; cuts: the low cuts that it has been through since.
    """

    name: str
    level: float
    is_room: bool = False
    spectrum: SpectrumShape = SpectrumShape.FLAT
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


def noise_in(
    name: str, level: float, unit: str, *, spectrum: SpectrumShape = SpectrumShape.FLAT, is_room: bool = False
) -> Noise:
    """A noise where it comes in, at its unweighted level."""
    return Noise(name, level, is_room, spectrum, (), level, unit)


@dataclass(frozen=True, slots=True)
class Clipping:
    """Where sound was first cut off: the stage, and by how much it went over there.

    spare_db: of a burst that is cut, how far the expected peaks stay below that ceiling.
    noise: name of the noise that is cut off there even while nobody speaks; "" where the signal is what clips.
    """

    device: str
    where: str
    over_db: float
    spare_db: float = 0.0
    noise: str = ""


class SignalLevels(NamedTuple):
    """Quiet, average, peak and burst level in one unit (dB SPL, dBu or dBFS), with what else is known about them.

    burst: what comes unannounced, above the expected peaks.
    loudest: peaks of signal and noise together; what a ceiling cuts.
    uncut: peaks of the signal alone as if no ceiling on the way had cut them.
    noise_cut_db: by how much ceilings on the way have cut the noise.
    cuts: low cuts that the signal has been through.
    polarity: 1, or -1 where it is upside down against where it began.
    headroom_db: by how much the whole may rise before the first ceiling on the way cuts its peaks; negative by how much it
        has to come down so that none does. The least of all stages, each against what would arrive there uncut.
    noises_before, noise_by_db: the noises as they were when they came in, and by how much they have risen since; most
        stages only move them all together. `noises` has them as they are here.
    variance_db2: sum of the squares of the independent ± behind the level; its root is the tolerance.
    weakest: the least certain provenance among the figures behind it.
    limited_db: by how much a limiter presses a burst down.
    lifted_db: by how much automatic level has turned up the noise of the pauses.
    clip, burst_clip: where the expected peaks, and where a burst, were first cut off.
    """

    quiet: float = SILENCE_DB
    average: float = SILENCE_DB
    peak: float = SILENCE_DB
    burst: float = SILENCE_DB
    loudest: float = SILENCE_DB
    uncut: float = SILENCE_DB
    noise_cut_db: float = 0.0
    cuts: Cuts = ()
    polarity: float = 1.0
    headroom_db: float = math.inf
    noises_before: tuple[Noise, ...] = ()
    noise_by_db: float = 0.0
    variance_db2: float = 0.0
    weakest: Provenance = Provenance.MEASURED
    clip: Clipping | None = None
    burst_clip: Clipping | None = None
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
        return self.noise_by_db + sum_powers_db(noise.level for noise in self.noises_before)

    @property
    def noise_a(self) -> float:
        """Level of all noise together, A-weighted: what the ear makes of it."""
        return self.noise_by_db + sum_powers_db(noise.a_level for noise in self.noises_before)

    @property
    def room_noise_a(self) -> float:
        """Level of the place's part of it, A-weighted."""
        return self.noise_by_db + sum_powers_db(noise.a_level for noise in self.noises_before if noise.is_room)

    @property
    def gear_noise(self) -> float:
        """Level of all noise that is not the place's, unweighted."""
        return self.noise_by_db + sum_powers_db(noise.level for noise in self.noises_before if not noise.is_room)

    @property
    def gear_noise_a(self) -> float:
        """The same, A-weighted: what is to be compared with the place."""
        return self.noise_by_db + sum_powers_db(noise.a_level for noise in self.noises_before if not noise.is_room)

    @property
    def headroom_over_all_db(self) -> float:
        """Headroom as it is told of: inf in silence, where nobody could be louder, unless noise alone is cut off."""
        return math.inf if self.average == SILENCE_DB and self.clip is None else self.headroom_db

    @property
    def ruling_noise(self) -> Noise | None:
        """The contributor that the listener hears."""
        ruling = max(self.noises_before, key=lambda noise: noise.a_level, default=None)
        return None if ruling is None else ruling._replace(level=ruling.level + self.noise_by_db)

    def shifted(self, by_db: float, *figures: Figure) -> "SignalLevels":
        """Louder by so many dB, signal and noise alike, as sure as the figures that say so."""
        # Built by hand, not by `replace`: this is the innermost loop of every evaluation.
        return SignalLevels(
            quiet=self.quiet + by_db,
            average=self.average + by_db,
            peak=self.peak + by_db,
            burst=self.burst + by_db,
            loudest=self.loudest + by_db,
            uncut=self.uncut + by_db,
            noise_cut_db=self.noise_cut_db,
            cuts=self.cuts,
            polarity=self.polarity,
            headroom_db=self.headroom_db,
            noises_before=self.noises_before,
            noise_by_db=self.noise_by_db + by_db,
            variance_db2=self.variance_db2 + sum(figure.tolerance**2 for figure in figures),
            weakest=weaker([self.weakest, *(figure.provenance for figure in figures)]) if figures else self.weakest,
            clip=self.clip,
            burst_clip=self.burst_clip,
            limited_db=self.limited_db,
            lifted_db=self.lifted_db,
        )

    def with_noise(self, *noises: Noise) -> "SignalLevels":
        # Built by hand as well: the second most frequent step. What comes in late is put beside the others as if it had
        # come in with them, so that none of those is made anew.
        by_db = self.noise_by_db
        loudest = self.loudest
        for noise in noises:
            peak = noise.level + NOISE_PEAK_DB
            if peak > loudest - _DROWNED_DB:
                loudest = sum_powers_db((loudest, peak))
        if by_db:
            noises = tuple(
                Noise(name, level - by_db, is_room, spectrum, cuts, born, unit)
                for name, level, is_room, spectrum, cuts, born, unit in noises
            )
        return SignalLevels(
            quiet=self.quiet,
            average=self.average,
            peak=self.peak,
            burst=self.burst,
            loudest=loudest,
            uncut=self.uncut,
            noise_cut_db=self.noise_cut_db,
            cuts=self.cuts,
            polarity=self.polarity,
            headroom_db=self.headroom_db,
            noises_before=(*self.noises_before, *noises),
            noise_by_db=by_db,
            variance_db2=self.variance_db2,
            weakest=self.weakest,
            clip=self.clip,
            burst_clip=self.burst_clip,
            limited_db=self.limited_db,
            lifted_db=self.lifted_db,
        )

    def with_more(self, noises: Iterable[Noise]) -> "SignalLevels":
        """With noises of which some may be there already, from other inputs of the same gear: those are told as one."""
        found = {(noise.name, noise.cuts): noise for noise in self.noises_before}
        by_db, added = self.noise_by_db, []
        for noise in noises:
            known = found.get((noise.name, noise.cuts))
            level = noise.level - by_db
            if known is not None:
                level = sum_powers_db((known.level, level))
            found[noise.name, noise.cuts] = noise._replace(level=level)
            added.append(noise.level + NOISE_PEAK_DB)
        return self._replace(noises_before=_fewest(list(found.values())), loudest=_with_peaks(self.loudest, added))

    def behind_low_cut(self, cut_hz: int) -> "SignalLevels":
        """What a low cut leaves: of each noise by its spectrum, of the sound as of a voice."""
        cuts = (*self.cuts, cut_hz)
        by_db = cut_change_db(SpectrumShape.VOICE, cuts) - cut_change_db(SpectrumShape.VOICE, self.cuts)
        noises = tuple(noise.behind(cut_hz) for noise in self.noises)
        peaks = [noise.level + NOISE_PEAK_DB for noise in noises]
        return self._replace(
            quiet=self.quiet + by_db,
            average=self.average + by_db,
            peak=self.peak + by_db,
            burst=self.burst + by_db,
            loudest=_with_peaks(self.peak + by_db, peaks),
            uncut=self.uncut + by_db,
            cuts=cuts,
            noises_before=noises,
            noise_by_db=0.0,
        )

    def ridden(self, target: float, range_db: float) -> "SignalLevels":
        """What automatic level makes of it: all that it hears at its target, while somebody speaks and in the pauses.

        target: average that it turns to; range_db: the furthest that it turns anything up or down.
        """
        noise = self.noise
        both = sum_powers_db((self.average, noise))
        if both == SILENCE_DB:
            return self
        by_db = _within(target - both, range_db)
        lifted_db = _within(target - noise, range_db) if noise > SILENCE_DB else 0.0
        loudest = _with_peaks(self.peak + by_db, [noise + lifted_db + NOISE_PEAK_DB])
        return self.shifted(by_db)._replace(
            loudest=max(self.loudest + by_db, loudest),
            noise_by_db=self.noise_by_db + lifted_db,
            lifted_db=self.lifted_db + lifted_db,
        )

    def limited(self, threshold: float) -> "SignalLevels":
        """What a limiter leaves: nothing above its threshold, and nothing cut off."""
        pressed = max(self.burst, self.loudest) - threshold
        if pressed <= 0:
            return self
        return self._replace(
            quiet=min(self.quiet, threshold),
            average=min(self.average, threshold),
            peak=min(self.peak, threshold),
            burst=min(self.burst, threshold),
            loudest=min(self.loudest, threshold),
            uncut=min(self.uncut, threshold),
            noise_by_db=self.noise_by_db - max(self.noise - threshold, 0.0),
            noise_cut_db=0.0,
            limited_db=max(self.limited_db, pressed),
        )

    def under(self, ceiling: float, device: str, where: Callable[[], str]) -> "SignalLevels":
        """What is left after a stage that cannot go above its ceiling: clipped once is clipped for good.

        where: asked for the stage's name only if something is cut there.
        """
        if self.clip is None and not self.noise_cut_db:
            room_db = ceiling - self.loudest  # nothing has been cut yet
        else:
            room_db = ceiling - _with_peaks(self.uncut, self._noise_peaks)
        if self.burst <= ceiling and self.loudest <= ceiling:
            return self if room_db >= self.headroom_db else self._replace(headroom_db=room_db)
        over, burst_over = self.loudest - ceiling, self.burst - ceiling
        clip, burst_clip = self.clip, self.burst_clip
        if over > JUST_OVER_DB and clip is None:
            clip = Clipping(device, where(), over, noise=self._noise_above(ceiling))
        if burst_over > 0 and burst_clip is None:
            burst_clip = Clipping(device, where(), burst_over, max(ceiling - self.peak, 0.0))
        noise_over = max(self.noise - ceiling, 0.0)
        return self._replace(
            quiet=min(self.quiet, ceiling),
            average=min(self.average, ceiling),
            peak=min(self.peak, ceiling),
            burst=min(self.burst, ceiling),
            loudest=min(self.loudest, ceiling),
            headroom_db=min(self.headroom_db, room_db),
            noise_by_db=self.noise_by_db - noise_over,
            noise_cut_db=self.noise_cut_db + noise_over,
            clip=clip,
            burst_clip=burst_clip,
        )

    @property
    def _noise_peaks(self) -> list[float]:
        """Peaks of every noise as if no ceiling on the way had cut it."""
        up_db = self.noise_by_db + self.noise_cut_db + NOISE_PEAK_DB
        return [noise.level + up_db for noise in self.noises_before]

    def _noise_above(self, ceiling: float) -> str:
        """Name of the strongest noise where the peaks of the noise alone go above a ceiling; else ""."""
        if self.noise + NOISE_PEAK_DB <= ceiling:
            return ""
        return max(self.noises, key=lambda noise: noise.level).name


def _within(by_db: float, range_db: float) -> float:
    return min(max(by_db, -range_db), range_db)


def _with_peaks(loudest: float, peaks: Sequence[float]) -> float:
    """Peaks of a sound together with those of noises: their powers add; what is far below adds nothing."""
    if not peaks or max(peaks) < loudest - _DROWNED_DB:
        return loudest
    return sum_powers_db((loudest, *peaks))


def weaker(provenances: Iterable[Provenance]) -> Provenance:
    """The least certain of several."""
    return min(provenances, key=_STRENGTH.__getitem__, default=Provenance.MEASURED)


def mixed(sounds: Sequence[SignalLevels]) -> SignalLevels:
    """Several sounds on one wire: powers add, for peaks too, as unrelated voices seldom peak together.

    Of bursts the largest comes alone, over the averages of the others; all peaks together may be more.
    The ± is that of the loudest one, which rules the sum. A noise that arrives by two ways is counted by its power in
    each and told once.
    """
    if len(sounds) == 1:
        return sounds[0]
    if not sounds:
        return SignalLevels()
    loudest = max(sounds, key=lambda sound: sound.average)
    peak = sum_powers_db(sound.peak for sound in sounds)
    return SignalLevels(
        quiet=sum_powers_db(sound.quiet for sound in sounds),
        average=sum_powers_db(sound.average for sound in sounds),
        peak=peak,
        burst=max(_one_burst(sounds), peak),
        loudest=sum_powers_db(sound.loudest for sound in sounds),
        uncut=sum_powers_db(sound.uncut for sound in sounds),
        noise_cut_db=_noise_cut_db(sounds),
        cuts=loudest.cuts,
        headroom_db=min(sound.headroom_db for sound in sounds),
        noises_before=_merged(noise for sound in sounds for noise in sound.noises),
        variance_db2=loudest.variance_db2,
        weakest=weaker(sound.weakest for sound in sounds),
        clip=next((sound.clip for sound in sounds if sound.clip), None),
        burst_clip=next((sound.burst_clip for sound in sounds if sound.burst_clip), None),
        limited_db=max(sound.limited_db for sound in sounds),
        lifted_db=max(sound.lifted_db for sound in sounds),
    )


def in_step(sounds: Sequence[tuple[SignalLevels, float]], shared: frozenset[tuple[str, Cuts]]) -> SignalLevels:
    """One sound that arrives by several ways, each with its polarity (1 or -1): voltages add, powers do not.

    shared: names and low cuts of the noises that were there before the ways parted; all others are each way's own.
    """
    first, _ = max(sounds, key=lambda item: item[0].average)
    sounds = [(sound, sign * sound.polarity) for sound, sign in sounds]

    def together(level: Callable[[SignalLevels], float]) -> float:
        return _voltages_db([(level(sound), sign, sound.cuts) for sound, sign in sounds], SpectrumShape.VOICE)

    own: list[Noise] = []
    common: dict[tuple[str, Cuts], list[tuple[Noise, float]]] = {}
    for sound, sign in sounds:
        for noise in sound.noises:
            begun = max((kind for kind in shared if _is_of(noise, kind)), key=lambda kind: len(kind[1]), default=None)
            if begun is None:
                own.append(noise)
            else:
                common.setdefault(begun, []).append((noise, sign))
    for same in common.values():
        voltages = [(noise.level, sign, noise.cuts) for noise, sign in same]
        loudest = max((noise for noise, _ in same), key=lambda noise: noise.level)
        own.append(loudest._replace(level=_voltages_db(voltages, loudest.spectrum)))
    noises, cut_db = _merged(own), _noise_cut_db([sound for sound, _ in sounds])
    peak = together(lambda sound: sound.peak)
    # Where each way is limited with its noise, all together are no more than their sum.
    most = sum(ratio_from_db(sound.loudest) for sound, _ in sounds)
    peaks = _with_peaks(peak, [noise.level + NOISE_PEAK_DB for noise in noises])
    return first._replace(
        quiet=together(lambda sound: sound.quiet),
        average=together(lambda sound: sound.average),
        peak=peak,
        burst=together(lambda sound: sound.burst),
        loudest=min(peaks, db_from_ratio(most)) if most else peaks,
        uncut=together(lambda sound: sound.uncut),
        noise_cut_db=cut_db,
        polarity=1.0,
        headroom_db=min(sound.headroom_db for sound, _ in sounds),
        noises_before=noises,
        noise_by_db=0.0,
    )


def _is_of(noise: Noise, kind: tuple[str, Cuts]) -> bool:
    """Whether a noise is what another was further up, perhaps behind more low cuts."""
    name, cuts = kind
    return noise.name == name and noise.cuts[: len(cuts)] == cuts


def _voltages_db(levels: Sequence[tuple[float, float, Cuts]], spectrum: SpectrumShape) -> float:
    """Level of voltages of one sound that add with their signs, as far as low cuts have left them alike.

    What is left by rounding is nothing.
    """
    parts = [(sign * ratio_from_db(level), cuts) for level, sign, cuts in levels]
    largest = max(abs(ratio) for ratio, _ in parts)
    if len({cuts for _, cuts in parts}) == 1:
        total = abs(sum(ratio for ratio, _ in parts))
    else:
        power = sum(one * other * likeness(spectrum, a, b) for one, a in parts for other, b in parts)
        total = max(power, 0.0) ** 0.5
    return db_from_ratio(total) if total > ROUNDING * largest else SILENCE_DB


def _noise_cut_db(sounds: Sequence[SignalLevels]) -> float:
    """By how much the noise of several together has been cut."""
    if not any(sound.noise_cut_db for sound in sounds):
        return 0.0
    uncut = sum_powers_db(sound.noise + sound.noise_cut_db for sound in sounds)
    return uncut - sum_powers_db(sound.noise for sound in sounds)


def _one_burst(sounds: Sequence[SignalLevels]) -> float:
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
    return _fewest(found)


def _fewest(found: list[Noise]) -> tuple[Noise, ...]:
    """Noises of different names, the smallest of many as one."""
    if len(found) <= MOST_CONTRIBUTORS:
        return tuple(found)
    found.sort(key=lambda noise: (not noise.is_room, -noise.level))
    kept, small = found[: MOST_CONTRIBUTORS - 1], found[MOST_CONTRIBUTORS - 1 :]
    rest = sum_powers_db(noise.level for noise in small)
    return (*kept, noise_in(OTHERS, rest, small[0].unit))
