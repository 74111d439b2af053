"""Moves, by what they touch. Each module registers its makers with `moves_for`."""

from tidy_trunk.core.advice.adviser.moves import clock, digital, hum, leads, levels, power, radio, routing
from tidy_trunk.core.advice.adviser.moves.levels import LEVEL_RULES

__all__ = ["LEVEL_RULES", "clock", "digital", "hum", "leads", "levels", "power", "radio", "routing"]
