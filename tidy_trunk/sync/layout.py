"""Recorder files and camera files of a take or a day, laid over each other all at once."""

from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass, replace
from fractions import Fraction
from itertools import pairwise
from pathlib import Path
from typing import Any

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.time.sync import PairOffset, Sound, match_many, timelines
from tidy_trunk.exports import PlacedFile
from tidy_trunk.media.file_clocks import DAY_S, apart
from tidy_trunk.sync.methods import (
    BY_TIMECODE,
    DISPUTED_S,
    FOUND,
    NOT_TOGETHER,
    Method,
    by_claps,
    heard_near,
    likeliest_clap,
)
from tidy_trunk.sync.profiles import Sidecars

RECORDER, CAMERA = "recorder", "camera"
"""The two sides: what keeps the sound, and what keeps the picture. ASSUMED_"""


@dataclass(frozen=True, slots=True, kw_only=True)
class SyncFile:
    """A file of one side, with what was found when it was looked at."""

    id: str
    name: str
    side: str
    path: Path
    facts: dict[str, Any]

    @property
    def began_s(self) -> Fraction | None:
        """Seconds since midnight, by its own clock."""
        began = self.facts["began_s"]
        return None if began is None else exact_s(began)

    @property
    def seconds(self) -> float:
        return float(self.facts["duration_s"])

    @property
    def rate_hz(self) -> int:
        return int(self.facts["rate_hz"])

    @property
    def frame_rate(self) -> Fraction | None:
        """Pictures a second; None where it has none, or at a rate that nobody uses."""
        name = self.facts["frame_rate"]
        return None if name is None else FrameRate.parse(name).ratio

    @property
    def has_sound(self) -> bool:
        return bool(self.facts["sample_count"])

    def sound(self) -> Sound:
        return Sidecars(self.path).sound(self.rate_hz)


