"""Sounds that are laid over each other: by what both hear."""

from tidy_trunk.core.time.sync.align import Alignment, ReadChannel, Sound, best_of
from tidy_trunk.core.time.sync.claps import claps_by_chance, common_lag
from tidy_trunk.core.time.sync.coarse import LagCandidate, Spectra, places, size_for
from tidy_trunk.core.time.sync.features import HOP_S, Profile, profile_of
from tidy_trunk.core.time.sync.many import PairAlignment, PairOffset, align, match_many, timelines

__all__ = [
    "HOP_S",
    "Alignment",
    "LagCandidate",
    "PairAlignment",
    "PairOffset",
    "Profile",
    "ReadChannel",
    "Sound",
    "Spectra",
    "align",
    "best_of",
    "claps_by_chance",
    "common_lag",
    "match_many",
    "places",
    "profile_of",
    "size_for",
    "timelines",
]
