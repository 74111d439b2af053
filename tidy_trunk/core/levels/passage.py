"""A sound on its way through a stage, and the account of what was done to it."""

from abc import ABC, abstractmethod
from dataclasses import replace
from typing import Generic, NamedTuple, TypeVar

from tidy_trunk.core.catalogue import Figure
from tidy_trunk.core.levels.sound import Noise, Sound, noise_in
from tidy_trunk.core.trace import StageKey

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

    __slots__ = ("at", "sound", "steps")

    def __init__(self, sound: S, at: StageKey) -> None:
        self.sound = sound
        self.at = at
        self.steps: list[Step] = []

    @abstractmethod
    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        """Louder by so many dB, signal and noise alike."""

    @abstractmethod
    def hear(self, *noises: Noise) -> None:
        """More noise."""

    @abstractmethod
    def exceeds(self, ceiling: float) -> bool:
        """Whether anything in it is above that level."""

    @abstractmethod
    def cap(self, ceiling: float, device: str, where: str) -> None:
        """Cut off whatever is above the ceiling."""

    @abstractmethod
    def limit(self, threshold: float) -> None:
        """Press down whatever is above the threshold."""

    @abstractmethod
    def low_cut(self, cut_hz: int) -> None:
        """Take the lows away."""

    @abstractmethod
    def ride(self, range_db: float) -> None:
        """Let automatic level turn up what is quiet, as far as it reaches."""

    @abstractmethod
    def compand(self, label: str, channel_db: float) -> None:
        """Pass through a channel of that range between a compressor and an expander, 2:1."""


class LevelPassage(Passage[Sound]):
    """A sound of which the levels are known."""

    __slots__ = ()

    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        if by_db or figures:
            self.sound = self.sound.shifted(by_db, *figures)
            self.steps.append(Step(what, by_db, figures))

    def hear(self, *noises: Noise) -> None:
        self.sound = self.sound.with_noise(*noises)

    def exceeds(self, ceiling: float) -> bool:
        return self.sound.burst > ceiling

    def cap(self, ceiling: float, device: str, where: str) -> None:
        self._become(f"cut off in {where}", self.sound.capped(ceiling, device, where))

    def limit(self, threshold: float) -> None:
        self._become("limiter", self.sound.limited(threshold))

    def low_cut(self, cut_hz: int) -> None:
        self._become(f"low cut {cut_hz} Hz, of a voice", self.sound.behind_low_cut(cut_hz))

    def ride(self, range_db: float) -> None:
        self.sound = replace(self.sound, lifted_db=self.sound.lifted_db + range_db)

    def compand(self, label: str, channel_db: float) -> None:
        """Noise of the channel under the quiet words, turned up as the expander is.

        The compressor halves a level in dB, so that the expander's gain at a level is half of it; in silence it is as
        far down as the channel's noise lets it go. Source: [HANDBOOK] textbook formula
        """
        gain_db = max(self.sound.quiet / 2, -channel_db)
        self.hear(noise_in(f"{label} compander", gain_db - channel_db, "dBFS"))

    def _become(self, what: str, sound: Sound) -> None:
        by_db = sound.average - self.sound.average
        if by_db < 0:
            self.steps.append(Step(what, by_db))
        self.sound = sound
