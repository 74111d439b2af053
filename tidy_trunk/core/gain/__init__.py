"""Gain plans: where every knob of a job should stand, and why."""

from tidy_trunk.core.gain.plan import JUST_DB, GainPlan, Step, TrackChange, gain_plan
from tidy_trunk.core.gain.settle import Pins

__all__ = ["JUST_DB", "GainPlan", "Pins", "Step", "TrackChange", "gain_plan"]
