"""How a telephone on the set's own network comes to a page."""

from typing import Annotated

from fastapi import APIRouter, Query, Request, Response

from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.errors import NotFoundError
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.nearby import Nearby

router = APIRouter(prefix="/nearby", tags=["nearby"], responses=PROBLEMS)
Page = Annotated[str, Query(max_length=200, pattern="^/[a-z0-9/-]*$", description="Page of the application")]


class NearbyOut(Out):
    """The address of a page for telephones, with the key; null where nobody is let in."""

    link: str | None


@router.get("")
def read_nearby(request: Request, page: Page = "/") -> NearbyOut:
    """How a telephone comes to a page."""
    nearby: Nearby | None = request.app.state.nearby
    return NearbyOut(link=None if nearby is None else nearby.link(page))


@router.get("/code.svg", response_class=Response, responses={200: {"content": {"image/svg+xml": {}}}})
def read_code(request: Request, page: Page = "/") -> Response:
    """The same as a square of dots for a camera."""
    nearby: Nearby | None = request.app.state.nearby
    if nearby is None:
        raise NotFoundError("nobody is let in from the network: start with --nearby")
    return Response(nearby.code(page), media_type="image/svg+xml")
