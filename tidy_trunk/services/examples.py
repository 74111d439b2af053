"""Three small jobs to learn on: scenarios of our own, each with one typical mistake in it. They are typed, as a user would."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from tidy_trunk.core.command import say
from tidy_trunk.core.plan import Plan, apply_edits
from tidy_trunk.errors import NotFoundError


@dataclass(frozen=True, slots=True, kw_only=True)
class Example:
    """A job to learn on. story: what is shot, with what; lines: how it is typed; mistakes: the lines that make one."""

    id: str
    title: str
    story: str
    lines: tuple[str, ...]
    mistakes: tuple[str, ...]


EXAMPLES: Final = (
    Example(
        id="bakery",
        title="Bakery at dawn",
        story="One camera and a radio set: the baker talks while she works. Something undoes the levels.",
        lines=(
            "set job room 45",
            "add mirrorless camera, microphone socket only as Camera",
            "Baker: lavalier by radio to camera, 0.2 m",
        ),
        mistakes=("set camera mic socket automatic level on",),
    ),
    Example(
        id="reading-room",
        title="Talk in the reading room",
        story="A recorder into a camera: an author reads, and both record. The camera's copy is square-topped.",
        lines=(
            "set job room 35",
            "add handheld recorder with line output as Recorder",
            "add mirrorless camera, microphone socket only as Camera",
            "Author: dynamic handheld to recorder 1, 0.15 m",
            "recorder line out to camera, 0.5 m",
        ),
        mistakes=("swap cable 2 for 3.5 mm trs",),
    ),
    Example(
        id="choir",
        title="Choir in the old gym",
        story="Two cameras and timecode: a long rehearsal in one take. One of the files will not find its place.",
        lines=(
            "set job room 38",
            "add bag recorder, eight inputs as Bag",
            "add cinema camera, xlr as Camera A, Camera B",
            "add timecode generator as Box A, Box B",
            "Choir: pencil condenser to bag 1, 3 m",
            "box a timecode out to camera a timecode in",
            "box b timecode out to camera b timecode in",
            "jam box a from bag at 8:00 and 10:46 and 13:32 and 16:18",
            "jam box b from bag at 8:00 and 10:46 and 13:32 and 16:18",
        ),
        mistakes=("set camera b timecode rate 24",),
    ),
)
"""ASSUMED_ scenarios: invented, with common mistakes. [PRACTICE]"""


@lru_cache
def example_plan(example_id: str, *, is_right: bool = False) -> Plan:
    """The job of an example, with its mistake, or without. Raises NotFoundError: no such example."""
    example = next((item for item in EXAMPLES if item.id == example_id), None)
    if example is None:
        raise NotFoundError(f"there is no example '{example_id}'; there are {', '.join(item.id for item in EXAMPLES)}")
    plan = Plan(name=example.title)
    for line in example.lines if is_right else (*example.lines, *example.mistakes):
        plan = apply_edits(plan, say(plan, line).proposals[0].edits)
    return plan
