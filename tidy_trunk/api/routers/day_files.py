"""The files of a day on this machine: read, held against the log, copied, simulated. For whoever sits at it."""

from typing import Annotated, Final, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.dependencies import DayFiles
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.day_files import (
    CopyFilesIn,
    DayCopiesOut,
    DayFilesOut,
    FileTaskOut,
    MendIn,
    PlayDayIn,
    PlayedDayOut,
    ReadFolderIn,
)
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.files import FilesOut
from tidy_trunk.store import RecordingState

router = APIRouter(prefix="/jobs/{job_id}/files", tags=["files"], responses=PROBLEMS)


TYPES: Final = {"pdf": "application/pdf", "csv": "text/csv"}
"""Kinds of files of a sheet. [RFC9110]"""


@router.get("")
@heavy
def read_day_files(job_id: UUID, files: DayFiles) -> DayFilesOut:
    """What was read, found, copied and simulated so far."""
    read, copies, played = files.last(job_id), files.last_copy(job_id), files.last_play(job_id)
    is_read = read is not None and read.state is RecordingState.DONE
    return DayFilesOut(
        read=None if read is None else FileTaskOut.from_record(read),
        found=files.beside_log(job_id) if is_read else None,
        copies=None if copies is None else DayCopiesOut.from_record(copies),
        played=None if played is None else PlayedDayOut.from_record(played),
    )


@router.post("/read", status_code=202)
def read_folder(job_id: UUID, body: ReadFolderIn, files: DayFiles) -> FileTaskOut:
    """Begin to read the recordings below a folder; what was read before is forgotten."""
    return FileTaskOut.from_record(files.read(job_id, body.folder, with_sound=body.with_sound))


@router.post("/copies", status_code=202)
def copy_files(job_id: UUID, body: CopyFilesIn, files: DayFiles) -> FileTaskOut:
    """Begin to copy what was read, with labels that are right; each copy is read again before it is called good."""
    return FileTaskOut.from_record(files.copy(job_id, body.into, body.second, mono=body.mono))


@router.post("/simulated", status_code=202)
def play_day(job_id: UUID, body: PlayDayIn, files: DayFiles) -> FileTaskOut:
    """Begin to write the files that simulated devices would have of the takes in the log, with faults."""
    return FileTaskOut.from_record(files.play(job_id, body.seed, body.faults))


@router.get(
    "/for-the-edit.{kind}", response_class=Response, responses={200: {"content": {kind: {} for kind in TYPES.values()}}}
)
@heavy
def read_hand_over(
    job_id: UUID,
    kind: Literal["pdf", "csv"],
    files: DayFiles,
    paper: Annotated[Literal["a4", "letter"], Query(description="Of the PDF")] = "a4",
) -> Response:
    """What the edit wants to know of every clip: who is on which track, what to mute, whether picture and sound agree."""
    name, data = files.hand_over(job_id, kind, paper)
    return Response(data, media_type=TYPES[kind], headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get("/together.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
def hear_together(
    job_id: UUID,
    files: DayFiles,
    picture: Annotated[str, Query(max_length=1000, description="Path of a camera's file, as it was read")],
    by_ear: Annotated[bool, Query(description="Laid as both are heard, where that is known, not by timecode")] = False,
) -> Response:
    """A camera's guide and the recorder's sound in one, twelve seconds where most is heard: an echo says that they are apart."""
    return Response(files.together(job_id, picture, by_ear=by_ear), media_type="audio/wav")


@router.post("/mend")
@heavy
def mend_log(job_id: UUID, body: MendIn, files: DayFiles) -> FilesOut:
    """Put the log right by a file."""
    return files.mend(job_id, body.path, body.fix)


@router.delete("/tasks/{task_id}", status_code=204)
def end_task(job_id: UUID, task_id: UUID, files: DayFiles) -> None:
    """Nobody waits for it any more: reading or copying ends, and what was copied whole stays."""
    files.cancel(job_id, task_id)
