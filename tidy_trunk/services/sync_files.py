"""Files of recorders and cameras that a user lays over each other: dropped in, matched, looked at, moved, written out."""

from base64 import b64decode
from collections.abc import AsyncIterable, Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any, Final
from uuid import UUID

from tidy_trunk.core.base.timecode import FrameRate, at_seconds
from tidy_trunk.core.plan import Defaults
from tidy_trunk.errors import InputError, NotFoundError, RangeError
from tidy_trunk.exports import EXPORTS, PlacedTimeline
from tidy_trunk.media.uploads import UploadChunk
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.sync.layout import (
    CAMERA,
    RECORDER,
    ClapGuess,
    Clip,
    FileTimeline,
    Layout,
    SyncFile,
    exact_s,
    guesses,
    lay_out,
    placed_file,
)
from tidy_trunk.sync.methods import Method
from tidy_trunk.sync.side_by_side import AlignedSound, check_stretch, left_and_right
from tidy_trunk.tasks.requests import LookAt, Match, TakeStill, WriteAligned, request_of

"""What a record is that says where files lie. ASSUMED_"""

MOST_FILES: Final = 200
"""ASSUMED_ most files that are laid over each other at once: a long day of both."""

MOST_MOVES: Final = 200
"""ASSUMED_ how many of the last moves by hand are known by their ids: none is sent again much later."""

LONGEST_SEEN_S: Final = 86_400.0
"""ASSUMED_ longest stretch that is looked at: a day."""


@dataclass(frozen=True, slots=True)
class SyncView:
    """All that was dropped in, and where it lies.

    match: the newest look at that, which may be under way or have come to nothing; laid: the newest that was done, and stands
    until another is; layout: what that one says; None before the first.
    """

    records: tuple[RecordingRecord, ...]
    files: tuple[SyncFile, ...]
    match: RecordingRecord | None
    laid: RecordingRecord | None
    layout: Layout | None
    defaults: Defaults

    @property
    def rate(self) -> FrameRate:
        """In whose frames everything is counted: the job's."""
        return FrameRate.parse(self.defaults.frame_rate)

    @property
    def is_stale(self) -> bool:
        """Whether files came or went since it was looked at."""
        asked = None if self.laid is None else request_of(self.laid.asked)
        looked_at = {(file["id"], file["side"]) for file in asked.files} if isinstance(asked, Match) else set()
        return looked_at != {(file.id, file.side) for file in self.files}

    @property
    def is_under_way(self) -> bool:
        """Whether files are being laid over each other now."""
        return self.match is not None and not self.match.state.is_over

    @property
    def guesses(self) -> list[ClapGuess]:
        """Where files that were found nowhere may lie."""
        return [] if self.layout is None else guesses(self.files, self.layout)

    def label(self, seconds: float) -> str:
        """A moment of the day as timecode."""
        return str(at_seconds(exact_s(seconds), self.rate))


@dataclass(frozen=True, slots=True)
class Waves:
    """Lowest and highest samples of both in each column of a stretch of the reference's time."""

    at_s: float
    span_s: float
    reference: tuple[list[float], list[float]]
    other: tuple[list[float], list[float]]


