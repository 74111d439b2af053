"""What routers ask for."""

from typing import Annotated

from fastapi import Depends, Path, Request

from tidy_trunk.services.jobs import JobService


def _jobs(request: Request) -> JobService:
    service: JobService = request.app.state.jobs
    return service


Jobs = Annotated[JobService, Depends(_jobs)]
ItemId = Annotated[str, Path(min_length=1, max_length=120)]
"""ASSUMED_ longest id of a run, device or track in an address."""
