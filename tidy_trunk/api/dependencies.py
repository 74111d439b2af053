"""What routers ask for."""

from typing import Annotated

from fastapi import Depends, Path, Request

from tidy_trunk.services.bench import BenchService
from tidy_trunk.services.bench_recordings import BenchRecordings as BenchRecordingsService
from tidy_trunk.services.clock import ClockService
from tidy_trunk.services.compare import CompareService
from tidy_trunk.services.container import Services
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.line_up import LineUpService
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.services.syncing import SyncService
from tidy_trunk.services.walks import WalkService


def _services(request: Request) -> Services:
    services: Services = request.app.state.services
    return services


def _jobs(request: Request) -> JobService:
    return _services(request).jobs


def _recordings(request: Request) -> RecordingService:
    return _services(request).recordings


def _line_up(request: Request) -> LineUpService:
    return _services(request).line_up


def _bench(request: Request) -> BenchService:
    return _services(request).bench


def _bench_recordings(request: Request) -> BenchRecordingsService:
    return _services(request).bench_recordings


def _compare(request: Request) -> CompareService:
    return _services(request).compare


def _clock(request: Request) -> ClockService:
    return _services(request).clock


def _sync(request: Request) -> SyncService:
    return _services(request).sync


def _walks(request: Request) -> WalkService:
    return _services(request).walks


Clock = Annotated[ClockService, Depends(_clock)]
Compare = Annotated[CompareService, Depends(_compare)]
BenchRecordings = Annotated[BenchRecordingsService, Depends(_bench_recordings)]
Sync = Annotated[SyncService, Depends(_sync)]
Walks = Annotated[WalkService, Depends(_walks)]
Bench = Annotated[BenchService, Depends(_bench)]
Jobs = Annotated[JobService, Depends(_jobs)]
Recordings = Annotated[RecordingService, Depends(_recordings)]
LineUp = Annotated[LineUpService, Depends(_line_up)]
ItemId = Annotated[str, Path(min_length=1, max_length=120)]
"""ASSUMED_ longest id of a run, device or track in an address."""
