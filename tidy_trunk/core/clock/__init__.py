"""Time on a set: who gives it to whom, how clocks part, by what picture and sound meet, how late pictures are."""

from tidy_trunk.core.clock.delays import LateSwitcher, Picture, late_pictures, picture_late_frames
from tidy_trunk.core.clock.keepers import Gets, Keeper, keepers
from tidy_trunk.core.clock.pairs import Meets, Pair, pairs

__all__ = [
    "Gets",
    "Keeper",
    "LateSwitcher",
    "Meets",
    "Pair",
    "Picture",
    "keepers",
    "late_pictures",
    "pairs",
    "picture_late_frames",
]
