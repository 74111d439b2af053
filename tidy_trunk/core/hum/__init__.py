"""Loops of earth and screens in which hum runs."""

from tidy_trunk.core.hum.loops import COMPUTER, EARTH, Grade, Loop, Tie, loops
from tidy_trunk.core.hum.ties import ties

__all__ = ["COMPUTER", "EARTH", "Grade", "Loop", "Tie", "loops", "ties"]