class SyncService:
    """One method for one thing that a user does with files that belong together."""

    def __init__(self, jobs: JobService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._recordings = recordings

    async def receive(
        self,
        job_id: UUID,
        file_id: UUID,
        name: str,
        piece: UploadChunk,
        side: str,
        chunks: AsyncIterable[bytes],
    ) -> RecordingRecord | int:
        """Take a piece of a file of a recorder or a camera in, and look at it. As `RecordingService.receive`, and:

        Raises:
            InputError: Neither side, or more files than are laid over each other at once.
        """
        if side not in ("", RECORDER, CAMERA):
            raise InputError(
                f"'{side[:20]}' is neither side: say {RECORDER} or {CAMERA}, or nothing where it is to be told"
            )
        if len(self._of_files(job_id)) >= MOST_FILES:
            raise InputError(f"{MOST_FILES} files are laid over each other at most: remove some first")
        return await self._recordings.receive(job_id, file_id, name, piece, LookAt(side=side), chunks)

    def view(self, job_id: UUID) -> SyncView:
        """Everything as it stands. Raises NotFoundError."""
        defaults = self._jobs.plan(job_id).defaults
        records = self._recordings.to_sync(job_id)
        files = self._ready(records)
        matches = self._matches(records)
        laid = next((record for record in matches if record.result is not None), None)
        layout = None
        if laid is not None and laid.result is not None:
            layout = lay_out(files, [Clip.of(raw) for raw in laid.result["clips"]])
        dropped = sorted((record for record in records if _is_file(record)), key=lambda item: item.name)
        return SyncView(tuple(dropped), tuple(files), next(iter(matches), None), laid, layout, defaults)

    def set_side(self, job_id: UUID, file_id: UUID, side: str) -> None:
        """Of which side a file is, where it was told wrongly. Raises NotFoundError; InputError: neither side."""
        if side not in (RECORDER, CAMERA):
            raise InputError(f"'{side[:20]}' is neither side: say {RECORDER} or {CAMERA}")
        self._recordings.amend(job_id, file_id, lambda facts: {**facts, "side": side})

    def match(self, job_id: UUID) -> RecordingRecord:
        """Begin to lay all files over each other; what was said by hand stays. While that is under way, it is not begun anew.

        What was found before stands until this is done.

        Raises:
            InputError: Nothing that could be laid over something else.
        """
        view = self.view(job_id)
        if view.match is not None and view.is_under_way:
            return view.match
        if len(view.files) < 2 or not any(file.side == CAMERA for file in view.files):
            raise InputError("drop in a camera file and what it belongs to, and wait until both were looked at")
        clips = [] if view.layout is None else view.layout.clips.values()
        request = Match(
            files=tuple(
                {"id": file.id, "name": file.name, "side": file.side, "facts": file.facts} for file in view.files
            ),
            by_hand=tuple(clip.document() for clip in clips if clip.by_hand),
            nudged=tuple(clip.document() for clip in clips if clip.nudge_samples and not clip.by_hand),
        )
        for old in self._matches(self._recordings.to_sync(job_id)):
            if view.laid is None or old.id != view.laid.id:
                self._recordings.delete(job_id, old.id)
        return self._recordings.work_out(job_id, f"{len(view.files)} files over each other", request)

    def cancel(self, job_id: UUID) -> SyncView:
        """Stop looking; what was found before stays as it is."""
        view = self.view(job_id)
        if view.match is not None:
            self._recordings.cancel(job_id, view.match.id)
        return self.view(job_id)

    def remove(self, job_id: UUID, file_id: UUID) -> None:
        """Take a file off the list, with what was kept of it; a look at it that is under way is stopped. Raises NotFoundError."""
        if self.view(job_id).is_under_way:
            self.cancel(job_id)
        self._recordings.delete(job_id, file_id)

    def nudge(self, job_id: UUID, file_id: str, samples: int, request: UUID | None = None) -> None:
        """Move a camera file to so many samples of its recorder file beside where it was found. `request`: done once under it.

        Raises:
            NotFoundError: It was not found anywhere.
        """
        view, clip = self._clip(job_id, file_id)
        self._keep(job_id, view, replace(clip, nudge_samples=samples), request)

    def place(
        self,
        job_id: UUID,
        reference_id: str,
        file_id: str,
        reference_s: float,
        other_s: float | None,
        frame: float | None,
        request: UUID | None = None,
    ) -> None:
        """By hand: a moment of a camera file, or one of its pictures from 0 on, is the same as one of a recorder file.

        `request`: done once under it.

        Raises:
            NotFoundError: No such file.
            InputError: The same file twice, neither a moment nor a picture, a picture of a file that has none, or nothing
                was laid over anything yet.
        """
        view = self.view(job_id)
        reference, other = (_file(view, wanted) for wanted in (reference_id, file_id))
        if reference is other:
            raise InputError(f"{other.name} cannot be placed on itself: name the file that it belongs to")
        if frame is not None:
            if other.frame_rate is None:
                raise InputError(f"{other.name} has no pictures to count: give the moment in seconds")
            other_s = float(frame / other.frame_rate)
        if other_s is None:
            raise InputError("say at which second or in which picture the hands close")
        self._keep(
            job_id,
            view,
            Clip(
                reference=reference.id,
                other=other.id,
                offset_s=reference_s - other_s,
                method=Method.CLAP,
                confidence=1.0,
                by_hand=True,
            ),
            request,
        )

    def still(self, job_id: UUID, file_id: str, frame: int) -> bytes:
        """A picture of a camera file, from 0 on, as JPEG. Raises NotFoundError, RangeError, FormatError."""
        file = _file(self.view(job_id), file_id)
        if file.frame_rate is None:
            raise InputError(f"{file.name} has no pictures to step through")
        last = max(0, int(file.seconds * file.frame_rate) - 1)
        if frame > last:
            raise RangeError(f"{file.name} has pictures 0 to {last}: {frame} is behind its end")
        found = self._recordings.look_into(TakeStill(frame=frame, rate=str(file.frame_rate)), file.path)
        return b64decode(found["jpeg"])

    def _keep(self, job_id: UUID, view: SyncView, clip: Clip, request: UUID | None) -> None:
        """Put a clip in the place of what was found of its file, unless that was done under this id already."""
        if view.laid is None:
            raise InputError("nothing was laid over anything yet: lay the files over each other first")
        if view.is_under_way:
            raise InputError("the files are being laid over each other: wait until that is done, or cancel it")

        def with_clip(result: dict[str, Any]) -> dict[str, Any]:
            done = result.get("moves", [])
            if str(request) in done:
                return result
            others = [
                raw for raw in result["clips"] if (raw["reference"], raw["other"]) != (clip.reference, clip.other)
            ]
            if clip.by_hand:
                others = [raw for raw in others if raw["other"] != clip.other]
            moves = [*done, str(request)] if request is not None else done
            return {"clips": [clip.document(), *others], "moves": moves[-MOST_MOVES:]}

        self._recordings.amend(job_id, view.laid.id, with_clip)

    def waves(self, job_id: UUID, file_id: str, at_s: float, span_s: float) -> Waves:
        """Both over a stretch of the reference's time. Raises NotFoundError, RangeError."""
        check_stretch(at_s, span_s, LONGEST_SEEN_S)
        reference, other = self._laid(job_id, file_id)
        return Waves(at_s, span_s, reference.edges(at_s, span_s), other.edges(at_s, span_s))

    def heard(self, job_id: UUID, file_id: str, at_s: float, span_s: float) -> bytes:
        """The recorder on the left, the camera on the right. Raises NotFoundError, RangeError."""
        return left_and_right(*self._laid(job_id, file_id), at_s, span_s)

    def export(self, job_id: UUID, kind: str, line: int) -> tuple[str, bytes]:
        """A timeline, from 0 on, as a file; its name and what it holds.

        Raises:
            NotFoundError: No such kind or timeline.
            InputError: As the export.
        """
        if kind not in EXPORTS:
            raise NotFoundError(f"'{kind}' is nothing that is written: use {', '.join(EXPORTS)}")
        view = self.view(job_id)
        if view.layout is None or not 0 <= line < len(view.layout.timelines):
            raise NotFoundError("there is no such timeline: lay the files over each other first")
        made = _placed_timeline(view, view.layout, view.layout.timelines[line])
        write: Callable[[PlacedTimeline], bytes] = EXPORTS[kind]
        return f"{made.title}.{kind}", write(made)

    @contextmanager
    def aligned(self, job_id: UUID, file_id: str, *, stretch: bool) -> Iterator[tuple[str, Path]]:
        """A copy of a camera file's sound that says where it begins: its name, and where it lies as long as this is open.

        Raises:
            NotFoundError: It was not found anywhere.
            InputError: Its drift is not known, or it has no sound.
        """
        view, clip = self._clip(job_id, file_id)
        reference, other = (_file(view, wanted) for wanted in (clip.reference, clip.other))
        if not other.has_sound:
            raise InputError(f"{other.name} has no sound that could be written: its place is in the exports")
        if stretch and clip.drift_ppm is None:
            raise InputError(f"the drift of {other.name} is not known: longer files that both hear the same tell it")
        folder = self._recordings.folder
        with self._recordings.aside() as out:
            request = WriteAligned(
                reference=str(reference.path.relative_to(folder)),
                other=str(other.path.relative_to(folder)),
                out=str(out.relative_to(folder)),
                name=other.name,
                offset_s=str(exact_s(clip.moved_s(reference.rate_hz))),
                fps=view.defaults.frame_rate,
                drift_ppm=(clip.drift_ppm or 0.0) if stretch else 0.0,
            )
            self._recordings.look_into(request, folder)
            yield f"{other.name.rpartition('.')[0] or other.name}-aligned.wav", out

    def _laid(self, job_id: UUID, file_id: str) -> tuple[AlignedSound, AlignedSound]:
        view, clip = self._clip(job_id, file_id)
        reference, other = (_file(view, wanted) for wanted in (clip.reference, clip.other))
        for file in (reference, other):
            if not file.has_sound:
                raise InputError(f"{file.name} has no sound: its picture alone is placed")
        moved_s = clip.moved_s(reference.rate_hz)
        return (
            AlignedSound(reference.sound(), 0.0, 0.0, 1),
            AlignedSound(other.sound(), moved_s, clip.drift_ppm or 0.0, clip.polarity),
        )

    def _clip(self, job_id: UUID, file_id: str) -> tuple[SyncView, Clip]:
        view = self.view(job_id)
        clip = view.layout.clips.get(file_id) if view.layout is not None else None
        if clip is None:
            raise NotFoundError(f"the file {file_id} was not found in any other: look at the list")
        return view, clip

    def _matches(self, records: list[RecordingRecord]) -> list[RecordingRecord]:
        """Every look at where the files lie, the newest first."""
        return [record for record in records if isinstance(request_of(record.asked), Match)]

    def _of_files(self, job_id: UUID) -> list[RecordingRecord]:
        return [record for record in self._recordings.to_sync(job_id) if _is_file(record)]

    def _ready(self, records: list[RecordingRecord]) -> list[SyncFile]:
        sides = sides_of(records)
        return [
            SyncFile(
                id=str(record.id),
                name=record.name,
                side=sides[record.id],
                path=self._recordings.kept_at(record.id),
                facts=record.result,
            )
            for record in sorted(records, key=lambda item: item.name)
            if _is_file(record) and record.state is RecordingState.DONE and record.result is not None
        ]


def sides_of(records: Sequence[RecordingRecord]) -> dict[UUID, str]:
    """Which side each file is of: as somebody said, else a movie is a camera's and sound alone a recorder's. Where there are no
    pictures at all the longest file is the recorder's, and the others stand for cameras."""
    files = [record for record in records if _is_file(record)]
    known = {record.id: side for record in files if (side := _said_side(record))}
    sounds = [record for record in files if record.id not in known]
    has_camera = CAMERA in known.values()
    longest = max(sounds, key=lambda item: (item.result or {}).get("duration_s") or 0.0, default=None)
    for record in sounds:
        is_recorder = has_camera or (record is longest and RECORDER not in known.values())
        known[record.id] = RECORDER if is_recorder else CAMERA
    return known


def _said_side(record: RecordingRecord) -> str:
    """The side that somebody said, or that the file's pictures tell; "" for sound of which nobody said."""
    request, facts = request_of(record.asked), record.result or {}
    said = facts.get("side") or (request.side if isinstance(request, LookAt) else "")
    return str(said) or (CAMERA if facts.get("frame_rate") or not facts.get("rate_hz", 1) else "")


def _is_file(record: RecordingRecord) -> bool:
    """Whether it is a file, and no look at where files lie."""
    return isinstance(request_of(record.asked), LookAt)


def _file(view: SyncView, file_id: str) -> SyncFile:
    found = next((file for file in view.files if file.id == file_id), None)
    if found is None:
        raise NotFoundError(f"there is no file {file_id} that was looked at")
    return found


def _placed_timeline(view: SyncView, layout: Layout, line: FileTimeline) -> PlacedTimeline:
    return PlacedTimeline(
        title=f"sync-{layout.timelines.index(line) + 1}",
        rate=view.rate,
        starts_s=exact_s(line.starts_s),
        files=tuple(placed_file(file, layout, line) for file in view.files if file.id in line.begins_s),
    )
