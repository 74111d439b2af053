"""A sound on its way through a stage, and the account of what was done to it."""

from typing import NamedTuple

from tidy_trunk.core.catalogue import Figure
from tidy_trunk.core.levels.sound import Noise, Sound


class Step(NamedTuple):
    """One thing that a stage does to the average, in words and in dB, and the figures that say by how much."""

    what: str
    by_db: float
    figures: tuple[Figure, ...] = ()


class Passage:
    """Carries a sound through a stage. `sound` is what is left of it, `steps` why its average is what it is."""

    __slots__ = ("sound", "steps")

    def __init__(self, sound: Sound, steps: tuple[Step, ...] = ()) -> None:
        self.sound = sound
        self.steps = list(steps)

    def shift(self, what: str, by_db: float, *figures: Figure) -> None:
        """Louder by so many dB, signal and noise alike."""
        if by_db or figures:
            self.sound = self.sound.shifted(by_db, *figures)
            self.steps.append(Step(what, by_db, figures))

    def hear(self, noise: Noise) -> None:
        """One more noise."""
        self.sound = self.sound.with_noise(noise)

    def cap(self, ceiling: float, device: str, where: str) -> None:
        """Cut off whatever is above the ceiling."""
        self._become(f"cut off in {where}", self.sound.capped(ceiling, device, where))

    def limit(self, threshold: float) -> None:
        """Press down whatever is above the threshold."""
        self._become("limiter", self.sound.limited(threshold))

    def low_cut(self, cut_hz: int) -> None:
        """Take the lows away."""
        self._become(f"low cut {cut_hz} Hz, of a voice", self.sound.behind_low_cut(cut_hz))

    def _become(self, what: str, sound: Sound) -> None:
        by_db = sound.average - self.sound.average
        if by_db < 0:
            self.steps.append(Step(what, by_db))
        self.sound = sound
