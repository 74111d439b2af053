"""A job on paper: patch diagram, settings, runs, cable labels, a card for the wallet."""

from typing import Annotated, Final, Literal
from uuid import UUID

from fastapi import APIRouter, Path, Query, Request, Response

from tidy_trunk.api.dependencies import Papers
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.reports import LABEL_PAPERS
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.guests import LocalNetwork

router = APIRouter(prefix="/jobs/{job_id}/paper", tags=["paper"], responses=PROBLEMS)

TYPES: Final = {"pdf": "application/pdf", "svg": "image/svg+xml", "csv": "text/csv"}
"""Kinds of files. [RFC9110]"""


class LabelPaperOut(Out):
    id: str
    label: str


@router.get("/labels")
def read_label_papers(job_id: UUID) -> list[LabelPaperOut]:
    """Label sheets and tapes that labels can be printed on."""
    return [LabelPaperOut(id=name, label=paper.label) for name, paper in LABEL_PAPERS.items()]


@router.get(
    "/{what}.{kind}", response_class=Response, responses={200: {"content": {kind: {} for kind in TYPES.values()}}}
)
@heavy
def read_paper(
    job_id: UUID,
    what: Annotated[str, Path(max_length=20, description="patch, settings, runs, labels or card")],
    kind: Literal["pdf", "svg", "csv"],
    request: Request,
    papers: Papers,
    paper: Annotated[str, Query(max_length=10, description="a4 or letter; of the patch also a3")] = "a4",
    label: Annotated[str, Query(max_length=20, description="Of labels: one of those that /labels lists")] = "a4-24",
    skip: Annotated[int, Query(ge=0, le=100, description="Labels that are used up on the first sheet")] = 0,
) -> Response:
    """One of them as a file; the same state of the plan gives the same bytes."""
    network: LocalNetwork | None = request.app.state.network
    address = str(request.base_url).rstrip("/") if network is None else network.address
    data = papers.paper(job_id, what, kind, paper, label=label, skip=skip, address=address)
    headers = {"Content-Disposition": f'inline; filename="{what}.{kind}"'}
    return Response(data, media_type=TYPES[kind], headers=headers)
