"""Loops of earth and screens in which hum runs."""

from tidy_trunk.core.sound.hum.loops import COMPUTER, EARTH, Grade, Loop, Tie, loops
from tidy_trunk.core.sound.hum.ties import ties

__all__ = ["COMPUTER", "EARTH", "Grade", "Loop", "Tie", "loops", "ties"]
