"""Simulated stand-ins for every device: a plan that can be heard before there is one."""

from tidy_trunk.core.bench.materials import Loop, noise_loop, voice_loop
from tidy_trunk.core.bench.points import Point, Seen, audible, points_of, seen, third_octaves
from tidy_trunk.core.bench.simulate import LOOP_SAMPLES, RATE_HZ, Bench, Play
from tidy_trunk.core.bench.takes import tone_and_silence, tone_steps, tone_take
from tidy_trunk.core.bench.truth import meter_shows_dbfs, truth

__all__ = [
    "LOOP_SAMPLES",
    "RATE_HZ",
    "Bench",
    "Loop",
    "Play",
    "Point",
    "Seen",
    "audible",
    "meter_shows_dbfs",
    "noise_loop",
    "points_of",
    "seen",
    "third_octaves",
    "tone_and_silence",
    "tone_steps",
    "tone_take",
    "truth",
    "voice_loop",
]
