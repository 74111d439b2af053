"""Changes of a job, as they happen."""

from collections.abc import AsyncIterable
from typing import Final
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel

from tidy_trunk.api.dependencies import LiveNews
from tidy_trunk.store import ChangedPart

OF_GUESTS_S: Final = 60.0
"""ASSUMED_ time for which a guest is told news: then its browser asks again, and its key is looked at again."""

router = APIRouter(prefix="/jobs/{job_id}", tags=["jobs"])


class NewsOut(BaseModel):
    """What has changed; revision: the newest one of the plan, 0 where it is something else or unknown."""

    what: ChangedPart
    revision: int


@router.get("/news", response_class=EventSourceResponse)
async def hear_news(request: Request, job_id: UUID, news: LiveNews) -> AsyncIterable[NewsOut]:
    """Server-sent events, one for each change of a job; the first says that one should look. It ends with the program."""
    async for item in news.of(job_id, None if request.scope.get("guest") is None else OF_GUESTS_S):
        yield NewsOut(what=item.what, revision=item.revision)
