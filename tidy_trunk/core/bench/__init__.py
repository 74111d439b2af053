"""Simulated stand-ins for every device: a plan that can be heard before there is one."""

from tidy_trunk.core.bench.materials import noise_loop, voice_loop
from tidy_trunk.core.bench.points import Point, Seen, audible, points_of, seen, third_octaves
from tidy_trunk.core.bench.simulate import LOOP_SAMPLES, RATE_HZ, Bench, Play
from tidy_trunk.core.bench.truth import truth

__all__ = [
    "LOOP_SAMPLES",
    "RATE_HZ",
    "Bench",
    "Play",
    "Point",
    "Seen",
    "audible",
    "noise_loop",
    "points_of",
    "seen",
    "third_octaves",
    "truth",
    "voice_loop",
]