@dataclass(frozen=True, slots=True, kw_only=True)
class Clip:
    """A camera file over a recorder file. offset_s: as it was found, positive where it begins later.

    drift_ppm, polarity: of the camera's, as `Synced` has them. by_hand: somebody said so; nudge_samples: moved since, in
    samples of the recorder file.
    """

    reference: str
    other: str
    offset_s: float
    method: Method
    confidence: float
    drift_ppm: float | None = None
    polarity: int = 1
    by_hand: bool = False
    nudge_samples: int = 0

    def document(self) -> dict[str, Any]:
        return asdict(self)

    @classmethod
    def of(cls, raw: dict[str, Any]) -> "Clip":
        return cls(**{**raw, "method": Method(raw["method"])})

    def moved_s(self, rate_hz: int) -> float:
        """The offset with what it was nudged by since."""
        return self.offset_s + (self.nudge_samples / rate_hz if rate_hz else 0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class ClapGuess:
    """Where a camera file that was found nowhere may lie, by a single clap: its moments in both files."""

    reference: str
    other: str
    reference_s: float
    other_s: float
    confidence: float


@dataclass(frozen=True, slots=True, kw_only=True)
class FileTimeline:
    """Files that hang together. starts_s: where it begins, in seconds since midnight, 0 where nobody has a clock.

    begins_s: of each file by id, from there.
    """

    starts_s: float
    has_clock: bool
    begins_s: dict[str, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Layout:
    """Every camera file's best place by its id, and all files on timelines, those of several files first.

    disputed: by camera file, where its timecode puts it on the same recorder file, if that is another place.
    """

    clips: dict[str, Clip]
    disputed: dict[str, float]
    timelines: tuple[FileTimeline, ...]


def match_files(files: Sequence[SyncFile], progress: Callable[[float], None], *, sure: float = FOUND) -> list[Clip]:
    """Where camera files lie in recorder files: by their clocks, by what both hear, by claps; the surest counts.

    What both hear near where their clocks say makes that sharp; what both hear somewhere else stands beside it.

    A file may lie in several; what lies in none is in no clip. Where there is no recorder, the longest camera file stands
    for it.

    sure: confidence from which it counts as found.
    """
    references = [file for file in files if file.side == RECORDER] or [max(files, key=lambda file: file.seconds)]
    others = [file for file in files if file not in references]
    clips: list[Clip] = []
    unheard: list[SyncFile] = []
    settled = 0
    for number, other in enumerate(others, start=1):
        by_clock = _by_clock(references, other)
        heard = [_heard_there(reference, other, clip) for reference, clip in by_clock]
        clips += [found or clip for found, (_, clip) in zip(heard, by_clock, strict=True)]
        if not any(heard):
            unheard.append(other)
        settled = number - len(unheard)
        progress(settled / len(others))
    clips += _by_sound(
        references, unheard, sure, lambda share: progress((settled + share * len(unheard)) / len(others))
    )
    clips += [clip for other in others for reference in references if (clip := _by_claps(reference, other))]
    progress(1.0)
    return [clip for clip in clips if clip.confidence >= sure]


def clock_offset_s(reference: SyncFile, other: SyncFile) -> float | None:
    """How much later the other begins by their clocks; None where not both have one."""
    first, second = reference.began_s, other.began_s
    return None if first is None or second is None else float(apart(first, second))


def _by_clock(references: Sequence[SyncFile], other: SyncFile) -> list[tuple[SyncFile, Clip]]:
    """In those that ran at the same time, by their clocks; where none did, beside the nearest one."""
    clocked = [(file, offset_s) for file in references if (offset_s := clock_offset_s(file, other)) is not None]
    together = [(file, at) for file, at in clocked if min(file.seconds, at + other.seconds) > max(0.0, at)]
    sure = BY_TIMECODE if together else NOT_TOGETHER
    return [
        (file, Clip(reference=file.id, other=other.id, offset_s=at, method=Method.TIMECODE, confidence=sure))
        for file, at in together or sorted(clocked, key=lambda item: abs(item[1]))[:1]
    ]


def _heard_there(reference: SyncFile, other: SyncFile, clip: Clip) -> Clip | None:
    """What both hear where their clocks say, to the sample; None where they hear nothing in common there."""
    if not (reference.has_sound and other.has_sound):
        return None
    found = heard_near(reference.sound(), other.sound(), clip.offset_s)
    if found is None:
        return None
    return replace(
        clip,
        offset_s=found.offset_s,
        drift_ppm=found.drift_ppm,
        polarity=found.polarity,
        confidence=max(clip.confidence, round(found.confidence, 4)),
    )


def _by_sound(
    references: Sequence[SyncFile], others: Sequence[SyncFile], sure: float, progress: Callable[[float], None]
) -> list[Clip]:
    ours, theirs = ([file for file in side if file.has_sound] for side in (references, others))
    found = match_many([file.sound() for file in ours], [file.sound() for file in theirs], sure, progress)
    return [
        Clip(
            reference=ours[item.reference].id,
            other=theirs[item.other].id,
            offset_s=item.alignment.offset_s,
            method=Method.WAVEFORM,
            confidence=round(item.alignment.confidence, 4),
            drift_ppm=item.alignment.drift_ppm,
            polarity=item.alignment.polarity,
        )
        for item in found
    ]


def _by_claps(reference: SyncFile, other: SyncFile) -> Clip | None:
    """By the first edges of claps that both hear: several of them, for one on each may be two different ones."""
    found = by_claps(reference.facts["claps_s"], other.facts["claps_s"])
    if found is None:
        return None
    return Clip(reference=reference.id, other=other.id, offset_s=found[0], method=Method.CLAP, confidence=found[1])


def guesses(files: Sequence[SyncFile], layout: Layout) -> list[ClapGuess]:
    """Of each camera file that was found nowhere the likeliest place by a clap; none of one that has no clap."""
    references = [file for file in files if file.side == RECORDER]
    found = []
    for other in files:
        if other.side == RECORDER or other.id in layout.clips:
            continue
        tried = [
            ClapGuess(
                reference=reference.id, other=other.id, reference_s=place[0], other_s=place[1], confidence=place[2]
            )
            for reference in references
            if (place := likeliest_clap(reference.facts["claps_s"], other.facts["claps_s"])) is not None
        ]
        found += sorted(tried, key=lambda guess: -guess.confidence)[:1]
    return found


def lay_out(files: Sequence[SyncFile], clips: Sequence[Clip]) -> Layout:
    """All files on timelines: those that clips tie together, and those that have a clock of the same day."""
    number = {file.id: index for index, file in enumerate(files)}
    best: dict[str, Clip] = {}
    ties = []
    for clip in sorted(clips, key=lambda item: (not item.by_hand, -item.confidence)):
        if clip.reference not in number or clip.other not in number:
            continue  # one of them was removed since
        best.setdefault(clip.other, clip)
        offset_s = clip.moved_s(files[number[clip.reference]].rate_hz)
        ties.append(
            PairOffset(number[clip.reference], number[clip.other], offset_s, 2.0 if clip.by_hand else clip.confidence)
        )
    moments = [(file, file.began_s) for file in files]
    clocked = [(number[file.id], began) for file, began in moments if began is not None]
    for (first, one), (second, two) in pairwise(clocked):
        ties.append(PairOffset(first, second, float(apart(one, two)), BY_TIMECODE))
    clocks = {
        clip.other: clock_offset_s(files[number[clip.reference]], files[number[clip.other]]) for clip in best.values()
    }
    disputed = {
        other: offset_s
        for other, offset_s in clocks.items()
        if offset_s is not None and abs(best[other].offset_s - offset_s) > DISPUTED_S
    }
    lines = [_timeline(files, line) for line in timelines(len(files), ties)]
    return Layout(
        clips=best, disputed=disputed, timelines=tuple(sorted(lines, key=lambda line: len(line.begins_s) < 2))
    )


def _timeline(files: Sequence[SyncFile], line: dict[int, float]) -> FileTimeline:
    """By the clock where one of its files has one, else from its earliest on."""
    clocks = [(began, at) for item, at in line.items() if (began := files[item].began_s) is not None]
    starts_s = (float(clocks[0][0]) - clocks[0][1]) % DAY_S if clocks else 0.0
    return FileTimeline(
        starts_s=starts_s, has_clock=bool(clocks), begins_s={files[item].id: at for item, at in line.items()}
    )


def placed_file(file: SyncFile, layout: Layout, line: FileTimeline) -> PlacedFile:
    """A file of a timeline, as exports take it."""
    clip = layout.clips.get(file.id)
    return PlacedFile(
        name=file.name,
        is_picture=file.side == CAMERA,
        begins_s=exact_s(line.begins_s[file.id]),
        seconds=exact_s(file.seconds),
        own_start_s=file.began_s or Fraction(0),
        drift_ppm=clip.drift_ppm if clip else None,
        polarity=clip.polarity if clip else 1,
        method=("by hand" if clip.by_hand else str(clip.method)) if clip else "",
        confidence=clip.confidence if clip else 0.0,
    )


def exact_s(seconds: float) -> Fraction:
    """Seconds to the nanosecond, as exports count them."""
    return Fraction(seconds).limit_denominator(10**9)
