"""The short checklist: the lines that ruin takes, each once for all devices, in the order in which one goes round a set."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.walk.items import LAST, WalkItem, walk_items
from tidy_trunk.core.sound.levels import Report

MOST_LINES: Final = 15
"""ASSUMED_ lines that are still done when there is no time for a checklist."""

ROUND: Final = "round"
"""Group of what is looked at going from device to device. [HANDBOOK] §1"""

MERGED: Final = ("power", "card", "cell", "frequency", "phantom", "automatic-level", "pad-cable", "armed", "timecode-label", "rolls-first", "own-microphone")  # fmt: skip
"""What is told once for all devices, in the order of the round; forgetting one of these ruins a take. [HANDBOOK] §1"""

ENDING: Final = ("roles", "tapped", "tone-off", "silence", "played", "counter", "clap")
"""What is done once for all at the end. [HANDBOOK] §7"""


def short_walk_items(report: Report) -> tuple[WalkItem, ...]:
    """At most fifteen lines: what most often ruins a take, on all devices at once. Empty where nothing is recorded yet."""
    whole = walk_items(report)
    last = {item.what: item for item in whole if item.group == LAST}
    found = [*_merged(whole), *(last[what] for what in ENDING if what in last)]
    return tuple(found[: MOST_LINES - 1] + found[-1:]) if len(found) > MOST_LINES else tuple(found)


def _merged(whole: tuple[WalkItem, ...]) -> Iterator[WalkItem]:
    for what in MERGED:
        mine = [item for item in whole if _kind(item) == what]
        if mine:
            yield WalkItem(id=f"all.{what}", what=f"all-{what}", group=ROUND, facts={"items": tuple(mine)})


def _kind(item: WalkItem) -> str:
    """Its kind, as it is merged: cables with an attenuator apart from others, automatic level and 48 V only where they matter."""
    if item.what == "cable":
        return "pad-cable" if item.facts["has_pad"] else ""
    if item.what == "automatic-level" and item.facts["is_for_guide"]:
        return ""
    if item.what == "phantom" and not item.facts["is_on"]:
        return ""
    return item.what
