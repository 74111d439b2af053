"""My equipment: classes of one's own, read, changed, taken in and given out as files."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Body, Path, Query, Response

from tidy_trunk.api.dependencies import Equipment, LinedUpPairs, OwnId
from tidy_trunk.api.schemas.equipment import (
    ClassDraftOut,
    ClassFileIn,
    ClassFilesIn,
    DatasheetIn,
    DatasheetOut,
    JobClassOut,
    LinedUpPairOut,
    OwnClassOut,
    TestJobOut,
    TrackMovedOut,
)
from tidy_trunk.api.schemas.jobs import PROBLEMS

router = APIRouter(tags=["equipment"], responses=PROBLEMS)
ClassId = Annotated[str, Path(pattern=r"^[a-z0-9][a-z0-9-]{0,60}$")]


@router.get("/equipment")
def list_equipment(equipment: Equipment) -> list[OwnClassOut]:
    """All classes of one's own, by name."""
    return [OwnClassOut.from_service(own) for own in equipment.all()]


@router.post("/equipment", status_code=201)
def save_equipment(body: ClassFilesIn, equipment: Equipment) -> list[OwnClassOut]:
    """Files of classes: all of them are taken, or none. What has such an id already is replaced."""
    files = [(file.name, file.content()) for file in body.files]
    return [OwnClassOut.from_service(own) for own in equipment.save(files)]


@router.get("/equipment-archive", response_class=Response, responses={200: {"content": {"application/zip": {}}}})
def read_archive(equipment: Equipment) -> Response:
    """All classes of one's own in one file."""
    headers = {"Content-Disposition": 'attachment; filename="my-equipment.zip"'}
    return Response(equipment.archive(), media_type="application/zip", headers=headers)


@router.post("/equipment-archive", status_code=201)
def save_archive(
    body: Annotated[bytes, Body(media_type="application/octet-stream", examples=["PK…"])],
    equipment: Equipment,
    name: Annotated[str, Query(max_length=200, description="Name of the file, for messages")] = "archive.zip",
) -> list[OwnClassOut]:
    """An archive of classes: all of them are taken, or none. What has such an id already is replaced."""
    return [OwnClassOut.from_service(own) for own in equipment.save_archive(body, name)]


@router.post("/equipment/preview")
def preview_class(body: ClassFileIn, equipment: Equipment) -> ClassDraftOut:
    """What a file says, with nothing kept."""
    return ClassDraftOut.from_core(equipment.read(body.content(), body.name))


@router.post("/equipment/datasheet")
def read_datasheet(body: DatasheetIn, equipment: Equipment) -> DatasheetOut:
    """One position of an input with what a manual says about it."""
    return DatasheetOut(mode=equipment.from_datasheet(body.mode, body.to_core()))


@router.get("/equipment/{class_id}")
def read_class_draft(class_id: ClassId, equipment: Equipment) -> ClassDraftOut:
    """A class of one's own, to be changed."""
    return ClassDraftOut.from_core(equipment.get(class_id).item)


@router.get(
    "/equipment/{class_id}/file", response_class=Response, responses={200: {"content": {"application/toml": {}}}}
)
def read_class_file(class_id: ClassId, equipment: Equipment) -> Response:
    """A class of one's own as a file."""
    headers = {"Content-Disposition": f'attachment; filename="{class_id}.toml"'}
    return Response(equipment.file(class_id), media_type="application/toml", headers=headers)


@router.post("/equipment/{class_id}/test-job", status_code=201)
def create_test_job(class_id: ClassId, own_id: OwnId, equipment: Equipment) -> TestJobOut:
    """A job in which a device of one's own can be tested, with another that sends it tone."""
    return TestJobOut(job=equipment.test_job(class_id, own_id).revision.job)


@router.delete("/equipment/{class_id}", status_code=204)
def delete_class(class_id: ClassId, equipment: Equipment) -> None:
    """Take a class out of My equipment. Jobs keep their copies."""
    equipment.delete(class_id)


@router.get("/equipment-pairs")
def list_pairs(pairs: LinedUpPairs) -> list[LinedUpPairOut]:
    """Pairs of devices that were lined up in any job, the newest first."""
    return [LinedUpPairOut.from_core(pair) for pair in pairs.all()]


@router.delete("/equipment-pairs", status_code=204)
def forget_pair(key: Annotated[str, Query(min_length=1, max_length=2000)], pairs: LinedUpPairs) -> None:
    """Forget what was found of a pair. Jobs keep their readings."""
    pairs.forget(key)


@router.get("/built-in/{class_id}")
def read_built_in_draft(class_id: ClassId, equipment: Equipment) -> ClassDraftOut:
    """A built-in class under an id and a name of one's own, to begin from."""
    return ClassDraftOut.from_core(equipment.begin_from(class_id))


@router.get("/jobs/{job_id}/classes")
def list_job_classes(job_id: UUID, equipment: Equipment) -> list[JobClassOut]:
    """The classes of one's own in a job, each held against My equipment."""
    return [JobClassOut.from_service(found) for found in equipment.in_job(job_id)]


@router.post("/jobs/{job_id}/classes/try")
def try_class(job_id: UUID, body: ClassFileIn, equipment: Equipment) -> list[TrackMovedOut]:
    """What another description of a class does to the levels of a job that uses it."""
    return [TrackMovedOut.from_service(moved) for moved in equipment.try_in_job(job_id, body.content(), body.name)]


@router.post("/jobs/{job_id}/classes/{class_id}/keep", status_code=201)
def keep_class(job_id: UUID, class_id: ClassId, equipment: Equipment) -> OwnClassOut:
    """Take a class of a job into My equipment, with what was measured of its knobs."""
    return OwnClassOut.from_service(equipment.keep(job_id, class_id))
