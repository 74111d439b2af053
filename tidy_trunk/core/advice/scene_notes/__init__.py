"""Notes of a scene: level marks from rehearsal, and who hears what."""

from tidy_trunk.core.advice.scene_notes.level_marks import (
    LevelMark,
    MarkTrouble,
    can_be_marked,
    level_mark,
    marked_tracks,
)
from tidy_trunk.core.advice.scene_notes.listeners import PlaybackPath, StreamFeed, playbacks, stream_feeds

__all__ = [
    "LevelMark",
    "MarkTrouble",
    "PlaybackPath",
    "StreamFeed",
    "can_be_marked",
    "level_mark",
    "marked_tracks",
    "playbacks",
    "stream_feeds",
]
