"""Simulated stand-ins for every device: a plan that can be heard before there is one."""

from tidy_trunk.core.sound.simulation.clocks import clock_ppm, recorded_by
from tidy_trunk.core.sound.simulation.faults import BLEED_DB, NO_FAULTS, Faults, Stray, mains_hum, strays
from tidy_trunk.core.sound.simulation.materials import NoiseLoop, noise_loop, voice_loop
from tidy_trunk.core.sound.simulation.picture import Clap, clap_at
from tidy_trunk.core.sound.simulation.points import Point, PointReading, audible, points_of, seen, third_octaves
from tidy_trunk.core.sound.simulation.simulate import LOOP_SAMPLES, RATE_HZ, Play, Simulator
from tidy_trunk.core.sound.simulation.takes import both_sides, silence_take, tone_and_silence, tone_steps, tone_take
from tidy_trunk.core.sound.simulation.truth import meter_shows_dbfs, truth

__all__ = [
    "BLEED_DB",
    "LOOP_SAMPLES",
    "NO_FAULTS",
    "RATE_HZ",
    "Clap",
    "Faults",
    "NoiseLoop",
    "Play",
    "Point",
    "PointReading",
    "Simulator",
    "Stray",
    "audible",
    "both_sides",
    "clap_at",
    "clock_ppm",
    "mains_hum",
    "meter_shows_dbfs",
    "noise_loop",
    "points_of",
    "recorded_by",
    "seen",
    "silence_take",
    "strays",
    "third_octaves",
    "tone_and_silence",
    "tone_steps",
    "tone_take",
    "truth",
    "voice_loop",
]
