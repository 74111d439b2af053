"""Lining up: what to send where, which meter must show what, and what follows from what it shows."""

from tidy_trunk.core.advice.line_up.lined_up_pairs import LinedUpPair, as_earlier, earlier, pair_of
from tidy_trunk.core.advice.line_up.measured import (
    Knob,
    keeping_line_ups,
    knob_of,
    knobs_along,
    knobs_of,
    law_edits,
    meter_edit,
    worth_trying,
)
from tidy_trunk.core.advice.line_up.steps import LineUpStep, State, Turn, line_up_steps, taken
from tidy_trunk.core.advice.line_up.voices import VoiceStep, voice_steps

__all__ = [
    "Knob",
    "LineUpStep",
    "LinedUpPair",
    "State",
    "Turn",
    "VoiceStep",
    "as_earlier",
    "earlier",
    "keeping_line_ups",
    "knob_of",
    "knobs_along",
    "knobs_of",
    "law_edits",
    "line_up_steps",
    "meter_edit",
    "pair_of",
    "taken",
    "voice_steps",
    "worth_trying",
]
