"""Lining up: what to send where, which meter must show what, and what follows from what it shows."""

from tidy_trunk.core.line_up.steps import LineUpStep, State, line_up_steps, taken

__all__ = ["LineUpStep", "State", "line_up_steps", "taken"]
