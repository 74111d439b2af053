"""What may be asked of a reader, and how it is written down: beside its recording in the store, and to the reader's input."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from enum import StrEnum
from typing import Any, ClassVar, Final


class Plays(StrEnum):
    """What is sent through simulated devices while they record."""

    TONE = "tone"
    SILENCE = "silence"
    TONE_AND_SILENCE = "tone-and-silence"
    BOTH_SIDES = "both-sides"


@dataclass(frozen=True, slots=True, kw_only=True)
class Measure:
    """A recording measured; with settings, the steps of a knob found in it.

    track: the one that it was made on, `device.bus`; settings: of a step recording, in order; keep: its sound is kept too.
    simulated: not recorded, but made, with a `control` of a `device` turned, or by an `option` of a `run`; test: that it answers;
    plays: what is sent through simulated devices (with settings, the tone at each); other: the track that is recorded beside
    it, for both sides; shown: what that device's meter showed for each of its tones, in dBFS; plan: document of the one through
    which it is to be simulated, None once it is.
    """

    kind: ClassVar = "measure"

    track: str = ""
    settings: tuple[float, ...] = ()
    target_dbfs: float | None = None
    keep: bool = False
    simulated: bool = False
    device: str = ""
    control: str = ""
    run: str = ""
    option: str = ""
    test: str = ""
    plays: Plays = Plays.TONE
    other: str = ""
    shown: tuple[float, ...] = ()
    plan: dict[str, Any] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class LookAt:
    """A file of a recorder or a camera looked at, to be laid over others later. side: which of the two; its sound is kept."""

    kind: ClassVar = "look-at"
    keep: ClassVar = True

    side: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Match:
    """Where files lie on each other. files: with id, name, side and facts; by_hand, nudged: clips that were moved."""

    kind: ClassVar = "match"
    keep: ClassVar = False

    files: tuple[dict[str, Any], ...]
    by_hand: tuple[dict[str, Any], ...] = ()
    nudged: tuple[dict[str, Any], ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasureSpeech:
    """How loud a voice and its pauses are on one channel of a file, from 1."""

    kind: ClassVar = "measure-speech"
    keep: ClassVar = False

    channel: int


@dataclass(frozen=True, slots=True, kw_only=True)
class FindClaps:
    """When somebody claps in a file, and how fast its pictures run."""

    kind: ClassVar = "find-claps"
    keep: ClassVar = False


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadTimecodeAtEnd:
    """What a timecode that runs through a file says at its end. rate: the job's, by its name."""

    kind: ClassVar = "read-timecode-at-end"
    keep: ClassVar = False

    rate: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeStill:
    """One picture of a movie. frame: its number, from 0 on; rate: pictures a second, `30000/1001`."""

    kind: ClassVar = "take-still"
    keep: ClassVar = False

    frame: int
    rate: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Shrink:
    """A photograph made small."""

    kind: ClassVar = "shrink"
    keep: ClassVar = False


@dataclass(frozen=True, slots=True, kw_only=True)
class WriteAligned:
    """A copy of a file that says where it begins. reference, other, out: below the folder; offset_s: of the other's first sample
    behind the reference's, as a fraction; fps: the job's rate, by its name; drift_ppm: what is taken out."""

    kind: ClassVar = "write-aligned"
    keep: ClassVar = False

    reference: str
    other: str
    out: str
    name: str
    offset_s: str
    fps: str
    drift_ppm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanGain:
    """Where every knob of a plan should stand. plan: its document; pins: device and control of knobs that stay."""

    kind: ClassVar = "plan-gain"
    keep: ClassVar = False

    plan: dict[str, Any]
    pins: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadDay:
    """The recordings below a folder of this machine. with_sound: decoded too, and pictures held against the recorder."""

    kind: ClassVar = "read-day"
    keep: ClassVar = False

    folder: str
    with_sound: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class CopyDay:
    """Copies of a day's files. orders: as `CopyOrder` has them, labels as fields; into, second: folders; second "" for none."""

    kind: ClassVar = "copy-day"
    keep: ClassVar = False

    folder: str
    into: str
    second: str
    orders: tuple[dict[str, Any], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlayDay:
    """The files that simulated devices would have of a log's takes, with faults. takes: as `StandInTake` has them.

    plan: its document; folder: for the files, in that of all recordings; seed: which faults, and where.
    """

    kind: ClassVar = "play-day"
    keep: ClassVar = False

    plan: dict[str, Any]
    takes: tuple[dict[str, Any], ...]
    folder: str
    seed: int
    faults: int
    date: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PlayTogether:
    """A stretch of two files of a day played together. sound, picture: below the folder; behind_s: by how much the picture's
    begins later."""

    kind: ClassVar = "play-together"
    keep: ClassVar = False

    folder: str
    sound: str
    picture: str
    behind_s: float


Request = (
    Measure
    | LookAt
    | Match
    | PlanGain
    | MeasureSpeech
    | FindClaps
    | ReadTimecodeAtEnd
    | TakeStill
    | Shrink
    | WriteAligned
    | ReadDay
    | CopyDay
    | PlayDay
    | PlayTogether
)

_KINDS: Final[Mapping[str, type[Request]]] = {
    kind.kind: kind
    for kind in (
        *(
            Measure,
            LookAt,
            Match,
            PlanGain,
            MeasureSpeech,
            FindClaps,
            ReadTimecodeAtEnd,
            TakeStill,
            Shrink,
            WriteAligned,
        ),
        *(ReadDay, CopyDay, PlayDay, PlayTogether),
    )
}


_FORMER_NAMES: Final[Mapping[str, str]] = {"bench": "simulated", "way": "option"}


def request_document(request: Request) -> dict[str, Any]:
    """A request as plain JSON values."""
    return {"kind": request.kind, **asdict(request)}


def request_of(document: Mapping[str, Any]) -> Request:
    """What was written down, by earlier versions too: those told the kind by the keys that are there."""
    values: dict[str, Any] = {
        name: tuple(value) if isinstance(value, list) else value for name, value in document.items()
    }
    if "plays" in values:
        values["plays"] = Plays(values["plays"])
    values = {_FORMER_NAMES.get(name, name): value for name, value in values.items()}
    if "kind" in values:
        return _KINDS[values.pop("kind")](**values)
    side = values.pop("sync", None)
    if "match" in values:
        return Match(files=values["match"], by_hand=values.get("by_hand", ()), nudged=values.get("nudged", ()))
    return Measure(**values) if side is None else LookAt(side=side)
