"""What mends a plan: moves that are tried on the whole of it, and one judge of what is better."""

from tidy_trunk.core.advice.adviser.adviser import Adviser, TakenFix, fixed
from tidy_trunk.core.advice.adviser.gain_plan import JUST_DB, GainPlan, GainStep, Outcome, TrackChange, gain_plan
from tidy_trunk.core.advice.adviser.inserted_devices import inserted_devices
from tidy_trunk.core.advice.adviser.judge import Judgement, judge
from tidy_trunk.core.advice.adviser.matched import ConnectionMethod, MatchedRun, Matcher
from tidy_trunk.core.advice.adviser.matching_options import matching_options
from tidy_trunk.core.advice.adviser.move import Move
from tidy_trunk.core.advice.adviser.settle import Pins

__all__ = [
    "JUST_DB",
    "Adviser",
    "ConnectionMethod",
    "GainPlan",
    "GainStep",
    "Judgement",
    "MatchedRun",
    "Matcher",
    "Move",
    "Outcome",
    "Pins",
    "TakenFix",
    "TrackChange",
    "fixed",
    "gain_plan",
    "inserted_devices",
    "judge",
    "matching_options",
]
