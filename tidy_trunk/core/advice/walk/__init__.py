"""The signal walk: what is looked at, touched and heard before the first take, from the microphone to the last track."""

from tidy_trunk.core.advice.walk.items import LAST, TIMECODE, WalkItem, walk_items
from tidy_trunk.core.advice.walk.short import ROUND, short_walk_items

__all__ = ["LAST", "ROUND", "TIMECODE", "WalkItem", "short_walk_items", "walk_items"]
