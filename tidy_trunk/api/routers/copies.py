"""Copies of all jobs on this machine, and everything as one file."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Path
from fastapi.responses import FileResponse

from tidy_trunk.api.dependencies import Copies
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.results.numbers import Out
from tidy_trunk.upkeep.copies import Copy

router = APIRouter(tags=["copies"], responses=PROBLEMS)
BACKUP: dict[int | str, dict[str, Any]] = {200: {"content": {"application/octet-stream": {}}}}


class CopyOut(Out):
    """A copy of all jobs with their history, without sounds; size in bytes."""

    name: str
    made: datetime
    size: int


class CopiesOut(Out):
    """The copies, the newest first; trouble: why none could be made the last time, empty where one was."""

    copies: list[CopyOut]
    trouble: str


def _out(copy: Copy) -> CopyOut:
    return CopyOut(name=copy.name, made=copy.made, size=copy.size)


@router.get("/copies")
def list_copies(copies: Copies) -> CopiesOut:
    """The copies that were made, one a day, and kept for 7 days, 4 weeks and 6 months."""
    return CopiesOut(copies=[_out(copy) for copy in copies.all()], trouble=copies.trouble)


@router.post("/copies", status_code=201)
def make_copy(copies: Copies) -> CopyOut:
    """One now."""
    return _out(copies.make())


@router.get("/copies/{name}", response_class=FileResponse, responses=BACKUP)
def read_copy(copies: Copies, name: Annotated[str, Path(max_length=60)]) -> FileResponse:
    """A copy, as `./tidy restore` reads it."""
    return FileResponse(copies.path(name), filename=f"tidy-trunk-{name}", content_disposition_type="attachment")


def _everything(copies: Copies) -> Iterator[FileResponse]:
    with copies.everything() as path:
        yield FileResponse(path, filename=path.name, content_disposition_type="attachment")


@router.get("/everything", response_class=FileResponse, responses=BACKUP)
def read_everything(archive: Annotated[FileResponse, Depends(_everything)]) -> FileResponse:
    """All jobs with their history, walks, recordings and sounds in one checked file, as `./tidy restore` reads it."""
    return archive
