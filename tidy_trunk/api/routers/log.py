"""The log of the day: taps by however many people at once, the report, and the plan as it was in a take."""

from typing import Annotated, Final, Literal
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Query, Request, Response

from tidy_trunk.api.dependencies import DayPackage, ItemId, LogOfDay, PieceOf, Recordings, SceneNotes
from tidy_trunk.api.schemas.jobs import PROBLEMS, JobStateOut
from tidy_trunk.api.schemas.log import PHOTO_BODY, LogEntriesIn, PhotoIn
from tidy_trunk.api.schemas.recordings import SOUND_BODY
from tidy_trunk.core.log import LONGEST_SLATE
from tidy_trunk.results.log import HeardTimecodeOut, LogOut
from tidy_trunk.results.numbers import Out
from tidy_trunk.results.scene_notes import SceneNotesOut
from tidy_trunk.services.log import heard_timecode
from tidy_trunk.tasks.requests import ReadTimecodeAtEnd

router = APIRouter(prefix="/jobs/{job_id}/log", tags=["log"], responses=PROBLEMS)

TYPES: Final = {
    "pdf": "application/pdf",
    "csv": "text/csv",
    "txt": "text/plain; charset=utf-8",
    "json": "application/json",
    "edl": "text/plain",
    "otio": "application/json",
    "zip": "application/zip",
}
"""Kinds of files of a report. [RFC9110]"""


class SeqOut(Out):
    """seq: rises with each entry."""

    seq: int


@router.get("")
def read_log(job_id: UUID, log: LogOfDay) -> LogOut:
    """The log as far as it is: takes, what comes next, what cannot be right."""
    return log.view(job_id)


@router.get("/seq")
def read_last(job_id: UUID, log: LogOfDay) -> SeqOut:
    """The number of the newest entry: whoever has it need not read the log again."""
    return SeqOut(seq=log.last(job_id))


@router.get("/scene")
def read_scene_notes(
    job_id: UUID,
    notes: SceneNotes,
    slate: Annotated[str, Query(max_length=LONGEST_SLATE, description="Whose scene: 12C is of scene 12")] = "",
) -> SceneNotesOut:
    """What is to be known of a scene while it is shot: level marks from rehearsal, how a take is played back, the stream."""
    return notes.view(job_id, slate)


@router.post("")
def add_to_log(job_id: UUID, body: LogEntriesIn, log: LogOfDay) -> LogOut:
    """Taps in any order, late ones too; none takes the place of another, and one that is sent again is the same."""
    return log.add(job_id, [entry.to_core() for entry in body.entries], body.sent)


@router.post("/timecode", openapi_extra=SOUND_BODY)
async def hear_timecode(
    job_id: UUID, piece: PieceOf, request: Request, log: LogOfDay, recordings: Recordings
) -> HeardTimecodeOut:
    """What timecode comes in through a sound input, at the end of a recording of it; nothing is kept."""
    rate = await to_thread.run_sync(log.rate, job_id)
    found = await recordings.look(piece, ReadTimecodeAtEnd(rate=rate), request.stream())
    return heard_timecode(found, rate)


@router.post("/photos", openapi_extra=PHOTO_BODY)
async def add_photo(
    job_id: UUID,
    what: Annotated[PhotoIn, Query()],
    piece: PieceOf,
    request: Request,
    log: LogOfDay,
    recordings: Recordings,
) -> LogOut:
    """A photograph of a setting (JPEG, PNG or WebP): kept small, without where it was taken; sent again it is the same."""
    jpeg = await recordings.shrunk(piece, request.stream())
    return await to_thread.run_sync(log.add_photo, job_id, what.to_core(), jpeg)


@router.get("/photos/{photo_id}", response_class=Response, responses={200: {"content": {"image/jpeg": {}}}})
def read_photo(job_id: UUID, photo_id: UUID, log: LogOfDay) -> Response:
    """A photograph of the log."""
    return Response(log.photo(job_id, photo_id), media_type="image/jpeg")


@router.delete("/photos/{photo_id}")
def remove_photo(job_id: UUID, photo_id: UUID, log: LogOfDay) -> LogOut:
    """Remove a photograph; that there was one stays in the log's entries."""
    return log.remove_photo(job_id, photo_id)


@router.get("/takes/{take_id}/plan")
def read_plan_of_take(job_id: UUID, take_id: ItemId, log: LogOfDay) -> JobStateOut:
    """The job as it was when a take began: every setting in force."""
    return JobStateOut.from_core(log.state_of(job_id, take_id))


@router.get(
    "/report.{kind}", response_class=Response, responses={200: {"content": {kind: {} for kind in TYPES.values()}}}
)
def read_report(
    job_id: UUID,
    kind: Literal["pdf", "csv", "txt", "json", "edl", "otio", "zip"],
    log: LogOfDay,
    whole: DayPackage,
    paper: Annotated[Literal["a4", "letter"], Query(description="Of the PDF")] = "a4",
) -> Response:
    """The sound report; as EDL or OpenTimelineIO the circled takes, one after the other, with two seconds before and behind
    each; as ZIP all of it, with the day, settings, patch and plan."""
    name, data = whole.zipped(job_id, paper) if kind == "zip" else log.report(job_id, kind, paper)
    return Response(data, media_type=TYPES[kind], headers={"Content-Disposition": f'attachment; filename="{name}"'})
