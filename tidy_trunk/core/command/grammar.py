"""How the help explains a line."""

from typing import Final, NamedTuple


class LineForm(NamedTuple):
    """One form of a line: its pattern, an example, and what it does."""

    pattern: str
    example: str
    does: str


PASSABLE: Final = "a path passes: walkway, doorway, overhead, wet, hot, beside mains, across mains, dimmer, LED driver, motor, furnace, transmitter"
"""What may stand after `past`."""
