"""Time on a set: who gives it to whom, how clocks part, by what picture and sound meet, how late pictures and sound are."""

from tidy_trunk.core.clock.day import ClockDay, Spell, advised_jams, clock_day, jams_for
from tidy_trunk.core.clock.delays import (
    ACCEPTED,
    BROADCAST,
    ClapReading,
    LateScreen,
    Picture,
    StraightSound,
    Window,
    judged,
    late_screens,
    picture_late_frames,
    read_clap,
)
from tidy_trunk.core.clock.keepers import (
    Gets,
    Keeper,
    Parting,
    TimecodeTrack,
    day_hours,
    first_giver,
    keepers,
    timecode_tracks,
)
from tidy_trunk.core.clock.lateness import Lateness, Part, lateness
from tidy_trunk.core.clock.pairs import Heard, Meets, Pair, Reach, pairs

__all__ = [
    "ACCEPTED",
    "BROADCAST",
    "ClapReading",
    "ClockDay",
    "Gets",
    "Heard",
    "Keeper",
    "LateScreen",
    "Lateness",
    "Meets",
    "Pair",
    "Part",
    "Parting",
    "Picture",
    "Reach",
    "Spell",
    "StraightSound",
    "TimecodeTrack",
    "Window",
    "advised_jams",
    "clock_day",
    "day_hours",
    "first_giver",
    "jams_for",
    "judged",
    "keepers",
    "late_screens",
    "lateness",
    "pairs",
    "picture_late_frames",
    "read_clap",
    "timecode_tracks",
]
