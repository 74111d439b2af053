"""A sound on its way through a stage, and the account of what was done to it."""

import math
from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import Generic, NamedTuple, TypeVar

from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.sound.levels.sound import Noise, SignalLevels, noise_in
from tidy_trunk.core.sound.trace import StageKey

S = TypeVar("S")


class Step(NamedTuple):
    """One thing that a stage does to the average, in words and in dB, and the figures that say by how much."""

    what: str
    by_db: float
    figures: tuple[Figure, ...] = ()


class Passage(ABC, Generic[S]):
    """Carries a sound through a stage. `sound` is what is left of it, `steps` why its average is what it is; `at`: where.

    What gear does to a sound is said in these few words; what each of them means depends on what the sound is carried as.
    """

    __slots__ = ("at", "steps")

    sound: S
    at: StageKey
    steps: list[Step]

    @abstractmethod
    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        """Louder by so many dB, signal and noise alike."""

    @abstractmethod
    def add_noise(self, *noises: Noise) -> None:
        """More noise."""

    @abstractmethod
    def cap(self, ceiling: float, device: str, where: Callable[[], str]) -> None:
        """Cut off whatever is above the ceiling; `where` names the place, and is asked only if something is cut."""

    @abstractmethod
    def limit(self, threshold: float) -> None:
        """Press down whatever is above the threshold."""

    @abstractmethod
    def low_cut(self, cut_hz: int) -> None:
        """Take the lows away."""

    @abstractmethod
    def ride(self, target: float, range_db: float) -> None:
        """Let automatic level bring speech to its target, and turn the pauses up, as far as it reaches."""

    @abstractmethod
    def compand(self, label: str, channel_db: float) -> None:
        """Pass through a channel of that range between a compressor and an expander, 2:1."""


class LevelPassage(Passage[SignalLevels]):
    """A sound of which the levels are known.

    margin_db, burst_margin_db: from its peaks, and from a burst, to the nearest ceiling that it has met here; inf where none.
    """

    __slots__ = ("_by_db", "_figures", "_sound", "burst_margin_db", "margin_db")

    def __init__(self, sound: SignalLevels, at: StageKey) -> None:
        self._sound = sound
        self._by_db = 0.0
        self._figures: tuple[Figure, ...] = ()
        self.at = at
        self.steps = []
        self.margin_db = self.burst_margin_db = math.inf

    def copy(self) -> "LevelPassage":
        """The same, to be carried on by another who takes it."""
        found = LevelPassage(self.sound, self.at)
        found.steps = list(self.steps)
        found.margin_db, found.burst_margin_db = self.margin_db, self.burst_margin_db
        return found

    @property
    def sound(self) -> SignalLevels:
        """With all that it has been shifted by, taken in one go: most stages turn it several times in a row."""
        if self._by_db or self._figures:
            self._sound = self._sound.shifted(self._by_db, *self._figures)
            self._by_db, self._figures = 0.0, ()
        return self._sound

    @sound.setter
    def sound(self, sound: SignalLevels) -> None:
        self._sound, self._by_db, self._figures = sound, 0.0, ()

    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        if by_db or figures:
            self._by_db += by_db
            self._figures += figures
            self.steps.append(Step(what, by_db, figures))

    def add_noise(self, *noises: Noise) -> None:
        self.sound = self.sound.with_noise(*noises)

    def cap(self, ceiling: float, device: str, where: Callable[[], str]) -> None:
        sound = self.sound
        if ceiling - sound.loudest < self.margin_db:
            self.margin_db = ceiling - sound.loudest
        if ceiling - sound.burst < self.burst_margin_db:
            self.burst_margin_db = ceiling - sound.burst
        under = sound.under(ceiling, device, where)
        if under.average < sound.average:
            self.steps.append(Step(f"cut off in {where()}", under.average - sound.average))
        self.sound = under

    def limit(self, threshold: float) -> None:
        self._become("limiter", self.sound.limited(threshold))

    def low_cut(self, cut_hz: int) -> None:
        self._become(f"low cut {cut_hz} Hz, of a voice", self.sound.behind_low_cut(cut_hz))

    def ride(self, target: float, range_db: float) -> None:
        ridden = self.sound.ridden(target, range_db)
        if ridden.average > SILENCE_DB:
            self.steps.append(Step("automatic level", ridden.average - self.sound.average))
        self.sound = ridden

    def compand(self, label: str, channel_db: float) -> None:
        """Noise of the channel in the pauses, turned up as the expander then is.

        The compressor halves a level in dB, so that the expander's gain at a level is half of it: in a pause that of the
        noise which comes with the sound, and no further down than the channel's own noise lets it go.
        Source: [HANDBOOK] §15.8
        """
        gain_db = max(self.sound.noise / 2, -channel_db)
        self.add_noise(noise_in(f"{label} compander", gain_db - channel_db, "dBFS"))

    def _become(self, what: str, sound: SignalLevels) -> None:
        by_db = sound.average - self.sound.average
        if by_db < 0:
            self.steps.append(Step(what, by_db))
        self.sound = sound
