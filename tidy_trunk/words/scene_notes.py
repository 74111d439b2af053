"""Notes of a scene: where a knob goes for each part, how a take is played back, what goes out live."""

from collections.abc import Sequence
from typing import Final

from tidy_trunk.core.advice.scene_notes import LevelMark, MarkTrouble, PlaybackPath, StreamFeed
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.words.numbers import beside_target, listed, marked, whole

NOT_TOLD: Final = {
    MarkTrouble.AT_FULL_SCALE: "the meter could show no more: turn it down, and rehearse this part again",
    MarkTrouble.HELD: "a limiter or automatic level held it, so it is at least this loud: switch that off for the rehearsal",
    MarkTrouble.NOTHING_PLANNED: "by the plan no single voice is heard on this track",
    MarkTrouble.BEYOND_REASON: "no voice is so loud or so quiet: look whether the settings are those of the plan",
}
"""Why a reading gives no mark. [PRACTICE]"""

PLAYBACK_CAUTION: Final = (
    "Begin with the volume down. Nothing is recorded while it plays: switch back to record before the next take."
)
"""What goes wrong with a playback: ears, and the take behind it. [PRACTICE]"""


def mark_knob_words(mark: LevelMark) -> str:
    """`gain, now +42`; "" where there is no knob."""
    if mark.mark_db is None or mark.stands_db is None:
        return ""
    return f"{mark.label}, " + ("as it is" if mark.mark_db == mark.stands_db else f"now {marked(mark.stands_db)}")


def outcome_words(mark: LevelMark) -> str:
    """Where the level lands with the knob at its mark, or why no level can be told."""
    if mark.trouble is MarkTrouble.HELD and mark.clip is not None:
        return f"it is at least this loud, and {mark.clip.where} cuts it off: turn it down there, and rehearse this part again"
    if mark.average_dbfs is None or mark.peak_dbfs is None:
        return NOT_TOLD[mark.trouble] if mark.trouble is not None else ""
    if mark.clip is not None:
        return f"clips by {mark.clip.over_db:.0f} dB at {mark.clip.where} all the same: turn it down there, or switch its pad on"
    lands = f"peaks {whole(mark.peak_dbfs)}, average {whole(mark.average_dbfs)} dBFS"
    match mark.trouble:
        case MarkTrouble.OUT_OF_REACH:
            helps = "bring the microphone closer" if mark.miss_db < 0 else "put a pad before it"
            turned = "up" if mark.miss_db < 0 else "down"
            return f"{lands}: {beside_target(mark.miss_db)} with the knob all the way {turned}; {helps}"
        case MarkTrouble.NO_KNOB:
            return f"{lands}: {beside_target(mark.miss_db)}, and there is no knob to ride on its way"
    return lands


def playback_words(index: PlanIndex, ways: Sequence[PlaybackPath]) -> list[str]:
    """How a take is heard again, the best way first; what is missing where nobody could hear it."""
    found = []
    for way in ways:
        output = index.port_label(way.output)
        if way.listener:
            found.append(f"{output} to {index.placed(way.listener).label}, run {index.plan.runs[way.run].number}")
        else:
            found.append(f"No speaker and no headphones are in the plan. Free for them: {output}")
    return found


def stream_words(index: PlanIndex, feeds: Sequence[StreamFeed]) -> list[str]:
    """What is heard on each side of what goes out live."""
    found = []
    for feed in feeds:
        placed = index.placed(feed.device)
        names = [index.plan.sources[source].label for source in feed.sources]
        what = (
            f"{listed(names)}, average {whole(feed.average_dbfs)} dBFS"
            if names and feed.average_dbfs is not None
            else "nothing"
        )
        beside = f", {beside_target(feed.miss_db)}" if feed.miss_db and round(feed.miss_db) else ""
        found.append(f"{placed.label} {placed.bus(feed.bus).label}: {what}{beside}")
    return found
