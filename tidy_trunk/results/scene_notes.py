"""Notes of the scene that is shot."""

from pydantic import Field

from tidy_trunk.core.advice.scene_notes import MarkTrouble
from tidy_trunk.results.numbers import Out


class LevelMarkOut(Out):
    """The mark of one track in a part. read_peak_dbfs: what its meter showed in rehearsal; mark: where the knob wants to
    stand, "" where the reading gives none; knob: which one, and where it stands now."""

    track: str
    where: str
    who: str
    read_peak_dbfs: float
    mark: str
    knob: str
    outcome: str
    trouble: MarkTrouble | None


class ScenePartOut(Out):
    part: str
    marks: list[LevelMarkOut]


class MarkedTrackOut(Out):
    """A track whose meter shows one voice, so that a reading of it can become a mark."""

    id: str
    label: str


class SceneNotesOut(Out):
    """playback: ways to hear a take again, best first; playback_ready: whether anybody would hear it; stream: what goes out
    live, "" where there is no stream."""

    scene: str
    parts: list[ScenePartOut]
    tracks: list[MarkedTrackOut]
    playback: list[str]
    playback_ready: bool
    playback_caution: str
    stream: list[str] = Field(default_factory=list)
