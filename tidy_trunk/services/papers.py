"""A job on paper: patch diagram, settings, runs, labels, and a card for the wallet."""

from collections.abc import Mapping
from datetime import datetime
from typing import Final
from uuid import UUID

from tidy_trunk.errors import NotFoundError
from tidy_trunk.reports import (
    cable_ends,
    label_pages,
    labels_pdf,
    patch_pdf,
    patch_svg,
    run_list_csv,
    run_list_sheet,
    settings_sheet,
    wallet_card,
)
from tidy_trunk.results.patch import PatchOut, PatchRunOut, must_be_right, patch_of, settings_of
from tidy_trunk.services.jobs import JobService, JobState

PAPERS: Final[Mapping[str, tuple[str, ...]]] = {
    "patch": ("svg", "pdf"),
    "settings": ("pdf",),
    "runs": ("pdf", "csv"),
    "labels": ("pdf",),
    "card": ("pdf",),
}
"""What there is on paper, and as which kinds of file. ASSUMED_"""


class PaperService:
    """Everything says the state of the plan that it was made from; the same state gives the same bytes."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def paper(
        self, job_id: UUID, what: str, kind: str, paper: str, *, label: str = "", skip: int = 0, address: str = ""
    ) -> bytes:
        """One of `PAPERS` as a file. label, skip, address: of labels: their kind, how many are used up on the first sheet, and
        where this program is reached.

        Raises:
            NotFoundError: No such job, or no such paper.
            InputError: A size of paper or label that there is not.
        """
        if kind not in PAPERS.get(what, ()):
            known = ", ".join(f"{one}.{ending}" for one, kinds in PAPERS.items() for ending in kinds)
            raise NotFoundError(f"there is no paper {what[:20]}.{kind[:10]}: there are {known}")
        state = self._jobs.newest(job_id)
        patch, made = patch_of(state.evaluation.report.index), state.revision.created.replace(microsecond=0)
        match what, kind:
            case "patch", "svg":
                return patch_svg(patch)
            case "patch", _:
                return patch_pdf(patch, paper=paper, made=made)
            case "runs", "csv":
                return run_list_csv(patch)
            case "runs", _:
                return run_list_sheet(patch, paper=paper, made=made)
            case "labels", _:

                def run_address(run: PatchRunOut) -> str:
                    return f"{address}/jobs/{job_id}/runs?run={run.id}"

                pages = label_pages(cable_ends(patch.runs), label, run_address, skip)
                return labels_pdf(pages, patch.job, made)
            case "card", _:
                return wallet_card(patch.job, must_be_right(state.evaluation.report), made)
        return settings_paper(state, patch, paper, made)

    def package(self, job_id: UUID, paper: str) -> dict[str, bytes]:
        """What goes along with a day's papers."""
        return {
            "settings.pdf": self.paper(job_id, "settings", "pdf", paper),
            "patch.pdf": self.paper(job_id, "patch", "pdf", paper),
            "patch.svg": self.paper(job_id, "patch", "svg", paper),
            "runs.csv": self.paper(job_id, "runs", "csv", paper),
        }


def settings_paper(state: JobState, patch: PatchOut, paper: str, made: datetime) -> bytes:
    return settings_sheet(patch.job, patch, settings_of(state.evaluation.report), paper=paper, made=made)
