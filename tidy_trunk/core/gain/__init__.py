"""Gain plans: where every knob of a job should stand, and why."""

from tidy_trunk.core.gain.plan import GainPlan, Step, TrackChange, gain_plan
from tidy_trunk.core.gain.settle import Pins

__all__ = ["GainPlan", "Pins", "Step", "TrackChange", "gain_plan"]
